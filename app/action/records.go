package action

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/store/pg"
)

// Records are a kind of records that are changed under a version: whoever changes one says which version the change
// started from, and nothing is overwritten that somebody else wrote meanwhile.
type Records[R any] struct {
	What    string // as a refusal calls one: the maker
	Lock    func(ctx context.Context, h pg.Handle, id int64) (R, error)
	Read    func(ctx context.Context, h pg.Handle, id int64) (R, error)
	Version func(R) int
	Told    func(R) any    // what the history keeps of one
	View    func(R) any    // what goes out of one; nil where that is the record itself
	Machine func(R) *int64 // which machine it is about; nil for records that are about none
}

// Locked locks a record that nobody changed since a version. One that somebody did is *Stale, with what it is now.
func (r Records[R]) Locked(ctx context.Context, tx *sqlx.Tx, id int64, version int) (R, error) {
	now, err := r.Lock(ctx, tx, id)
	if err == nil && r.Version(now) != version {
		return now, &Stale{What: r.What, Newer: r.view(now)}
	}
	return now, err
}

func (r Records[R]) view(record R) any {
	if r.View == nil {
		return record
	}
	return r.View(record)
}

// Change is what somebody does to a record, from the version that it started from.
type Change struct {
	Actor   Actor
	Roles   Roles
	Event   *Event
	ID      int64
	Version int
}

// Change changes a record as one action: it is locked under its version, update writes it, and the event keeps what it
// was before and is now. It returns the record as it is now.
func (r Records[R]) Change(ctx context.Context, k *Kernel, c Change,
	update func(tx *sqlx.Tx, before R) error) (R, error) {
	var changed R
	err := k.Do(ctx, c.Actor, c.Roles, func(tx *sqlx.Tx) error {
		before, err := r.Locked(ctx, tx, c.ID, c.Version)
		if err != nil {
			return err
		}
		if err := update(tx, before); err != nil {
			return err
		}
		if changed, err = r.Read(ctx, tx, c.ID); err != nil {
			return err
		}
		var machine *int64
		if r.Machine != nil {
			machine = r.Machine(changed)
		}
		return Record(ctx, tx, c.Actor, c.Event, c.ID, machine, r.Told(before), r.Told(changed))
	})
	return changed, err
}
