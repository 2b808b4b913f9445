package library

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/store/history"
	"frugalheron/store/library"
	"frugalheron/store/pg"
)

// lockType locks the library before a type of it, as whoever changes types does.
func lockType(ctx context.Context, h pg.Handle, id int64) (library.OwnType, error) {
	if err := library.LockLibrary(ctx, h); err != nil {
		return library.OwnType{}, err
	}
	return library.OwnTypeByID(ctx, h, id)
}

func (s *Service) undoNameType(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayKeepTheRecord, lockType,
		func(ctx context.Context, _ *sqlx.Tx, now library.OwnType) error {
			return action.Second(s.ForgetType(ctx, actor, now.ID))
		})
}

func (s *Service) undoChangeType(ctx context.Context, actor action.Actor, e history.EventRow) error {
	before, err := action.StateIn[OwnTypeInput](e.Before)
	if err != nil {
		return err
	}
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, lockType,
		func(ctx context.Context, _ *sqlx.Tx, now library.OwnType) error {
			return action.Second(s.ChangeType(ctx, actor, now.ID, now.Version, before))
		})
}

func (s *Service) undoForgetType(ctx context.Context, actor action.Actor, e history.EventRow) error {
	before, err := action.StateIn[OwnTypeInput](e.Before)
	if err != nil {
		return err
	}
	gone := func(ctx context.Context, h pg.Handle, _ int64) (struct{}, error) {
		return struct{}{}, library.LockLibrary(ctx, h)
	}
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, gone,
		func(ctx context.Context, _ *sqlx.Tx, _ struct{}) error {
			return action.Second(s.nameTypeAs(ctx, actor, e.SubjectID, before))
		})
}
