package jobs_test

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/jobs"
	"frugalheron/store/pg"
	"frugalheron/store/storetest"
)

func TestMain(m *testing.M) { storetest.Main(m) }

var ctx = context.Background()

type count struct {
	To  int
	For string
}

func (count) Kind() string { return "count" }

func (c count) Holds() string { return fmt.Sprint("counter ", c.To) }

// process is an application of its own on the database, which counts.
func process(t *testing.T, db *sqlx.DB, work func(ctx context.Context, args count) error) *action.Kernel {
	k := action.NewKernel(db)
	action.CanWork(k, work)
	end, err := jobs.Start(ctx, k)
	require.NoError(t, err)
	t.Cleanup(sync.OnceFunc(end))
	return k
}

func enqueue(t *testing.T, k *action.Kernel, job count) {
	require.NoError(t, pg.InTx(ctx, k.DB, func(tx *sqlx.Tx) error { return k.Enqueue(ctx, tx, job) }))
}

// Of jobs that hold the same one is done at a time, whichever process does it; each is done once, and other jobs do not wait for it.
func TestJobsThatHoldTheSameAreDoneOneAtATime(t *testing.T) {
	db := storetest.New(t)
	var atWork, most, done, others atomic.Int64
	work := func(_ context.Context, args count) error {
		if args.To != 1 {
			others.Add(1)
			return nil
		}
		if now := atWork.Add(1); now > most.Load() {
			most.Store(now)
		}
		time.Sleep(200 * time.Millisecond)
		atWork.Add(-1)
		done.Add(1)
		return nil
	}
	one := process(t, db, work)
	process(t, db, work)
	for _, name := range []string{"Ida", "Ida", "Bram", "Fenna"} {
		enqueue(t, one, count{1, name})
	}
	enqueue(t, one, count{To: 2})
	all := func() bool { return done.Load() == 4 && others.Load() == 1 }
	require.Eventually(t, all, time.Minute, 20*time.Millisecond)
	require.EqualValues(t, 1, most.Load())
}

// Nothing is done of what was put into the queue by a transaction that failed; what a process was at that is gone is
// done by another, and what went wrong is tried again.
func TestJobsSurvive(t *testing.T) {
	db := storetest.New(t)
	var tried atomic.Int64
	did := make(chan int, 9)
	k := action.NewKernel(db)
	errFull := errors.New("the disk is full")
	err := pg.InTx(ctx, db, func(tx *sqlx.Tx) error {
		require.NoError(t, k.Enqueue(ctx, tx, count{To: 7}))
		return errFull
	})
	require.ErrorIs(t, err, errFull)
	enqueue(t, k, count{To: 8})
	// As one leaves it that was killed.
	db.MustExec(`UPDATE river_job SET state = 'running', attempt = 1, attempted_at = now() - interval '10 minutes',
		attempted_by = ARRAY['a process that is gone']`)
	enqueue(t, k, count{To: 9})
	process(t, db, func(_ context.Context, args count) error {
		if args.To == 9 && tried.Add(1) == 1 {
			return errFull
		}
		did <- args.To
		return nil
	})
	got := []int{}
	for len(got) < 2 {
		select {
		case to := <-did:
			got = append(got, to)
		case <-time.After(2 * time.Minute):
			require.Fail(t, "waited in vain", "%v was done", got)
		}
	}
	require.ElementsMatch(t, []int{8, 9}, got)
	require.EqualValues(t, 2, tried.Load())
}

// After an update everything is renewed by one process, once for all of them; one that fails does not keep others.
func TestRenewalsAreDoneOnce(t *testing.T) {
	db := storetest.New(t)
	var renewed atomic.Int64
	start := func() {
		k := action.NewKernel(db)
		k.CanRenew("sums", func(context.Context) error {
			renewed.Add(1)
			time.Sleep(300 * time.Millisecond)
			return nil
		})
		end, err := jobs.Start(ctx, k)
		require.NoError(t, err)
		t.Cleanup(end)
	}
	start()
	start()
	left := func() (n int) {
		require.NoError(t, db.Get(&n, `SELECT count(*) FROM river_job WHERE state <> 'completed'`))
		return n
	}
	require.Eventually(t, func() bool { return left() == 0 }, time.Minute, 20*time.Millisecond)
	require.EqualValues(t, 1, renewed.Load())
}
