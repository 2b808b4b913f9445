// Package action is the kernel of what users do. An action is a permission, a transaction, records locked and changed
// under their versions, an event in the history, and what follows from the records made anew; Kernel.Do has all of it
// in one place.
package action

import (
	"context"
	"maps"
	"slices"
	"sync/atomic"

	"github.com/jmoiron/sqlx"
	"github.com/riverqueue/river"

	"frugalheron/store/history"
	"frugalheron/store/pg"
)

// Kernel runs actions: what somebody does, in one transaction, with all that follows from it.
type Kernel struct {
	DB       *sqlx.DB
	follows  map[string]Renewal
	undos    map[string]undo
	endings  []Ending
	Workers  *river.Workers // what jobs of each kind do
	renewals map[string]func(context.Context) error
	last     atomic.Pointer[moment] // what was read last in a snapshot
}

// Ending is done at the end of each action, once what follows from records is up to date. Before is the number of the
// newest event when the action began.
type Ending func(ctx context.Context, tx *sqlx.Tx, before int64) error

// undo says who may take an event back, and how.
type undo struct {
	by   Roles
	take Undoing
}

// Undoing takes an event back.
type Undoing func(ctx context.Context, actor Actor, e history.EventRow) error

// NewKernel returns a kernel on a migrated database, which knows nothing that follows, or can be taken back, yet.
func NewKernel(db *sqlx.DB) *Kernel {
	k := &Kernel{DB: db, follows: map[string]Renewal{}, undos: map[string]undo{}, Workers: river.NewWorkers(),
		renewals: map[string]func(context.Context) error{}}
	CanWork(k, k.renew)
	k.CanRenew("what is left over", k.RenewLeftOver)
	return k
}

// CanBeUndone says who may take events of a kind back, and how.
func (k *Kernel) CanBeUndone(e *Event, by Roles, take Undoing) { k.undos[e.key] = undo{by, take} }

// UndoOf says who may take an event back, and how; nobody where take is nil.
func (k *Kernel) UndoOf(key string) (by Roles, take Undoing) {
	u := k.undos[key]
	return u.by, u.take
}

// AtEnd has something done at the end of each action.
func (k *Kernel) AtEnd(ending Ending) { k.endings = append(k.endings, ending) }

// Do runs work in a transaction if the actor's role allows it: in the one that the context carries, or in its own.
func (k *Kernel) Do(ctx context.Context, actor Actor, roles Roles, work func(tx *sqlx.Tx) error) error {
	if err := actor.Must(roles); err != nil {
		return err
	}
	if tx := openIn(ctx); tx != nil {
		return work(tx)
	}
	return k.InTx(ctx, work)
}

// Whole runs work as Do does, and makes actions that work calls with its context part of the same transaction.
func (k *Kernel) Whole(ctx context.Context, actor Actor, roles Roles,
	work func(ctx context.Context, tx *sqlx.Tx) error) error {
	return k.Do(ctx, actor, roles, func(tx *sqlx.Tx) error { return work(within(ctx, tx), tx) })
}

// InTx runs work in a transaction of its own, and brings up to date what follows.
func (k *Kernel) InTx(ctx context.Context, work func(tx *sqlx.Tx) error) error {
	return pg.InTx(ctx, k.DB, func(tx *sqlx.Tx) error {
		before, err := history.LastEvent(ctx, tx)
		if err != nil {
			return err
		}
		if err := work(tx); err != nil {
			return err
		}
		if err := k.UpToDate(ctx, tx); err != nil {
			return err
		}
		for _, end := range k.endings {
			if err := end(ctx, tx, before); err != nil {
				return err
			}
		}
		return markRequest(ctx, tx)
	})
}

// Reader is what reads run on: the transaction or snapshot that the context carries, else the database.
func (k *Kernel) Reader(ctx context.Context) pg.Handle {
	if tx := openIn(ctx); tx != nil {
		return tx
	}
	if seen, ok := ctx.Value(snapshotKey{}).(*snapshot); ok {
		return seen.tx
	}
	return k.DB
}

type openKey struct{}

// within lets actions that are called with the context be part of a transaction.
func within(ctx context.Context, tx *sqlx.Tx) context.Context {
	return context.WithValue(ctx, openKey{}, tx)
}

func openIn(ctx context.Context) *sqlx.Tx {
	tx, _ := ctx.Value(openKey{}).(*sqlx.Tx)
	return tx
}

// Undoable lists the kinds of events that can be taken back, by their keys, in the order of the alphabet.
func (k *Kernel) Undoable() []string { return slices.Sorted(maps.Keys(k.undos)) }
