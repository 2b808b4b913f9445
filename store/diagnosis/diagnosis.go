// Package diagnosis keeps symptoms with the trials that look for their cause.
package diagnosis

import (
	"context"
	"fmt"

	"frugalheron/store/pg"
)

// Diagnosis is a symptom of a machine; what is written of it and its trials is kept whole, as JSON.
type Diagnosis struct {
	ID        int64  `db:"id"`
	MachineID int64  `db:"machine_id"`
	Accession string `db:"accession"`
	Body      string `db:"body"`
	IsOpen    bool   `db:"is_open"`
	Voided    bool   `db:"voided"`
	Version   int    `db:"version"`
}

const diagnosisSelect = `SELECT d.id, d.machine_id, m.accession, CAST(d.body AS text) AS body, d.is_open, d.voided,
	d.version
	FROM diagnosis d JOIN machine m ON m.id = d.machine_id `

// OfMachine lists those of a machine, the open ones first, then the newest; at most limit.
func OfMachine(ctx context.Context, h pg.Handle, machineID int64, limit int) ([]Diagnosis, error) {
	found := []Diagnosis{}
	err := h.SelectContext(ctx, &found, diagnosisSelect+`WHERE d.machine_id = $1 AND NOT d.voided
		ORDER BY d.is_open DESC, d.id DESC LIMIT $2`, machineID, limit)
	return found, err
}

// WithBoards lists those in which any of some boards was tried, in the order in which they began; at most limit.
func WithBoards(ctx context.Context, h pg.Handle, assemblyIDs []int64, limit int) ([]Diagnosis, error) {
	found := []Diagnosis{}
	err := h.SelectContext(ctx, &found, diagnosisSelect+`WHERE NOT d.voided AND d.id IN (
		SELECT diagnosis_id FROM diagnosis_board WHERE assembly_id = ANY (CAST($1 AS bigint[])))
		ORDER BY d.id LIMIT $2`, assemblyIDs, limit)
	return found, err
}

// ByID reads one, voided or not.
func ByID(ctx context.Context, h pg.Handle, id int64) (Diagnosis, error) {
	var d Diagnosis
	err := pg.Get(ctx, h, &d, fmt.Sprintf("diagnosis %d", id), diagnosisSelect+`WHERE d.id = $1`, id)
	return d, err
}

// Lock keeps others from changing one until the transaction ends, and reads it.
func Lock(ctx context.Context, h pg.Handle, id int64) (Diagnosis, error) {
	var d Diagnosis
	err := pg.Get(ctx, h, &d, fmt.Sprintf("diagnosis %d", id),
		diagnosisSelect+`WHERE d.id = $1 FOR NO KEY UPDATE OF d`, id)
	return d, err
}

// Insert adds one with the boards that are tried in it, and returns its id.
func Insert(ctx context.Context, h pg.Handle, d Diagnosis, boards []int64) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO diagnosis (machine_id, body, is_open) VALUES ($1, CAST($2 AS jsonb), $3)
		RETURNING id`, d.MachineID, d.Body, d.IsOpen)
	if err != nil {
		return 0, err
	}
	return id, putBoards(ctx, h, id, boards)
}

// Update rewrites one. The caller holds its lock.
func Update(ctx context.Context, h pg.Handle, d Diagnosis, boards []int64) error {
	_, err := h.ExecContext(ctx, `UPDATE diagnosis SET body = CAST($2 AS jsonb), is_open = $3, version = version + 1
		WHERE id = $1`, d.ID, d.Body, d.IsOpen)
	if err != nil {
		return err
	}
	return putBoards(ctx, h, d.ID, boards)
}

func putBoards(ctx context.Context, h pg.Handle, id int64, boards []int64) error {
	if _, err := h.ExecContext(ctx, `DELETE FROM diagnosis_board WHERE diagnosis_id = $1`, id); err != nil {
		return err
	}
	_, err := h.ExecContext(ctx, `INSERT INTO diagnosis_board (diagnosis_id, assembly_id)
		SELECT DISTINCT CAST($1 AS bigint), unnest(CAST($2 AS bigint[]))`, id, boards)
	return err
}

// Void strikes one out, or takes that back. The caller holds its lock.
func Void(ctx context.Context, h pg.Handle, id int64, voided bool) error {
	_, err := h.ExecContext(ctx, `UPDATE diagnosis SET voided = $2, version = version + 1 WHERE id = $1`, id, voided)
	return err
}
