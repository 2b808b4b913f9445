package app

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/store"
)

// StrikeAssembly strikes out an assembly that was entered by mistake. It is in no list any more;
// its sheet and history stay, and the event can be undone.
func (a *App) StrikeAssembly(ctx context.Context, actor Actor, id int64, version int) (Moved, error) {
	var struck Moved
	err := a.deed(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		library, err := a.heldLibrary(ctx, tx)
		if err != nil {
			return err
		}
		_, from, err := lockFitted(ctx, tx, id, version)
		if err != nil {
			return err
		}
		if err := store.CloseFitting(ctx, tx, from.ID, today()); err != nil {
			return err
		}
		if err := store.CountAssemblyChange(ctx, tx, id); err != nil {
			return err
		}
		if struck.Assembly, err = store.AssemblyByID(ctx, tx, id); err != nil {
			return err
		}
		if struck.Event, err = recordEvent(ctx, tx, actor, eventStrikeAssembly, id, from.MachineID, tellFitting(from), nil); err != nil {
			return err
		}
		if err := reckonSheet(ctx, tx, library, struck.Assembly); err != nil {
			return err
		}
		return sumMoved(ctx, tx, id, from.MachineID)
	})
	struck.Where = "nowhere"
	return struck, err
}
