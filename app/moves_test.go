package app_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
)

// A card goes from a machine into store, on loan, and into another machine: its sheet and past go
// with it, and the sums of both machines follow. Each step can be taken back.
func TestACardMoves(t *testing.T) {
	db, actions, first, _ := newBoard(t, inventory.MachineInput{},
		"== Main board\n8x 4164\n== Memory card | slot 4 | kind card\n8x 41256 433")
	year := 1984
	second, err := actions.Inventory.CreateMachine(ctx, curator,
		inventory.MachineInput{Accession: "EH-0150", Name: "Other", EraFrom: &year, EraTo: &year})
	require.NoError(t, err)
	contents, err := actions.Sheets.Contents(ctx, viewer, first.ID)
	require.NoError(t, err)
	card := contents[1].Assembly
	require.Equal(t, "card", card.Kind)
	ram := func() [2]string {
		page, err := actions.Inventory.ListMachines(ctx, viewer, inventory.MachineList{Limit: 10})
		require.NoError(t, err)
		return [2]string{page.Machines[0].RAM, page.Machines[1].RAM}
	}
	move := func(m inventory.Move) inventory.Moved {
		now, err := actions.Inventory.Assembly(ctx, viewer, card.ID)
		require.NoError(t, err)
		moved, err := actions.Inventory.MoveAssembly(ctx, technician, card.ID, now.Version, m)
		require.NoError(t, err)
		return moved
	}
	require.Equal(t, [2]string{"320.0", ""}, ram())

	require.Equal(t, "Store, shelf B",
		move(inventory.Move{To: "place", Place: "Store, shelf B", Note: "made room"}).Where)
	require.Equal(t, [2]string{"64.0", ""}, ram())
	loose, err := actions.Inventory.ListLoose(ctx, viewer, "memory shelf", 0, 10)
	require.NoError(t, err)
	require.Len(t, loose.Assemblies, 1)
	require.Equal(t, "EH-0142", loose.Assemblies[0].From)
	require.Equal(t, "256.0", loose.Assemblies[0].RAM)
	alone, err := actions.Bench.ReckonAssembly(ctx, viewer, card.ID, nil)
	require.NoError(t, err)
	require.Equal(t, "256 KB", alone.Verdicts[0].Value)

	due := time.Now().AddDate(0, 1, 0).Format(time.DateOnly)
	require.Equal(t, "lent to Lighthouse Trust",
		move(inventory.Move{To: "loan", LentTo: "Lighthouse Trust", Due: due}).Where)
	into := move(inventory.Move{To: "machine", MachineID: second.ID, Slot: "2", Fit: "later"})
	require.Equal(t, "EH-0150, slot 2", into.Where)
	require.Equal(t, second.ID, *into.Assembly.MachineID)
	require.Equal(t, [2]string{"64.0", "256.0"}, ram())
	entries, err := actions.Sheets.Entries(ctx, viewer, card.ID, 0, 10)
	require.NoError(t, err)
	require.Equal(t, "1984-08-13", *entries[0].DateFrom) // by the era of the machine it is in now

	fittings, err := actions.Inventory.Fittings(ctx, viewer, card.ID)
	require.NoError(t, err)
	where := []string{}
	for _, f := range fittings {
		where = append(where, f.Where())
	}
	require.Equal(t, []string{"EH-0150, slot 2", "lent to Lighthouse Trust", "Store, shelf B", "EH-0142, slot 4"},
		where)
	require.Nil(t, fittings[0].Until)
	require.Equal(t, fittings[0].Since, *fittings[1].Until)

	// What is taken back never was, but for the history.
	require.NoError(t, actions.History.Undo(ctx, technician, into.Event))
	require.Equal(t, [2]string{"64.0", ""}, ram())
	var invalid *action.Invalid
	require.ErrorAs(t, actions.History.Undo(ctx, technician, into.Event), &invalid)
	require.ErrorIs(t, actions.History.Undo(ctx, viewer, into.Event), action.ErrForbidden)
	fittings, err = actions.Inventory.Fittings(ctx, viewer, card.ID)
	require.NoError(t, err)
	require.Len(t, fittings, 3)
	require.Equal(t, "lent to Lighthouse Trust", fittings[0].Where())
	told, err := actions.History.AssemblyHistory(ctx, viewer, card.ID, 0, 2)
	require.NoError(t, err)
	require.Equal(t, "took back the move of Memory card to EH-0150, slot 2; it is in lent to Lighthouse Trust",
		told.Events[0].What)
	require.Equal(t, "moved Memory card from lent to Lighthouse Trust to EH-0150, slot 2", told.Events[1].What)
	move(inventory.Move{To: "machine", MachineID: second.ID, Slot: "2"})
	move(inventory.Move{To: "machine", MachineID: first.ID, Slot: "4"})
	received, err := actions.History.History(ctx, viewer, first.ID, 0, 1)
	require.NoError(t, err)
	require.Equal(t, "received Memory card from EH-0150, slot 2", received.Events[0].What)
	require.Equal(t, [2]string{"320.0", ""}, ram())
	require.Equal(t, "move assembly", actionsOf(t, db, "assembly", card.ID)[7])
}

