package accounts

import (
	"context"
	"log/slog"
	"strings"
	"unicode/utf8"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/store/accounts"
	"frugalheron/store/pg"
)

// AddAccount adds an account with a password. It is done from the command line, by whoever runs the
// server.
func (s *Service) AddAccount(ctx context.Context, login, name string, role action.Role,
	password string) (int64, error) {
	if err := checkPassword("password", password, login, name); err != nil {
		return 0, err
	}
	hash, err := s.hash(ctx, password)
	if err != nil {
		return 0, err
	}
	account := accounts.Account{Login: login, Name: name, Role: string(role), PasswordHash: hash}
	err = pg.InTx(ctx, s.kernel.DB, func(tx *sqlx.Tx) error {
		account, err = insertAccount(ctx, tx, account)
		if err != nil {
			return err
		}
		return action.Record(ctx, tx, action.Actor{}, eventAddAccount, account.ID, nil, nil, viewOf(account))
	})
	return account.ID, err
}

func insertAccount(ctx context.Context, tx *sqlx.Tx, account accounts.Account) (accounts.Account, error) {
	if err := input.CheckAll(input.OneLine("login", &account.Login), checkName(&account)); err != nil {
		return account, err
	}
	if account.Login == "" || strings.ContainsAny(account.Login, " \t") || utf8.RuneCountInString(account.Login) > 80 {
		return account, action.Reject("login", "give a login without spaces, at most 80 characters")
	}
	id, err := accounts.InsertAccount(ctx, tx, account)
	if pg.Violates(err, "account_login_key") {
		return account, action.Reject("login", account.Login+" is taken")
	}
	if err != nil {
		return account, err
	}
	return accounts.AccountByID(ctx, tx, id)
}

// checkName checks what can be changed of an account; without a name it is called by its login.
func checkName(account *accounts.Account) error {
	if err := input.OneLine("name", &account.Name); err != nil {
		return err
	}
	if account.Name == "" {
		account.Name = account.Login
	}
	switch {
	case utf8.RuneCountInString(account.Name) > 80:
		return action.Reject("name", "has at most 80 characters")
	case !action.MayLook.Include(action.Role(account.Role)):
		return action.Reject("role", "is none of curator, technician, viewer")
	}
	return nil
}

// HasAccounts reports whether anybody can sign in.
func (s *Service) HasAccounts(ctx context.Context) (bool, error) {
	n, err := accounts.CountAccounts(ctx, s.kernel.Reader(ctx))
	return n > 0, err
}

// ActorByID loads who does an action; ErrNotFound when the account is gone or disabled.
func (s *Service) ActorByID(ctx context.Context, id int64) (action.Actor, error) {
	account, err := accounts.ZonedAccountByID(ctx, s.kernel.Reader(ctx), id)
	if err == nil && account.Disabled {
		err = action.ErrNotFound
	}
	if err != nil {
		return action.Actor{}, err
	}
	zone, err := action.ZoneOf(account.TimeZone)
	if err != nil {
		// One that a newer application knew must not shut everybody out; the session says which zone counts.
		slog.Warn("days are counted in UTC", "cause", err)
	}
	return action.Actor{AccountID: account.ID, Name: account.Name, Role: action.Role(account.Role), Zone: zone}, nil
}
