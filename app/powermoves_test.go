package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/inventory"
	"frugalheron/store/power"
)

// What was found in a machine is no change of it; what came in from elsewhere, or left, is, and is told from a day on.
func TestWhatWasChangedInAMachine(t *testing.T) {
	db, actions := newApp(t)
	machine := func(accession string) int64 {
		m, err := actions.Inventory.CreateMachine(ctx, curator,
			inventory.MachineInput{Accession: accession, Name: "Meridian"})
		require.NoError(t, err)
		return m.ID
	}
	first, second := machine("EH-1"), machine("EH-2")
	boards, err := actions.Sheets.TakeOverSheet(ctx, curator, first, "== Main board\nBT1 battery NiCd 3.6V @empty\n"+
		"== Disk card | slot 2\nU1 74LS245")
	require.NoError(t, err)
	changed := func(machine int64) string {
		on, err := power.ChangedOn(ctx, db, machine)
		require.NoError(t, err)
		return on
	}
	require.Empty(t, changed(first), "it was found so")
	_, err = actions.Inventory.MoveAssembly(ctx, curator, boards[1].ID, 1, inventory.Move{To: "machine",
		MachineID: second, Slot: "1"})
	require.NoError(t, err)
	today := curator.Today()
	require.Equal(t, today, changed(first), "the card left")
	require.Equal(t, today, changed(second), "and came in here")
	for machine, left := range map[int64]bool{first: true, second: false} {
		since, err := power.MovedSince(ctx, db, machine, today)
		require.NoError(t, err)
		require.Equal(t, []power.Moved{{Title: "Disk card", On: today, Left: left}}, since)
		later, err := power.MovedSince(ctx, db, machine, "2999-01-01")
		require.NoError(t, err)
		require.Empty(t, later)
	}

	cells, err := power.EmptyCells(ctx, db, first)
	require.NoError(t, err)
	require.Equal(t, []string{"Main board", "BT1"}, []string{cells[0].Board, cells[0].Places})

	// What is said of a part goes with its board.
	require.NoError(t, power.PutPart(ctx, db, boards[1].ID, "BT9", `{"place":"BT9"}`))
	require.NoError(t, power.PutPart(ctx, db, boards[1].ID, "BT9", `{"place":"BT9","neededToStart":true}`))
	said, err := power.PartsIn(ctx, db, second)
	require.NoError(t, err)
	require.Equal(t, []int{2}, []int{said[0].Version})
	none, err := power.PartsIn(ctx, db, first)
	require.NoError(t, err)
	require.Empty(t, none)
}
