package app_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/people"
	"frugalheron/app/power"
	"frugalheron/core/gate"
	"frugalheron/core/ladder"
)

// poweredUp is a machine with a board that has a cell, and a card in a slot.
func poweredUp(t *testing.T, actions *app.App) (machine, board, card int64) {
	machine = must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: "EH-1",
		Name: "Meridian"})).ID
	boards := must(actions.Sheets.TakeOverSheet(ctx, curator, machine, "== Main board\nU1 74LS00\nBT1 battery NiCd 3.6V "+
		"!leaking: crust\n== Disk card | slot 2\nU1 74LS245"))
	now := must(actions.Inventory.Collection(ctx, curator))
	now.MainsVolts, now.MainsHz = 230, 50
	must(actions.Inventory.ChangeCollection(ctx, curator, now.Version, now.CollectionInput))
	return machine, boards[0].ID, boards[1].ID
}

func missing(p power.Power) string {
	ids := []string{}
	for _, m := range p.Missing {
		ids = append(ids, string(m.Blocks)+" "+m.ID)
	}
	return strings.Join(ids, "; ")
}

// From a leaking battery to a cleared machine: each record opens or closes the gate, wherever it was made.
func TestTheGateFollowsFromTheOneRecord(t *testing.T) {
	_, actions := newApp(t)
	machine, board, _ := poweredUp(t, actions)
	now := func() power.Power { return must(actions.Power.Power(ctx, technician, machine)) }
	require.Equal(t, gate.Hold, now().State)
	require.True(t, now().Danger)
	require.Contains(t, missing(now()), "hold BT1 on Main board; hold supplies; supply-only Main board, BT1, leaking")
	require.Equal(t, []string{"Main board alone; out: Disk card", "Disk card"},
		[]string{now().Proposed[0].Step, now().Proposed[1].Step})

	// Where the work is done: the sheet says that another cell is in.
	saved := must(actions.Sheets.Contents(ctx, technician, machine))[0]
	must(actions.Sheets.SaveSheet(ctx, technician, board, saved.Revision,
		"U1 74LS00\nBT1 battery NiMH 3.6V new:"+technician.Today()))
	require.Equal(t, "hold supplies; staged ladder", missing(now()))
	require.False(t, now().Danger, "nobody said anything yet; nobody found danger")

	supply := must(actions.Power.AddSupply(ctx, technician, machine, power.SupplyInput{Name: "built in", Kind: "mains",
		PlateVolts: "220-240", PlateHz: "50", InspectedOn: technician.Today(), Needs: []string{"+5"}}))
	require.Equal(t, "supply-only +5; staged ladder", missing(now()))
	measured := func(line, load string) {
		must(actions.Condition.Measure(ctx, technician, machine, condition.MeasurementInput{Line: line, Load: load}))
	}
	measured("+5 5.02 V", "")
	require.Equal(t, "supply-only +5; staged ladder", missing(now()), "nobody said under which load")
	measured("+5 4.6 V", "dummy")
	require.Equal(t, "supply-only +5; staged ladder", missing(now()), "out of its limits, and told once")
	measured("+5 5.02 V", "dummy")
	require.Equal(t, "staged ladder", missing(now()))

	rungs := must(actions.Power.BuildLadder(ctx, technician, machine)).Rungs
	up := func(result string, ids ...int64) power.Upped {
		return must(actions.Power.PowerUp(ctx, technician, machine, power.UpInput{RungIDs: ids, Result: result,
			Seen: "it"}))
	}
	require.Equal(t, gate.Staged, up("as-expected", rungs[0].ID).Gate)
	up("as-expected", rungs[1].ID)
	require.Equal(t, gate.Cleared, now().State)
	require.Equal(t, "settled", string(now().Stage.State))

	// Somebody else moves the supply by car: nothing else has to be said for the gate to close.
	supply.MovedOn = technician.Today()
	must(actions.Power.ChangeSupply(ctx, technician, supply.ID, supply.Version, supply.SupplyInput))
	require.Equal(t, gate.Cleared, now().State, "moved counts as before what was done on the day")
	verdicts := must(actions.Bench.ReckonMachine(ctx, viewer, machine, nil)).Verdicts
	found := false
	for _, v := range verdicts {
		found = found || v.Key == "gate" && v.Stage == "power-up" && strings.HasPrefix(v.Value, "cleared")
	}
	require.True(t, found, "the reckoning tells it on every stage")
}

