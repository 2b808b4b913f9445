package app_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	appteardown "frugalheron/app/teardown"
	"frugalheron/core/teardown"
	"frugalheron/core/wiring"
)

func plug(name string) wiring.Connector {
	return wiring.Connector{Name: name, FromBoard: "Drive " + name, ToBoard: "Main board", Kind: "header", PlugPins: 10,
		SocketPins: 10, Key: "notch"}
}

// A machine is taken apart in 25 steps with 14 connectors, handed over, and put together again; one connector
// is left, and named.
func TestAMachineIsTakenApartHandedOverAndPutTogether(t *testing.T) {
	db, actions, machine, _ := newBoard(t, inventory.MachineInput{Maker: "Tarn & Vole", Model: "Meridian 2"},
		"== Main board\nU1 7400 8530\nJ1-J14 header")
	ottilie, err := actions.Accounts.AddAccount(ctx, "ottilie", "Ottilie Wren", action.Curator, "estuary-curator")
	require.NoError(t, err)
	bram, err := actions.Accounts.AddAccount(ctx, "bram", "Bram Sedge", action.Technician, "estuary-technician")
	require.NoError(t, err)
	first, second := action.Actor{AccountID: ottilie, Name: "Ottilie Wren", Role: action.Curator},
		action.Actor{AccountID: bram, Name: "Bram Sedge", Role: action.Technician}

	for i := range 13 {
		_, err := actions.Teardown.MapConnector(ctx, first, machine.ID, plug(fmt.Sprintf("J%d", i+1)))
		require.NoError(t, err)
	}
	var invalid *action.Invalid
	_, err = actions.Teardown.MapConnector(ctx, first, machine.ID, plug("j3"))
	require.ErrorAs(t, err, &invalid, "a name stands for one connector")
	_, err = actions.Teardown.StartTeardown(ctx, viewer, machine.ID,
		appteardown.StartedTeardown{Purpose: "battery", Rows: 4, Columns: 6})
	require.ErrorIs(t, err, action.ErrForbidden)
	log, err := actions.Teardown.StartTeardown(ctx, first, machine.ID,
		appteardown.StartedTeardown{Purpose: "battery out", Rows: 4, Columns: 6})
	require.NoError(t, err)
	_, err = actions.Teardown.StartTeardown(ctx, first, machine.ID,
		appteardown.StartedTeardown{Purpose: "again", Rows: 4, Columns: 6})
	require.ErrorAs(t, err, &invalid)

	plugs := 0
	for i := range 25 {
		line := fmt.Sprintf("Part %d | 2x M3x%d PH1 @%s", i+1, 5+i%4, log.FreeCell)
		if log.FreeCell == "" {
			line = fmt.Sprintf("Part %d | 2x M3x6 PH1 @hole", i+1)
		}
		if i >= 5 && plugs < 14 {
			plugs++
			line += fmt.Sprintf(" | unplug J%d", plugs) // J14 is not on the map yet
		}
		log, err = actions.Teardown.AddStep(ctx, first, log.ID, appteardown.StepInput{Line: line})
		require.NoError(t, err, line)
	}
	require.Equal(t, teardown.Sums{Steps: 25, Off: 25, Fasteners: 50, Aside: 48, Unplugged: 14, Open: 14}, log.Sums)
	require.Equal(t, 25, log.Next)
	opened, err := actions.Teardown.OpenedUp(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, "in hand", string(opened.Stage.State))
	require.Equal(t, "Ottilie Wren", opened.Now.StartedBy)
	_, err = actions.Teardown.AddStep(ctx, first, log.ID, appteardown.StepInput{Line: "More | 2x M3x5 @A99"})
	require.ErrorAs(t, err, &invalid)
	require.Equal(t, "line", invalid.Field)
	_, err = actions.Teardown.AddStep(ctx, first, log.ID,
		appteardown.StepInput{Step: &teardown.Step{Off: "More"}, Pictures: []int64{77}})
	require.ErrorAs(t, err, &invalid)
	_, err = actions.Teardown.EndTeardown(ctx, second, log.ID)
	require.ErrorContains(t, err, "step 25, Part 25, is not back on")

	// Somebody else puts it together, and forgets J7.
	for _, s := range log.Steps {
		step := log.Steps[len(log.Steps)-s.N]
		r := appteardown.Reversed{Reversal: teardown.Reversal{State: teardown.Back}, Plugged: step.Connectors}
		if len(step.Connectors) > 0 && step.Connectors[0] == "J7" {
			r.Plugged = nil
		}
		if step.N == 3 {
			r.Left = []teardown.LeftOver{{Fastener: 0, Count: 1}}
		}
		_, err = actions.Teardown.ReverseStep(ctx, second, step.ID, step.Version, r)
		require.NoError(t, err)
	}
	log, err = actions.Teardown.Teardown(ctx, viewer, log.ID)
	require.NoError(t, err)
	require.Equal(t, "Bram Sedge", log.Steps[4].ReversedBy)
	_, err = actions.Teardown.EndTeardown(ctx, second, log.ID)
	require.ErrorAs(t, err, &invalid)
	require.Contains(t, invalid.Why, "connector J7, unplugged in step 12, is open")
	require.Contains(t, invalid.Why, "1 M3 x 7 mm of step 3, Part 3, is left over")

	// The screw left over is a finding, once; the reckoning names the open connector.
	found, err := actions.Condition.Condition(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Len(t, found.Findings, 1)
	require.Equal(t, "1 M3 x 7 mm left over from Part 3", found.Findings[0].Where)
	reckoned, err := actions.Bench.ReckonMachine(ctx, viewer, machine.ID, nil)
	require.NoError(t, err)
	labels := map[string]string{}
	for _, v := range reckoned.Verdicts {
		labels[v.Key] = v.Value
	}
	require.Equal(t, "1 open", labels["open-connectors"])

	wired, err := actions.Teardown.Wiring(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, 1, wired.Open)
	var stale *action.Stale
	_, err = actions.Teardown.PlugConnector(ctx, second, wired.Connectors[6].ID, 1, false)
	require.ErrorAs(t, err, &stale)
	_, err = actions.Teardown.VoidConnector(ctx, second, wired.Connectors[6].ID, wired.Connectors[6].Version)
	require.ErrorAs(t, err, &invalid, "what is open is not forgotten")
	_, err = actions.Teardown.PlugConnector(ctx, second, wired.Connectors[6].ID, wired.Connectors[6].Version, false)
	require.NoError(t, err)
	third := log.Steps[2]
	_, err = actions.Teardown.ReverseStep(ctx, second, third.ID, third.Version,
		appteardown.Reversed{
			Reversal: teardown.Reversal{State: teardown.Back,
				Left: []teardown.LeftOver{{Fastener: 0, Count: 1, Reason: "the hole is stripped"}}},
		})
	require.NoError(t, err)
	log, err = actions.Teardown.EndTeardown(ctx, second, log.ID)
	require.NoError(t, err)
	require.Equal(t, "closed with exceptions", log.Outcome)
	require.Contains(t, log.Why, "the hole is stripped")
	found, err = actions.Condition.Condition(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Len(t, found.Findings, 1)
	_, err = actions.Teardown.AddStep(ctx, first, log.ID, appteardown.StepInput{Line: "Late"})
	require.ErrorAs(t, err, &invalid)

	// That it ended can be taken back; the log becomes the procedure of the model.
	history, err := actions.History.History(ctx, viewer, machine.ID, 0, 1)
	require.NoError(t, err)
	require.Contains(t, history.Events[0].What, "ended the log, closed with exceptions")
	require.NoError(t, actions.History.Undo(ctx, second, history.Events[0].ID))
	procedure, err := actions.Teardown.MakeProcedure(ctx, second, log.ID, "Down to part 25", "Mind the clips")
	require.NoError(t, err)
	_, err = actions.Teardown.MakeProcedure(ctx, second, log.ID, "down to PART 25", "")
	require.ErrorAs(t, err, &invalid)
	fields := procedure.ProcedureInput
	fields.Body += "\nodd | stuff"
	_, err = actions.Teardown.ChangeProcedure(ctx, second, procedure.ID, procedure.Version, fields)
	require.ErrorContains(t, err, "line 26")
	require.Equal(t, []string{"start teardown", "end teardown", "reopen teardown"},
		actionsOf(t, db, "teardown", log.ID))
}

// The next machine of the model starts from the procedure; how it differs dates the build.
func TestTheNextMachineStartsFromTheProcedure(t *testing.T) {
	dated := "== Main board\nU1 7400 8530\nU2 7402 8531\nU3 7404 8532\nU4 7408 8533\nU5 7410 8534\nU6 7420 8535"
	_, actions, older, _ := newBoard(t, inventory.MachineInput{Maker: "Tarn & Vole", Model: "Meridian 2"}, dated)
	newer, err := actions.Inventory.CreateMachine(ctx, curator,
		inventory.MachineInput{Accession: "EH-0143", Name: "Meridian 2, late", Maker: "Tarn & Vole",
			Model: "Meridian 2"})
	require.NoError(t, err)
	_, err = actions.Sheets.TakeOverSheet(ctx, technician, newer.ID,
		"== Main board\nU1 7400 8730\nU2 7402 8731\nU3 7404 8732\nU4 7408 8733\nU5 7410 8734\nU6 7420 8735")
	require.NoError(t, err)
	log, err := actions.Teardown.StartTeardown(ctx, technician, older.ID,
		appteardown.StartedTeardown{Purpose: "look at the battery", Rows: 2, Columns: 2})
	require.NoError(t, err)
	for _, line := range []string{"Lid | 4x M3x8 @A1", "Battery | differs battery: soldered",
		"Power supply | unplug P1 | in this order"} {
		log, err = actions.Teardown.AddStep(ctx, technician, log.ID, appteardown.StepInput{Line: line})
		require.NoError(t, err)
	}
	// Cautions come at the first step where they are due, on the way back.
	require.Equal(t, "mains", string(log.Steps[2].BackOn[0].Key))
	require.Equal(t, "battery", string(log.Steps[1].Cautions[0].Key))
	// While a step is written, what to take care of is said before it comes off, unless it was said before.
	read, err := actions.Teardown.ReadStep(ctx, technician, log.ID,
		appteardown.StepInput{Line: "Monitor, tube | unplug P1"})
	require.NoError(t, err)
	require.Equal(t, []string{"tube", "weight"}, []string{string(read.Cautions[0].Key), string(read.Cautions[1].Key)})
	require.Equal(t, "which way", read.Warnings[0].Kind)
	read, err = actions.Teardown.ReadStep(ctx, technician, log.ID,
		appteardown.StepInput{Line: "Second supply | four screws"})
	require.NoError(t, err)
	require.Empty(t, read.Cautions)
	require.Contains(t, read.Problem, "is not understood")
	procedure, err := actions.Teardown.MakeProcedure(ctx, technician, log.ID, "To the battery", "The lid is brittle")
	require.NoError(t, err)

	next, err := actions.Teardown.StartTeardown(ctx, technician, newer.ID,
		appteardown.StartedTeardown{Purpose: "battery", Rows: 2, Columns: 2, ProcedureID: &procedure.ID})
	require.NoError(t, err)
	require.Equal(t, "The lid is brittle", next.Warnings)
	require.Len(t, next.Upcoming, 3)
	next, err = actions.Teardown.AddStep(ctx, technician, next.ID, appteardown.StepInput{Step: &next.Upcoming[0]})
	require.NoError(t, err)
	next, err = actions.Teardown.AddStep(ctx, technician, next.ID,
		appteardown.StepInput{Line: "Battery | differs battery: in a holder"})
	require.NoError(t, err)
	require.Len(t, next.Upcoming, 1)
	require.Equal(t, []teardown.Change{
		{Step: 2, Off: "Battery", Text: "battery here: in a holder; in the procedure: soldered"},
	}, next.Changes)
	opened, err := actions.Teardown.OpenedUp(ctx, viewer, newer.ID)
	require.NoError(t, err)
	require.Len(t, opened.Variants, 1)
	require.Contains(t, opened.Variants[0].Dates, "soldered gave place to in a holder between 198")

	// A step that is changed gives back what it does not name any more; one struck out can be brought back.
	step := log.Steps[2]
	log, err = actions.Teardown.ChangeStep(ctx, technician, step.ID, step.Version,
		appteardown.StepInput{Line: "Power supply | unplug P2"})
	require.NoError(t, err)
	wired, err := actions.Teardown.Wiring(ctx, viewer, older.ID)
	require.NoError(t, err)
	require.Equal(t, []bool{false, true}, []bool{wired.Connectors[0].Open, wired.Connectors[1].Open})
	var stale *action.Stale
	_, err = actions.Teardown.VoidStep(ctx, technician, step.ID, step.Version)
	require.ErrorAs(t, err, &stale)
	_, err = actions.Teardown.VoidStep(ctx, technician, step.ID, log.Steps[2].Version)
	require.NoError(t, err)
	log, err = actions.Teardown.Teardown(ctx, viewer, log.ID)
	require.NoError(t, err)
	require.Len(t, log.Steps, 2)
	require.Zero(t, log.Sums.Open)
	history, err := actions.History.History(ctx, viewer, older.ID, 0, 5)
	require.NoError(t, err)
	require.Equal(t, "deleted the step Power supply | unplug P2", history.Events[0].What)
	require.NoError(t, actions.History.Undo(ctx, technician, history.Events[0].ID))
	log, err = actions.Teardown.Teardown(ctx, viewer, log.ID)
	require.NoError(t, err)
	require.Equal(t, []string{"P2"}, log.Steps[2].Open)
	// A connector that is named anew is known by its new name in the log, too.
	wired, err = actions.Teardown.Wiring(ctx, viewer, older.ID)
	require.NoError(t, err)
	p2 := wired.Connectors[wired.Find("P2")]
	renamed := p2.Connector
	renamed.Name, renamed.ToBoard = "PS2", "Main board"
	_, err = actions.Teardown.ChangeConnector(ctx, technician, p2.ID, p2.Version, renamed)
	require.NoError(t, err)
	log, err = actions.Teardown.Teardown(ctx, viewer, log.ID)
	require.NoError(t, err)
	require.Equal(t, []string{"PS2"}, log.Steps[2].Open)
	// What was struck off the map comes back by undoing, unless another has its name by then.
	p1 := wired.Connectors[wired.Find("P1")]
	_, err = actions.Teardown.VoidConnector(ctx, technician, p1.ID, p1.Version)
	require.NoError(t, err)
	history, err = actions.History.History(ctx, viewer, older.ID, 0, 1)
	require.NoError(t, err)
	require.Equal(t, "took the connector P1 off the map", history.Events[0].What)
	require.NoError(t, actions.History.Undo(ctx, technician, history.Events[0].ID))
	wired, err = actions.Teardown.Wiring(ctx, viewer, older.ID)
	require.NoError(t, err)
	p1 = wired.Connectors[wired.Find("P1")]
	_, err = actions.Teardown.VoidConnector(ctx, technician, p1.ID, p1.Version)
	require.NoError(t, err)
	_, err = actions.Teardown.MapConnector(ctx, technician, older.ID, plug("P1"))
	require.NoError(t, err)
	history, err = actions.History.History(ctx, viewer, older.ID, 0, 2)
	require.NoError(t, err)
	var invalid *action.Invalid
	require.ErrorAs(t, actions.History.Undo(ctx, technician, history.Events[1].ID), &invalid)

	// A procedure is changed by one at a time.
	fields := procedure.ProcedureInput
	fields.Warnings = "The lid is brittle, and sharp"
	changed, err := actions.Teardown.ChangeProcedure(ctx, technician, procedure.ID, procedure.Version, fields)
	require.NoError(t, err)
	_, err = actions.Teardown.ChangeProcedure(ctx, technician, procedure.ID, procedure.Version, fields)
	require.ErrorAs(t, err, &stale)
	require.Equal(t, changed, stale.Newer)
	told, err := actions.Teardown.Procedure(ctx, viewer, procedure.ID)
	require.NoError(t, err)
	require.Len(t, told.Steps, 3)
	require.Len(t, told.Variants, 1)
	all, err := actions.Teardown.Procedures(ctx, viewer)
	require.NoError(t, err)
	require.Equal(t, fields.Warnings, all[0].Warnings)
	drawn, err := actions.Teardown.WiringDrawing(ctx, viewer, older.ID, "Main board")
	require.NoError(t, err)
	require.Contains(t, string(drawn.Data), "PS2")
	list, err := actions.Teardown.WiringList(ctx, viewer, older.ID)
	require.NoError(t, err)
	require.Contains(t, string(list.Data), "PS2,not said yet")
}

// The way to a part follows from each procedure of the model and each log of the machine.
func TestWaysToAPart(t *testing.T) {
	_, actions := newApp(t)
	machine := must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: "EH-1",
		Name: "Meridian", Maker: "Tarn & Vole", Model: "Meridian 2"})).ID
	must(actions.Sheets.TakeOverSheet(ctx, curator, machine, "== Main board\nBT1 NiCd\nU7 74LS00"))
	require.Empty(t, must(actions.Teardown.WaysTo(ctx, viewer, machine, "BT1")))
	log := must(actions.Teardown.StartTeardown(ctx, curator, machine,
		appteardown.StartedTeardown{Purpose: "the battery", Rows: 2, Columns: 2})).ID
	for _, line := range []string{"Lid | 2x M3x8 PH1 @A1 | needs: nothing", "Fan | needs: Lid",
		"Main board | unplug J5 | needs: Lid | frees: BT1 | 10 min"} {
		must(actions.Teardown.AddStep(ctx, curator, log, appteardown.StepInput{Line: line}))
	}
	must(actions.Teardown.MakeProcedure(ctx, curator, log, "Down to the board", ""))
	must(actions.Teardown.AddStep(ctx, curator, log, appteardown.StepInput{Line: "Battery bracket"}))
	ways := must(actions.Teardown.WaysTo(ctx, viewer, machine, "bt1"))
	require.Len(t, ways, 2)
	require.Equal(t, "Down to the board To bt1: 2 of 3 steps, PH1, 1 plug, 10 minutes, 1 step that nobody timed.",
		ways[0].By+" "+ways[0].Words)
	require.Equal(t, "log: the battery", ways[1].By)
	require.Equal(t, 4, ways[1].Of)
	require.Equal(t, "Nobody got to U7 yet; nearest is Main board.",
		must(actions.Teardown.WaysTo(ctx, viewer, machine, "U7"))[0].Words)
	told := must(actions.Teardown.Teardown(ctx, viewer, log))
	require.Equal(t, []string{"Fan", "Main board", "Battery bracket"}, told.Steps[0].First)
	require.Empty(t, told.Steps[3].First)
	_, err := actions.Teardown.WaysTo(ctx, viewer, machine, " ")
	require.ErrorContains(t, err, "say which part")
}

