package app_test

import (
	"testing"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/store/storetest"
)

// newApp returns the application on a database of its own. When the test ends, whatever it did, what follows from
// records must be what a computation from nothing gives.
func newApp(t *testing.T) (*sqlx.DB, *app.App) {
	db := storetest.New(t)
	actions := app.New(db)
	t.Cleanup(func() {
		if !t.Failed() {
			requireProjectionsHold(t, db, actions)
		}
	})
	return db, actions
}

// projected is all that follows from records, a row a line.
const projected = `SELECT 'entry ' || CAST(to_jsonb(e) - 'id' AS text) FROM entry e
	UNION ALL SELECT 'total ' || CAST(to_jsonb(t) AS text) FROM sheet_total t
	UNION ALL SELECT 'sum ' || CAST(to_jsonb(s) AS text) FROM machine_sum s
	UNION ALL SELECT 'type ' || CAST(to_jsonb(y) AS text) FROM machine_type y
	UNION ALL SELECT 'identifier ' || CAST(to_jsonb(i) AS text) FROM identifier i
	UNION ALL SELECT 'ageing ' || CAST(to_jsonb(g) AS text) FROM machine_ageing g
	UNION ALL SELECT 'public ' || CAST(to_jsonb(p) AS text) FROM public_text p ORDER BY 1`

func requireProjectionsHold(t *testing.T, db *sqlx.DB, actions *app.App) {
	var before, after []string
	require.NoError(t, db.Select(&before, projected))
	_, err := db.Exec(`DELETE FROM entry; DELETE FROM sheet_total; DELETE FROM machine_type; DELETE
		FROM identifier; DELETE FROM machine_ageing; DELETE FROM public_text;
		UPDATE machine_sum SET boards = -1, chips = -1, unidentified = -1, ram_bytes = -1, rom_bytes = -1, stage = '',
		attention = -1, place_id = NULL, maker = '',
			era_from = NULL, disputed = -1, memory_disputed = false;
		INSERT INTO projection_due (projection, id) SELECT k, id
		FROM machine, unnest(ARRAY['machine sum', 'machine evidence', 'machine ageing']) k
			UNION SELECT k, id FROM assembly, unnest(ARRAY['entries', 'assembly identifiers']) k
			UNION SELECT 'lot identifiers', id FROM acquisition
			UNION SELECT k, id
			FROM machine, unnest(ARRAY['public machine', 'public machine name', 'public machine maker']) k
			UNION SELECT 'public place', id FROM place UNION SELECT 'public assembly', id FROM assembly
			UNION SELECT 'public lot', id FROM acquisition
			ON CONFLICT DO NOTHING`)
	require.NoError(t, err)
	require.NoError(t, actions.Kernel.RenewLeftOver(ctx))
	require.NoError(t, db.Select(&after, projected))
	require.Equal(t, before, after, "what follows from records is not what it would be if it were made anew")
}
