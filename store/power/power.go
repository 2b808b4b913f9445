// Package power keeps what feeds machines, their ladders, and each time that power was applied.
package power

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// Supply is what feeds a machine; what is written about it is kept whole, as JSON.
type Supply struct {
	ID        int64  `db:"id"`
	MachineID int64  `db:"machine_id"`
	Body      string `db:"body"`
	Voided    bool   `db:"voided"`
	Version   int    `db:"version"`
}

const supplySelect = `SELECT id, machine_id, CAST(body AS text) AS body, voided, version FROM power_supply `

// SuppliesOf lists those of a machine, in the order in which they were entered.
func SuppliesOf(ctx context.Context, h pg.Handle, machineID int64) ([]Supply, error) {
	found := []Supply{}
	err := h.SelectContext(ctx, &found, supplySelect+`WHERE machine_id = $1 AND NOT voided ORDER BY id`, machineID)
	return found, err
}

// SupplyByID reads one, voided or not.
func SupplyByID(ctx context.Context, h pg.Handle, id int64) (Supply, error) {
	var s Supply
	err := pg.Get(ctx, h, &s, fmt.Sprintf("supply %d", id), supplySelect+`WHERE id = $1`, id)
	return s, err
}

// LockSupply keeps others from changing one until the transaction ends, and reads it.
func LockSupply(ctx context.Context, h pg.Handle, id int64) (Supply, error) {
	var s Supply
	err := pg.Get(ctx, h, &s, fmt.Sprintf("supply %d", id), supplySelect+`WHERE id = $1 FOR NO KEY UPDATE`, id)
	return s, err
}

// InsertSupply adds one and returns its id.
func InsertSupply(ctx context.Context, h pg.Handle, machineID int64, body string) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO power_supply (machine_id, body) VALUES ($1, CAST($2 AS jsonb)) RETURNING id`, machineID, body)
	return id, err
}

// UpdateSupply rewrites one. The caller holds its lock.
func UpdateSupply(ctx context.Context, h pg.Handle, id int64, body string, voided bool) error {
	_, err := h.ExecContext(ctx,
		`UPDATE power_supply SET body = CAST($2 AS jsonb), voided = $3, version = version + 1 WHERE id = $1`, id, body, voided)
	return err
}

// Rung is a step of a machine's ladder, kept whole as JSON.
type Rung struct {
	ID        int64  `db:"id"`
	MachineID int64  `db:"machine_id"`
	Ordinal   int    `db:"ordinal"`
	Body      string `db:"body"`
	Voided    bool   `db:"voided"`
	Version   int    `db:"version"`
}

const rungSelect = `SELECT id, machine_id, ordinal, CAST(body AS text) AS body, voided, version FROM power_rung `

// RungsOf lists those of a machine from the lowest.
func RungsOf(ctx context.Context, h pg.Handle, machineID int64) ([]Rung, error) {
	found := []Rung{}
	err := h.SelectContext(ctx, &found, rungSelect+`WHERE machine_id = $1 AND NOT voided ORDER BY ordinal, id`, machineID)
	return found, err
}

// RungByID reads one, voided or not.
func RungByID(ctx context.Context, h pg.Handle, id int64) (Rung, error) {
	var r Rung
	err := pg.Get(ctx, h, &r, fmt.Sprintf("rung %d", id), rungSelect+`WHERE id = $1`, id)
	return r, err
}

// LockRung keeps others from changing one until the transaction ends, and reads it.
func LockRung(ctx context.Context, h pg.Handle, id int64) (Rung, error) {
	var r Rung
	err := pg.Get(ctx, h, &r, fmt.Sprintf("rung %d", id), rungSelect+`WHERE id = $1 FOR NO KEY UPDATE`, id)
	return r, err
}

// InsertRung adds one above all others and returns its id.
func InsertRung(ctx context.Context, h pg.Handle, machineID int64, body string) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO power_rung (machine_id, ordinal, body)
		SELECT $1, COALESCE(max(ordinal), 0) + 1, CAST($2 AS jsonb) FROM power_rung WHERE machine_id = $1 RETURNING id`,
		machineID, body)
	return id, err
}

