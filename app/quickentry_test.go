package app_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/quickentry"
	"frugalheron/app/sheets"
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
		"U7,U9 7400")), &invalid)
	require.Equal(t, "U7 stands on line 1, but not all of U7,U9; say it of each line by itself", invalid.Why)
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

// What happened is read before anything is taken as a marking, is shown first, and is kept where it belongs.
func TestSayWhatHappened(t *testing.T) {
	year := 1985
	_, actions, machine, board := newBoard(t, inventory.MachineInput{EraFrom: &year, EraTo: &year},
		"== Main board\nU14 27128-25 8533\nBT1 NiCd 3.6V !leaking\nU20-U24 41256-15 8512\n== Disk card\nU14 7400 8530")
	say := func(words string) quickentry.Understood {
		u, err := actions.QuickEntry.Understand(ctx, technician, machine.ID, words)
		require.NoError(t, err)
		require.NotNil(t, u.Machine, words)
		return u
	}
	boards := func(u quickentry.Understood) (titles []string) {
		for _, d := range u.Destinations {
			titles = append(titles, d.Title)
		}
		return titles
	}
	// The same designator on two boards asks which, unless one is named; boards without it come last.
	require.Equal(t, []string{"Main board", "Disk card"}, boards(say("U14 removed")))
	require.Equal(t, []string{"Disk card"}, boards(say("disk card U14 removed")))
	require.Equal(t, []string{"Main board", "Disk card"}, boards(say("U22 cracked")))
	require.Equal(t, "U20,U21,U23,U24 41256-15 8512", say("U22 cracked").Destinations[0].Leaves)
	// A measurement of a part is never its marking; an unknown word never replaces one.
	u := say("BT1 2.9")
	require.True(t, u.Measured != nil && u.Measured.Sure && u.Sure)
	require.Empty(t, u.Destinations)
	require.Equal(t, "BT1        @empty", say("the battery is out").Destinations[0].Text)
	require.Empty(t, say("EH-0142 fan stuck").Destinations, "it has none on its sheets")
	u = say("main board: U14 fizzled")
	require.Contains(t, u.Destinations[0].Blocked, `"fizzled" is no marking that is known`)
	require.Equal(t, "main board: U14 fizzled", u.NoteInstead)
	var invalid *action.Invalid
	for words, why := range map[string]string{
		"U14 fizzled": "no marking that is known", "U14 replaced by 27128 in 2091": "lies after today",
		"U14 new 27128 in 1971": "before the machine was built", "U23,U99 removed": "not all of",
	} {
		require.ErrorAs(t, second(actions.QuickEntry.Enter(ctx, technician, machine.ID, board.ID, 1, words)), &invalid,
			words)
		require.Contains(t, invalid.Why, why)
	}
	// What happened to the cell ends what was wrong with it, in the condition, too; undone, it is as before.
	kept, err := actions.QuickEntry.Enter(ctx, technician, machine.ID, board.ID, 1, "BT1 replaced by CR2032")
	require.NoError(t, err)
	require.Contains(t, kept.Revision.Body, "BT1        CR2032 new:"+technician.Today())
	now, err := actions.Condition.Condition(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.False(t, now.Findings[0].Story.Open)
	require.NoError(t, actions.History.Undo(ctx, technician, kept.Event))
	now, err = actions.Condition.Condition(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.True(t, now.Findings[0].Story.Open, now.Findings)

	// Of the machine as a whole: works, a source says, a finding in words, where it is.
	for words, would := range map[string]string{
		"runs again": "tested today: it works", "memory 64K by firmware": "a statement: memory is 64K, from firmware",
		"EH-0142 moved to Seed loft": "it stands in Seed loft from today, a place that is not in the list yet", "hinge cracked": "a finding: hinge, cracked",
	} {
		require.Equal(t, would, say(words).Happened)
		kept, err := actions.QuickEntry.Enter(ctx, technician, machine.ID, 0, 0, words)
		require.NoError(t, err, words)
		require.Equal(t, strings.HasPrefix(would, "a statement") || strings.HasPrefix(would, "tested"), kept.Event == 0)
	}
	dossier, err := actions.Bench.Dossier(ctx, viewer, machine.ID)
	require.NoError(t, err)
	said := map[string]string{}
	for _, k := range dossier.Known {
		for _, s := range k.Statements {
			said[s.Attribute] = s.Value + " " + string(s.Kind)
		}
	}
	require.Equal(t, "yes tested", said["worked"])
	moved, err := actions.Inventory.Machine(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, "Seed loft", moved.Place)
	now, err = actions.Condition.Condition(ctx, viewer, machine.ID)
	require.NoError(t, err)
	hinge := now.Findings[0]
	require.Equal(t, []string{"cracked", "hinge"}, []string{hinge.Kind, hinge.Where})
	told, err := actions.History.History(ctx, viewer, machine.ID, 0, 10)
	require.NoError(t, err)
	for _, e := range told.Events {
		if strings.HasPrefix(e.What, "found cracked, hinge") {
			require.NoError(t, actions.History.Undo(ctx, technician, e.ID))
		}
	}
	now, err = actions.Condition.Condition(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Len(t, now.Findings, 1)
}

// A chip that is lent stays what it is; a board and the machine are lent like any other.
func TestSayWhatIsLent(t *testing.T) {
	store, actions, machine, board := newBoard(t, inventory.MachineInput{},
		"== Main board\nU14 27128-25 8533 !bent pin\nU15 7400\n== Disk card\nU1 7400")
	enter := func(assembly int64, base int, words string) {
		_, err := actions.QuickEntry.Enter(ctx, technician, machine.ID, assembly, base, words)
		require.NoError(t, err, words)
	}
	occupants := func() []sheets.ChangedPosition {
		_, err := store.ExecContext(ctx, "UPDATE sheet_revision SET at = at - interval '2 days'")
		require.NoError(t, err)
		changed, err := actions.Sheets.ChangedPositions(ctx, viewer, board.ID)
		require.NoError(t, err)
		return changed
	}
	enter(board.ID, 1, "U14 lent to Mudflat Museum until 2099-01-31")
	require.Equal(t, "lent", occupants()[0].Occupants[0].Went)
	now, err := actions.Condition.Condition(ctx, viewer, machine.ID)
	require.NoError(t, err)
	kinds := map[string]bool{}
	for _, f := range now.Findings {
		kinds[f.Kind] = f.Story.Open
	}
	require.Equal(t, map[string]bool{"bent pin": true, "lent": true}, kinds)
	enter(board.ID, 2, "U14 is back")
	require.Empty(t, occupants())
	enter(0, 0, "Disk card lent to Mudflat Museum until 2099-01-31")
	enter(0, 0, "lent to Mudflat Museum")
	told, err := actions.History.History(ctx, viewer, machine.ID, 0, 1)
	require.NoError(t, err)
	require.Contains(t, told.Events[0].What, "lent to Mudflat Museum")
	var invalid *action.Invalid
	require.ErrorAs(t, second(actions.QuickEntry.Enter(ctx, technician, machine.ID, 0, 0,
		"main board lent to Mudflat Museum on 2099-01-31")), &invalid)
}
