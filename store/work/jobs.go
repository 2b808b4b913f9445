// Package work keeps the jobs that are done on machines.
package work

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// Job is work on a machine, kept whole as JSON.
type Job struct {
	ID        int64     `db:"id"`
	MachineID int64     `db:"machine_id"`
	Accession string    `db:"accession"`
	Machine   string    `db:"machine"`
	State     string    `db:"state"`
	Body      string    `db:"body"`
	Voided    bool      `db:"voided"`
	Version   int       `db:"version"`
	By        string    `db:"by_name"`
	At        time.Time `db:"at"`
	Ran       string    `db:"ran"` // when the machine was last under power; empty for never
}

const jobSelect = `SELECT j.id, j.machine_id, m.accession, m.name AS machine, j.state, CAST(j.body AS text) AS body, j.voided,
		j.version, COALESCE(a.name, '') AS by_name, j.at,
		COALESCE((SELECT CAST(max(u.done_on) AS text) FROM power_up u
			WHERE u.machine_id = j.machine_id AND NOT u.voided), '') AS ran
	FROM job j JOIN machine m ON m.id = j.machine_id LEFT JOIN account a ON a.id = j.account_id `

// JobsOf lists those of a machine, the oldest first.
func JobsOf(ctx context.Context, h pg.Handle, machineID int64) ([]Job, error) {
	found := []Job{}
	err := h.SelectContext(ctx, &found, jobSelect+`WHERE j.machine_id = $1 AND NOT j.voided ORDER BY j.id`, machineID)
	return found, err
}

// OpenJobs lists those of all machines that are not ended, the oldest first.
func OpenJobs(ctx context.Context, h pg.Handle, limit int) ([]Job, error) {
	found := []Job{}
	err := h.SelectContext(ctx, &found, jobSelect+`WHERE NOT j.voided AND j.state NOT IN ('done', 'declined')
		ORDER BY j.id LIMIT $1`, limit)
	return found, err
}

// TemporaryJobs lists those of all machines that say by which day a lasting repair is due, the earliest first.
func TemporaryJobs(ctx context.Context, h pg.Handle) ([]Job, error) {
	found := []Job{}
	err := h.SelectContext(ctx, &found, jobSelect+`WHERE NOT j.voided AND j.state <> 'declined'
		AND j.body->>'temporary' <> '' ORDER BY j.body->>'temporary', j.id LIMIT 500`)
	return found, err
}

// ProvenJobs lists those of all machines that are done and name the test that proves them.
func ProvenJobs(ctx context.Context, h pg.Handle) ([]Job, error) {
	found := []Job{}
	err := h.SelectContext(ctx, &found, jobSelect+`WHERE NOT j.voided AND j.state = 'done' AND j.body->>'proof' <> ''
		ORDER BY j.id`)
	return found, err
}

// JobByID reads one, voided or not.
func JobByID(ctx context.Context, h pg.Handle, id int64) (Job, error) {
	var j Job
	err := pg.Get(ctx, h, &j, fmt.Sprintf("job %d", id), jobSelect+`WHERE j.id = $1`, id)
	return j, err
}

// LockJob keeps others from changing one until the transaction ends, and reads it.
func LockJob(ctx context.Context, h pg.Handle, id int64) (Job, error) {
	if _, err := h.ExecContext(ctx, `SELECT 1 FROM job WHERE id = $1 FOR NO KEY UPDATE`, id); err != nil {
		return Job{}, err
	}
	return JobByID(ctx, h, id)
}

// InsertJob adds one and returns its id.
func InsertJob(ctx context.Context, h pg.Handle, by *int64, machineID int64, state, body string) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO job (machine_id, state, body, account_id)
		VALUES ($1, $2, CAST($3 AS jsonb), $4) RETURNING id`, machineID, state, body, by)
	return id, err
}

// UpdateJob rewrites one. The caller holds its lock.
func UpdateJob(ctx context.Context, h pg.Handle, id int64, state, body string, voided bool) error {
	_, err := h.ExecContext(ctx, `UPDATE job SET state = $2, body = CAST($3 AS jsonb), voided = $4, version = version + 1
		WHERE id = $1`, id, state, body, voided)
	return err
}
