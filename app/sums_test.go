package app_test

import (
	"errors"
	"fmt"
	"math/rand/v2"
	"sync"
	"testing"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/history"
	"frugalheron/app/inventory"
)

// sumsFromScratch adds up, in one statement, what lists keep as sums.
const sumsFromScratch = `SELECT m.id AS machine_id, count(f.id) AS boards,
		COALESCE(sum(CAST(t.totals->>'chips' AS bigint)), 0) AS chips,
		COALESCE(sum(CAST(t.totals->>'unidentified' AS bigint)), 0) AS unidentified,
		COALESCE(sum(CAST(t.totals->>'ramBytes' AS bigint)), 0) AS ram_bytes,
		COALESCE(sum(CAST(t.totals->>'romBytes' AS bigint)), 0) AS rom_bytes
	FROM machine m LEFT JOIN (fitting f JOIN assembly a ON a.id = f.assembly_id
	AND a.kind <> 'exterior') ON f.machine_id = m.id AND f.until IS NULL LEFT
	JOIN sheet_total t ON t.assembly_id = f.assembly_id
	GROUP BY m.id ORDER BY m.id`

type sumRow struct {
	MachineID    int64 `db:"machine_id"`
	Boards       int   `db:"boards"`
	Chips        int   `db:"chips"`
	Unidentified int   `db:"unidentified"`
	RAMBytes     int64 `db:"ram_bytes"`
	ROMBytes     int64 `db:"rom_bytes"`
}

func requireSumsHold(t *testing.T, db *sqlx.DB) {
	t.Helper()
	var kept, fresh []sumRow
	require.NoError(t, db.Select(&kept,
		`SELECT machine_id, boards, chips, unidentified, ram_bytes, rom_bytes FROM machine_sum ORDER BY machine_id`))
	require.NoError(t, db.Select(&fresh, sumsFromScratch))
	require.Equal(t, fresh, kept)
	var odd int
	require.NoError(t, db.Get(&odd, `SELECT count(*) FROM (
		(SELECT type_number, machine_id, parts FROM machine_type EXCEPT
		 SELECT e.type_number, f.machine_id, sum(e.count) FROM entry e JOIN fitting f ON f.assembly_id = e.assembly_id
		AND f.until IS NULL
		 WHERE e.type_number <> '' AND NOT e.empty AND f.machine_id IS NOT NULL GROUP BY 1, 2)
		UNION ALL
		(SELECT e.type_number, f.machine_id, sum(e.count) FROM entry e JOIN fitting f ON f.assembly_id = e.assembly_id
		AND f.until IS NULL
		 WHERE e.type_number <> '' AND NOT e.empty AND f.machine_id IS NOT NULL GROUP BY 1, 2 EXCEPT
		 SELECT type_number, machine_id, parts FROM machine_type)) odd`))
	require.Zero(t, odd, "types kept for lists differ from those on the sheets")
	require.NoError(t, db.Get(&odd, `SELECT count(*) FROM machine_sum s JOIN machine m ON m.id = s.machine_id
		WHERE (s.place_id, s.maker, s.era_from) IS DISTINCT FROM (m.place_id, m.maker, m.era_from)`))
	require.Zero(t, odd, "what lists keep of the record differs from it")
}