// UpdateRung rewrites one. The caller holds its lock.
func UpdateRung(ctx context.Context, h pg.Handle, r Rung) error {
	_, err := h.ExecContext(ctx, `UPDATE power_rung SET ordinal = $2, body = CAST($3 AS jsonb), voided = $4,
		version = version + 1 WHERE id = $1`, r.ID, r.Ordinal, r.Body, r.Voided)
	return err
}

// Up is a time that power was applied, kept whole as JSON.
type Up struct {
	ID        int64     `db:"id"`
	MachineID int64     `db:"machine_id"`
	On        string    `db:"done_on"`
	Body      string    `db:"body"`
	Voided    bool      `db:"voided"`
	Version   int       `db:"version"`
	By        string    `db:"by_name"`
	At        time.Time `db:"at"`
}

const upSelect = `SELECT u.id, u.machine_id, CAST(u.done_on AS text) AS done_on, CAST(u.body AS text) AS body, u.voided,
	u.version, COALESCE(a.name, '') AS by_name, u.at FROM power_up u LEFT JOIN account a ON a.id = u.account_id `

// UpsOf lists those of a machine, the first one first.
func UpsOf(ctx context.Context, h pg.Handle, machineID int64) ([]Up, error) {
	found := []Up{}
	err := h.SelectContext(ctx, &found, upSelect+`WHERE u.machine_id = $1 AND NOT u.voided ORDER BY u.done_on, u.id`,
		machineID)
	return found, err
}

// UpByID reads one, voided or not.
func UpByID(ctx context.Context, h pg.Handle, id int64) (Up, error) {
	var u Up
	err := pg.Get(ctx, h, &u, fmt.Sprintf("power-up %d", id), upSelect+`WHERE u.id = $1`, id)
	return u, err
}

// LockUp keeps others from changing one until the transaction ends, and reads it.
func LockUp(ctx context.Context, h pg.Handle, id int64) (Up, error) {
	if _, err := h.ExecContext(ctx, `SELECT 1 FROM power_up WHERE id = $1 FOR NO KEY UPDATE`, id); err != nil {
		return Up{}, err
	}
	return UpByID(ctx, h, id)
}

