package demo_test

import (
	"context"
	"regexp"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/core/sheet"
	"frugalheron/demo"
	"frugalheron/store/storetest"
)

func TestMain(m *testing.M) { storetest.Main(m) }

var (
	ctx    = context.Background()
	viewer = action.Actor{Role: action.Viewer}
)

func TestSampleWorldReckonsWithoutProblems(t *testing.T) {
	db := storetest.New(t)
	actions := app.New(db)
	require.NoError(t, demo.Seed(ctx, actions, func(string) {}))
	require.NoError(t, demo.Seed(ctx, actions, func(string) { t.Error("seeded twice") }))
	page, err := actions.Inventory.ListMachines(ctx, viewer, inventory.MachineList{Limit: 100})
	require.NoError(t, err)
	require.GreaterOrEqual(t, page.Total, 12)
	large := 0
	for _, machine := range page.Machines {
		reckoned, err := actions.Bench.ReckonMachine(ctx, viewer, machine.ID, nil)
		require.NoError(t, err)
		fullBoards := 0
		for _, board := range reckoned.Boards {
			for _, line := range board.Lines {
				require.NotEqual(t, "problem", string(line.State), "%s line %d: %s", machine.Accession, line.Line,
					line.Text)
			}
			if 40 <= board.Totals.Chips && board.Totals.Chips <= 90 {
				fullBoards++
			}
		}
		if fullBoards >= 2 {
			large++
		}
	}
	require.GreaterOrEqual(t, large, 3)
}

// Seeding that was interrupted goes on where it was.
func TestSeedGoesOn(t *testing.T) {
	actions := app.New(storetest.New(t))
	stopped, cancel := context.WithCancel(ctx)
	third := regexp.MustCompile(`^machine 3 `)
	err := demo.Seed(stopped, actions, func(progress string) {
		if third.MatchString(progress) {
			cancel()
		}
	})
	require.ErrorIs(t, err, context.Canceled)
	has, err := actions.Accounts.HasAccounts(ctx)
	require.NoError(t, err)
	require.False(t, has)
	require.NoError(t, demo.Seed(ctx, actions, func(string) {}))
	machines, err := demo.Machines()
	require.NoError(t, err)
	page, err := actions.Inventory.ListMachines(ctx, viewer, inventory.MachineList{Limit: 100})
	require.NoError(t, err)
	require.Len(t, page.Machines, len(machines))
	for _, machine := range page.Machines {
		require.Positive(t, machine.Boards, machine.Accession)
	}
}

// The sheets are in the form that formatting gives, so that they serve as examples.
func TestSheetsAreFormatted(t *testing.T) {
	machines, err := demo.Machines()
	require.NoError(t, err)
	for _, machine := range machines {
		text, err := demo.Sheet(machine.Accession)
		require.NoError(t, err)
		parsed, err := sheet.Parse(text, sheet.Whole)
		require.NoError(t, err)
		require.Equal(t, string(text), sheet.Format(parsed), machine.Accession)
	}
}