// Several people save, move, strike out, change and undo at once. Whatever comes of it, the sums that
// lists read are those of the sheets and fittings, and no two people wait for each other for good.
func TestSumsHoldWhateverIsDoneAtOnce(t *testing.T) {
	db, actions := newApp(t)
	machines, boards := []inventory.Machine{}, []int64{}
	for i := range 3 {
		machine, err := actions.Inventory.CreateMachine(ctx, curator,
			inventory.MachineInput{Accession: fmt.Sprintf("EH-%04d", i), Name: "Machine", Maker: "Tarn & Vole"})
		require.NoError(t, err)
		added, err := actions.Sheets.TakeOverSheet(ctx, technician, machine.ID,
			"== A\n8x 4164\n== B\nU1 27128 433\nU2 ?")
		require.NoError(t, err)
		machines = append(machines, machine)
		boards = append(boards, added[0].ID, added[1].ID)
	}
	sheets := []string{"8x 4164", "16x 41256\nU1 7400", "U1 27128 @empty", "", "U1 ?\nU1 7400", "U1 HX9040-2 8431"}

	var wait sync.WaitGroup
	failures := make(chan error, 1000)
	for person := range 4 {
		r := rand.New(rand.NewPCG(uint64(person), 7))
		wait.Go(func() {
			for range 25 {
				board, machine := boards[r.IntN(len(boards))], machines[r.IntN(len(machines))].ID
				if err := doSomething(actions, r, board, machine, sheets); err != nil {
					failures <- err
				}
			}
		})
	}
	wait.Wait()
	close(failures)
	for err := range failures {
		var stale *action.Stale
		var invalid *action.Invalid
		if !errors.As(err, &stale) && !errors.As(err, &invalid) && !errors.Is(err, action.ErrNotFound) {
			require.NoError(t, err)
		}
	}
	requireSumsHold(t, db)
	var apart int
	require.NoError(t, db.Get(&apart,
		`SELECT count(*) FROM fitting a JOIN fitting b ON b.assembly_id = a.assembly_id AND b.id > a.id
			WHERE a.until IS NULL`))
	require.Zero(t, apart, "a fitting is open that is not the last one")
}

// doSomething does one of the things that change sums; what somebody else did meanwhile may refuse it.
func doSomething(actions *app.App, r *rand.Rand, board, machine int64, sheets []string) error {
	now, err := actions.Inventory.Assembly(ctx, viewer, board)
	if err != nil {
		return err
	}
	switch r.IntN(7) {
	case 0, 1:
		_, err = actions.Sheets.SaveSheet(ctx, technician, board, now.Revision, sheets[r.IntN(len(sheets))])
	case 2:
		_, err = actions.Inventory.MoveAssembly(ctx, technician, board, now.Version,
			inventory.Move{To: "machine", MachineID: machine, Slot: fmt.Sprint(r.IntN(4))})
	case 3:
		_, err = actions.Inventory.MoveAssembly(ctx, technician, board, now.Version,
			inventory.Move{To: "place", Place: []string{"Store", "Loft"}[r.IntN(2)]})
	case 4:
		var page history.EventPage
		if page, err = actions.History.AssemblyHistory(ctx, viewer, board, 0, 1); err == nil {
			err = actions.History.Undo(ctx, technician, page.Events[0].ID)
		}
	case 5:
		_, err = actions.Inventory.VoidAssembly(ctx, technician, board, now.Version)
	case 6:
		var record inventory.Machine
		if record, err = actions.Inventory.Machine(ctx, viewer, machine); err == nil {
			year := 1980 + r.IntN(5)
			fields := record.MachineInput
			fields.EraFrom, fields.EraTo, fields.Place = &year, &year, []string{"", "Loft", "Bench"}[r.IntN(3)]
			_, err = actions.Inventory.ChangeMachine(ctx, curator, machine, record.Version, fields)
		}
	}
	return err
}

// Of two who undo the same thing at once, one does and the other is told.
func TestUndoHappensOnce(t *testing.T) {
	_, actions, _, board := newBoard(t, inventory.MachineInput{}, "== Main board\n8x 4164")
	moved, err := actions.Inventory.MoveAssembly(ctx, technician, board.ID, board.Version,
		inventory.Move{To: "place", Place: "Store"})
	require.NoError(t, err)
	results := make([]error, 6)
	var wait sync.WaitGroup
	for i := range results {
		wait.Go(func() { results[i] = actions.History.Undo(ctx, technician, moved.Event) })
	}
	wait.Wait()
	done := 0
	for _, err := range results {
		var invalid *action.Invalid
		if err == nil {
			done++
			continue
		}
		require.ErrorAs(t, err, &invalid)
	}
	require.Equal(t, 1, done)
	fittings, err := actions.Inventory.Fittings(ctx, viewer, board.ID)
	require.NoError(t, err)
	require.Len(t, fittings, 1)
	require.Nil(t, fittings[0].Until)
}
