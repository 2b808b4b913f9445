package demo_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/demo"
	"frugalheron/store/storetest"
)

// A generated collection is the same each time, however it was interrupted, and goes on where it was.
func TestGeneratedMachinesAreTheSameEachTime(t *testing.T) {
	ctx := context.Background()
	said := []string{}
	collect := func(steps ...int) []string {
		db := storetest.New(t)
		actions := app.New(db)
		for _, n := range steps {
			require.NoError(t, demo.Generate(ctx, actions, n, func(progress string) { said = append(said, progress) }))
		}
		lines := []string{}
		require.NoError(t,
			db.Select(&lines,
				`SELECT concat_ws('|', m.accession, m.name, m.maker, m.model, m.serial, m.era_from, p.name,
					m.provenance, a.title, r.body, t.entries, t.problems)
			FROM machine m JOIN place p ON p.id = m.place_id JOIN fitting f ON f.machine_id = m.id
			JOIN assembly a ON a.id = f.assembly_id
			JOIN sheet_revision r ON r.assembly_id = a.id JOIN sheet_total t ON t.assembly_id = a.id
			ORDER BY m.accession, f.ordinal`))
		var entries int
		require.NoError(t, db.Get(&entries, `SELECT sum(entries + problems) FROM sheet_total`))
		require.Equal(t, 50*steps[len(steps)-1], entries) // a line that is a problem is no entry
		return lines
	}
	at, again := collect(130), collect(7, 7, 130)
	require.Len(t, at, 260)
	require.Equal(t, at, again)
	require.Equal(t, "130 of 130 machines, 6500 entries", said[0])
}
