package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
)

func TestHistoryTellsWhatWasDone(t *testing.T) {
	db, actions, machine, board := newBoard(t, inventory.MachineInput{Place: "Loft"}, "== Main board\nU1 7400")
	id, err := actions.Accounts.AddAccount(ctx, "ida", "Ida Reed", action.Curator, "long enough to be one")
	require.NoError(t, err)
	ida := action.Actor{AccountID: id, Role: action.Curator}
	fields := machine.MachineInput
	fields.Place, fields.Serial = "Bench", "77"
	_, err = actions.Inventory.ChangeMachine(ctx, ida, machine.ID, 1, fields)
	require.NoError(t, err)
	_, err = actions.Sheets.SaveSheet(ctx, ida, board.ID, 1, "U1 7404\nU2 7400")
	require.NoError(t, err)
	_, err = actions.Inventory.ChangeAssembly(ctx, ida, board.ID, 1, inventory.AssemblyInput{Title: "Mother board"})
	require.NoError(t, err)
	_, err = actions.Library.NameType(ctx, ida, processor)
	require.NoError(t, err)

	page, err := actions.History.History(ctx, viewer, machine.ID, 0, 4)
	require.NoError(t, err)
	what := []string{}
	for _, e := range page.Events {
		what = append(what, e.What)
	}
	require.Equal(t, []string{
		"changed details of Mother board: name from Main board to Mother board",
		"saved the sheet of Mother board, revision 2",
		"changed the record: place from Loft to Bench; serial number from nothing to 77",
		"saved the sheet of Mother board, revision 1",
	}, what)
	require.Equal(t, "Ida Reed", page.Events[0].By)
	require.Equal(t, 2, page.Events[1].Revision)
	rest, err := actions.History.History(ctx, viewer, machine.ID, page.Next, 10)
	require.NoError(t, err)
	require.Len(t, rest.Events, 2)
	require.Zero(t, rest.Next)
	all, err := actions.History.History(ctx, viewer, 0, 0, 100)
	require.NoError(t, err)
	require.Equal(t, "named the type HX9040: processor, 8 bits", all.Events[0].What)
	require.Len(t, all.Events, 7, "accounts are the curators'")
	all, err = actions.History.History(ctx, curator, 0, 0, 100)
	require.NoError(t, err)
	require.Len(t, all.Events, 8)
	_, err = actions.History.History(ctx, viewer, 999, 0, 10)
	require.ErrorIs(t, err, action.ErrNotFound)

	d, err := actions.Sheets.SheetDifference(ctx, viewer, board.ID, 1, 2)
	require.NoError(t, err)
	kinds := ""
	for _, line := range d.Lines {
		kinds += string(line.Kind) + " " + line.Text + ", "
	}
	require.Equal(t, "removed U1 7400, added U1 7404, added U2 7400, ", kinds)
	require.Empty(t, d.To.Body)
	first, err := actions.Sheets.SheetDifference(ctx, viewer, board.ID, 0, 1)
	require.NoError(t, err)
	require.Len(t, first.Lines, 1)
	_, err = actions.Sheets.SheetDifference(ctx, viewer, board.ID, 1, 9)
	require.ErrorIs(t, err, action.ErrNotFound)

	// Bringing an old revision back writes a new one.
	old, err := actions.Sheets.Revisions(ctx, viewer, board.ID, 2, 1)
	require.NoError(t, err)
	again, err := actions.Sheets.SaveSheet(ctx, ida, board.ID, 2, old[0].Body)
	require.NoError(t, err)
	require.Equal(t, 3, again.N)
	require.Len(t, actionsOf(t, db, "assembly", board.ID), 5)
}
