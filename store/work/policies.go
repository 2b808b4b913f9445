package work

import (
	"context"
	"time"

	"frugalheron/store/pg"
)

// Policy is what was chosen for a question, for a machine or the collection.
type Policy struct {
	ID        int64     `db:"id"`
	MachineID *int64    `db:"machine_id"` // null for the collection
	Question  string    `db:"question"`
	Option    string    `db:"option"` // empty: undecided, or as the collection does
	Why       string    `db:"why"`
	By        string    `db:"decided_by"`
	Version   int       `db:"version"`
	At        time.Time `db:"at"`
}

const policyColumns = `id, machine_id, question, option, why, decided_by, version, at`

// PoliciesOf lists what was chosen for the collection, and for a machine; 0 for none.
func PoliciesOf(ctx context.Context, h pg.Handle, machineID int64) ([]Policy, error) {
	found := []Policy{}
	err := h.SelectContext(ctx, &found, `SELECT `+policyColumns+` FROM policy WHERE machine_id IS NULL OR machine_id = $1
		ORDER BY id`, machineID)
	return found, err
}

// PutPolicy writes one, starting from a version; 0 for the first time. It reports false when it was changed since.
func PutPolicy(ctx context.Context, h pg.Handle, p Policy) (Policy, bool, error) {
	kept := []Policy{}
	err := h.SelectContext(ctx, &kept, `INSERT INTO policy (machine_id, question, option, why, decided_by)
		SELECT $1, $2, $3, $4, $5 WHERE CAST($6 AS integer) = 0
			OR EXISTS (SELECT 1 FROM policy WHERE machine_id IS NOT DISTINCT FROM $1 AND question = $2)
		ON CONFLICT ON CONSTRAINT policy_key DO UPDATE SET option = excluded.option, why = excluded.why,
			decided_by = excluded.decided_by, at = now(), version = policy.version + 1 WHERE policy.version = $6
		RETURNING `+policyColumns, p.MachineID, p.Question, p.Option, p.Why, p.By, p.Version)
	if err != nil || len(kept) == 0 {
		return p, false, err
	}
	return kept[0], true, nil
}
