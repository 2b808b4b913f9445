package action

import (
	"context"
	"encoding/json"
	"errors"

	"github.com/jmoiron/sqlx"

	"frugalheron/store/history"
	"frugalheron/store/pg"
)

type undoneKey struct{}

// TakingBack says in a context which event is taken back by what is done with it.
func TakingBack(ctx context.Context, event int64) context.Context {
	return context.WithValue(ctx, undoneKey{}, event)
}

// undoneIn is the event that is taken back; nil where none is.
func undoneIn(ctx context.Context) *int64 {
	if event, ok := ctx.Value(undoneKey{}).(int64); ok {
		return &event
	}
	return nil
}

// NewestStill refuses an event that something was done after. It is asked once the record is locked.
func NewestStill(ctx context.Context, h pg.Handle, e history.EventRow) error {
	isNewest, err := history.IsNewestEvent(ctx, h, e.ID)
	if err == nil && !isNewest {
		return Reject("event",
			"something was done to the same record since; nothing was undone. Take that back first, or change the record by hand")
	}
	return err
}

// StateIn reads what an event kept of a record, be it in names of former times.
func StateIn[Record any](encoded *json.RawMessage) (Record, error) {
	var record Record
	if encoded == nil {
		return record, errors.New("the event kept no record")
	}
	fields, err := json.Marshal(FieldsIn(encoded))
	if err != nil {
		return record, err
	}
	return record, json.Unmarshal(fields, &record)
}

// UndoingOf runs work on a record that lock has locked, unless something was done to it since: both in one transaction,
// so that there is no gap for a change that would be overwritten. The actions that work calls are part of it.
func UndoingOf[Record any](k *Kernel, ctx context.Context, actor Actor, e history.EventRow, roles Roles,
	lock func(ctx context.Context, h pg.Handle, id int64) (Record, error),
	work func(ctx context.Context, tx *sqlx.Tx, now Record) error) error {
	return k.Whole(ctx, actor, roles, func(ctx context.Context, tx *sqlx.Tx) error {
		now, err := lock(ctx, tx, e.SubjectID)
		if err != nil {
			return err
		}
		if err := NewestStill(ctx, tx, e); err != nil {
			return err
		}
		return work(ctx, tx, now)
	})
}

// Second leaves out what an action returns beside its error.
func Second[Value any](_ Value, err error) error { return err }

// FirstOf is the first machine that is one; nil for none.
func FirstOf(machines ...*int64) *int64 {
	for _, id := range machines {
		if id != nil {
			return id
		}
	}
	return nil
}