func TestMovesAreChecked(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{}, "== Main board | slot 1\n8x 4164")
	tomorrow, longAgo := time.Now().AddDate(0, 0, 1).Format(time.DateOnly), "1999-01-01"
	for field, move := range map[string]inventory.Move{
		"to":        {To: "machine", MachineID: machine.ID, Slot: "1"},
		"machineId": {To: "machine", MachineID: 999},
		"place":     {To: "place"},
		"lentTo":    {To: "loan", LentTo: " "},
		"due":       {To: "loan", LentTo: "Lighthouse Trust", Due: longAgo},
		"on":        {To: "place", Place: "Loft", On: tomorrow},
	} {
		var invalid *action.Invalid
		require.ErrorAs(t, second(actions.Inventory.MoveAssembly(ctx, technician, board.ID, board.Version, move)),
			&invalid, field)
		require.Equal(t, field, invalid.Field)
	}
	for _, on := range []string{"1999-02-30", "yesterday"} {
		var invalid *action.Invalid
		require.ErrorAs(t,
			second(actions.Inventory.MoveAssembly(ctx, technician, board.ID, board.Version,
				inventory.Move{To: "place", Place: "Loft", On: on})), &invalid)
		require.Equal(t, "on", invalid.Field)
	}
	var stale *action.Stale
	require.ErrorAs(t, second(actions.Inventory.MoveAssembly(ctx, technician, board.ID, board.Version+1,
		inventory.Move{To: "place", Place: "Loft"})), &stale)
	fittings, err := actions.Inventory.Fittings(ctx, viewer, board.ID)
	require.NoError(t, err)
	require.Len(t, fittings, 1)
}

