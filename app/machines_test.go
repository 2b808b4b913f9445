package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/sheets"
)

// Machines that are entered together are all there with their sheets and sums, or none of them.
func TestMachinesAreEnteredTogetherOrNotAtAll(t *testing.T) {
	_, actions := newApp(t)
	machine := func(accession, text string) sheets.MachineWithSheets {
		return sheets.MachineWithSheets{Fields: inventory.MachineInput{Accession: accession, Name: "Lantern"},
			Sheets: text}
	}
	listed := func() []inventory.ListedMachine {
		page, err := actions.Inventory.ListMachines(ctx, viewer, inventory.MachineList{Limit: 50, Sort: "accession"})
		require.NoError(t, err)
		return page.Machines
	}
	good := machine("EL-1", "== Main board\nU1-U8 41256-15 8530\nBT1 NiCd 3.6V")
	require.ErrorContains(t,
		actions.Sheets.EnterMachines(ctx, curator,
			[]sheets.MachineWithSheets{good, machine("EL-2", "== Card\nU1 7400"), machine(" ", "")}), "accession")
	require.Error(t, actions.Sheets.EnterMachines(ctx, curator,
		[]sheets.MachineWithSheets{good, machine("EL-1", "== Card\nU1 7400")}), "one number twice")
	require.Empty(t, listed())
	require.ErrorIs(t, actions.Sheets.EnterMachines(ctx, technician, []sheets.MachineWithSheets{good}),
		action.ErrForbidden)

	require.NoError(t, actions.Sheets.EnterMachines(ctx, curator,
		[]sheets.MachineWithSheets{good, machine("EL-2", "== Card\nU1 7400\nU2 ?\n\n== Other card\nU1 7402")}))
	require.NoError(t, actions.Inventory.MeasureTables(ctx))
	entered := listed()
	require.Len(t, entered, 2)
	require.Equal(t, []int64{8, 256 * 1024, 1},
		[]int64{int64(entered[0].Chips), entered[0].RAMBytes, int64(entered[0].Boards)})
	require.Equal(t, []int{3, 1, 2}, []int{entered[1].Chips, entered[1].Unidentified, entered[1].Boards})
	risks, err := actions.Condition.Risks(ctx, viewer, 0, 0, 10)
	require.NoError(t, err)
	require.Equal(t, 1, risks.Total, "the battery is ranked from the start")
}
