package action

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/store/history"
)

// Voiding is how records of a kind are struck out that were entered by mistake, and come back: nothing of them is deleted.
type Voiding[Row any] struct {
	Roles    Roles
	Event    *Event // that one is struck out
	Back     *Event // that this is taken back
	IsVoided func(Row) bool
	Set      func(ctx context.Context, tx *sqlx.Tx, row Row, voided bool) error
	// MayComeBack refuses one that cannot come back as it is, as another has its name now; nil where all can.
	MayComeBack func(ctx context.Context, tx *sqlx.Tx, row Row) error
}

// Void strikes a record out, from the version that somebody saw, and returns the event.
func (r Records[Row, View]) Void(ctx context.Context, k *Kernel, actor Actor, v Voiding[Row], id int64,
	version int) (event int64, err error) {
	err = k.Do(ctx, actor, v.Roles, func(tx *sqlx.Tx) error {
		row, err := r.Locked(ctx, tx, id, version)
		if err != nil {
			return err
		}
		if v.IsVoided(row) {
			return ErrNotFound
		}
		if err := v.Set(ctx, tx, row, true); err != nil {
			return err
		}
		event, err = RecordEvent(ctx, tx, actor, v.Event, id, r.Machine(row), r.Told(row), nil)
		return err
	})
	return event, err
}

// Unvoid takes back that a record was struck out, unless something was done to it since.
func (r Records[Row, View]) Unvoid(ctx context.Context, k *Kernel, actor Actor, v Voiding[Row],
	e history.EventRow) error {
	return UndoingOf(k, ctx, actor, e, v.Roles, r.Lock, func(ctx context.Context, tx *sqlx.Tx, now Row) error {
		if v.MayComeBack != nil {
			if err := v.MayComeBack(ctx, tx, now); err != nil {
				return err
			}
		}
		if err := v.Set(ctx, tx, now, false); err != nil {
			return err
		}
		return Record(ctx, tx, actor, v.Back, e.SubjectID, r.Machine(now), nil, r.Told(now))
	})
}
