package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	appcondition "frugalheron/app/condition"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/core/model"
)

// A machine on one page: what it is, its cards in their slots with what they hold, when it was built, what is urgent.
func TestAMachineAtAGlance(t *testing.T) {
	_, actions := newApp(t)
	of := must(actions.Library.AddModel(ctx, curator, library.ModelInput{Maker: "Tarn & Vole", Model: "Meridian 2",
		Made: "1984/1987"}))
	must(actions.Library.NameType(ctx, curator, library.OwnTypeInput{Number: "HX9040", Class: "processor",
		Function: "processor, 16 bits"}))
	must(actions.Library.NameKnown(ctx, curator, library.KnownInput{Kind: "board", Name: "Board of the Meridian",
		Numbers: "4410-2", Details: "gives 3 slots | 8-bit"}))
	id := must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: "EH-1", Name: "Meridian",
		Maker: "Tarn & Vole", Model: "Meridian 2", ModelID: &of.ID})).ID
	empty := must(actions.Bench.Glance(ctx, viewer, id))
	require.Equal(t, "Tarn & Vole Meridian 2.", empty.Sentence)
	require.Empty(t, empty.Layout.Bays)

	boards := must(actions.Sheets.TakeOverSheet(ctx, curator, id, "== Main board | part 4410-2\nU1 HX9040 8531\n"+
		"U2-U9 4164-15 8530\nU10 ?\n== Video card | slot 2 | part 4422\nU1-U8 4416-15 8520 for:picture"))
	must(actions.Condition.NoteFinding(ctx, curator, id, appcondition.NotedFinding{Subsystem: "boards",
		ObservedFinding: appcondition.ObservedFinding{New: &appcondition.FindingInput{Kind: "cracked",
			AssemblyID: &boards[0].ID}, Severity: "repair"}}))
	g := must(actions.Bench.Glance(ctx, viewer, id))
	require.Contains(t, g.Sentence, "Tarn & Vole Meridian 2, built 1985")
	require.Contains(t, g.Sentence, "with processor HX9040 and 64 KB of memory.")
	require.Equal(t, []int64{boards[0].ID}, g.Layout.Boards)
	require.Len(t, g.Layout.Bays, 3)
	require.Equal(t, []int64{boards[1].ID}, g.Layout.Bays[1].Units)
	require.Empty(t, g.Layout.Remarks)
	main, video := g.Units[0], g.Units[1]
	require.Equal(t, "Board of the Meridian", main.Known)
	require.Equal(t, 1, main.Findings)
	require.Equal(t, "repair", string(main.Worst))
	require.Equal(t, 1, main.Unidentified)
	require.Equal(t, "64 KB", main.RAM)
	require.Equal(t, "64 KB", video.RAM)
	require.Equal(t, "1985-W20", video.Dates.From)
	require.Equal(t, model.Within, g.Built.Placed)
	require.Equal(t, "ram", g.Figures[0].Key)
	urgent := map[string]string{}
	for _, one := range g.Urgent {
		urgent[one.Key] = one.Stage
	}
	require.Equal(t, "judge", urgent["condition"])
	require.Equal(t, "take-stock", urgent["unidentified"])
	_, err := actions.Bench.Glance(ctx, viewer, 99)
	require.ErrorIs(t, err, action.ErrNotFound)
}
