package store

import (
	"context"
	"time"
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

// BeginRequest keeps that a request has begun, unless one with its key has; isNew tells. One that began long ago
// and did nothing was given up: it begins anew.
func BeginRequest(ctx context.Context, h Handle, k RequestKey, givenUp time.Duration) (isNew bool, err error) {
	if _, err := h.ExecContext(ctx, `DELETE FROM request_key WHERE started_at < now() - make_interval(secs => $1)`, keysKept.Seconds()); err != nil {
		return false, err
	}
	result, err := h.ExecContext(ctx, `INSERT INTO request_key (account_id, key, fingerprint) VALUES ($1, $2, $3)
		ON CONFLICT ON CONSTRAINT request_key_pkey DO UPDATE SET started_at = now(), fingerprint = excluded.fingerprint
		WHERE NOT request_key.done AND request_key.status IS NULL AND request_key.started_at < now() - make_interval(secs => $4)`,
		k.AccountID, k.Key, k.Fingerprint, givenUp.Seconds())
	if err != nil {
		return false, err
	}
	n, err := result.RowsAffected()
	return n == 1, err
}

// RequestWith reads what is known of a request.
func RequestWith(ctx context.Context, h Handle, account int64, key string) (KeyedRequest, error) {
	var r KeyedRequest
	err := get(ctx, h, &r, "request "+key, `SELECT account_id, key, fingerprint, CAST(extract(epoch FROM now() - started_at) AS double precision) AS age,
		done, status, media_type, body FROM request_key WHERE account_id = $1 AND key = $2`, account, key)
	return r, err
}

// MarkRequestDone keeps that what a request asks for is done, in the transaction that does it.
func MarkRequestDone(ctx context.Context, h Handle, account int64, key string) error {
	_, err := h.ExecContext(ctx, `UPDATE request_key SET done = true WHERE account_id = $1 AND key = $2`, account, key)
	return err
}

// AnswerRequest keeps the answer.
func AnswerRequest(ctx context.Context, h Handle, account int64, key string, status int, mediaType string, body []byte) error {
	_, err := h.ExecContext(ctx, `UPDATE request_key SET status = $3, media_type = $4, body = $5 WHERE account_id = $1 AND key = $2`,
		account, key, status, mediaType, body)
	return err
}

// ForgetRequest lets a request that was refused be sent anew.
func ForgetRequest(ctx context.Context, h Handle, account int64, key string) error {
	_, err := h.ExecContext(ctx, `DELETE FROM request_key WHERE account_id = $1 AND key = $2 AND NOT done`, account, key)
	return err
}
