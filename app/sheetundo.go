package app

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/store"
)

func (a *App) undoSaveSheet(ctx context.Context, actor action.Actor, e store.ToldEvent) error {
	saved, err := action.StateIn[struct{ Revision int }](e.After)
	if err != nil {
		return err
	}
	return action.UndoingOf(a.Kernel, ctx, actor, e, action.MayWriteSheets, a.Inventory.LockSheet, func(ctx context.Context, tx *sqlx.Tx, _ store.Assembly) error {
		before := store.Revision{}
		if saved.Revision > 1 {
			if before, err = store.RevisionOf(ctx, tx, e.SubjectID, saved.Revision-1); err != nil {
				return err
			}
		}
		return action.Second(a.SaveSheet(ctx, actor, e.SubjectID, saved.Revision, before.Body))
	})
}
