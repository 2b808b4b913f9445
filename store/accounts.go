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
	CreatedAt    time.Time `db:"created_at" json:"-"`
}

const accountColumns = `id, login, name, role, password_hash, created_at`

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
