package accounts

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// Account is a person who signs in.
type Account struct {
	ID           int64     `db:"id"`
	Login        string    `db:"login"`
	Name         string    `db:"name"`
	Role         string    `db:"role"`
	PasswordHash string    `db:"password_hash"`
	Disabled     bool      `db:"disabled"` // it cannot sign in
	Version      int       `db:"version"`
	CreatedAt    time.Time `db:"created_at"`
}

const accountColumns = `id, login, name, role, password_hash, disabled, version, created_at`

// InsertAccount adds an account and returns its id. A login that is taken violates
// account_login_key.
func InsertAccount(ctx context.Context, h pg.Handle, a Account) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO account (login, name, role, password_hash)
		VALUES ($1, $2, $3, $4) RETURNING id`, a.Login, a.Name, a.Role, a.PasswordHash)
	return id, err
}

// AccountByLogin finds an account without regard to case.
func AccountByLogin(ctx context.Context, h pg.Handle, login string) (Account, error) {
	var a Account
	err := pg.Get(ctx, h, &a, "account "+login, `SELECT `+accountColumns+` FROM account WHERE lower(login) = lower($1)`,
		login)
	return a, err
}

// AccountByID finds an account.
func AccountByID(ctx context.Context, h pg.Handle, id int64) (Account, error) {
	var a Account
	err := pg.Get(ctx, h, &a, fmt.Sprintf("account %d", id), `SELECT `+accountColumns+` FROM account WHERE id = $1`, id)
	return a, err
}

// ZonedAccount is an account with the name of the zone in which its collection counts days.
type ZonedAccount struct {
	Account
	TimeZone string `db:"time_zone"`
}

// ZonedAccountByID finds an account, and the zone of its collection.
func ZonedAccountByID(ctx context.Context, h pg.Handle, id int64) (ZonedAccount, error) {
	var a ZonedAccount
	err := pg.Get(ctx, h, &a, fmt.Sprintf("account %d", id),
		`SELECT `+accountColumns+`, (SELECT time_zone FROM collection) AS time_zone FROM account WHERE id = $1`, id)
	return a, err
}

// ListedAccount is an account as the curator sees it.
type ListedAccount struct {
	Account
	Invited bool `db:"invited"` // nobody has set a password yet
}

// ListAccounts lists all accounts by name.
func ListAccounts(ctx context.Context, h pg.Handle) ([]ListedAccount, error) {
	accounts := []ListedAccount{}
	err := h.SelectContext(ctx, &accounts,
		`SELECT `+accountColumns+`, password_hash = '' AS invited FROM account ORDER BY lower(name), id`)
	return accounts, err
}

// LockAccount reads an account and keeps others from changing it until the transaction ends.
func LockAccount(ctx context.Context, h pg.Handle, id int64) (Account, error) {
	var a Account
	err := pg.Get(ctx, h, &a, fmt.Sprintf("account %d", id),
		`SELECT `+accountColumns+` FROM account WHERE id = $1 FOR UPDATE`, id)
	return a, err
}

// UpdateAccount writes name, role and whether it is disabled, and counts the version up.
func UpdateAccount(ctx context.Context, h pg.Handle, a Account) error {
	_, err := h.ExecContext(ctx,
		`UPDATE account SET name = $2, role = $3, disabled = $4, version = version + 1 WHERE id = $1`, a.ID, a.Name,
		a.Role, a.Disabled)
	return err
}

// CountAccounts counts all accounts.
func CountAccounts(ctx context.Context, h pg.Handle) (int, error) {
	var n int
	err := h.GetContext(ctx, &n, `SELECT count(*) FROM account`)
	return n, err
}

// SignInLimit is how many attempts of a subject count within a time before it is refused.
type SignInLimit struct {
	Subject string // "login ottilie", "address 192.0.2.7"
	Most    int
}

// CountSignIn notes an attempt to sign in for each subject, unless one of them has reached its limit; then it tells
// when the oldest attempt stops counting. Attempts of a subject stand in line, so that of many at once none is
// overlooked. It wants a transaction; limits are given in the same order by everybody.
func CountSignIn(ctx context.Context, h pg.Handle, limits []SignInLimit,
	within time.Duration) (attempts []int64, clearIn time.Duration, err error) {
	if _, err := h.ExecContext(ctx, `DELETE FROM sign_in_failure WHERE at < now() - make_interval(secs => $1)`,
		within.Seconds()); err != nil {
		return nil, 0, err
	}
	for _, l := range limits {
		if _, err := h.ExecContext(ctx, `SELECT pg_advisory_xact_lock(6002, hashtext($1))`, l.Subject); err != nil {
			return nil, 0, err
		}
		var row struct {
			Count   int     `db:"count"`
			Seconds float64 `db:"seconds"`
		}
		err = h.GetContext(ctx, &row, `SELECT count(*) AS count,
				COALESCE(extract(epoch FROM min(at) + make_interval(secs => $2) - now()), 0) AS seconds
			FROM sign_in_failure WHERE subject = $1 AND at > now() - make_interval(secs => $2)`, l.Subject,
			within.Seconds())
		if err != nil {
			return nil, 0, err
		}
		if row.Count >= l.Most {
			return nil, time.Duration(row.Seconds * float64(time.Second)), nil
		}
	}
	attempts = []int64{}
	for _, l := range limits {
		var id int64
		if err := h.GetContext(ctx, &id, `INSERT INTO sign_in_failure (subject) VALUES ($1) RETURNING id`,
			l.Subject); err != nil {
			return nil, 0, err
		}
		attempts = append(attempts, id)
	}
	return attempts, 0, nil
}

// ForgetSignIns takes attempts back that did not fail.
func ForgetSignIns(ctx context.Context, h pg.Handle, attempts []int64) error {
	_, err := h.ExecContext(ctx, `DELETE FROM sign_in_failure WHERE id = ANY (CAST($1 AS bigint[]))`, attempts)
	return err
}

// ClearSignInFailures forgets the failures of a subject.
func ClearSignInFailures(ctx context.Context, h pg.Handle, subject string) error {
	_, err := h.ExecContext(ctx, `DELETE FROM sign_in_failure WHERE subject = $1`, subject)
	return err
}

// KnownBrowser reports whether somebody signed in from a browser within a time: to an account, and to any.
func KnownBrowser(ctx context.Context, h pg.Handle, accountID int64, tokenHash string,
	within time.Duration) (toThis, toAny bool, err error) {
	var known struct {
		This bool `db:"this"`
		Any  bool `db:"some"`
	}
	err = h.GetContext(ctx, &known,
		`SELECT COALESCE(bool_or(account_id = $2), false) AS this, count(*) > 0 AS some FROM known_browser
		WHERE token_hash = $1 AND last_used > now() - make_interval(secs => $3)`, tokenHash, accountID,
		within.Seconds())
	return known.This, known.Any, err
}

// KnowBrowser keeps that somebody signed in to an account from a browser. Of each account so many are kept.
func KnowBrowser(ctx context.Context, h pg.Handle, accountID int64, tokenHash string, most int) error {
	if _, err := h.ExecContext(ctx, `INSERT INTO known_browser (token_hash, account_id) VALUES ($1, $2)
		ON CONFLICT ON CONSTRAINT known_browser_pkey DO UPDATE SET last_used = now()`, tokenHash,
		accountID); err != nil {
		return err
	}
	_, err := h.ExecContext(ctx, `DELETE FROM known_browser WHERE account_id = $1 AND token_hash NOT IN
		(SELECT token_hash FROM known_browser WHERE account_id = $1 ORDER BY last_used DESC LIMIT $2)`, accountID, most)
	return err
}

// ForgetBrowsers makes all browsers strangers to an account again.
func ForgetBrowsers(ctx context.Context, h pg.Handle, accountID int64) error {
	_, err := h.ExecContext(ctx, `DELETE FROM known_browser WHERE account_id = $1`, accountID)
	return err
}

// SetPasswordHash replaces an account's password.
func SetPasswordHash(ctx context.Context, h pg.Handle, id int64, hash string) error {
	_, err := h.ExecContext(ctx, `UPDATE account SET password_hash = $2 WHERE id = $1`, id, hash)
	return err
}

// PutLink keeps the hash of the one link of an account, which ends after some time.
func PutLink(ctx context.Context, h pg.Handle, accountID int64, tokenHash string,
	lasts time.Duration) (expires time.Time, err error) {
	err = h.GetContext(ctx, &expires,
		`INSERT INTO account_link (account_id, token_hash, expires_at)
			VALUES ($1, $2, now() + make_interval(secs => $3))
		ON CONFLICT ON CONSTRAINT account_link_pkey DO UPDATE
		SET token_hash = excluded.token_hash, expires_at = excluded.expires_at
		RETURNING expires_at`, accountID, tokenHash, lasts.Seconds())
	return expires, err
}

// AccountByLink finds the account of a link that has not ended.
func AccountByLink(ctx context.Context, h pg.Handle, tokenHash string) (Account, error) {
	var a Account
	err := pg.Get(ctx, h, &a, "link", `SELECT `+accountColumns+` FROM account
		WHERE id = (SELECT account_id FROM account_link WHERE token_hash = $1 AND expires_at > now())`, tokenHash)
	return a, err
}

// DeleteLink ends the link of an account.
func DeleteLink(ctx context.Context, h pg.Handle, accountID int64) error {
	_, err := h.ExecContext(ctx, `DELETE FROM account_link WHERE account_id = $1`, accountID)
	return err
}
