package inventory

import (
	"context"

	"frugalheron/store/people"
	"frugalheron/store/pg"
)

// Fitting is where an assembly is or was: in a machine, at a place, or lent to somebody.
type Fitting struct {
	ID         int64   `db:"id"`
	AssemblyID int64   `db:"assembly_id"`
	MachineID  *int64  `db:"machine_id"`
	Accession  string  `db:"accession"` // of the machine, when it is in one
	Place      string  `db:"place"`     // the place, when it is at one
	LentTo     string  `db:"lent_to"`   // who has it, when it is lent
	Due        *string `db:"due"`       // day by which a loan is to be back, YYYY-MM-DD, or null
	Slot       string  `db:"slot"`
	Fit        string  `db:"fit"`
	Note       string  `db:"note"`
	Since      string  `db:"since"` // day on which it came there, YYYY-MM-DD
	Until      *string `db:"until"` // day on which it left; null for where it is today
}

const fittingSelect = `SELECT f.id, f.assembly_id, f.machine_id, COALESCE(m.accession, '') AS accession,
	COALESCE(p.name, '') AS place,
		f.lent_to, CAST(f.due AS text) AS due, f.slot, f.fit, f.note, CAST(f.since AS text) AS since,
		CAST(f.until AS text) AS until
	FROM fitting f LEFT JOIN machine m ON m.id = f.machine_id LEFT JOIN place p ON p.id = f.place_id `

// FittingsOf lists where an assembly has been, where it is today first, then where it was last.
func FittingsOf(ctx context.Context, h pg.Handle, assemblyID int64) ([]Fitting, error) {
	fittings := []Fitting{}
	err := h.SelectContext(ctx, &fittings, fittingSelect+`WHERE f.assembly_id = $1
		ORDER BY f.until IS NULL DESC, f.until DESC, f.id DESC`, assemblyID)
	return fittings, err
}

// InsertFitting puts an assembly somewhere, behind what is there already, and returns the id. One
// that is still present elsewhere violates fitting_present_key.
func InsertFitting(ctx context.Context, h pg.Handle, f Fitting) (int64, error) {
	place, err := PlaceID(ctx, h, f.Place)
	if err != nil {
		return 0, err
	}
	var id int64
	err = h.GetContext(ctx, &id,
		`INSERT INTO fitting (assembly_id, machine_id, place_id, lent_to, due, slot, fit, note, since, ordinal)
		VALUES ($1, $2, $3, $4, CAST($5 AS date), $6, $7, $8, CAST($9 AS date),
			(SELECT COALESCE(max(ordinal), 0) + 1 FROM fitting WHERE machine_id = $2 AND until IS NULL)) RETURNING id`,
		f.AssemblyID, f.MachineID, place, f.LentTo, f.Due, f.Slot, f.Fit, f.Note, f.Since)
	return id, err
}