// InsertUp adds one and returns its id.
func InsertUp(ctx context.Context, h pg.Handle, by *int64, machineID int64, on, body string) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO power_up (machine_id, done_on, body, account_id)
		VALUES ($1, CAST($2 AS date), CAST($3 AS jsonb), $4) RETURNING id`, machineID, on, body, by)
	return id, err
}

// VoidUp strikes one out, or takes that back. The caller holds its lock.
func VoidUp(ctx context.Context, h pg.Handle, id int64, voided bool) error {
	_, err := h.ExecContext(ctx, `UPDATE power_up SET voided = $2, version = version + 1 WHERE id = $1`, id, voided)
	return err
}

// Part is what the gate asks of a cell or a fan, kept whole as JSON.
type Part struct {
	AssemblyID int64  `db:"assembly_id"`
	Place      string `db:"place"`
	Body       string `db:"body"`
	Version    int    `db:"version"`
}

// PartsIn lists what is said of cells and fans on the boards that are in a machine today.
func PartsIn(ctx context.Context, h pg.Handle, machineID int64) ([]Part, error) {
	found := []Part{}
	err := h.SelectContext(ctx, &found, `SELECT p.assembly_id, p.place, CAST(p.body AS text) AS body, p.version
		FROM power_part p JOIN fitting f ON f.assembly_id = p.assembly_id AND f.until IS NULL WHERE f.machine_id = $1
		ORDER BY p.assembly_id, p.place`, machineID)
	return found, err
}

// PutPart says something of a cell or a fan anew. The caller holds the lock of the board.
func PutPart(ctx context.Context, h pg.Handle, assemblyID int64, place, body string) error {
	_, err := h.ExecContext(ctx, `INSERT INTO power_part (assembly_id, place, body) VALUES ($1, $2, CAST($3 AS jsonb))
		ON CONFLICT ON CONSTRAINT power_part_pkey DO UPDATE SET body = excluded.body, version = power_part.version + 1`,
		assemblyID, place, body)
	return err
}

// EmptyCells lists the places for cells that are empty, with what the sheet says of them.
func EmptyCells(ctx context.Context, h pg.Handle, machineID int64) ([]EmptyCell, error) {
	found := []EmptyCell{}
	err := h.SelectContext(ctx, &found, `SELECT a.id AS assembly_id, a.title AS board, e.line,
			array_to_string(e.designators, ' ') AS places, e.marking
		FROM entry e JOIN assembly a ON a.id = e.assembly_id JOIN fitting f ON f.assembly_id = a.id
		WHERE f.machine_id = $1 AND f.until IS NULL AND e.kind = 'battery' AND e.empty ORDER BY a.id, e.line`, machineID)
	return found, err
}

// EmptyCell is a place for a cell that is empty.
type EmptyCell struct {
	AssemblyID int64  `db:"assembly_id"`
	Board      string `db:"board"`
	Line       int    `db:"line"`
	Places     string `db:"places"`
	Marking    string `db:"marking"`
}

// DrawOf reads what the boards of a machine draw by their sheets, each as JSON by rail.
func DrawOf(ctx context.Context, h pg.Handle, machineID int64) ([]string, error) {
	found := []string{}
	err := h.SelectContext(ctx, &found, `SELECT CAST(COALESCE(t.totals->'draw', '{}') AS text) FROM sheet_total t
		JOIN fitting f ON f.assembly_id = t.assembly_id AND f.until IS NULL WHERE f.machine_id = $1 ORDER BY f.ordinal`,
		machineID)
	return found, err
}

// ChangedOn is the last day on which an assembly that was elsewhere came into a machine, or one left it, or an adjuster in
// it was turned; empty for never. What was found in it is no change.
func ChangedOn(ctx context.Context, h pg.Handle, machineID int64) (string, error) {
	var on string
	err := h.GetContext(ctx, &on, `SELECT COALESCE(CAST(greatest(
			(SELECT max(COALESCE(f.until, f.since)) FROM fitting f JOIN assembly a ON a.id = f.assembly_id
				WHERE f.machine_id = $1 AND a.kind <> 'exterior' AND (f.until IS NOT NULL OR EXISTS
				(SELECT 1 FROM fitting g WHERE g.assembly_id = f.assembly_id AND g.id < f.id))),
			(SELECT max(CAST(t->>'on' AS date)) FROM adjuster d, jsonb_array_elements(d.body->'turns') t
				WHERE d.machine_id = $1)) AS text), '')`, machineID)
	return on, err
}

// Moved is an assembly that came into a machine, or left it.
type Moved struct {
	Title string `db:"title"`
	On    string `db:"moved_on"`
	Left  bool   `db:"has_left"`
}

// MovedSince lists what came into a machine, or left it, from a day on.
func MovedSince(ctx context.Context, h pg.Handle, machineID int64, day string) ([]Moved, error) {
	found := []Moved{}
	err := h.SelectContext(ctx, &found, `SELECT a.title, CAST(COALESCE(f.until, f.since) AS text) AS moved_on,
			f.until IS NOT NULL AS has_left
		FROM fitting f JOIN assembly a ON a.id = f.assembly_id WHERE f.machine_id = $1 AND a.kind <> 'exterior'
		AND COALESCE(f.until, f.since) >= CAST($2 AS date) AND (f.until IS NOT NULL OR EXISTS
			(SELECT 1 FROM fitting g WHERE g.assembly_id = f.assembly_id AND g.id < f.id))
		ORDER BY COALESCE(f.until, f.since), f.id`, machineID, day)
	return found, err
}
