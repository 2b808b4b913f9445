package setup

import (
	"context"
	"fmt"

	"frugalheron/store/pg"
)

// Credential is what one signs on to a machine with, or a licence key, without its secret.
type Credential struct {
	ID        int64  `db:"id"`
	MachineID int64  `db:"machine_id"`
	Body      string `db:"body"`
	Voided    bool   `db:"voided"`
	Version   int    `db:"version"`
}

const credentialSelect = `SELECT id, machine_id, CAST(body AS text) AS body, voided, version FROM credential `

// Credentials lists those of a machine; at most limit.
func Credentials(ctx context.Context, h pg.Handle, machineID int64, limit int) ([]Credential, error) {
	found := []Credential{}
	err := h.SelectContext(ctx, &found, credentialSelect+`WHERE machine_id = $1 AND NOT voided ORDER BY id LIMIT $2`,
		machineID, limit)
	return found, err
}

// CredentialByID reads one, voided or not.
func CredentialByID(ctx context.Context, h pg.Handle, id int64) (Credential, error) {
	var c Credential
	err := pg.Get(ctx, h, &c, fmt.Sprintf("credential %d", id), credentialSelect+`WHERE id = $1`, id)
	return c, err
}

// LockCredential keeps others from changing one until the transaction ends, and reads it.
func LockCredential(ctx context.Context, h pg.Handle, id int64) (Credential, error) {
	var c Credential
	err := pg.Get(ctx, h, &c, fmt.Sprintf("credential %d", id), credentialSelect+`WHERE id = $1 FOR NO KEY UPDATE`, id)
	return c, err
}

// Secret reads the secret of one.
func Secret(ctx context.Context, h pg.Handle, id int64) (string, error) {
	var secret string
	err := pg.Get(ctx, h, &secret, fmt.Sprintf("credential %d", id), `SELECT secret FROM credential WHERE id = $1`, id)
	return secret, err
}

// InsertCredential adds one and returns its id.
func InsertCredential(ctx context.Context, h pg.Handle, c Credential, secret string) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO credential (machine_id, body, secret) VALUES ($1, CAST($2 AS jsonb), $3)
		RETURNING id`, c.MachineID, c.Body, secret)
	return id, err
}

// UpdateCredential rewrites one; nil leaves its secret. The caller holds its lock.
func UpdateCredential(ctx context.Context, h pg.Handle, c Credential, secret *string) error {
	_, err := h.ExecContext(ctx, `UPDATE credential SET body = CAST($2 AS jsonb), secret = COALESCE($3, secret),
		version = version + 1 WHERE id = $1`, c.ID, c.Body, secret)
	return err
}

// VoidCredential strikes one out, or takes that back. The caller holds its lock.
func VoidCredential(ctx context.Context, h pg.Handle, id int64, voided bool) error {
	_, err := h.ExecContext(ctx, `UPDATE credential SET voided = $2, version = version + 1 WHERE id = $1`, id, voided)
	return err
}
