package app

import (
	"context"
	"frugalheron/store"

	"github.com/jmoiron/sqlx"
)

// undoNote takes a note back: it stays in the history, and so does that it was taken back.
func (a *App) undoNote(ctx context.Context, actor Actor, e store.ToldEvent) error {
	note, err := stateIn[map[string]string](e.After)
	if err != nil {
		return err
	}
	return a.Kernel.Do(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := store.LockMachine(ctx, tx, e.SubjectID); err != nil {
			return err
		}
		if err := newestStill(ctx, tx, e); err != nil {
			return err
		}
		return record(ctx, tx, actor, eventTakeBackNote, e.SubjectID, &e.SubjectID, note, nil)
	})
}