// A plug that was found open does not keep a machine from being closed; it is among the unknowns until somebody knows
// where it goes.
func TestFoundOpenIsUnknown(t *testing.T) {
	_, actions := newApp(t)
	machine := must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: "EH-1",
		Name: "Meridian"})).ID
	log := must(actions.Teardown.StartTeardown(ctx, curator, machine,
		appteardown.StartedTeardown{Purpose: "to look", Rows: 2, Columns: 2})).ID
	step := must(actions.Teardown.AddStep(ctx, curator, log, appteardown.StepInput{Line: "Lid"})).Steps[0]
	loose := wiring.Connector{Name: "J8", FromBoard: "Loose lead", FoundOpen: true}
	w := must(actions.Teardown.MapConnector(ctx, curator, machine, loose))
	require.True(t, w.Connectors[0].Open)
	require.Zero(t, w.Open)
	unknown := must(actions.Unknowns.Unknowns(ctx, viewer, machine)).Open
	require.Equal(t, "connector EH-1 J8", unknown[0].Sort+" "+unknown[0].Subject)
	_, err := actions.Teardown.PlugConnector(ctx, curator, w.Connectors[0].ID, w.Connectors[0].Version, false)
	require.ErrorContains(t, err, "say first where J8 goes")
	told := must(actions.Teardown.ReverseStep(ctx, curator, step.ID, step.Version,
		appteardown.Reversed{Reversal: teardown.Reversal{State: teardown.Back}}))
	require.Empty(t, told.Blockers)
	loose.ToBoard = "Main board"
	w = must(actions.Teardown.ChangeConnector(ctx, curator, w.Connectors[0].ID, w.Connectors[0].Version, loose))
	must(actions.Teardown.PlugConnector(ctx, curator, w.Connectors[0].ID, w.Connectors[0].Version, false))
	require.Empty(t, must(actions.Unknowns.Unknowns(ctx, viewer, machine)).Open)
}
