package action

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/store/pg"
)

// Records are a kind of records that are changed under a version: whoever changes one says which version the change
// started from, and nothing is overwritten that somebody else wrote meanwhile. A row of the store is one, a view is what
// goes out of it.
type Records[Row, View any] struct {
	What    string // as a refusal calls one: the maker
	Lock    func(ctx context.Context, h pg.Handle, id int64) (Row, error)
	Read    func(ctx context.Context, h pg.Handle, id int64) (Row, error)
	Version func(Row) int
	Told    func(Row) any // what the history keeps of one
	View    func(Row) View
	Machine func(Row) *int64 // which machine it is about; nil for records that are about none
}

// Locked locks a record that nobody changed since a version. One that somebody did is *Stale, with what it is now.
func (r Records[Row, View]) Locked(ctx context.Context, tx *sqlx.Tx, id int64, version int) (Row, error) {
	now, err := r.Lock(ctx, tx, id)
	if err == nil && r.Version(now) != version {
		return now, &Stale{What: r.What, Newer: r.View(now)}
	}
	return now, err
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
// was before and is now. It returns what goes out of the record as it is now.
func (r Records[Row, View]) Change(ctx context.Context, k *Kernel, c Change,
	update func(tx *sqlx.Tx, before Row) error) (View, error) {
	var view View
	err := k.Do(ctx, c.Actor, c.Roles, func(tx *sqlx.Tx) error {
		before, err := r.Locked(ctx, tx, c.ID, c.Version)
		if err != nil {
			return err
		}
		if err := update(tx, before); err != nil {
			return err
		}
		changed, err := r.Read(ctx, tx, c.ID)
		if err != nil {
			return err
		}
		view = r.View(changed)
		var machine *int64
		if r.Machine != nil {
			machine = r.Machine(changed)
		}
		return Record(ctx, tx, c.Actor, c.Event, c.ID, machine, r.Told(before), r.Told(changed))
	})
	return view, err
}
