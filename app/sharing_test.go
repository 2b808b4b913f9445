package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	appcondition "frugalheron/app/condition"
	"frugalheron/app/inventory"
	"frugalheron/app/sharing"
	core "frugalheron/core/sharing"
)

// A keyboard serves two machines; what stops follows from where it is and how it is, in the reckoning as well.
func TestWhatStopsWithoutAPeripheral(t *testing.T) {
	_, actions := newApp(t)
	machine := func(accession string) int64 {
		return must(actions.Inventory.CreateMachine(ctx, curator,
			inventory.MachineInput{Accession: accession, Name: "Meridian"})).ID
	}
	first, other := machine("EH-1"), machine("EH-2")
	loose := func(title string) inventory.Assembly {
		return must(actions.Inventory.AddLooseAssembly(ctx, technician, "Shelf C",
			inventory.AssemblyInput{Title: title, Kind: "keyboard"}))
	}
	keyboard := loose("Keyboard")
	serve := func(assembly, machine int64) error {
		return second(actions.Sharing.Serve(ctx, technician, assembly, sharing.ServiceInput{MachineID: machine,
			As: "keyboard", Without: "it waits for a key"}))
	}
	require.NoError(t, serve(keyboard.ID, first))
	require.NoError(t, serve(keyboard.ID, other))
	require.ErrorAs(t, serve(keyboard.ID, other), new(*action.Invalid))
	require.ErrorAs(t, serve(keyboard.ID, 99), new(*action.Invalid))
	standing := func(machine int64) core.Standing {
		return must(actions.Sharing.Serving(ctx, viewer, machine))[0].Standing
	}
	require.Equal(t, core.There, standing(other).State)
	require.Equal(t, []string{"EH-1"}, standing(other).Others)

	moved := must(actions.Inventory.MoveAssembly(ctx, technician, keyboard.ID, keyboard.Version,
		inventory.Move{To: "machine", MachineID: first}))
	require.Equal(t, "it waits for a key", standing(other).Stops)
	require.Empty(t, standing(first).Stops)
	value := func() string {
		for _, v := range must(actions.Bench.ReckonMachine(ctx, viewer, other, nil)).Verdicts {
			if v.Key == "shared" {
				return v.Value
			}
		}
		return ""
	}
	require.Equal(t, "no keyboard", value())
	spare := loose("Old keyboard")
	require.NoError(t, serve(spare.ID, other))
	require.Empty(t, value())
	must(actions.Condition.NoteBoardFinding(ctx, technician, spare.ID, appcondition.NotedFinding{Subsystem: "plastics",
		ObservedFinding: appcondition.ObservedFinding{New: &appcondition.FindingInput{Kind: "broken"},
			Severity: "repair"}}))
	require.Equal(t, "no keyboard", value(), "the other is not sound")
	must(actions.Inventory.MoveAssembly(ctx, technician, keyboard.ID, moved.Assembly.Version,
		inventory.Move{To: "loan", LentTo: "the club", Due: "2099-01-01"}))
	require.Equal(t, "it is lent to the club until 2099-01-01", standing(first).Why)

	served := must(actions.Sharing.ServedBy(ctx, viewer, keyboard.ID))
	require.Len(t, served, 2)
	must(actions.Sharing.EndService(ctx, technician, served[0].ID, served[0].Version))
	require.Empty(t, must(actions.Sharing.Serving(ctx, viewer, first)))
	require.ErrorIs(t, second(actions.Sharing.EndService(ctx, viewer, served[1].ID, 1)), action.ErrForbidden)
}
