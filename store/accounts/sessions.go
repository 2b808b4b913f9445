package accounts

import (
	"context"
	"database/sql"
	"errors"
	"time"

	"github.com/jmoiron/sqlx"
)

// Sessions keeps sessions as the session library wants them kept: by a token, which the library has hashed. Its
// statements end with the request that they are for.
type Sessions struct{ db *sqlx.DB }

// NewSessions returns the sessions of a database.
func NewSessions(db *sqlx.DB) *Sessions { return &Sessions{db} }

// FindCtx reads a session that has not expired; found is false for none.
func (s *Sessions) FindCtx(ctx context.Context, token string) (data []byte, found bool, err error) {
	err = s.db.GetContext(ctx, &data, `SELECT data FROM sessions WHERE token = $1 AND expiry > now()`, token)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, false, nil
	}
	return data, err == nil, err
}

// finishing lets a write finish although whoever asked for it hung up: a session that was signed out of must end, even
// if the page is gone by then.
func finishing(ctx context.Context) (context.Context, context.CancelFunc) {
	return context.WithTimeout(context.WithoutCancel(ctx), 10*time.Second)
}

// CommitCtx writes a session, and throws away those that have expired.
func (s *Sessions) CommitCtx(ctx context.Context, token string, data []byte, expiry time.Time) error {
	ctx, stop := finishing(ctx)
	defer stop()
	if _, err := s.db.ExecContext(ctx, `DELETE FROM sessions WHERE expiry < now()`); err != nil {
		return err
	}
	_, err := s.db.ExecContext(ctx, `INSERT INTO sessions (token, data, expiry) VALUES ($1, $2, $3)
		ON CONFLICT ON CONSTRAINT sessions_pkey DO UPDATE SET data = excluded.data, expiry = excluded.expiry`, token,
		data, expiry)
	return err
}

// DeleteCtx ends a session.
func (s *Sessions) DeleteCtx(ctx context.Context, token string) error {
	ctx, stop := finishing(ctx)
	defer stop()
	_, err := s.db.ExecContext(ctx, `DELETE FROM sessions WHERE token = $1`, token)
	return err
}

// AllCtx reads all sessions that have not expired.
func (s *Sessions) AllCtx(ctx context.Context) (map[string][]byte, error) {
	rows := []struct {
		Token string `db:"token"`
		Data  []byte `db:"data"`
	}{}
	if err := s.db.SelectContext(ctx, &rows, `SELECT token, data FROM sessions WHERE expiry > now()`); err != nil {
		return nil, err
	}
	all := make(map[string][]byte, len(rows))
	for _, row := range rows {
		all[row.Token] = row.Data
	}
	return all, nil
}

// Find, Commit and Delete are what the library asks of every store; it calls those with a context.
func (s *Sessions) Find(token string) ([]byte, bool, error) {
	return s.FindCtx(context.Background(), token)
}

// Commit writes a session.
func (s *Sessions) Commit(token string, data []byte, expiry time.Time) error {
	return s.CommitCtx(context.Background(), token, data, expiry)
}

// Delete ends a session.
func (s *Sessions) Delete(token string) error { return s.DeleteCtx(context.Background(), token) }
