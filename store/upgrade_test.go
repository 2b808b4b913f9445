package store_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/store/evidence"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/sheets"
	"frugalheron/store/storetest"
)

// A collection from before moves and shelves comes through: times become days, machines get sums to
// be made, and searches find by place.
func TestACollectionFromBeforeComesThrough(t *testing.T) {
	db, err := pg.Open(ctx, storetest.Empty(t))
	require.NoError(t, err)
	defer db.Close()
	migrator, err := pg.NewMigrator(db.DB)
	require.NoError(t, err)
	_, err = migrator.UpTo(ctx, 6)
	require.NoError(t, err)
	for _, old := range []string{
		`INSERT INTO place (name) VALUES ('Rope walk')`,
		`INSERT INTO machine (accession, name, maker, era_from, era_to, place_id)
			VALUES ('EH-0001', 'Meridian', 'Tarn & Vole', 1984, 1988, 1), ('EH-0002', 'Sorter', '', NULL, NULL, NULL)`,
		`INSERT INTO assembly (title) VALUES ('Main board'), ('Card')`,
		`INSERT INTO fitting (assembly_id, machine_id, slot, since)
			VALUES (1, 1, '', '2025-03-04 23:30+00'), (2, 1, '3', '2025-03-05 08:00+00')`,
		`INSERT INTO sheet_revision (assembly_id, n, body) VALUES (1, 1, '8x 4164')`,
		`INSERT INTO sheet_total (assembly_id, revision, library_version, totals) VALUES (1, 1, 1, '{"chips": 8}')`,
	} {
		_, err := db.Exec(old)
		require.NoError(t, err, old)
	}
	_, err = migrator.Up(ctx)
	require.NoError(t, err)

	fittings, err := inventory.FittingsOf(ctx, db, 2)
	require.NoError(t, err)
	require.Equal(t, "EH-0001, slot 3", fittings[0].Where())
	require.Equal(t, "2025-03-05", fittings[0].Since)
	require.Nil(t, fittings[0].Until)
	assembly, err := inventory.AssemblyByID(ctx, db, 1)
	require.NoError(t, err)
	require.Equal(t, "board", assembly.Kind)

	page, err := inventory.ListMachines(ctx, db, inventory.MachineQuery{Sort: "accession", Limit: 10})
	require.NoError(t, err)
	require.Equal(t, []string{"EH-0001", "EH-0002"}, accessions(page))
	old, err := sheets.AssembliesWithOldTotals(ctx, db, 1, 10)
	require.NoError(t, err)
	require.Equal(t, []int64{1}, old) // its sums are made at the next start
	for word, want := range map[string]int{"rope": 1, "sorter": 1, "4164": 0} {
		n, err := inventory.CountMachines(ctx, db, inventory.MachineFilter{Words: []string{word}})
		require.NoError(t, err)
		require.Equal(t, want, n, word)
	}
	facets, err := inventory.CountFacets(ctx, db, inventory.MachineFilter{})
	require.NoError(t, err)
	require.Contains(t, facets, inventory.FacetCount{Facet: "place", Value: "Rope walk", Count: 1})
	require.Contains(t, facets, inventory.FacetCount{Facet: "year", Value: "", Count: 1})
}

// A collection from before arrivals comes through: every machine has its outside, its number stands in the
// register, it is somewhere since a day, and its identifiers are met.
func TestACollectionFromBeforeArrivalsComesThrough(t *testing.T) {
	db, err := pg.Open(ctx, storetest.Empty(t))
	require.NoError(t, err)
	defer db.Close()
	migrator, err := pg.NewMigrator(db.DB)
	require.NoError(t, err)
	_, err = migrator.UpTo(ctx, 10)
	require.NoError(t, err)
	for _, old := range []string{
		`INSERT INTO place (name) VALUES ('Rope walk')`,
		`INSERT INTO machine (accession, name, serial, place_id, created_at)
			VALUES ('EH-0001', 'Meridian', 'TV1-00417', 1, '2025-03-04 12:00+00'), ('EH-0002', 'Sorter', '12', NULL,
			now())`,
		`INSERT INTO machine_sum (machine_id, place_id) SELECT id, place_id FROM machine`,
		`INSERT INTO assembly (title, serial) VALUES ('Main board', 'tv1 00417')`,
		`INSERT INTO fitting (assembly_id, machine_id) VALUES (1, 2)`,
		`INSERT INTO sheet_total (assembly_id, revision, library_version, totals) VALUES (1, 1, 1, '{"chips": 8}')`,
	} {
		_, err := db.Exec(old)
		require.NoError(t, err, old)
	}
	_, err = migrator.Up(ctx)
	require.NoError(t, err)

	for machine := int64(1); machine <= 2; machine++ {
		outside, err := inventory.OutsideOf(ctx, db, machine)
		require.NoError(t, err)
		require.True(t, outside.IsOutside())
	}
	fitted, err := inventory.AssembliesOf(ctx, db, 2)
	require.NoError(t, err)
	require.Len(t, fitted, 1)
	numbers, err := inventory.NumbersLike(ctx, db, "EH-")
	require.NoError(t, err)
	require.Len(t, numbers, 2)
	stays, err := inventory.StaysOf(ctx, db, 1)
	require.NoError(t, err)
	require.Equal(t, "Rope walk", stays[0].Where())
	require.Equal(t, "2025-03-04", stays[0].Since)
	none, err := inventory.StaysOf(ctx, db, 2)
	require.NoError(t, err)
	require.Empty(t, none)
	meetings, err := evidence.MeetingsOf(ctx, db, evidence.RecordRef{Kind: "machine", ID: 1}, false)
	require.NoError(t, err)
	require.Len(t, meetings, 1)
	require.Equal(t, "Main board", meetings[0].There)
	old, err := sheets.AssembliesWithOldTotals(ctx, db, 1, 10)
	require.NoError(t, err)
	require.Equal(t, []int64{1}, old) // what is disputed is found out at the next start

	// And back again, should it have to be.
	_, err = migrator.DownTo(ctx, 10)
	require.NoError(t, err)
	var left int
	require.NoError(t, db.Get(&left, `SELECT count(*) FROM assembly`))
	require.Equal(t, 1, left)
}
