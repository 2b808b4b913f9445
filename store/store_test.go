package store_test

import (
	"context"
	"errors"
	"io/fs"
	"os"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/require"

	"frugalheron/core/sheet"
	"frugalheron/store/accounts"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/sheets"
	"frugalheron/store/storetest"
)

func TestMain(m *testing.M) { storetest.Main(m) }

var ctx = context.Background()

// goose skips a file without a number in silence, and only running shows a statement cut short.
func TestMigrationsAllCountAndGoBothWays(t *testing.T) {
	db, err := pg.Open(ctx, storetest.Empty(t))
	require.NoError(t, err)
	defer db.Close()
	migrator, err := pg.NewMigrator(db.DB)
	require.NoError(t, err)
	files, err := fs.Glob(os.DirFS("migrations"), "*.sql")
	require.NoError(t, err)
	require.Len(t, migrator.ListSources(), len(files))
	_, err = migrator.Up(ctx)
	require.NoError(t, err)
	_, err = migrator.DownTo(ctx, 0)
	require.NoError(t, err)
	_, err = migrator.Up(ctx)
	require.NoError(t, err)
}

func TestHistoryIsAppendOnly(t *testing.T) {
	db := storetest.New(t)
	_, err := history.InsertEvent(ctx, db, history.Event{Action: "save sheet", SubjectKind: "assembly", SubjectID: 7},
		nil, map[string]int{"revision": 1})
	require.NoError(t, err)
	for _, change := range []string{`UPDATE history SET action = 'none'`, `DELETE FROM history`} {
		_, err := db.Exec(change)
		require.Error(t, err, change)
	}
	events, err := history.EventsOf(ctx, db, "assembly", 7)
	require.NoError(t, err)
	require.Len(t, events, 1)
	require.Nil(t, events[0].Before)
	require.JSONEq(t, `{"revision":1}`, string(*events[0].After))
}

func TestMissingRowsAreNotFoundAndEmptyListsAreLists(t *testing.T) {
	db := storetest.New(t)
	_, err := inventory.MachineByID(ctx, db, 1)
	require.ErrorIs(t, err, pg.ErrNotFound)
	_, err = sheets.NewestRevision(ctx, db, 1)
	require.ErrorIs(t, err, pg.ErrNotFound)
	assemblies, err := inventory.AssembliesOf(ctx, db, 1)
	require.NoError(t, err)
	require.NotNil(t, assemblies)
}

func TestAnAssemblyIsInOnePlaceAtATime(t *testing.T) {
	db := storetest.New(t)
	machine, err := inventory.InsertMachine(ctx, db, inventory.MachineFields{Accession: "EH-1", Name: "One"})
	require.NoError(t, err)
	assembly, err := inventory.InsertAssembly(ctx, db, inventory.Fitting{MachineID: &machine, Since: "2026-01-02"},
		inventory.AssemblyFields{Title: "Board", Fit: "factory"})
	require.NoError(t, err)
	_, err = db.Exec(`INSERT INTO fitting (assembly_id, machine_id, since) VALUES ($1, $2, current_date)`, assembly, machine)
	require.True(t, pg.Violates(err, "fitting_present_key"), "%v", err)
	_, err = db.Exec(`INSERT INTO fitting (assembly_id, since, until) VALUES ($1, current_date, current_date)`, assembly)
	require.True(t, pg.Violates(err, "fitting_somewhere"), "%v", err)
}

func TestInTxRollsBack(t *testing.T) {
	db := storetest.New(t)
	err := pg.InTx(ctx, db, func(tx *sqlx.Tx) error {
		_, err := inventory.InsertMachine(ctx, tx, inventory.MachineFields{Accession: "EH-1", Name: "One"})
		require.NoError(t, err)
		return context.Canceled
	})
	require.ErrorIs(t, err, context.Canceled)
	n, err := inventory.CountMachines(ctx, db, inventory.MachineFilter{})
	require.NoError(t, err)
	require.Zero(t, n)
}

func TestSignInsCountWithinTheirWindow(t *testing.T) {
	db := storetest.New(t)
	window := 15 * time.Minute
	limits := []accounts.SignInLimit{{Subject: "address 127.0.0.1", Most: 9}, {Subject: "login ida", Most: 3}}
	attempts := []int64{}
	for range 3 {
		counted, clearIn, err := accounts.CountSignIn(ctx, db, limits, window)
		require.NoError(t, err)
		require.Len(t, counted, 2)
		require.Zero(t, clearIn)
		attempts = counted
	}
	_, err := db.Exec(`UPDATE sign_in_failure SET at = now() - interval '14 minutes' WHERE id = (SELECT min(id)
		FROM sign_in_failure WHERE subject = 'login ida')`)
	require.NoError(t, err)
	counted, clearIn, err := accounts.CountSignIn(ctx, db, limits, window)
	require.NoError(t, err)
	require.Nil(t, counted)
	require.InDelta(t, time.Minute, clearIn, float64(5*time.Second))

	// What did not fail does not count; what is too old counts no more, and goes with the next attempt.
	require.NoError(t, accounts.ForgetSignIns(ctx, db, attempts))
	counted, _, err = accounts.CountSignIn(ctx, db, limits, window)
	require.NoError(t, err)
	require.NotNil(t, counted)
	_, err = db.Exec(`UPDATE sign_in_failure SET at = now() - interval '16 minutes'`)
	require.NoError(t, err)
	_, _, err = accounts.CountSignIn(ctx, db, []accounts.SignInLimit{{Subject: "login bram", Most: 1}}, window)
	require.NoError(t, err)
	var left []string
	require.NoError(t, db.Select(&left, `SELECT subject FROM sign_in_failure`))
	require.Equal(t, []string{"login bram"}, left)
	require.NoError(t, accounts.ClearSignInFailures(ctx, db, "login bram"))
	require.NoError(t, db.Select(&left, `SELECT subject FROM sign_in_failure`))
	require.Len(t, left, 0)
}

