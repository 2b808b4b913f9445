package app

import (
	"context"
	"frugalheron/store"

	"github.com/jmoiron/sqlx"
)

func (a *App) undoSaveSheet(ctx context.Context, actor Actor, e store.ToldEvent) error {
	saved, err := stateIn[struct{ Revision int }](e.After)
	if err != nil {
		return err
	}
	return undoingOf(a.Kernel, ctx, actor, e, MayWriteSheets, a.lockSheet, func(ctx context.Context, tx *sqlx.Tx, _ store.Assembly) error {
		before := store.Revision{}
		if saved.Revision > 1 {
			if before, err = store.RevisionOf(ctx, tx, e.SubjectID, saved.Revision-1); err != nil {
				return err
			}
		}
		return second(a.SaveSheet(ctx, actor, e.SubjectID, saved.Revision, before.Body))
	})
}
