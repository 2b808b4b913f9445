package quickentry

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
)

// undoNote takes a note back: it stays in the history, and so does that it was taken back.
func (s *Service) undoNote(ctx context.Context, actor action.Actor, e history.EventRow) error {
	note, err := action.StateIn[map[string]string](e.After)
	if err != nil {
		return err
	}
	return s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := inventory.LockMachine(ctx, tx, e.SubjectID); err != nil {
			return err
		}
		if err := action.NewestStill(ctx, tx, e); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventTakeBackNote, e.SubjectID, &e.SubjectID, note, nil)
	})
}
