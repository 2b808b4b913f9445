// Package practice keeps how far people came who practise on the simulated machine: nothing of it is a record.
package practice

import (
	"context"
	"database/sql"
	"errors"

	"frugalheron/store/pg"
)

// Session is how far somebody came, kept whole as JSON.
type Session struct {
	Body    string `db:"body"`
	Version int    `db:"version"`
}

// SessionOf reads that of an account; false where there is none.
func SessionOf(ctx context.Context, h pg.Handle, accountID int64) (s Session, ok bool, err error) {
	err = h.GetContext(ctx, &s, `SELECT CAST(body AS text) AS body, version FROM practice_session WHERE account_id = $1`,
		accountID)
	if errors.Is(err, sql.ErrNoRows) {
		return s, false, nil
	}
	return s, err == nil, err
}

// KeepSession keeps that of an account in the place of the one before, and returns its version.
func KeepSession(ctx context.Context, h pg.Handle, accountID int64, body string) (version int, err error) {
	err = h.GetContext(ctx, &version, `INSERT INTO practice_session (account_id, body) VALUES ($1, CAST($2 AS jsonb))
		ON CONFLICT (account_id) DO UPDATE SET body = excluded.body, version = practice_session.version + 1
		RETURNING version`, accountID, body)
	return version, err
}
