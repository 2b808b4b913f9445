package app

import (
	"context"
	"errors"
	"fmt"
	"unicode/utf8"

	"github.com/alexedwards/argon2id"
	"github.com/jmoiron/sqlx"

	"frugalheron/store"
)

// ChangePassword replaces the actor's own password. The current one is asked for, under the same
// limit as signing in: a session left open must not be enough to take an account over.
func (a *App) ChangePassword(ctx context.Context, actor Actor, current, wanted, address string) error {
	if err := actor.must(MayLook); err != nil {
		return err
	}
	if err := checkPassword("wanted", wanted); err != nil {
		return err
	}
	account, err := store.AccountByID(ctx, a.db, actor.AccountID)
	if err != nil {
		return err
	}
	if _, err := a.SignIn(ctx, account.Login, current, address); errors.Is(err, ErrSignIn) {
		return &Invalid{"current", "this is not your current password"}
	} else if err != nil {
		return err
	}
	hash, err := argon2id.CreateHash(wanted, hashing)
	if err != nil {
		return err
	}
	return a.deed(ctx, actor, MayLook, func(tx *sqlx.Tx) error {
		if err := store.SetPasswordHash(ctx, tx, account.ID, hash); err != nil {
			return err
		}
		return record(ctx, tx, actor, "change password", "account", account.ID, nil, nil, nil)
	})
}

// ReplacePassword gives an account another password. It is done from the command line, by whoever
// runs the server.
func (a *App) ReplacePassword(ctx context.Context, login, wanted string) error {
	if err := checkPassword("password", wanted); err != nil {
		return err
	}
	hash, err := argon2id.CreateHash(wanted, hashing)
	if err != nil {
		return err
	}
	return store.InTx(ctx, a.db, func(tx *sqlx.Tx) error {
		account, err := store.AccountByLogin(ctx, tx, login)
		if err != nil {
			return err
		}
		if err := store.SetPasswordHash(ctx, tx, account.ID, hash); err != nil {
			return err
		}
		return record(ctx, tx, Actor{}, "change password", "account", account.ID, nil, nil, nil)
	})
}

func checkPassword(field, password string) error {
	if n := utf8.RuneCountInString(password); n < minPassword || n > maxPassword {
		return &Invalid{field, fmt.Sprintf("must have %d to %d characters", minPassword, maxPassword)}
	}
	return nil
}
