package store

import (
	"context"
	"fmt"
	"time"
)

// Account is a person who signs in.
type Account struct {
	ID           int64     `db:"id" json:"id"`
	Login        string    `db:"login" json:"login"`
	Name         string    `db:"name" json:"name"`
	Role         string    `db:"role" json:"role" enum:"curator,technician,viewer"`
	PasswordHash string    `db:"password_hash" json:"-"`
	Disabled     bool      `db:"disabled" json:"disabled" doc:"It cannot sign in"`
	Version      int       `db:"version" json:"version"`
	CreatedAt    time.Time `db:"created_at" json:"-"`
}

const accountColumns = `id, login, name, role, password_hash, disabled, version, created_at`

// InsertAccount adds an account and returns its id. A login that is taken violates
// account_login_key.
func InsertAccount(ctx context.Context, h Handle, a Account) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO account (login, name, role, password_hash)
		VALUES ($1, $2, $3, $4) RETURNING id`, a.Login, a.Name, a.Role, a.PasswordHash)
	return id, err
}

// AccountByLogin finds an account without regard to case.
func AccountByLogin(ctx context.Context, h Handle, login string) (Account, error) {
	var a Account
	err := get(ctx, h, &a, "account "+login, `SELECT `+accountColumns+` FROM account WHERE lower(login) = lower($1)`, login)
	return a, err
}

// AccountByID finds an account.
func AccountByID(ctx context.Context, h Handle, id int64) (Account, error) {
	var a Account
	err := get(ctx, h, &a, fmt.Sprintf("account %d", id), `SELECT `+accountColumns+` FROM account WHERE id = $1`, id)
	return a, err
}

// ListedAccount is an account as the curator sees it.
type ListedAccount struct {
	Account
	Invited bool `db:"invited" json:"invited" doc:"Nobody has set a password yet"`
}

// ListAccounts lists all accounts by name.
func ListAccounts(ctx context.Context, h Handle) ([]ListedAccount, error) {
	accounts := []ListedAccount{}
	err := h.SelectContext(ctx, &accounts, `SELECT `+accountColumns+`, password_hash = '' AS invited FROM account ORDER BY lower(name), id`)
	return accounts, err
}

// LockAccount reads an account and keeps others from changing it until the transaction ends.
func LockAccount(ctx context.Context, h Handle, id int64) (Account, error) {
	var a Account
	err := get(ctx, h, &a, fmt.Sprintf("account %d", id), `SELECT `+accountColumns+` FROM account WHERE id = $1 FOR UPDATE`, id)
	return a, err
}

// UpdateAccount writes name, role and whether it is disabled, and counts the version up.
func UpdateAccount(ctx context.Context, h Handle, a Account) error {
	_, err := h.ExecContext(ctx, `UPDATE account SET name = $2, role = $3, disabled = $4, version = version + 1 WHERE id = $1`, a.ID, a.Name, a.Role, a.Disabled)
	return err
}

// CountAccounts counts all accounts.
func CountAccounts(ctx context.Context, h Handle) (int, error) {
	var n int
	err := h.GetContext(ctx, &n, `SELECT count(*) FROM account`)
	return n, err
}

// AddSignInFailure notes a failed sign-in for each subject, and forgets what is too old to count.
func AddSignInFailure(ctx context.Context, h Handle, subjects []string, keep time.Duration) error {
	if _, err := h.ExecContext(ctx, `DELETE FROM sign_in_failure WHERE at < now() - make_interval(secs => $1)`, keep.Seconds()); err != nil {
		return err
	}
	_, err := h.ExecContext(ctx, `INSERT INTO sign_in_failure (subject) SELECT unnest(CAST($1 AS text[]))`, subjects)
	return err
}

// SignInFailures counts the failures of a subject within a time, and tells when the oldest of
// them stops counting.
func SignInFailures(ctx context.Context, h Handle, subject string, within time.Duration) (count int, clearIn time.Duration, err error) {
	var row struct {
		Count   int     `db:"count"`
		Seconds float64 `db:"seconds"`
	}
	err = h.GetContext(ctx, &row, `SELECT count(*) AS count,
			COALESCE(extract(epoch FROM min(at) + make_interval(secs => $2) - now()), 0) AS seconds
		FROM sign_in_failure WHERE subject = $1 AND at > now() - make_interval(secs => $2)`, subject, within.Seconds())
	return row.Count, time.Duration(row.Seconds * float64(time.Second)), err
}

// ClearSignInFailures forgets the failures of a subject.
func ClearSignInFailures(ctx context.Context, h Handle, subject string) error {
	_, err := h.ExecContext(ctx, `DELETE FROM sign_in_failure WHERE subject = $1`, subject)
	return err
}

// SetPasswordHash replaces an account's password.
func SetPasswordHash(ctx context.Context, h Handle, id int64, hash string) error {
	_, err := h.ExecContext(ctx, `UPDATE account SET password_hash = $2 WHERE id = $1`, id, hash)
	return err
}

// PutLink keeps the hash of the one link of an account, which ends after some time.
func PutLink(ctx context.Context, h Handle, accountID int64, tokenHash string, lasts time.Duration) (expires time.Time, err error) {
	err = h.GetContext(ctx, &expires, `INSERT INTO account_link (account_id, token_hash, expires_at) VALUES ($1, $2, now() + make_interval(secs => $3))
		ON CONFLICT ON CONSTRAINT account_link_pkey DO UPDATE SET token_hash = excluded.token_hash, expires_at = excluded.expires_at
		RETURNING expires_at`, accountID, tokenHash, lasts.Seconds())
	return expires, err
}

// AccountByLink finds the account of a link that has not ended.
func AccountByLink(ctx context.Context, h Handle, tokenHash string) (Account, error) {
	var a Account
	err := get(ctx, h, &a, "link", `SELECT `+accountColumns+` FROM account
		WHERE id = (SELECT account_id FROM account_link WHERE token_hash = $1 AND expires_at > now())`, tokenHash)
	return a, err
}

// DeleteLink ends the link of an account.
func DeleteLink(ctx context.Context, h Handle, accountID int64) error {
	_, err := h.ExecContext(ctx, `DELETE FROM account_link WHERE account_id = $1`, accountID)
	return err
}