func TestUndoGivesBackWhatWas(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{Place: "Loft"},
		"== Main board\nU1 HX9040 8431")
	undoLast := func(actor action.Actor) error {
		page, err := actions.History.History(ctx, viewer, 0, 0, 1)
		require.NoError(t, err)
		require.True(t, page.Events[0].MayUndo.Include(actor.Role))
		return actions.History.Undo(ctx, actor, page.Events[0].ID)
	}
	fields := machine.MachineInput
	fields.Place = "Bench"
	_, err := actions.Inventory.ChangeMachine(ctx, curator, machine.ID, 1, fields)
	require.NoError(t, err)
	require.NoError(t, undoLast(curator))
	now, err := actions.Inventory.Machine(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, "Loft", now.Place)

	_, err = actions.Sheets.SaveSheet(ctx, technician, board.ID, 1, "")
	require.NoError(t, err)
	require.NoError(t, undoLast(technician))
	sheet, err := actions.Sheets.Sheet(ctx, viewer, board.ID)
	require.NoError(t, err)
	require.Equal(t, "U1 HX9040 8431", sheet.Body)
	require.Equal(t, 3, sheet.N)

	_, err = actions.Inventory.ChangeAssembly(ctx, technician, board.ID, 1,
		inventory.AssemblyInput{Title: "Other", Kind: "supply"})
	require.NoError(t, err)
	require.NoError(t, undoLast(technician))
	voided, err := actions.Inventory.VoidAssembly(ctx, technician, board.ID, 3)
	require.NoError(t, err)
	require.True(t, voided.Assembly.IsVoided)
	page, err := actions.Inventory.ListMachines(ctx, viewer, inventory.MachineList{Limit: 1})
	require.NoError(t, err)
	require.Zero(t, page.Machines[0].Boards)
	_, err = actions.Inventory.MoveAssembly(ctx, technician, board.ID, voided.Assembly.Version,
		inventory.Move{To: "place", Place: "Loft"})
	require.ErrorIs(t, err, action.ErrNotFound)
	require.NoError(t, actions.History.Undo(ctx, technician, voided.Event))
	contents, err := actions.Sheets.Contents(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, "Main board", contents[0].Title)
	require.Equal(t, "board", contents[0].Kind)

	named, err := actions.Library.NameType(ctx, technician, processor)
	require.NoError(t, err)
	changed := named.OwnTypeInput
	changed.Function = "something else"
	_, err = actions.Library.ChangeType(ctx, technician, named.ID, 1, changed)
	require.NoError(t, err)
	require.NoError(t, undoLast(technician))
	event, err := actions.Library.ForgetType(ctx, curator, named.ID)
	require.NoError(t, err)
	require.NoError(t, actions.History.Undo(ctx, technician, event))
	entries, err := actions.Sheets.Entries(ctx, viewer, board.ID, 0, 10)
	require.NoError(t, err)
	require.Equal(t, named.Number, entries[0].TypeNumber)
	require.NoError(t, undoLast(curator)) // naming it again
	found, err := actions.Library.SearchLibrary(ctx, viewer, processor.Number, 5)
	require.NoError(t, err)
	require.Empty(t, found)
}

// A card that was in here until 2010, and last week's swap: what lies in the past is told as that, and taken back
// again.
func TestAFittingMayLieInThePast(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{}, "== Main board\nU1 7400")
	card, err := actions.Inventory.AddLooseAssembly(ctx, technician, "Seed loft",
		inventory.AssemblyInput{Title: "Disk card"})
	require.NoError(t, err)
	var invalid *action.Invalid
	for want, past := range map[string]inventory.PastFitting{
		"lies after today": {MachineID: machine.ID, Until: "2091"},
		"before it came": {MachineID: machine.ID, From: "2011",
			Until: "2010"}, "choose the machine": {MachineID: 999, Until: "2010"},
		"2010x": {MachineID: machine.ID, Until: "2010x"},
	} {
		require.ErrorAs(t, second(actions.Inventory.TellPastFitting(ctx, technician, card.ID, card.Version, past)),
			&invalid)
		require.Contains(t, invalid.Error(), want)
	}
	moved, err := actions.Inventory.TellPastFitting(ctx, technician, card.ID, card.Version,
		inventory.PastFitting{MachineID: machine.ID, Slot: "3", From: "1988", Until: "2010"})
	require.NoError(t, err)
	require.Nil(t, moved.Assembly.MachineID, "it is where it was")
	were, err := actions.Inventory.PastBoards(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, []inventory.PastBoard{{AssemblyID: card.ID, Title: "Disk card", Slot: "3",
		Note:  "as told: 1988/2010",
		Since: "1988-01-01", Until: "2010-12-31", Where: "Seed loft"}}, were)
	require.ErrorAs(t, second(actions.Inventory.TellPastFitting(ctx, technician, card.ID, moved.Assembly.Version,
		inventory.PastFitting{MachineID: machine.ID, From: "2009", Until: "2012"})), &invalid)
	require.NoError(t, actions.History.Undo(ctx, technician, moved.Event))
	were, err = actions.Inventory.PastBoards(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Empty(t, were)

	// What was entered today may have left last week.
	swapped, err := actions.Inventory.MoveAssembly(ctx, technician, board.ID, board.Version,
		inventory.Move{To: "place", Place: "Seed loft", On: "2026-01-10"})
	require.NoError(t, err)
	were, err = actions.Inventory.PastBoards(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, "2026-01-10", were[0].Until)
	require.ErrorAs(t, second(actions.Inventory.MoveAssembly(ctx, technician, board.ID, swapped.Assembly.Version,
		inventory.Move{To: "machine", MachineID: machine.ID, On: "2026-01-01"})), &invalid)
}
