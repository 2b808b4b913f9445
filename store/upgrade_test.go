package store_test

import (
	"strings"
	"testing"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/require"

	"frugalheron/store/evidence"
	"frugalheron/store/history"
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
	require.Equal(t, []string{"EH-0001", "3"}, []string{fittings[0].Accession, fittings[0].Slot})
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
		exterior, err := inventory.ExteriorOf(ctx, db, machine)
		require.NoError(t, err)
		require.True(t, exterior.IsExterior())
	}
	fitted, err := inventory.AssembliesOf(ctx, db, 2)
	require.NoError(t, err)
	require.Len(t, fitted, 1)
	numbers, err := inventory.NumbersLike(ctx, db, "EH-")
	require.NoError(t, err)
	require.Len(t, numbers, 2)
	locations, err := inventory.LocationsOf(ctx, db, 1)
	require.NoError(t, err)
	require.Equal(t, "Rope walk", locations[0].Place)
	require.Equal(t, "2025-03-04", locations[0].Since)
	none, err := inventory.LocationsOf(ctx, db, 2)
	require.NoError(t, err)
	require.Empty(t, none)
	sharedIdentifiers, err := evidence.SharedIdentifiersOf(ctx, db, evidence.RecordRef{Kind: "machine", ID: 1}, false)
	require.NoError(t, err)
	require.Len(t, sharedIdentifiers, 1)
	require.Equal(t, "Main board", sharedIdentifiers[0].There)
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

// A collection whose public texts were still to be made comes through: they are in the list of what is due, and in the
// old one again should the way back have to be gone. A place that is renamed afterwards is found by its new name.
func TestWhatWasDueBeforeProjectionsIsDueStill(t *testing.T) {
	db, err := pg.Open(ctx, storetest.Empty(t))
	require.NoError(t, err)
	defer db.Close()
	migrator, err := pg.NewMigrator(db.DB)
	require.NoError(t, err)
	_, err = migrator.UpTo(ctx, 29)
	require.NoError(t, err)
	for _, old := range []string{
		`INSERT INTO place (name) VALUES ('Loft'), ('Loft, shelf 3')`,
		`INSERT INTO machine (accession, name, place_id) VALUES ('EH-0001', 'Meridian', 2)`,
		`INSERT INTO machine_sum (machine_id, place_id) SELECT id, place_id FROM machine`,
		`INSERT INTO party (name, kind, private, role) VALUES ('Jory Penhallow', 'person', true, 'a former pilot')`,
		`INSERT INTO public_text_due VALUES ('machine', 1), ('machine name', 1), ('place', 2)`,
	} {
		_, err := db.Exec(old)
		require.NoError(t, err, old)
	}
	_, err = migrator.Up(ctx)
	require.NoError(t, err)
	db.MustExec(`DELETE FROM projection_due WHERE projection = 'machine evidence'`) // due by a later migration
	require.NoError(t, pg.InTx(ctx, db, func(tx *sqlx.Tx) error {
		none, err := pg.TakeDue(ctx, tx)
		require.NoError(t, err)
		require.Empty(t, none, "that is another's")
		taken, err := pg.TakeOverLeftDue(ctx, tx, 2)
		require.NoError(t, err)
		require.Equal(t, 2, taken)
		due, err := pg.TakeDue(ctx, tx)
		require.Equal(t, map[string][]int64{"public machine": {1}, "public machine name": {1}}, due)
		return err
	}))
	count := func(word string) int {
		n, err := inventory.CountMachines(ctx, db, inventory.MachineFilter{Words: []string{word}})
		require.NoError(t, err)
		return n
	}
	require.NoError(t, pg.InTx(ctx, db, func(tx *sqlx.Tx) error {
		renamed, err := inventory.RenamePlace(ctx, tx, "Loft", "Attic")
		require.NoError(t, err)
		require.EqualValues(t, 2, renamed)
		due, err := pg.TakeDue(ctx, tx)
		require.Equal(t, []int64{1}, due["public machine"])
		require.ElementsMatch(t, []int64{1, 2}, due["public place"])
		return err
	}))
	require.Equal(t, []int{1, 0}, []int{count("attic"), count("loft")})

	_, err = migrator.DownTo(ctx, 29)
	require.NoError(t, err)
	var left []string
	require.NoError(t, db.Select(&left, `SELECT kind || ' ' || id FROM public_text_due`))
	require.Equal(t, []string{"place 2"}, left)
}

// What stands in old texts is looked for in the last state of each record: not in what was written anew since, and in
// sheets by their revision; a page goes on below the last event of the one before.
func TestEventsThatSaySomething(t *testing.T) {
	db := storetest.New(t)
	machine, err := inventory.InsertMachine(ctx, db, inventory.MachineFields{Accession: "EH-1", Name: "Sorter"})
	require.NoError(t, err)
	board, err := inventory.InsertAssembly(ctx, db, inventory.Fitting{MachineID: &machine, Since: "2026-01-01"},
		inventory.AssemblyFields{Title: "Board", Fit: "unknown", Kind: "board"})
	require.NoError(t, err)
	write := func(action, kind string, id int64, after any) int64 {
		var before any
		if strings.HasPrefix(action, "change") {
			before = after
		}
		event, err := history.InsertEvent(ctx, db, history.Event{Action: action, SubjectKind: kind, SubjectID: id},
			before,
			after)
		require.NoError(t, err)
		return event
	}
	save := func(n int, body string) int64 {
		require.NoError(t, sheets.InsertRevision(ctx, db, board, n, body, nil))
		return write(history.ActionSaveSheet, "assembly", board, map[string]int{"revision": n})
	}
	fields := func(note string) map[string]string { return map[string]string{"name": "Sorter", "provenance": note} }
	write("create machine", "machine", machine, fields("of Rose"))
	write("change machine", "machine", machine, fields("of nobody"))
	note := write("note", "machine", machine, map[string]string{"note": "Rose called"})
	write("note", "machine", machine, map[string]string{"note": "the river came"}) // beside the other, not in its place
	save(1, "U1 7400 # Rose")
	save(2, "U1 7400 # worn")
	third := save(3, "U1 7400 # a rose")
	write("change account", "account", 1, fields("of Rose"))
	percent := write("note", "machine", machine+1, map[string]string{"note": "100% sure"})
	find := func(before int64, limit int, hints ...string) []int64 {
		found, err := history.ListEventsSaying(ctx, db, history.EventsSaying{
			Kinds: []string{"machine", "assembly"}, SheetAction: history.ActionSaveSheet, Hints: hints, Before: before,
			Limit: limit})
		require.NoError(t, err)
		ids := []int64{}
		for _, e := range found {
			ids = append(ids, e.ID)
		}
		return ids
	}
	require.Equal(t, []int64{third, note}, find(0, 9, "rose"))
	require.Equal(t, []int64{third}, find(0, 1, "rose"))
	require.Equal(t, []int64{note}, find(third, 9, "rose"))
	require.Equal(t, []int64{percent}, find(0, 9, "100% sure"), "a sign of LIKE is a letter")
	require.Empty(t, find(0, 9, "0_ sure"))
	accent := write("note", "machine", machine+2, map[string]string{"note": "ro\u0301se"})
	require.Contains(t, find(0, 9, "rose"), accent, "other letters are looked at by who compares names")
}
