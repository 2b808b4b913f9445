package accounts

import (
	"context"
	"errors"
	"fmt"
	"time"
	"unicode/utf8"

	"github.com/alexedwards/argon2id"
	"github.com/jmoiron/sqlx"
	"github.com/trustelem/zxcvbn"

	"frugalheron/app/action"
	"frugalheron/store/accounts"
	"frugalheron/store/pg"
)

// Password hashing: argon2id with 19 MiB, two passes, one lane, the least that the OWASP
// password storage cheat sheet (2023) recommends.
var hashing = &argon2id.Params{Memory: 19 * 1024, Iterations: 2, Parallelism: 1, SaltLength: 16, KeyLength: 32}

// hashesAtOnce is how many passwords are hashed at a time; each takes the memory above.
const hashesAtOnce = 4

// hashWithin is how long a password waits for its turn.
const hashWithin = 10 * time.Second

// Shortest and longest password in characters.
const (
	minPassword = 10
	maxPassword = 200
)

// leastGuesses is how many guesses a password has to withstand: 10^6, what the authors of the estimate ask for where
// guesses are limited, as they are here (zxcvbn, score 2). longestEstimated is how much of it is looked at.
const (
	leastGuesses     = 1e6
	longestEstimated = 72
)

// hashInTurn does work on a hash once it is its turn.
func (s *Service) hashInTurn(ctx context.Context, work func() error) error {
	waiting, stop := context.WithTimeout(ctx, hashWithin)
	defer stop()
	if err := s.hashes.Acquire(waiting, 1); err != nil {
		if ctx.Err() != nil {
			return ctx.Err()
		}
		return &action.Busy{What: "many are signing in"}
	}
	defer s.hashes.Release(1)
	return work()
}

func (s *Service) hash(ctx context.Context, password string) (hash string, err error) {
	err = s.hashInTurn(ctx, func() error {
		hash, err = argon2id.CreateHash(password, hashing)
		return err
	})
	return hash, err
}

// ChangePassword replaces the actor's own password. The current one is asked for, and failures are limited as at
// signing in: a session left open must not be enough to take an account over.
func (s *Service) ChangePassword(ctx context.Context, actor action.Actor, current, wanted string) error {
	if err := actor.Must(action.MayLook); err != nil {
		return err
	}
	account, err := accounts.AccountByID(ctx, s.kernel.Reader(ctx), actor.AccountID)
	if err != nil {
		return err
	}
	if err := checkPassword("wanted", wanted, account.Login, account.Name); err != nil {
		return err
	}
	limits := []accounts.SignInLimit{{Subject: fmt.Sprintf("account %d", account.ID), Most: failuresPerLogin}}
	if err := s.prove(ctx, account, current, limits); errors.Is(err, ErrSignIn) {
		return action.Reject("current", "this is not your current password")
	} else if err != nil {
		return err
	}
	hash, err := s.hash(ctx, wanted)
	if err != nil {
		return err
	}
	return s.kernel.Do(ctx, actor, action.MayLook, func(tx *sqlx.Tx) error {
		if err := setPassword(ctx, tx, account.ID, hash); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventChangePassword, account.ID, nil, nil, nil)
	})
}

// ReplacePassword gives an account another password. It is done from the command line, by whoever
// runs the server.
func (s *Service) ReplacePassword(ctx context.Context, login, wanted string) error {
	if err := checkPassword("password", wanted, login); err != nil {
		return err
	}
	hash, err := s.hash(ctx, wanted)
	if err != nil {
		return err
	}
	return pg.InTx(ctx, s.kernel.DB, func(tx *sqlx.Tx) error {
		account, err := accounts.AccountByLogin(ctx, tx, login)
		if err != nil {
			return err
		}
		if err := setPassword(ctx, tx, account.ID, hash); err != nil {
			return err
		}
		return action.Record(ctx, tx, action.Actor{}, eventChangePassword, account.ID, nil, nil, nil)
	})
}

// setPassword gives an account another password. Links to set one end, and browsers that the old one made known
// are strangers again.
func setPassword(ctx context.Context, tx *sqlx.Tx, account int64, hash string) error {
	if err := accounts.SetPasswordHash(ctx, tx, account, hash); err != nil {
		return err
	}
	if err := accounts.DeleteLink(ctx, tx, account); err != nil {
		return err
	}
	return accounts.ForgetBrowsers(ctx, tx, account)
}

// checkPassword refuses a password that is too short, or that somebody would try early who knows whose it is.
func checkPassword(field, password string, about ...string) error {
	if n := utf8.RuneCountInString(password); n < minPassword || n > maxPassword {
		return action.Reject(field, fmt.Sprintf("must have %d to %d characters", minPassword, maxPassword))
	}
	looked := []rune(password)
	looked = looked[:min(len(looked), longestEstimated)]
	if zxcvbn.PasswordStrength(string(looked), append(about, "frugal", "heron", "frugalheron")).Guesses < leastGuesses {
		return action.Reject(field,
			"would be among the first that somebody tries; take several words that have nothing to do with each other")
	}
	return nil
}
