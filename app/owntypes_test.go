package app_test

import (
	"errors"
	"fmt"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
)

var processor = library.OwnTypeInput{Number: "hx9040", Function: "processor, 8 bits", Package: "DIP-40",
	TypicalMA: 150}

// A type is named once and known everywhere, on sheets written before as well; their text stays
// byte for byte.
func TestNameTypeIsRecognisedOnOldSheets(t *testing.T) {
	db, actions, machine, first := newBoard(t, inventory.MachineInput{},
		"== Main board\nU1  HX9040-2 8431\t# as found\r\nU2 HX90401 8431")
	other, err := actions.Inventory.CreateMachine(ctx, curator,
		inventory.MachineInput{Accession: "EH-2", Name: "Second"})
	require.NoError(t, err)
	_, err = actions.Sheets.TakeOverSheet(ctx, technician, other.ID, "== A\nU5 hx9040\n== B\n2x HX9040-1\nU3 74LS00")
	require.NoError(t, err)
	before, err := actions.Sheets.Sheet(ctx, viewer, first.ID)
	require.NoError(t, err)

	named, err := actions.Library.NameType(ctx, technician, processor)
	require.NoError(t, err)
	require.Equal(t, "HX9040", named.Number)
	require.Equal(t, 1+1+2, named.Recognised)
	after, err := actions.Sheets.Sheet(ctx, viewer, first.ID)
	require.NoError(t, err)
	require.Equal(t, before, after)
	page, err := actions.Inventory.ListMachines(ctx, viewer, inventory.MachineList{Limit: 10})
	require.NoError(t, err)
	require.Equal(t, 1, page.Machines[0].Unidentified) // HX90401 is another number
	require.Zero(t, page.Machines[1].Unidentified)
	reckoned, err := actions.Bench.ReckonMachine(ctx, viewer, machine.ID, nil)
	require.NoError(t, err)
	require.InDelta(t, 0.15, reckoned.Boards[0].Totals.Draw["+5"].TypicalA, 1e-9)

	found, err := actions.Library.Occurrences(ctx, viewer, "hx9040", 10)
	require.NoError(t, err)
	require.Len(t, found, 3)
	require.Equal(t, "EH-0142", found[0].Accession)
	listed, err := actions.Library.SearchLibrary(ctx, viewer, "", 10)
	require.NoError(t, err)
	require.Equal(t, 4, listed[0].Occurrences)
	require.Equal(t, named.ID, listed[0].Own.ID)

	// Another process, with a cache of its own, knows it as well.
	elsewhere := app.New(db)
	_, err = elsewhere.Library.Types(ctx, viewer, "HX", 5)
	require.NoError(t, err)
	fields := processor
	fields.Number = "HX90401"
	changed, err := actions.Library.ChangeType(ctx, technician, named.ID, named.Version, fields)
	require.NoError(t, err)
	require.Equal(t, 1, changed.Recognised)
	types, err := elsewhere.Library.Types(ctx, viewer, "HX", 5)
	require.NoError(t, err)
	require.Equal(t, "HX90401", types[0].Number)
	var stale *action.Stale
	_, err = actions.Library.ChangeType(ctx, technician, named.ID, named.Version, fields)
	require.ErrorAs(t, err, &stale)

	require.ErrorIs(t, second(actions.Library.ForgetType(ctx, technician, named.ID)), action.ErrForbidden)
	require.NoError(t, second(actions.Library.ForgetType(ctx, curator, named.ID)))
	page, err = actions.Inventory.ListMachines(ctx, viewer, inventory.MachineList{Limit: 10})
	require.NoError(t, err)
	require.Equal(t, 2, page.Machines[0].Unidentified)
	require.Equal(t, []string{"name type", "change type", "forget type"}, actionsOf(t, db, "own type", named.ID))
}

// A memory that was named counts as memory, and goes before a built-in type of the same number.
func TestOwnMemoriesCount(t *testing.T) {
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{}, "== Main board\n8x ZM770-15\n2x 2716")
	for _, fields := range []library.OwnTypeInput{
		{Number: "ZM770", Class: "sram", Function: "static RAM", Words: 1024, Bits: 8},
		{Number: "2716", Class: "logic", Function: "gate array"},
	} {
		_, err := actions.Library.NameType(ctx, curator, fields)
		require.NoError(t, err)
	}
	reckoned, err := actions.Bench.ReckonMachine(ctx, viewer, machine.ID, nil)
	require.NoError(t, err)
	require.Equal(t, int64(8192), reckoned.Boards[0].Totals.RAMBytes)
	require.Zero(t, reckoned.Boards[0].Totals.ROMBytes)
}

func TestOwnTypesAreChecked(t *testing.T) {
	_, actions, _, _ := newBoard(t, inventory.MachineInput{}, "== Main board\nU1 HX9040")
	_, err := actions.Library.NameType(ctx, technician, processor)
	require.NoError(t, err)
	for field, fields := range map[string]library.OwnTypeInput{
		"number":   {Number: "HX 9040", Function: "x"},
		"function": {Number: "HX9041"},
		"words":    {Number: "HX9041", Function: "x", Class: "eprom"},
	} {
		var invalid *action.Invalid
		_, err := actions.Library.NameType(ctx, technician, fields)
		require.ErrorAs(t, err, &invalid)
		require.Equal(t, field, invalid.Field)
	}
	for _, number := range []string{"HX", "ABC", "HX9040?", "@X12", "hx9040", "HX9040#", ""} {
		var invalid *action.Invalid
		_, err := actions.Library.NameType(ctx, technician, library.OwnTypeInput{Number: number, Function: "x"})
		require.ErrorAs(t, err, &invalid, number)
	}
	_, err = actions.Library.NameType(ctx, viewer, library.OwnTypeInput{Number: "HX9041", Function: "x"})
	require.ErrorIs(t, err, action.ErrForbidden)
}

// Sheets saved while a type is being named are reckoned with it all the same, and nobody waits for
// ever.
func TestSavingWhileATypeIsNamed(t *testing.T) {
	_, actions, _, board := newBoard(t, inventory.MachineInput{}, "== Main board\nU1 7400")
	var wait sync.WaitGroup
	errs := make([]error, 12)
	for i := range errs {
		wait.Go(func() {
			if i%2 == 0 {
				_, errs[i] = actions.Library.NameType(ctx, technician,
					library.OwnTypeInput{Number: fmt.Sprintf("ZQ77%02d", i), Function: "x"})
				return
			}
			_, errs[i] = actions.Sheets.SaveSheet(ctx, technician, board.ID, 1,
				fmt.Sprintf("U1 ZQ77%02d\nU2 ZQ7700\nU3 ZQ7702\nU4 ZQ7710", i-1))
		})
	}
	wait.Wait()
	for _, err := range errs {
		var stale *action.Stale
		require.True(t, err == nil || errors.As(err, &stale), "%v", err)
	}
	entries, err := actions.Sheets.Entries(ctx, viewer, board.ID, 0, 10)
	require.NoError(t, err)
	require.Len(t, entries, 4)
	for _, entry := range entries {
		require.NotEmpty(t, entry.TypeNumber, entry.Marking)
	}
}
