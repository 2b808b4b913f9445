package store_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/sheet"
	"frugalheron/store/inventory"
	"frugalheron/store/library"
	"frugalheron/store/pg"
	"frugalheron/store/sheets"
	"frugalheron/store/storetest"
)

func TestAssembliesMarkedAndOccurrences(t *testing.T) {
	db := storetest.New(t)
	machine, err := inventory.InsertMachine(ctx, db, inventory.MachineFields{Accession: "EH-1", Name: "One"})
	require.NoError(t, err)
	boards := map[string]int64{}
	for title, row := range map[string]sheets.EntryRow{
		"upper": {Marking: "HX9040-2 8431", TypeNumber: "HX9040", Count: 2},
		"lower": {Marking: "hx9040", TypeNumber: "HX9040", Count: 3},
		"micro": {Marking: "µX9040", Count: 1}, "other": {Marking: "74LS00", TypeNumber: "74LS00", Count: 4},
		"empty":   {Marking: "HX9040", TypeNumber: "HX9040", Count: 7, Empty: true},
		"percent": {Marking: "HX%40", Count: 1},
	} {
		boards[title], err = inventory.InsertAssembly(ctx, db,
			inventory.Fitting{MachineID: &machine, Since: "2026-01-02"},
			inventory.AssemblyFields{Title: title, Fit: "factory"})
		require.NoError(t, err)
		row.Line, row.Kind, row.Designators, row.Findings = 1, "chip", []string{}, []sheet.Mark{}
		require.NoError(t, sheets.ReplaceEntries(ctx, db, boards[title], 1, []sheets.EntryRow{row}))
	}
	for _, test := range []struct {
		numbers []string
		want    []string
	}{
		{[]string{"HX9040"}, []string{"upper", "lower", "empty"}}, {[]string{"UX9040"}, []string{"micro"}},
		{[]string{"HX%"}, []string{"percent"}}, {[]string{"UX9040", "74LS00"}, []string{"micro", "other"}},
		{[]string{"NONE"}, nil},
	} {
		ids, err := library.AssembliesMarked(ctx, db, test.numbers)
		require.NoError(t, err)
		want := []int64{}
		for _, title := range test.want {
			want = append(want, boards[title])
		}
		require.ElementsMatch(t, want, ids, "%v", test.numbers)
	}
	counts, err := library.CountOccurrences(ctx, db, []string{"HX9040", "74LS00", "2716"})
	require.NoError(t, err)
	require.Equal(t, map[string]int{"HX9040": 5, "74LS00": 4}, counts) // an empty socket is no part
	found, err := library.OccurrencesOf(ctx, db, "HX9040", 1)
	require.NoError(t, err)
	require.Len(t, found, 1)
	require.Equal(t, "EH-1", found[0].Accession)
}

func TestOwnTypesCountTheLibrary(t *testing.T) {
	db := storetest.New(t)
	before, _, err := library.LibraryState(ctx, db)
	require.NoError(t, err)
	require.NoError(t, library.ChangeLibrary(ctx, db))
	after, _, err := library.HoldLibrary(ctx, db)
	require.NoError(t, err)
	require.Equal(t, before+1, after)
	_, err = db.Exec(`INSERT INTO library_state (only_row) VALUES (false)`)
	require.True(t, pg.Violates(err, "library_state_one_row"), "%v", err)

	fields := library.OwnTypeFields{Number: "HX9040", Class: "own", Function: "processor", Package: "DIP-40",
		ClockMHz: 8.5, TypicalMA: 150, Notes: "two\nlines"}
	id, err := library.InsertOwnType(ctx, db, 0, fields)
	require.NoError(t, err)
	_, err = library.InsertOwnType(ctx, db, 0, fields)
	require.True(t, pg.Violates(err, "own_type_number_key"), "%v", err)
	kept, err := library.OwnTypeByID(ctx, db, id)
	require.NoError(t, err)
	require.Equal(t, fields, kept.OwnTypeFields)
	fields.Class = "odd"
	require.True(t, pg.Violates(library.UpdateOwnType(ctx, db, id, fields), "own_type_class_known"))
	require.NoError(t, library.DeleteOwnType(ctx, db, id))
	_, err = library.OwnTypeByID(ctx, db, id)
	require.ErrorIs(t, err, pg.ErrNotFound)
}
