// Package console keeps what machines said on their consoles and screens.
package console

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// Capture is what a machine said: the bytes as they came, or as somebody typed them off.
type Capture struct {
	ID        int64      `db:"id"`
	MachineID int64      `db:"machine_id"`
	How       string     `db:"how"` // heard, typed
	Raw       []byte     `db:"raw"`
	Line      string     `db:"line"`
	During    string     `db:"during"`
	Note      string     `db:"note"`
	On        string     `db:"said_on"`
	EndedAt   *time.Time `db:"ended_at"` // nil while somebody listens
	Ended     string     `db:"ended"`    // why
	Voided    bool       `db:"voided"`
	Version   int        `db:"version"`
	By        string     `db:"by_name"`
	At        time.Time  `db:"at"`
}

const captureSelect = `SELECT k.id, k.machine_id, k.how, k.raw, k.line, k.during, k.note, CAST(k.said_on AS text) AS said_on,
	k.ended_at, k.ended, k.voided, k.version, COALESCE(a.name, '') AS by_name, k.at
	FROM console_capture k LEFT JOIN account a ON a.id = k.account_id `

// CapturesOf lists those of a machine, the newest first; at most limit.
func CapturesOf(ctx context.Context, h pg.Handle, machineID int64, limit int) ([]Capture, error) {
	found := []Capture{}
	err := h.SelectContext(ctx, &found, captureSelect+`WHERE k.machine_id = $1 AND NOT k.voided
		ORDER BY k.said_on DESC, k.id DESC LIMIT $2`, machineID, limit)
	return found, err
}

// CaptureByID reads one, struck or not.
func CaptureByID(ctx context.Context, h pg.Handle, id int64) (Capture, error) {
	var c Capture
	err := pg.Get(ctx, h, &c, fmt.Sprintf("console capture %d", id), captureSelect+`WHERE k.id = $1`, id)
	return c, err
}

// LockCapture keeps others from changing one until the transaction ends, and reads it.
func LockCapture(ctx context.Context, h pg.Handle, id int64) (Capture, error) {
	var c Capture
	err := pg.Get(ctx, h, &c, fmt.Sprintf("console capture %d", id),
		captureSelect+`WHERE k.id = $1 FOR NO KEY UPDATE OF k`, id)
	return c, err
}

// InsertCapture adds one and returns its id. One that was typed is at its end.
func InsertCapture(ctx context.Context, h pg.Handle, by *int64, c Capture) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO console_capture (machine_id, how, raw, line, during, note, said_on, ended_at,
			account_id) VALUES ($1, $2, $3, $4, $5, $6, CAST($7 AS date), CASE WHEN $2 = 'typed' THEN now() END, $8)
		RETURNING id`, c.MachineID, c.How, c.Raw, c.Line, c.During, c.Note, c.On, by)
	return id, err
}

// Append puts bytes behind what was heard.
func Append(ctx context.Context, h pg.Handle, id int64, heard []byte) error {
	_, err := h.ExecContext(ctx,
		`UPDATE console_capture SET raw = raw || $2 WHERE id = $1 AND ended_at IS NULL`, id, heard)
	return err
}

// EndCapture says why listening ended. The caller holds its lock.
func EndCapture(ctx context.Context, h pg.Handle, id int64, why string) error {
	_, err := h.ExecContext(ctx, `UPDATE console_capture SET ended_at = now(), ended = $2, version = version + 1
		WHERE id = $1 AND ended_at IS NULL`, id, why)
	return err
}

// VoidCapture strikes one out, or takes that back. The caller holds its lock.
func VoidCapture(ctx context.Context, h pg.Handle, id int64, voided bool) error {
	_, err := h.ExecContext(ctx, `UPDATE console_capture SET voided = $2, version = version + 1 WHERE id = $1`, id, voided)
	return err
}

// Stated is a statement that was taken from a line.
type Stated struct {
	CaptureID   int64  `db:"capture_id"`
	Line        int    `db:"line"`
	StatementID int64  `db:"statement_id"`
	Attribute   string `db:"attribute"`
	Subject     string `db:"subject"`
}

// StatedIn lists the statements that were taken from a capture and still count.
func StatedIn(ctx context.Context, h pg.Handle, captureID int64) ([]Stated, error) {
	found := []Stated{}
	err := h.SelectContext(ctx, &found, `SELECT c.capture_id, c.line, c.statement_id, s.attribute, s.subject
		FROM console_statement c JOIN statement s ON s.id = c.statement_id
		WHERE c.capture_id = $1 AND s.retracted = '' ORDER BY c.line, c.statement_id`, captureID)
	return found, err
}

// InsertStated says from which line a statement was taken.
func InsertStated(ctx context.Context, h pg.Handle, s Stated) error {
	_, err := h.ExecContext(ctx, `INSERT INTO console_statement (capture_id, line, statement_id) VALUES ($1, $2, $3)`,
		s.CaptureID, s.Line, s.StatementID)
	return err
}