// InsertPastFitting notes where an assembly was before, and returns the id.
func InsertPastFitting(ctx context.Context, h pg.Handle, f Fitting) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO fitting (assembly_id, machine_id, slot, fit, note, since, until)
		VALUES ($1, $2, $3, $4, $5, CAST($6 AS date), CAST($7 AS date)) RETURNING id`,
		f.AssemblyID, f.MachineID, f.Slot, f.Fit, f.Note, f.Since, f.Until)
	return id, err
}

// PastBoard is an assembly that was in a machine, and is not any more.
type PastBoard struct {
	AssemblyID int64  `db:"assembly_id"`
	Title      string `db:"title"`
	Slot       string `db:"slot"`
	Note       string `db:"note"`
	Since      string `db:"since"`
	Until      string `db:"until"`
	Where      string `db:"now_at"` // where it is today; empty where it was struck out
}

// PastBoardsOf lists what was in a machine and is not any more, what left last first.
func PastBoardsOf(ctx context.Context, h pg.Handle, machineID int64) ([]PastBoard, error) {
	found := []PastBoard{}
	err := h.SelectContext(ctx, &found, `SELECT f.assembly_id, a.title, f.slot, f.note, CAST(f.since AS text) AS since,
			CAST(f.until AS text) AS until, COALESCE(m.accession, p.name, NULLIF(n.lent_to, ''), '') AS now_at
		FROM fitting f JOIN assembly a ON a.id = f.assembly_id
		JOIN fitting n ON n.assembly_id = a.id AND n.until IS NULL
		LEFT JOIN machine m ON m.id = n.machine_id LEFT JOIN place p ON p.id = n.place_id
		WHERE f.machine_id = $1 AND f.until IS NOT NULL AND n.machine_id IS DISTINCT FROM $1
		ORDER BY f.until DESC, f.id DESC`, machineID)
	return found, err
}

// SetFittingSince says from which day on an assembly was where a fitting says.
func SetFittingSince(ctx context.Context, h pg.Handle, id int64, day string) error {
	_, err := h.ExecContext(ctx, `UPDATE fitting SET since = CAST($2 AS date) WHERE id = $1`, id, day)
	return err
}

// CloseFitting ends a fitting on a day.
func CloseFitting(ctx context.Context, h pg.Handle, id int64, day string) error {
	_, err := h.ExecContext(ctx, `UPDATE fitting SET until = CAST($2 AS date) WHERE id = $1`, id, day)
	return err
}

// ReopenFitting makes a fitting the present one again.
func ReopenFitting(ctx context.Context, h pg.Handle, id int64) error {
	_, err := h.ExecContext(ctx, `UPDATE fitting SET until = NULL WHERE id = $1`, id)
	return err
}

// DeleteFitting removes a fitting that never was. The history keeps that it was entered.
func DeleteFitting(ctx context.Context, h pg.Handle, id int64) error {
	_, err := h.ExecContext(ctx, `DELETE FROM fitting WHERE id = $1`, id)
	return err
}

// CountAssemblyChange counts the version of an assembly up without changing what is said of it.
func CountAssemblyChange(ctx context.Context, h pg.Handle, id int64) error {
	_, err := h.ExecContext(ctx, `UPDATE assembly SET version = version + 1, updated_at = now() WHERE id = $1`, id)
	return err
}

// LooseAssembly is an assembly that is in no machine: in store, or lent.
type LooseAssembly struct {
	Assembly
	Place    string  `db:"place"`
	LentTo   string  `db:"lent_to"`
	Due      *string `db:"due"` // day by which a loan is to be back, or null
	Since    string  `db:"since"`
	From     string  `db:"came_from"` // accession number of the machine it was in last, or empty
	Chips    int     `db:"chips"`
	RAMBytes int64   `db:"ram_bytes"`
	ROMBytes int64   `db:"rom_bytes"`
}

// ListLoose reads a page of the assemblies that are in no machine, in the order of their ids, whose
// words all occur in what is said of them or of where they are; with public only in what others than staff may see.
func ListLoose(ctx context.Context, h pg.Handle, words []string, public bool, after int64,
	limit int) ([]LooseAssembly, error) {
	said := `concat_ws(' ', a.title, a.part, a.serial, a.kind, p.name, f.lent_to)`
	if public {
		// Whom something is lent to is no search for others.
		said = `concat_ws(' ', ` + people.PublicOr(people.PublicAssembly, "a.id", "a.search") + `, ` +
			people.PublicOr(people.PublicPlace, "p.id", "p.name") + `)`
	}
	where, args := pg.LikeAll(`lower(`+said+`)`, words, []any{after, limit})
	if where != "" {
		where = " AND " + where
	}
	found := []LooseAssembly{}
	err := h.SelectContext(ctx, &found,
		`SELECT a.id, a.kind, a.title, a.part, a.rev, a.serial, f.slot, f.fit, a.purpose, false AS is_voided, a.version,
			a.updated_at,
			COALESCE(t.revision, 0) AS revision, COALESCE(p.name, '') AS place, f.lent_to, CAST(f.due AS text) AS due,
			CAST(f.since AS text) AS since,
			COALESCE((SELECT m.accession FROM fitting b JOIN machine m ON m.id = b.machine_id
				WHERE b.assembly_id = a.id ORDER BY b.id DESC LIMIT 1), '') AS came_from,
			COALESCE(CAST(t.totals->>'chips' AS integer), 0) AS chips,
			COALESCE(CAST(t.totals->>'ramBytes' AS bigint), 0) AS ram_bytes,
			COALESCE(CAST(t.totals->>'romBytes' AS bigint), 0) AS rom_bytes
		FROM fitting f JOIN assembly a ON a.id = f.assembly_id
		LEFT JOIN place p ON p.id = f.place_id LEFT JOIN sheet_total t ON t.assembly_id = a.id
		WHERE f.machine_id IS NULL AND f.until IS NULL AND f.assembly_id > $1`+where+` ORDER BY f.assembly_id LIMIT $2`,
		args...)
	return found, err
}
