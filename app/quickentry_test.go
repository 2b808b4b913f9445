package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/quickentry"
)

func TestSayPutsALineOnASheet(t *testing.T) {
	year := 1985
	_, actions, machine, board := newBoard(t, inventory.MachineInput{EraFrom: &year, EraTo: &year},
		"== Main board\nU13 74LS00\nU14 @empty\n== Card\nU1-U8 4164")
	u, err := actions.QuickEntry.Understand(ctx, technician, machine.ID, "u14 27128-25 533")
	require.NoError(t, err)
	require.True(t, u.Sure)
	require.Len(t, u.Destinations, 2)
	require.Equal(t, quickentry.Destination{
		AssemblyID: board.ID, Title: "Main board", Base: 1, Line: 2, Text: "U14        27128-25 533",
		Replaces: "U14 @empty",
		Reading:  "27128 UV-erasable PROM, 16K x 8, 250 ns, 1985-W33",
	}, u.Destinations[0])
	require.Equal(t, 2, u.Destinations[1].Line)

	kept, err := actions.QuickEntry.Enter(ctx, technician, machine.ID, board.ID, 1, "U14 27128-25 533")
	require.NoError(t, err)
	require.Equal(t, "U13 74LS00\nU14        27128-25 533", kept.Revision.Body)
	var stale *action.Stale
	require.ErrorAs(t, second(actions.QuickEntry.Enter(ctx, technician, machine.ID, board.ID, 1, "U15 7400")), &stale)
	var invalid *action.Invalid
	require.ErrorAs(t, second(actions.QuickEntry.Enter(ctx, technician, machine.ID, u.Destinations[1].AssemblyID, 1,
		"U2 7400")),
		&invalid)
	require.Equal(t, "U2 stands on line 1 with others; change that line in the sheet", invalid.Why)
	require.NoError(t, actions.History.Undo(ctx, technician, kept.Event))
	sheet, err := actions.Sheets.Sheet(ctx, viewer, board.ID)
	require.NoError(t, err)
	require.Equal(t, "U13 74LS00\nU14 @empty", sheet.Body)

	// A note, and a machine addressed by its number.
	other, err := actions.Inventory.CreateMachine(ctx, curator,
		inventory.MachineInput{Accession: "EH-0150", Name: "Other"})
	require.NoError(t, err)
	u, err = actions.QuickEntry.Understand(ctx, technician, machine.ID, "eh-0150 note hinge cracked")
	require.NoError(t, err)
	require.Equal(t, other.ID, u.Machine.ID)
	require.Equal(t, "hinge cracked", u.Note)
	_, err = actions.QuickEntry.Enter(ctx, technician, machine.ID, 0, 0, "EH-0150 note hinge cracked")
	require.NoError(t, err)
	told, err := actions.History.History(ctx, viewer, other.ID, 0, 1)
	require.NoError(t, err)
	require.Equal(t, "noted: hinge cracked", told.Events[0].What)
	require.NoError(t, actions.History.Undo(ctx, technician, told.Events[0].ID))
	told, err = actions.History.History(ctx, viewer, other.ID, 0, 1)
	require.NoError(t, err)
	require.Equal(t, "took back the note: hinge cracked", told.Events[0].What)
	for _, text := range []string{"meridian", "EH-0150", "HB2 valve controller"} {
		u, err = actions.QuickEntry.Understand(ctx, technician, machine.ID, text)
		require.NoError(t, err)
		require.False(t, u.Sure, text)
	}
	require.ErrorIs(t, second(actions.QuickEntry.Enter(ctx, viewer, machine.ID, board.ID, 1, "U15 7400")),
		action.ErrForbidden)
}

func TestFindLooksEverywhere(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{Serial: "TV-77"},
		"== Main board | serial 4410-9\nU1 SN74LS00N 8501\nU2 µPD2716 8440")
	spare, err := actions.Inventory.AddLooseAssembly(ctx, technician, "Store",
		inventory.AssemblyInput{Title: "Spare supply", Kind: "supply", Serial: "77-1"})
	require.NoError(t, err)
	find := func(words string) inventory.Found {
		found, err := actions.Inventory.Find(ctx, viewer, words)
		require.NoError(t, err)
		return found
	}
	require.Equal(t, machine.ID, find("eh-0142").Exact.ID)
	require.Nil(t, find("eh-01").Exact)
	found := find("77")
	require.Equal(t, machine.ID, found.Machines[0].ID)
	require.Equal(t, spare.ID, found.Assemblies[0].ID)
	require.Equal(t, "Store", found.Assemblies[0].Place)
	require.Equal(t, board.ID, find("4410").Assemblies[0].ID)
	for _, words := range []string{"74ls00", "LS00 8501", "upd2716", "2716"} {
		require.Len(t, find(words).Chips, 1, words)
	}
	require.Empty(t, find("").Machines)
	require.Zero(t, find("nothing like it").Total)
}
