package people

import (
	"context"
	"fmt"

	"frugalheron/store/pg"
)

// PersonalDataFields say that data of former owners is on a medium of a machine, never what it says.
type PersonalDataFields struct {
	Medium    string  `db:"medium"` // where it is, as hard disk, second partition
	Sort      string  `db:"sort"`   // what kind of data, as letters; never what it says
	Decision  string  `db:"decision"`
	Reason    string  `db:"reason"`
	DecidedBy string  `db:"decided_by"`
	DecidedOn *string `db:"decided_on"` // YYYY-MM-DD
	DoneOn    *string `db:"done_on"`    // day on which the decision was carried out, YYYY-MM-DD
}

// PersonalData is such a note.
type PersonalData struct {
	ID        int64 `db:"id"`
	MachineID int64 `db:"machine_id"`
	PersonalDataFields
	FoundOn string `db:"found_on"`
	Version int    `db:"version"`
}

const personalColumns = `id, machine_id, medium, sort, decision, reason, decided_by, CAST(decided_on AS text) AS decided_on,
	CAST(done_on AS text) AS done_on, CAST(found_on AS text) AS found_on, version`

// InsertPersonalData notes that there is some, and returns the id.
func InsertPersonalData(ctx context.Context, h pg.Handle, machineID int64, p PersonalDataFields,
	foundOn string) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO personal_data (machine_id, medium, sort, decision, reason, decided_by, decided_on, done_on, found_on)
		VALUES ($1, $2, $3, $4, $5, $6, CAST($7 AS date), CAST($8 AS date), CAST($9 AS date)) RETURNING id`,
		machineID, p.Medium, p.Sort, p.Decision, p.Reason, p.DecidedBy, p.DecidedOn, p.DoneOn, foundOn)
	return id, err
}

// UpdatePersonalData writes all fields and counts the version up. The caller holds the row's lock.
func UpdatePersonalData(ctx context.Context, h pg.Handle, id int64, p PersonalDataFields) error {
	_, err := h.ExecContext(ctx,
		`UPDATE personal_data SET medium = $2, sort = $3, decision = $4, reason = $5, decided_by = $6,
		decided_on = CAST($7 AS date), done_on = CAST($8 AS date), version = version + 1 WHERE id = $1`,
		id, p.Medium, p.Sort, p.Decision, p.Reason, p.DecidedBy, p.DecidedOn, p.DoneOn)
	return err
}

// LockPersonalData reads a note and keeps others from changing it until the transaction ends.
func LockPersonalData(ctx context.Context, h pg.Handle, id int64) (PersonalData, error) {
	var p PersonalData
	err := pg.Get(ctx, h, &p, fmt.Sprintf("note %d of personal data", id),
		`SELECT `+personalColumns+` FROM personal_data WHERE id = $1 FOR UPDATE`, id)
	return p, err
}

// PersonalDataOf lists the notes of a machine; for machine 0 those of the collection that are not done.
func PersonalDataOf(ctx context.Context, h pg.Handle, machineID int64) ([]PersonalData, error) {
	found := []PersonalData{}
	err := h.SelectContext(ctx, &found, `SELECT `+personalColumns+` FROM personal_data
		WHERE machine_id = $1 OR CAST($1 AS bigint) = 0 AND done_on IS NULL ORDER BY id`, machineID)
	return found, err
}
