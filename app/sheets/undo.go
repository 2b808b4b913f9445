package sheets

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/sheets"
)

func (s *Service) undoSaveSheet(ctx context.Context, actor action.Actor, e history.EventRow) error {
	saved, err := action.StateIn[struct{ Revision int }](e.After)
	if err != nil {
		return err
	}
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, s.inventory.LockSheet,
		func(ctx context.Context, tx *sqlx.Tx, _ inventory.Assembly) error {
			before := sheets.Revision{}
			if saved.Revision > 1 {
				if before, err = sheets.RevisionOf(ctx, tx, e.SubjectID, saved.Revision-1); err != nil {
					return err
				}
			}
			// What was saved since was taken back, each time as a revision of its own.
			now, err := sheets.NewestRevision(ctx, tx, e.SubjectID)
			if err != nil {
				return err
			}
			return action.Second(s.SaveSheet(ctx, actor, e.SubjectID, now.N, before.Body))
		})
}
