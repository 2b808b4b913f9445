package action

import (
	"context"
	"database/sql/driver"
	"fmt"
	"maps"
	"slices"
	"time"

	"github.com/jmoiron/sqlx"
	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riverdatabasesql"
	"github.com/riverqueue/river/rivertype"

	"frugalheron/store/pg"
)

// JobPart is how long a job works at a stretch. What takes longer goes on in another part, so that a part that a dead
// process left behind is soon known for one.
const JobPart = 30 * time.Second

// Long work goes on behind a request, or at no request at all, in whichever process has a hand free. It survives a
// restart, as its row is kept until it is done; so it must keep what it has done, and begin where that ends.

// Holding jobs say what they hold while they are at work, as an instrument that there is but one of.
type Holding interface{ Holds() string }

// CanWork says how jobs of a kind are done. Of jobs that hold the same, or else have equal arguments, one is done at a
// time, in all processes together. Work ends early, with any error, when its context does; it is then called again.
func CanWork[Args river.JobArgs](k *Kernel, work func(ctx context.Context, args Args) error) {
	river.AddWorker(k.Workers, &worker[Args]{kernel: k, work: work})
}

// Enqueue has a job done once the transaction has ended well.
func (k *Kernel) Enqueue(ctx context.Context, tx *sqlx.Tx, job river.JobArgs) error {
	inserter, err := river.NewClient(riverdatabasesql.New(nil), &river.Config{})
	if err != nil {
		return err
	}
	_, err = inserter.InsertTx(ctx, tx.Tx, job, nil)
	return err
}

// renewal is a job that makes anew what an older version of the application kept, or a migration left over.
type renewal struct {
	What string `json:"what"`
}

// Kind names it in the queue.
func (renewal) Kind() string { return "renewal" }

// InsertOpts lets one renewal of a thing that waits, or is at work, be enough.
func (renewal) InsertOpts() river.InsertOpts {
	return river.InsertOpts{UniqueOpts: river.UniqueOpts{ByArgs: true, ByState: []rivertype.JobState{
		rivertype.JobStateAvailable, rivertype.JobStatePending, rivertype.JobStateRunning,
		rivertype.JobStateRetryable, rivertype.JobStateScheduled}}}
}

// CanRenew says how something is made anew after an update of the application. Renew returns nil once nothing is left.
func (k *Kernel) CanRenew(what string, renew func(ctx context.Context) error) {
	k.renewals[what] = renew
}

// EnqueueRenewals has made anew what older versions of the application kept.
func (k *Kernel) EnqueueRenewals(ctx context.Context) error {
	return pg.InTx(ctx, k.DB, func(tx *sqlx.Tx) error {
		for _, what := range slices.Sorted(maps.Keys(k.renewals)) {
			if err := k.Enqueue(ctx, tx, renewal{what}); err != nil {
				return err
			}
		}
		return nil
	})
}

// RenewLater has something made anew once the transaction has ended well.
func (k *Kernel) RenewLater(ctx context.Context, tx *sqlx.Tx, what string) error {
	return k.Enqueue(ctx, tx, renewal{what})
}

// renew does a renewal. One that a newer version of the application has put into the queue is left to it.
func (k *Kernel) renew(ctx context.Context, job renewal) error {
	if do, known := k.renewals[job.What]; known {
		return do(ctx)
	}
	return fmt.Errorf("nobody here can renew %q", job.What)
}

type worker[Args river.JobArgs] struct {
	river.WorkerDefaults[Args]
	kernel *Kernel
	work   func(ctx context.Context, args Args) error
}

// Work does a part of a job, unless another process is at it.
func (w *worker[Args]) Work(ctx context.Context, job *river.Job[Args]) error {
	key := job.Kind + " " + string(job.EncodedArgs)
	if one, ok := any(job.Args).(Holding); ok {
		key = one.Holds()
	}
	release, locked, err := lockJob(ctx, w.kernel.DB, key)
	if err != nil {
		return err
	}
	if !locked {
		return river.JobSnooze(time.Second)
	}
	defer release()
	part, end := context.WithTimeout(ctx, JobPart)
	defer end()
	if err := w.work(part, job.Args); err != nil {
		if part.Err() != nil {
			return river.JobSnooze(0)
		}
		return err
	}
	return nil
}

// lockJob holds a job for this process, on a connection of its own: it ends with the process, however that ends.
func lockJob(ctx context.Context, db *sqlx.DB, key string) (release func(), locked bool, err error) {
	connection, err := db.Connx(ctx)
	if err != nil {
		return nil, false, err
	}
	err = connection.GetContext(ctx, &locked, `SELECT pg_try_advisory_lock(hashtextextended($1, 0))`, key)
	if err != nil || !locked {
		connection.Close()
		return nil, false, err
	}
	return func() {
		defer connection.Close()
		after, cancel := context.WithTimeout(context.WithoutCancel(ctx), 5*time.Second)
		defer cancel()
		var unlocked bool
		err := connection.GetContext(after, &unlocked, `SELECT pg_advisory_unlock(hashtextextended($1, 0))`, key)
		if err != nil || !unlocked {
			// A connection that may hold the lock still is not used again.
			connection.Raw(func(any) error { return driver.ErrBadConn }) //nolint:errcheck // it is what it returns
		}
	}, true, nil
}
