package library

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/store"
	"frugalheron/store/pg"
)

// lockType locks the library before a type of it, as whoever changes types does.
func lockType(ctx context.Context, h pg.Handle, id int64) (store.OwnType, error) {
	if err := store.LockLibrary(ctx, h); err != nil {
		return store.OwnType{}, err
	}
	return store.OwnTypeByID(ctx, h, id)
}

func (s *Service) undoNameType(ctx context.Context, actor action.Actor, e store.ToldEvent) error {
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayKeepTheRecord, lockType, func(ctx context.Context, _ *sqlx.Tx, now store.OwnType) error {
		return action.Second(s.ForgetType(ctx, actor, now.ID))
	})
}

func (s *Service) undoChangeType(ctx context.Context, actor action.Actor, e store.ToldEvent) error {
	before, err := action.StateIn[store.OwnTypeFields](e.Before)
	if err != nil {
		return err
	}
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, lockType, func(ctx context.Context, _ *sqlx.Tx, now store.OwnType) error {
		return action.Second(s.ChangeType(ctx, actor, now.ID, now.Version, before))
	})
}

func (s *Service) undoForgetType(ctx context.Context, actor action.Actor, e store.ToldEvent) error {
	before, err := action.StateIn[store.OwnTypeFields](e.Before)
	if err != nil {
		return err
	}
	gone := func(ctx context.Context, h pg.Handle, _ int64) (struct{}, error) {
		return struct{}{}, store.LockLibrary(ctx, h)
	}
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, gone, func(ctx context.Context, _ *sqlx.Tx, _ struct{}) error {
		return action.Second(s.NameType(ctx, actor, before))
	})
}
