package app_test

import (
	"context"
	"errors"
	"strings"
	"sync"
	"testing"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/sheets"
	"frugalheron/store/history"
	"frugalheron/store/storetest"
)

func TestMain(m *testing.M) { storetest.Main(m) }

var (
	ctx        = context.Background()
	curator    = action.Actor{Role: action.Curator}
	technician = action.Actor{Role: action.Technician}
	viewer     = action.Actor{Role: action.Viewer}
)

// sevenChips are lines of a sheet: enough dated parts to tell which of them is later.
const sevenChips = `U1 7400 8530
U2 7402 8531
U3 7404 8532
U4 7408 8533
U5 7410 8534
U6 7420 8535
U7 7430 8536
`

func newBoard(t *testing.T, fields inventory.MachineInput,
	text string) (*sqlx.DB, *app.App, inventory.Machine, inventory.Assembly) {
	db, actions := newApp(t)
	fields.Accession, fields.Name = "EH-0142", "Meridian 2"
	machine, err := actions.Inventory.CreateMachine(ctx, curator, fields)
	require.NoError(t, err)
	added, err := actions.Sheets.TakeOverSheet(ctx, technician, machine.ID, text)
	require.NoError(t, err)
	return db, actions, machine, added[0]
}

func actionsOf(t *testing.T, db *sqlx.DB, kind string, id int64) []string {
	events, err := history.EventsOf(ctx, db, kind, id)
	require.NoError(t, err)
	names := []string{}
	for _, e := range events {
		names = append(names, e.Action)
	}
	return names
}

func TestTakeOverSheetKeepsEveryLine(t *testing.T) {
	body := "# first\n\nU1\t74LS00   8501\nU1 again\nno designator"
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{},
		"== Main board | part 4410-2 | colour green | for:picture  # from the van\n"+body+
			"\n== Card | fit odd\nU1 7400")
	contents, err := actions.Sheets.Contents(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Len(t, contents, 2)
	require.Equal(t, "# colour green\n# from the van\n"+body, contents[0].Body)
	require.Equal(t, "4410-2", contents[0].Part)
	require.Equal(t, "picture", contents[0].Purpose)
	require.Equal(t, "# fit odd\nU1 7400", contents[1].Body)
	require.Equal(t, "unknown", contents[1].Fit)
}

// Of many saves on one base exactly one wins; the others are told what is there now.
func TestSaveSheetOnOneBaseWinsOnce(t *testing.T) {
	db, actions, _, board := newBoard(t, inventory.MachineInput{}, "== Main board\nU1 74LS00")
	var wait sync.WaitGroup
	results := make([]error, 8)
	for i := range results {
		wait.Go(func() {
			_, results[i] = actions.Sheets.SaveSheet(ctx, technician, board.ID, 1, "U1 74LS0"+string(rune('1'+i)))
		})
	}
	wait.Wait()
	won := 0
	for _, err := range results {
		var stale *action.Stale
		if errors.As(err, &stale) {
			require.Equal(t, 2, stale.Newer.(sheets.Revision).N)
			continue
		}
		require.NoError(t, err)
		won++
	}
	require.Equal(t, 1, won)
	require.Equal(t, []string{"add assembly", "save sheet", "save sheet"}, actionsOf(t, db, "assembly", board.ID))

	// Saving what is there adds nothing, whatever the base.
	newest, err := actions.Sheets.Sheet(ctx, viewer, board.ID)
	require.NoError(t, err)
	again, err := actions.Sheets.SaveSheet(ctx, technician, board.ID, 0, newest.Body)
	require.NoError(t, err)
	require.Equal(t, 2, again.N)
}

func TestSheetMakesEntriesAndPositionsThatStay(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{},
		"== Main board\nU40-U48 41256-15 8512 @socket !bent\n2x 4164\nC5 ?")
	_, err := actions.Sheets.SaveSheet(ctx, technician, board.ID, 1, "U40 27128-25 533")
	require.NoError(t, err)
	positions, err := actions.Sheets.Positions(ctx, viewer, board.ID, 0, 100)
	require.NoError(t, err)
	require.Len(t, positions, 9+2+1) // none goes when its part does
	entries, err := actions.Sheets.Entries(ctx, viewer, board.ID, 0, 100)
	require.NoError(t, err)
	require.Len(t, entries, 1)
	require.Equal(t, "27128", entries[0].TypeNumber)
	require.Nil(t, entries[0].DateFrom) // the decade is open

	// Knowing the era settles it, on the shelf as well.
	from, to := 1984, 1988
	fields := machine.MachineInput
	fields.EraFrom, fields.EraTo = &from, &to
	_, err = actions.Inventory.ChangeMachine(ctx, curator, machine.ID, machine.Version, fields)
	require.NoError(t, err)
	entries, err = actions.Sheets.Entries(ctx, viewer, board.ID, 0, 100)
	require.NoError(t, err)
	require.Equal(t, "1985-08-12", *entries[0].DateFrom)
}

