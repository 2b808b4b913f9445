package app

import (
	"context"
	"frugalheron/store"

	"github.com/jmoiron/sqlx"
)

// lockType locks the library before a type of it, as whoever changes types does.
func lockType(ctx context.Context, h store.Handle, id int64) (store.OwnType, error) {
	if err := store.LockLibrary(ctx, h); err != nil {
		return store.OwnType{}, err
	}
	return store.OwnTypeByID(ctx, h, id)
}

func (a *App) undoNameType(ctx context.Context, actor Actor, e store.ToldEvent) error {
	return undoingOf(a.Kernel, ctx, actor, e, MayKeepTheRecord, lockType, func(ctx context.Context, _ *sqlx.Tx, now store.OwnType) error {
		return second(a.ForgetType(ctx, actor, now.ID))
	})
}

func (a *App) undoChangeType(ctx context.Context, actor Actor, e store.ToldEvent) error {
	before, err := stateIn[store.OwnTypeFields](e.Before)
	if err != nil {
		return err
	}
	return undoingOf(a.Kernel, ctx, actor, e, MayWriteSheets, lockType, func(ctx context.Context, _ *sqlx.Tx, now store.OwnType) error {
		return second(a.ChangeType(ctx, actor, now.ID, now.Version, before))
	})
}

func (a *App) undoForgetType(ctx context.Context, actor Actor, e store.ToldEvent) error {
	before, err := stateIn[store.OwnTypeFields](e.Before)
	if err != nil {
		return err
	}
	gone := func(ctx context.Context, h store.Handle, _ int64) (struct{}, error) {
		return struct{}{}, store.LockLibrary(ctx, h)
	}
	return undoingOf(a.Kernel, ctx, actor, e, MayWriteSheets, gone, func(ctx context.Context, _ *sqlx.Tx, _ struct{}) error {
		return second(a.NameType(ctx, actor, before))
	})
}
