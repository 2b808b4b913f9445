package evidence

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/store/evidence"
	"frugalheron/store/history"
	"frugalheron/store/pg"
)

// Retraction is a kind of statement of which somebody can say that it does not count any more. It stays in
// view, with the reason.
type Retraction struct {
	table          evidence.Testimony
	retracted, let *action.Event
	roles          action.Roles
	lock           func(ctx context.Context, h pg.Handle, id int64) (machineID int64, before any, err error)
}

var (
	ofEvidence = NewRetraction(evidence.OfAttributes, eventRetractStatement, eventLetStatementCount,
		action.MayWriteSheets,
		func(ctx context.Context, h pg.Handle, id int64) (int64, any, error) {
			before, err := evidence.LockStatement(ctx, h, id)
			return before.MachineID, statementOf(before), err
		})
)

// NewRetraction makes a kind of statements that can be retracted, with the events of retracting one and letting it
// count again.
func NewRetraction(table evidence.Testimony, retracted, let *action.Event, roles action.Roles,
	lock func(ctx context.Context, h pg.Handle, id int64) (machineID int64, before any, err error)) Retraction {
	return Retraction{table, retracted, let, roles, lock}
}

// RetractStatement says that a statement about an attribute does not count any more, and why.
func (s *Service) RetractStatement(ctx context.Context, actor action.Actor, id int64, why string) (int64, error) {
	return s.Retract(ctx, actor, ofEvidence, id, why)
}

// Retract says that a statement of a kind does not count any more, and why; the event that is returned can be undone.
func (s *Service) Retract(ctx context.Context, actor action.Actor, w Retraction, id int64, why string) (int64, error) {
	if err := input.OneLine("why", &why); err != nil {
		return 0, err
	}
	if why == "" {
		return 0, action.Reject("why", "say why it does not count any more")
	}
	var event int64
	err := s.kernel.Do(ctx, actor, w.roles, func(tx *sqlx.Tx) error {
		var err error
		event, err = w.say(ctx, tx, actor, id, why)
		return err
	})
	return event, err
}

// say retracts a statement, or with an empty why lets it count again.
func (w Retraction) say(ctx context.Context, tx *sqlx.Tx, actor action.Actor, id int64, why string) (int64, error) {
	machineID, before, err := w.lock(ctx, tx, id)
	if err != nil {
		return 0, err
	}
	if err := evidence.Retract(ctx, tx, w.table, id, why); err != nil {
		return 0, err
	}
	done := w.retracted
	if why == "" {
		done = w.let
	}
	return action.RecordEvent(ctx, tx, actor, done, id, &machineID, before, map[string]string{"retracted": why})
}

// Undo lets count again what was retracted.
func (w Retraction) Undo(k *action.Kernel) action.Undoing {
	return func(ctx context.Context, actor action.Actor, e history.EventRow) error {
		return k.Do(ctx, actor, w.roles, func(tx *sqlx.Tx) error {
			if _, _, err := w.lock(ctx, tx, e.SubjectID); err != nil {
				return err
			}
			if err := action.NewestStill(ctx, tx, e); err != nil {
				return err
			}
			// It may have been retracted before, for another reason.
			before, err := action.StateIn[struct{ Retracted string }](e.Before)
			if err != nil {
				return err
			}
			_, err = w.say(ctx, tx, actor, e.SubjectID, before.Retracted)
			return err
		})
	}
}