func TestTotalsOfAnOlderLibraryAreMadeAnew(t *testing.T) {
	db, actions, _, _ := newBoard(t, inventory.MachineInput{}, "== Main board\n8x 4164")
	_, err := db.Exec(`UPDATE sheet_total SET library_version = 0, totals = '{}'`)
	require.NoError(t, err)
	require.NoError(t, actions.Sheets.RereckonOld(ctx))
	page, err := actions.Inventory.ListMachines(ctx, viewer,
		inventory.MachineList{MachineFilters: inventory.MachineFilters{Search: "meridian"}, Limit: 10})
	require.NoError(t, err)
	require.Equal(t, "64.0", page.Machines[0].RAM)
}

func TestReckonMachineTakesDraftsInPlaceOfKeptSheets(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{},
		"== Main board\n8x 4164\n== Card\n8x 41256")
	reckoned, err := actions.Bench.ReckonMachine(ctx, viewer, machine.ID, map[int64]string{board.ID: "16x 4164\nU1 ?"})
	require.NoError(t, err)
	require.Equal(t, int64(128<<10), reckoned.Boards[0].Totals.RAMBytes)
	require.Equal(t, "384 KB", reckoned.Verdicts[0].Value)
	kept, err := actions.Sheets.Sheet(ctx, viewer, board.ID)
	require.NoError(t, err)
	require.Equal(t, "8x 4164", kept.Body)
}

func TestChangesAreRefusedWithTheNewerRecord(t *testing.T) {
	db, actions, machine, board := newBoard(t, inventory.MachineInput{}, "== Main board\nU1 7400")
	changed, err := actions.Inventory.ChangeMachine(ctx, curator, machine.ID, 1,
		inventory.MachineInput{Accession: "EH-0142", Name: "Meridian 2a", Place: "Loft"})
	require.NoError(t, err)
	require.Equal(t, 2, changed.Version)
	var stale *action.Stale
	_, err = actions.Inventory.ChangeMachine(ctx, curator, machine.ID, 1,
		inventory.MachineInput{Accession: "EH-0142", Name: "other"})
	require.ErrorAs(t, err, &stale)
	require.Equal(t, "Meridian 2a", stale.Newer.(inventory.Machine).Name)
	_, err = actions.Inventory.ChangeAssembly(ctx, technician, board.ID, 1,
		inventory.AssemblyInput{Title: "Mother board", Slot: "1"})
	require.NoError(t, err)
	_, err = actions.Inventory.ChangeAssembly(ctx, technician, board.ID, 1,
		inventory.AssemblyInput{Title: "other"})
	require.ErrorAs(t, err, &stale)
	require.Equal(t, []string{"create machine", "change machine"}, actionsOf(t, db, "machine", machine.ID))
	require.Equal(t, []string{"add assembly", "save sheet", "change assembly"}, actionsOf(t, db, "assembly", board.ID))
}

func TestInvalidFieldsAreNamed(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{}, "== Main board\nU1 7400")
	year := 1984
	tests := []struct {
		field string
		err   error
	}{
		{"accession", second(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Name: "x"}))},
		{"accession", second(actions.Inventory.CreateMachine(ctx, curator,
			inventory.MachineInput{Name: "x", Accession: "EH-0142"}))},
		{"name", second(actions.Inventory.CreateMachine(ctx, curator,
			inventory.MachineInput{Name: " ", Accession: "EH-2"}))},
		{"name", second(actions.Inventory.CreateMachine(ctx, curator,
			inventory.MachineInput{Name: "bell\x07", Accession: "EH-2"}))},
		{"eraTo", second(actions.Inventory.CreateMachine(ctx, curator,
			inventory.MachineInput{Name: "x", Accession: "EH-2", EraFrom: &year}))},
		{"title", second(actions.Inventory.AddAssembly(ctx, technician, machine.ID,
			inventory.AssemblyInput{Title: "a | b"}))},
		{"title", second(actions.Inventory.AddAssembly(ctx, technician, machine.ID, inventory.AssemblyInput{}))},
		{"body", second(actions.Sheets.SaveSheet(ctx, technician, board.ID, 1, strings.Repeat("x", 1<<20+1)))},
		{"body", second(actions.Sheets.SaveSheet(ctx, technician, board.ID, 1, "U1\x00"))},
		{"text", second(actions.Sheets.TakeOverSheet(ctx, technician, machine.ID, "\n\n"))},
		{"password", second(actions.Accounts.AddAccount(ctx, "ida", "", action.Viewer, "short"))},
		{"role", second(actions.Accounts.AddAccount(ctx, "ida", "", "owner", "long enough to be one"))},
	}
	for _, test := range tests {
		var invalid *action.Invalid
		require.ErrorAs(t, test.err, &invalid)
		require.Equal(t, test.field, invalid.Field)
	}
	for _, err := range []error{
		second(actions.Inventory.CreateMachine(ctx, technician,
			inventory.MachineInput{Name: "x", Accession: "EH-2"})),
		second(actions.Sheets.SaveSheet(ctx, viewer, board.ID, 1, "U2 7400")),
		second(actions.Inventory.Machine(ctx, action.Actor{}, machine.ID)),
	} {
		require.ErrorIs(t, err, action.ErrForbidden)
	}
}

func second[T any](_ T, err error) error { return err }
