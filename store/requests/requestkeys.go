package requests

import (
	"context"
	"database/sql"
	"errors"
	"time"

	"frugalheron/store/pg"
)

// RequestKey names a request of an account that may be sent again.
type RequestKey struct {
	AccountID   int64  `db:"account_id"`
	Key         string `db:"key"`
	Fingerprint string `db:"fingerprint"` // of what is asked for
}

// KeyedRequest is what is known of such a request.
type KeyedRequest struct {
	RequestKey
	Age       float64 `db:"age"`  // seconds since it began
	Done      bool    `db:"done"` // what it asks for is done, whether or not it was answered
	Status    *int    `db:"status"`
	MediaType string  `db:"media_type"`
	Body      []byte  `db:"body"`
}

// keysKept is how long an answer is kept.
const keysKept = 24 * time.Hour

// BeginRequest keeps that a request has begun, and returns which attempt it is; 0 when one with its key is at work or
// done. One that began a while ago and did nothing is begun anew: it was lost with its process, or cannot be done
// any more.
func BeginRequest(ctx context.Context, h pg.Handle, k RequestKey, givenUp time.Duration) (attempt int, err error) {
	if _, err := h.ExecContext(ctx, `DELETE FROM request_key WHERE started_at < now() - make_interval(secs => $1)`,
		keysKept.Seconds()); err != nil {
		return 0, err
	}
	err = h.GetContext(ctx, &attempt, `INSERT INTO request_key (account_id, key, fingerprint) VALUES ($1, $2, $3)
		ON CONFLICT ON CONSTRAINT request_key_pkey DO UPDATE SET started_at = now(), attempt = request_key.attempt + 1
		WHERE NOT request_key.done AND request_key.status IS NULL AND request_key.fingerprint = excluded.fingerprint
			AND request_key.started_at < now() - make_interval(secs => $4)
		RETURNING attempt`, k.AccountID, k.Key, k.Fingerprint, givenUp.Seconds())
	if errors.Is(err, sql.ErrNoRows) {
		return 0, nil
	}
	return attempt, err
}

// RequestWith reads what is known of a request.
func RequestWith(ctx context.Context, h pg.Handle, account int64, key string) (KeyedRequest, error) {
	var r KeyedRequest
	err := pg.Get(ctx, h, &r, "request "+key,
		`SELECT account_id, key, fingerprint, CAST(extract(epoch FROM now() - started_at) AS double precision) AS age,
		done, status, media_type, body FROM request_key WHERE account_id = $1 AND key = $2`, account, key)
	return r, err
}

// MarkRequestDone keeps that what a request asks for is done, in the transaction that does it. It reports whether the
// attempt may do it: not if the request was begun anew meanwhile.
func MarkRequestDone(ctx context.Context, h pg.Handle, k RequestKey, attempt int) (bool, error) {
	result, err := h.ExecContext(ctx,
		`UPDATE request_key SET done = true WHERE account_id = $1 AND key = $2 AND attempt = $3`, k.AccountID, k.Key,
		attempt)
	if err != nil {
		return false, err
	}
	n, err := result.RowsAffected()
	return n == 1, err
}

// AnswerRequest keeps the answer of an attempt.
func AnswerRequest(ctx context.Context, h pg.Handle, k RequestKey, attempt, status int, mediaType string,
	body []byte) error {
	_, err := h.ExecContext(ctx,
		`UPDATE request_key SET status = $4, media_type = $5, body = $6 WHERE account_id = $1 AND key = $2
			AND attempt = $3`,
		k.AccountID, k.Key, attempt, status, mediaType, body)
	return err
}

// ForgetRequest lets a request be sent anew whose attempt was refused.
func ForgetRequest(ctx context.Context, h pg.Handle, k RequestKey, attempt int) error {
	_, err := h.ExecContext(ctx,
		`DELETE FROM request_key WHERE account_id = $1 AND key = $2 AND attempt = $3 AND NOT done`, k.AccountID, k.Key,
		attempt)
	return err
}
