package inventory

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/store/inventory"
)

// VoidAssembly strikes out an assembly that was entered by mistake. It is in no list any more;
// its sheet and history stay, and the event can be undone.
func (s *Service) VoidAssembly(ctx context.Context, actor action.Actor, id int64, version int) (Moved, error) {
	var voided Moved
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if err := s.library.Hold(ctx, tx); err != nil {
			return err
		}
		_, from, err := lockFitted(ctx, tx, id, version)
		if err != nil {
			return err
		}
		if err := inventory.CloseFitting(ctx, tx, from.ID, actor.Today()); err != nil {
			return err
		}
		if err := inventory.CountAssemblyChange(ctx, tx, id); err != nil {
			return err
		}
		now, err := inventory.AssemblyByID(ctx, tx, id)
		if err != nil {
			return err
		}
		voided.Assembly = AssemblyOf(now)
		voided.Event, err = action.RecordEvent(ctx, tx, actor, eventVoidAssembly, id, from.MachineID,
			tellFitting(from), nil)
		return err
	})
	voided.Where = "nowhere"
	return voided, err
}
