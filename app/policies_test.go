package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/parts"
	"frugalheron/app/work"
)

// What follows from one survey differs by the school that was chosen: for the collection, or for the machine with a reason.
func TestJobsFollowTheSchool(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{},
		"== Main board\nC1-C3 470u/16V electrolytic\nC4 470u/16V electrolytic !bulging\nC5 470u/16V electrolytic !leaking\nBT1 NiCd 3.6V !leaking")
	choose := func(machineID int64, question, option, why string) error {
		version := 0
		for _, p := range must(actions.Work.Policies(ctx, viewer, machineID)) {
			if p.Key == question && p.Own != nil {
				version = p.Own.Version
			} else if p.Key == question {
				version = p.Collection.Version
			}
		}
		return second(actions.Work.Choose(ctx, curator, machineID, question, version, work.ChoiceInput{Option: option,
			Why: why}))
	}
	advised := func(place string) *work.Advised {
		for _, w := range must(actions.Work.Treatment(ctx, technician, machine.ID)).Wanting {
			if w.Place == place {
				return w.Policy
			}
		}
		return nil
	}
	require.Nil(t, advised("C4"), "nobody decided")
	require.NoError(t, choose(0, "capacitors", "needed", ""))
	require.Equal(t, "C4", advised("C4").Place)
	var invalid *action.Invalid
	require.ErrorAs(t, choose(machine.ID, "capacitors", "all", ""), &invalid, "a machine goes its own way with a reason")
	require.ErrorAs(t, choose(machine.ID, "capacitors", "some", "x"), &invalid)
	require.ErrorIs(t, choose(machine.ID, "hull", "tar", "x"), action.ErrNotFound)
	require.ErrorIs(t, second(actions.Work.Choose(ctx, technician, 0, "aim", 0, work.ChoiceInput{Option: "run"})),
		action.ErrForbidden)
	require.NoError(t, choose(machine.ID, "capacitors", "all", "it runs all day at the open house"))
	all := advised("C4")
	require.Equal(t, "C1,C2,C3,C4,C5", all.Place)
	require.Equal(t, []string{"5 x 470u/16V electrolytic"}, all.Needs)
	require.Len(t, all.FindingKeys, 2, "one job for both findings")
	must(actions.Work.AddJob(ctx, technician, machine.ID, work.JobInput{Template: all.Template, AssemblyID: &board.ID,
		Place: all.Place, FindingKeys: all.FindingKeys, Needs: all.Needs}))
	require.Nil(t, advised("C5"), "it wants no job any more")
	require.NoError(t, choose(machine.ID, "battery", "leads", "it needs its clock"))
	require.Equal(t, "battery-new", advised("BT1").Template)
	require.NoError(t, choose(machine.ID, "battery", "", ""))
	require.Nil(t, advised("BT1"), "as the collection does, which did not decide")

	// Both schools beside each other: parts, hours, and money as far as the stores know it.
	price := int64(35)
	must(actions.Parts.AddStock(ctx, technician, parts.StockInput{What: "470u/25V 105C", Count: 20,
		PriceCents: &price}))
	costs := must(actions.Work.PolicyCosts(ctx, technician, machine.ID, "capacitors"))
	require.Equal(t, []int{2, 5}, []int{costs[0].Pieces, costs[1].Pieces})
	require.Equal(t, []int64{70, 175}, []int64{costs[0].Cents, costs[1].Cents})
	require.Less(t, costs[0].Minutes, costs[1].Minutes)
	cells := must(actions.Work.PolicyCosts(ctx, technician, machine.ID, "battery"))
	require.Equal(t, 2, cells[2].Unpriced, "nobody knows what a holder costs, or the cell")
	require.Zero(t, cells[4].Pieces, "there is no potted module")
	require.ErrorIs(t, second(actions.Work.PolicyCosts(ctx, technician, machine.ID, "aim")), action.ErrNotFound)
	require.ErrorIs(t, second(actions.Work.PolicyCosts(ctx, viewer, machine.ID, "disk")), action.ErrForbidden)
}