func TestAccountsAreFoundWithoutRegardToCase(t *testing.T) {
	db := storetest.New(t)
	id, err := accounts.InsertAccount(ctx, db,
		accounts.Account{Login: "Ida", Name: "Ida Reed", Role: "curator", PasswordHash: "x"})
	require.NoError(t, err)
	found, err := accounts.AccountByLogin(ctx, db, "iDA")
	require.NoError(t, err)
	require.Equal(t, id, found.ID)
	_, err = accounts.InsertAccount(ctx, db,
		accounts.Account{Login: "IDA", Name: "other", Role: "viewer", PasswordHash: "x"})
	require.True(t, pg.Violates(err, "account_login_key"), "%v", err)
	_, err = accounts.InsertAccount(ctx, db,
		accounts.Account{Login: "owner", Name: "other", Role: "owner", PasswordHash: "x"})
	require.True(t, pg.Violates(err, "account_role_known"), "%v", err)
}

func TestEntriesAreReplacedAndPositionsStay(t *testing.T) {
	db := storetest.New(t)
	machine, err := inventory.InsertMachine(ctx, db, inventory.MachineFields{Accession: "EH-1", Name: "One"})
	require.NoError(t, err)
	board, err := inventory.InsertAssembly(ctx, db, inventory.Fitting{MachineID: &machine, Since: "2026-01-02"},
		inventory.AssemblyFields{Title: "Board", Fit: "factory"})
	require.NoError(t, err)
	day := "1985-08-12"
	rows := []sheets.EntryRow{
		{Line: 1, Designators: []string{"U1", `U"2`}, Count: 2, Kind: "chip", Marking: `'27128', {x}`,
			TypeNumber: "27128", TypeClass: "eprom", SpeedNs: 250, DateFrom: &day, DateTo: &day, Socketed: true,
			Findings: []sheet.Mark{{Kind: "bent", Note: `"pin" 4`}}},
		{Line: 3, Designators: []string{}, Count: 8, Kind: "other", Findings: []sheet.Mark{}},
	}
	for revision := 1; revision <= 2; revision++ {
		require.NoError(t, sheets.ReplaceEntries(ctx, db, board, revision, rows))
		require.NoError(t,
			sheets.AddPositions(ctx, db, board,
				[]sheets.Position{{Designator: "U1", Ordinal: 1}, {Ordinal: 1}, {Ordinal: 2}}))
	}
	got, err := sheets.EntriesOf(ctx, db, board, 0, 10)
	require.NoError(t, err)
	require.Equal(t, rows, got)
	require.NoError(t, sheets.ReplaceEntries(ctx, db, board, 3, []sheets.EntryRow{}))
	got, err = sheets.EntriesOf(ctx, db, board, 0, 10)
	require.NoError(t, err)
	require.Empty(t, got)
	positions, err := sheets.PositionsOf(ctx, db, board, 0, 10)
	require.NoError(t, err)
	require.Len(t, positions, 3)
}

// A transaction that failed only because of another beside it is run again, from its start.
func TestDeadlocksAreTriedAgain(t *testing.T) {
	db := storetest.New(t)
	_, err := db.Exec(`CREATE TABLE counter (id int PRIMARY KEY, n int); INSERT INTO counter VALUES (1, 0), (2, 0)`)
	require.NoError(t, err)
	var both sync.WaitGroup
	var met sync.WaitGroup
	met.Add(2)
	runs := [2]int{}
	errs := [2]error{}
	for i := range 2 {
		both.Go(func() {
			errs[i] = pg.InTx(ctx, db, func(tx *sqlx.Tx) error {
				runs[i]++
				for step := range 2 {
					id := 1 + (i+step)%2
					if _, err := tx.Exec(`UPDATE counter SET n = n + 1 WHERE id = $1`, id); err != nil {
						return err
					}
					if step == 0 && runs[i] == 1 {
						met.Done()
						met.Wait() // each holds one row and wants the other's
					}
				}
				return nil
			})
		})
	}
	both.Wait()
	require.NoError(t, errors.Join(errs[:]...))
	require.Equal(t, 3, runs[0]+runs[1], "one of both ran twice")
	var n []int
	require.NoError(t, db.Select(&n, `SELECT n FROM counter ORDER BY id`))
	require.Equal(t, []int{2, 2}, n)
	err = pg.InTx(ctx, db, func(tx *sqlx.Tx) error {
		_, err := tx.Exec(`SELECT CAST('99999999999' AS integer)`)
		return err
	})
	require.True(t, pg.IsOutOfRange(err))
	require.False(t, pg.IsAway(syscall.ENOSPC), "a full disk is another matter")
	require.False(t, pg.IsAway(err))
	require.False(t, pg.IsFull(err))
}