// Everything at once is kept, and does not tell which; against the gate it needs who decided; what was not as expected
// closes the gate until something is changed.
func TestPowerAgainstTheGateIsKept(t *testing.T) {
	_, actions := newApp(t)
	machine, _, card := poweredUp(t, actions)
	rungs := must(actions.Power.BuildLadder(ctx, technician, machine)).Rungs
	all := power.UpInput{RungIDs: []int64{rungs[0].ID, rungs[1].ID}, Result: "not", Seen: "dark"}
	var invalid *action.Invalid
	_, err := actions.Power.PowerUp(ctx, technician, machine, all)
	require.ErrorAs(t, err, &invalid)
	require.Equal(t, "decidedBy", invalid.Field)
	must(actions.People.AddParty(ctx, curator, people.PartyInput{Name: "Fenna Quill", Kind: "person", Private: true,
		Role: "a neighbour"}))
	all.DecidedBy, all.Why = "Fenna Quill", "to hear it"
	kept := must(actions.Power.PowerUp(ctx, technician, machine, all))
	require.Equal(t, gate.Hold, kept.Gate)
	now := must(actions.Power.Power(ctx, technician, machine))
	require.Contains(t, now.Rungs[1].CannotTell, "which of them was the cause is not told")
	require.Equal(t, 2, now.Stage.Count)
	require.Contains(t, missing(now), "supply-only Disk card")

	file := string(must(actions.Bench.ExportDossier(ctx, curator, machine)).Data)
	require.Contains(t, file, "to hear it", "what leaves with the machine tells it")
	require.NotContains(t, file, "Quill", "and names no private person")

	must(actions.Inventory.MoveAssembly(ctx, technician, card, 1, inventory.Move{To: "place", Place: "Net store"}))
	now = must(actions.Power.Power(ctx, technician, machine))
	require.Contains(t, missing(now), "supply-only Disk card", "moved on the same day counts as before it")

	for name, refuse := range map[string]error{
		"rungIds": second(actions.Power.PowerUp(ctx, technician, machine, power.UpInput{RungIDs: []int64{999}, Result: "not",
			Seen: "x", DecidedBy: "x", Why: "x"})),
		"seen": second(actions.Power.PowerUp(ctx, technician, machine, power.UpInput{RungIDs: all.RungIDs, Result: "not"})),
		"on": second(actions.Power.PowerUp(ctx, technician, machine, power.UpInput{RungIDs: all.RungIDs, Result: "as-expected",
			On: "2999-01-01"})),
		"step":    second(actions.Power.AddRung(ctx, technician, machine, ladder.Rung{Step: "disk CARD", Kind: ladder.Add})),
		"machine": second(actions.Power.BuildLadder(ctx, technician, machine)),
		"needs": second(actions.Power.AddSupply(ctx, technician, machine, power.SupplyInput{Name: "x", Kind: "bench",
			Needs: []string{strings.Repeat("+", 30)}})),
		"movedOn": second(actions.Power.AddSupply(ctx, technician, machine, power.SupplyInput{Name: "x", Kind: "bench",
			MovedOn: "2999-01-01"})),
	} {
		require.ErrorAs(t, refuse, &invalid, name)
		require.Equal(t, name, invalid.Field)
	}
	_, err = actions.Power.AddSupply(ctx, viewer, machine, power.SupplyInput{Name: "x", Kind: "bench"})
	require.ErrorIs(t, err, action.ErrForbidden)
}

// What a machine should show on a rung follows from the signs of the cards that are in then.
func TestRungsTellTheSignsOfWhatIsIn(t *testing.T) {
	_, actions := newApp(t)
	model := must(actions.Library.AddModel(ctx, technician, library.ModelInput{Maker: "Tarn & Vole",
		Model: "Meridian 2",
		Signs: "expect screen 128 KB OK | ready | all is found | | recalled | without 4424-1\n" +
			"expect screen 512 KB OK | ready | all is found | | recalled | with 4424-1"}))
	id := must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: "EH-1", Name: "M",
		ModelID: &model.ID})).ID
	must(actions.Sheets.TakeOverSheet(ctx, curator, id,
		"== Main board | part 4410 1\nU1 7400\n== Memory card | part 4424 1 | slot 1\nU1 7400"))
	signs := [][]string{}
	for _, rung := range must(actions.Power.BuildLadder(ctx, curator, id)).Rungs {
		signs = append(signs, rung.Signs)
	}
	require.Equal(t, [][]string{{"screen 128 KB OK (ready): all is found"},
		{"screen 512 KB OK (ready): all is found"}}, signs)
}
