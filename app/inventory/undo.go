package inventory

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
)

func (s *Service) undoChangeMachine(ctx context.Context, actor action.Actor, e history.EventRow) error {
	before, err := action.StateIn[MachineInput](e.Before)
	if err != nil {
		return err
	}
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayKeepTheRecord, inventory.LockMachine,
		func(ctx context.Context, _ *sqlx.Tx, now inventory.Machine) error {
			return action.Second(s.ChangeMachine(ctx, actor, now.ID, now.Version, before))
		})
}

// LockSheet locks an assembly after the library, as whoever saves a sheet does.
func (s *Service) LockSheet(ctx context.Context, h pg.Handle, id int64) (inventory.Assembly, error) {
	if err := s.library.Hold(ctx, h); err != nil {
		return inventory.Assembly{}, err
	}
	return inventory.LockAssembly(ctx, h, id)
}

func (s *Service) undoChangeAssembly(ctx context.Context, actor action.Actor, e history.EventRow) error {
	before, err := action.StateIn[AssemblyInput](e.Before)
	if err != nil {
		return err
	}
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, s.LockSheet,
		func(ctx context.Context, _ *sqlx.Tx, now inventory.Assembly) error {
			return action.Second(s.ChangeAssembly(ctx, actor, now.ID, now.Version, before))
		})
}

func (s *Service) undoMove(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return s.backInPlace(ctx, actor, e, eventTakeBackMove)
}

func (s *Service) undoVoid(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return s.backInPlace(ctx, actor, e, eventTakeBackVoid)
}

// undoingFitting takes something back that an event said of where an assembly is or was.
func (s *Service) undoingFitting(ctx context.Context, actor action.Actor, e history.EventRow,
	work func(tx *sqlx.Tx) error) error {
	return s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if err := s.library.Hold(ctx, tx); err != nil {
			return err
		}
		if _, err := inventory.LockAssembly(ctx, tx, e.SubjectID); err != nil {
			return err
		}
		if err := action.NewestStill(ctx, tx, e); err != nil {
			return err
		}
		if err := work(tx); err != nil {
			return err
		}
		return inventory.CountAssemblyChange(ctx, tx, e.SubjectID)
	})
}

// backInPlace makes the fitting that an event ended the present one again. A fitting that the event
// began never was.
func (s *Service) backInPlace(ctx context.Context, actor action.Actor, e history.EventRow, took *action.Event) error {
	was, err := action.StateIn[moveTold](e.Before)
	if err != nil {
		return err
	}
	return s.undoingFitting(ctx, actor, e, func(tx *sqlx.Tx) error {
		became := moveTold{}
		if e.After != nil {
			if became, err = action.StateIn[moveTold](e.After); err != nil {
				return err
			}
			if err := inventory.DeleteFitting(ctx, tx, became.Fitting); err != nil {
				return err
			}
		}
		if err := inventory.ReopenFitting(ctx, tx, was.Fitting); err != nil {
			return err
		}
		if err := inventory.SetFittingSince(ctx, tx, was.Fitting, was.Since); err != nil {
			return err
		}
		if became.Machine != nil && was.Machine != nil && *became.Machine != *was.Machine {
			if err := action.Record(ctx, tx, actor, took.Of("fitting"), became.Fitting, became.Machine, became,
				was); err != nil {
				return err
			}
		}
		return action.Record(ctx, tx, actor, took, e.SubjectID, action.FirstOf(was.Machine, became.Machine), became,
			was)
	})
}
