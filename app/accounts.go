package app

import (
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"strings"
	"sync"
	"time"
	"unicode/utf8"

	"github.com/alexedwards/argon2id"
	"github.com/jmoiron/sqlx"

	"frugalheron/store"
)

// Password hashing: argon2id with 19 MiB, two passes, one lane, the least that the OWASP
// password storage cheat sheet (2023) recommends. Several sign-ins at once must fit in memory.
var hashing = &argon2id.Params{Memory: 19 * 1024, Iterations: 2, Parallelism: 1, SaltLength: 16, KeyLength: 32}

// Shortest and longest password in characters.
const (
	minPassword = 10
	maxPassword = 200
)

// Failed sign-ins allowed within the window, for one login and for one address.
const (
	failureWindow      = 15 * time.Minute
	failuresPerLogin   = 5
	failuresPerAddress = 30
)

// ErrSignIn is returned for a login and password that do not belong together. It does not say
// which of them is wrong.
var ErrSignIn = errors.New("login or password is wrong")

// TooMany is returned when sign-in is closed for a while after failures.
type TooMany struct{ RetryIn time.Duration }

// Error says how long to wait.
func (e *TooMany) Error() string {
	return fmt.Sprintf("too many failed sign-ins; try again in %d minutes", int(e.RetryIn/time.Minute)+1)
}

// AddAccount adds an account with a password. It is done from the command line, by whoever runs the
// server.
func (a *App) AddAccount(ctx context.Context, login, name string, role Role, password string) (int64, error) {
	if err := checkPassword("password", password); err != nil {
		return 0, err
	}
	hash, err := argon2id.CreateHash(password, hashing)
	if err != nil {
		return 0, err
	}
	account := store.Account{Login: login, Name: name, Role: string(role), PasswordHash: hash}
	err = store.InTx(ctx, a.db, func(tx *sqlx.Tx) error {
		account, err = insertAccount(ctx, tx, account)
		if err != nil {
			return err
		}
		return record(ctx, tx, Actor{}, "add account", "account", account.ID, nil, nil, account)
	})
	return account.ID, err
}

func insertAccount(ctx context.Context, tx *sqlx.Tx, account store.Account) (store.Account, error) {
	if err := checkAll(oneLine("login", &account.Login), checkName(&account)); err != nil {
		return account, err
	}
	if account.Login == "" || strings.ContainsAny(account.Login, " \t") || utf8.RuneCountInString(account.Login) > 80 {
		return account, &Invalid{"login", "give a login without spaces, at most 80 characters"}
	}
	id, err := store.InsertAccount(ctx, tx, account)
	if store.Violates(err, "account_login_key") {
		return account, &Invalid{"login", account.Login + " is taken"}
	}
	if err != nil {
		return account, err
	}
	return store.AccountByID(ctx, tx, id)
}

// checkName checks what can be changed of an account; without a name it is called by its login.
func checkName(account *store.Account) error {
	if err := oneLine("name", &account.Name); err != nil {
		return err
	}
	if account.Name == "" {
		account.Name = account.Login
	}
	switch {
	case utf8.RuneCountInString(account.Name) > 80:
		return &Invalid{"name", "has at most 80 characters"}
	case !MayLook.Include(Role(account.Role)):
		return &Invalid{"role", "is none of curator, technician, viewer"}
	}
	return nil
}

// HasAccounts reports whether anybody can sign in.
func (a *App) HasAccounts(ctx context.Context) (bool, error) {
	n, err := store.CountAccounts(ctx, a.db)
	return n > 0, err
}

// SignIn checks a login and its password. Failures are counted by login and by address; past
// the limit the answer is *TooMany without the password being looked at.
func (a *App) SignIn(ctx context.Context, login, password, address string) (store.Account, error) {
	byLogin, byAddress := "login "+strings.ToLower(strings.TrimSpace(login)), "address "+address
	for subject, limit := range map[string]int{byLogin: failuresPerLogin, byAddress: failuresPerAddress} {
		failed, clearIn, err := store.SignInFailures(ctx, a.db, subject, failureWindow)
		if err != nil {
			return store.Account{}, err
		}
		if failed >= limit {
			return store.Account{}, &TooMany{RetryIn: clearIn}
		}
	}
	account, err := store.AccountByLogin(ctx, a.db, strings.TrimSpace(login))
	known := err == nil && !account.Disabled && account.PasswordHash != ""
	if err != nil && !errors.Is(err, ErrNotFound) {
		return store.Account{}, err
	}
	if !known {
		// As much work as for a login that exists, so that time does not tell which do.
		account.PasswordHash = nobodysHash()
	}
	match, err := argon2id.ComparePasswordAndHash(password, account.PasswordHash)
	if err != nil {
		return store.Account{}, err
	}
	if !match || !known {
		if err := store.AddSignInFailure(ctx, a.db, []string{byLogin, byAddress}, failureWindow); err != nil {
			return store.Account{}, err
		}
		return store.Account{}, ErrSignIn
	}
	return account, store.ClearSignInFailures(ctx, a.db, byLogin)
}

// ActorByID loads who does a deed; ErrNotFound when the account is gone or disabled.
func (a *App) ActorByID(ctx context.Context, id int64) (Actor, error) {
	account, err := store.AccountByID(ctx, a.db, id)
	if err == nil && account.Disabled {
		err = ErrNotFound
	}
	return Actor{AccountID: account.ID, Name: account.Name, Role: Role(account.Role)}, err
}

// nobodysHash is the hash of a password that nobody has.
var nobodysHash = sync.OnceValue(func() string {
	hash, err := argon2id.CreateHash(rand.Text(), hashing)
	if err != nil {
		panic(err) // only without a source of randomness, where nothing else works either
	}
	return hash
})
