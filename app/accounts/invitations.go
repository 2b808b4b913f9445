package accounts

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"time"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/store/accounts"
	"frugalheron/store/pg"
)

// linkLasts is how long an invited person, or one whose password is reset, has to set one.
const linkLasts = 7 * 24 * time.Hour

// Link is what a curator passes on to somebody who is to set a password. It is shown once.
type Link struct {
	Account AccountView `json:"account"`
	Token   string      `json:"token" doc:"Opens the page where the password is set, once"`
	Expires time.Time   `json:"expires"`
}

// AccountInput is what a curator writes about an account.
type AccountInput struct {
	Name     string      `json:"name" maxLength:"80"`
	Role     action.Role `json:"role" enum:"curator,technician,viewer"`
	Disabled bool        `json:"disabled" required:"false" doc:"It cannot sign in, and its sessions end"`
}

// Accounts lists all accounts.
func (s *Service) Accounts(ctx context.Context, actor action.Actor) ([]ListedAccountView, error) {
	if err := actor.Must(action.MayKeepTheRecord); err != nil {
		return nil, err
	}
	all, err := accounts.ListAccounts(ctx, s.kernel.Reader(ctx))
	listed := make([]ListedAccountView, len(all))
	for i, a := range all {
		listed[i] = ListedAccountView{viewOf(a.Account), a.Invited}
	}
	return listed, err
}

// Invite adds an account without password, and a link by which its person sets one.
func (s *Service) Invite(ctx context.Context, actor action.Actor, login, name string, role action.Role) (Link, error) {
	var link Link
	err := s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		account, err := insertAccount(ctx, tx, accounts.Account{Login: login, Name: name, Role: string(role)})
		if err != nil {
			return err
		}
		if link, err = makeLink(ctx, tx, account); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventInviteAccount, account.ID, nil, nil, viewOf(account))
	})
	return link, err
}

// ResetAccount makes a new link for an account. The old password works until another is set.
func (s *Service) ResetAccount(ctx context.Context, actor action.Actor, id int64) (Link, error) {
	var link Link
	err := s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		account, err := accounts.LockAccount(ctx, tx, id)
		if err != nil {
			return err
		}
		if account.Disabled {
			return action.Reject("id", "the account is disabled; let it sign in again first")
		}
		if link, err = makeLink(ctx, tx, account); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventResetAccount, id, nil, nil, viewOf(account))
	})
	return link, err
}

func makeLink(ctx context.Context, tx *sqlx.Tx, account accounts.Account) (Link, error) {
	link := Link{Account: viewOf(account), Token: rand.Text()}
	var err error
	link.Expires, err = accounts.PutLink(ctx, tx, account.ID, hashOf(link.Token), linkLasts)
	return link, err
}

// hashOf is what is kept of a token: it is long and random, so that a plain hash is enough.
func hashOf(token string) string {
	sum := sha256.Sum256([]byte(token))
	return hex.EncodeToString(sum[:])
}

// ErrLinkEnded is returned for a link that was used, replaced or is too old.
var ErrLinkEnded = errors.New("this link has ended; ask a curator for a new one")

// CheckLink says whose password a link sets.
func (s *Service) CheckLink(ctx context.Context, token string) (AccountView, error) {
	account, err := accounts.AccountByLink(ctx, s.kernel.Reader(ctx), hashOf(token))
	if errors.Is(err, action.ErrNotFound) || err == nil && account.Disabled {
		return AccountView{}, ErrLinkEnded
	}
	return viewOf(account), err
}

// TakeLink sets the password of a link's account, and ends the link.
func (s *Service) TakeLink(ctx context.Context, token, password string) (AccountView, error) {
	account, err := s.CheckLink(ctx, token)
	if err != nil {
		return account, err
	}
	if err := checkPassword("password", password, account.Login, account.Name); err != nil {
		return account, err
	}
	hash, err := s.hash(ctx, password)
	if err != nil {
		return account, err
	}
	err = pg.InTx(ctx, s.kernel.DB, func(tx *sqlx.Tx) error {
		if _, err := accounts.LockAccount(ctx, tx, account.ID); err != nil {
			return err
		}
		// Of two who open the link at once, the second finds it ended.
		if _, err := accounts.AccountByLink(ctx, tx, hashOf(token)); errors.Is(err, action.ErrNotFound) {
			return ErrLinkEnded
		} else if err != nil {
			return err
		}
		if err := setPassword(ctx, tx, account.ID, hash); err != nil {
			return err
		}
		return action.Record(ctx, tx, action.Actor{AccountID: account.ID}, eventSetPassword, account.ID, nil, nil, nil)
	})
	return account, err
}

var allAccounts = action.Records[accounts.Account, AccountView]{
	What: "the account", Lock: accounts.LockAccount, Read: accounts.AccountByID,
	Version: func(a accounts.Account) int { return a.Version },
	Told:    accountTold, View: viewOf,
}

// ChangeAccount rewrites name, role and whether an account is disabled, starting from a version.
// Curators cannot shut themselves out: one who can let others in always remains.
func (s *Service) ChangeAccount(ctx context.Context, actor action.Actor, id int64, version int,
	fields AccountInput) (AccountView, error) {
	change := action.Change{Actor: actor, Roles: action.MayKeepTheRecord, Event: eventChangeAccount, ID: id,
		Version: version}
	return allAccounts.Change(ctx, s.kernel, change, func(tx *sqlx.Tx, before accounts.Account) error {
		after := before
		after.Name, after.Role, after.Disabled = fields.Name, string(fields.Role), fields.Disabled
		if id == actor.AccountID && (after.Disabled || after.Role != before.Role) {
			return action.Reject("role", "your own role stays; another curator can change it")
		}
		if err := checkName(&after); err != nil {
			return err
		}
		if err := accounts.UpdateAccount(ctx, tx, after); err != nil || !after.Disabled {
			return err
		}
		return accounts.DeleteLink(ctx, tx, id)
	})
}

func accountTold(a accounts.Account) any {
	can := "yes"
	if a.Disabled {
		can = "no"
	}
	return map[string]any{"login": a.Login, "name": a.Name, "role": a.Role, "may sign in": can}
}
