package condition

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// MeasurementRow is one point that was measured, with its readings as JSON.
type MeasurementRow struct {
	ID           int64     `db:"id"`
	MachineID    int64     `db:"machine_id"`
	AssemblyID   *int64    `db:"assembly_id"`
	Assembly     string    `db:"assembly"`
	Point        string    `db:"point"`
	Quantity     string    `db:"quantity"`
	Readings     string    `db:"readings"`
	Opening      *float64  `db:"opening"`
	Expected     *string   `db:"expected"`
	Instrument   string    `db:"instrument"`
	On           string    `db:"measured_on"`
	FindingID    *int64    `db:"finding_id"`
	AttachmentID *int64    `db:"attachment_id"`
	Note         string    `db:"note"`
	Trouble      string    `db:"trouble"`
	Load         string    `db:"load"` // dummy, machine, none; empty where nobody said
	SupplyID     *int64    `db:"power_supply_id"`
	Voided       bool      `db:"voided"`
	Version      int       `db:"version"`
	By           string    `db:"by_name"`
	At           time.Time `db:"at"`
}

const measurementSelect = `SELECT m.id, m.machine_id, m.assembly_id, COALESCE(b.title, '') AS assembly, m.point,
	m.quantity, CAST(m.readings AS text) AS readings, m.opening,
		CAST(m.expected AS text) AS expected, m.instrument, CAST(m.measured_on AS text) AS measured_on, m.finding_id,
		m.attachment_id, m.note, m.trouble, m.load, m.power_supply_id, m.voided, m.version,
		COALESCE(a.name, '') AS by_name, m.at
	FROM measurement m LEFT JOIN assembly b ON b.id = m.assembly_id LEFT JOIN account a ON a.id = m.account_id `

// MeasurementsOf lists what was measured on a machine, and on the boards that are in it today, the newest first. What was
// measured on a board that has left went with it.
func MeasurementsOf(ctx context.Context, h pg.Handle, machineID int64, limit int) ([]MeasurementRow, error) {
	found := []MeasurementRow{}
	err := h.SelectContext(ctx, &found,
		measurementSelect+`WHERE (m.machine_id = $1 AND (m.assembly_id IS NULL OR NOT EXISTS (SELECT 1 FROM fitting x
			WHERE x.assembly_id = m.assembly_id AND x.until IS NULL AND x.machine_id IS DISTINCT FROM $1))
			OR m.assembly_id IN (SELECT x.assembly_id FROM fitting x WHERE x.machine_id = $1 AND x.until IS NULL))
		AND NOT m.voided ORDER BY m.measured_on DESC, m.id DESC LIMIT $2`,
		machineID, limit)
	return found, err
}

// MeasurementsOnBoard lists what was measured on a board, wherever it was then, the newest first.
func MeasurementsOnBoard(ctx context.Context, h pg.Handle, assemblyID int64, limit int) ([]MeasurementRow, error) {
	found := []MeasurementRow{}
	err := h.SelectContext(ctx, &found, measurementSelect+`WHERE m.assembly_id = $1 AND NOT m.voided
		ORDER BY m.measured_on DESC, m.id DESC LIMIT $2`, assemblyID, limit)
	return found, err
}

// MeasurementByID reads one, struck or not.
func MeasurementByID(ctx context.Context, h pg.Handle, id int64) (MeasurementRow, error) {
	var m MeasurementRow
	err := pg.Get(ctx, h, &m, fmt.Sprintf("measurement %d", id), measurementSelect+`WHERE m.id = $1`, id)
	return m, err
}

// LockMeasurement keeps others from changing one until the transaction ends, and reads it.
func LockMeasurement(ctx context.Context, h pg.Handle, id int64) (MeasurementRow, error) {
	if _, err := h.ExecContext(ctx, `SELECT 1 FROM measurement WHERE id = $1 FOR NO KEY UPDATE`, id); err != nil {
		return MeasurementRow{}, err
	}
	return MeasurementByID(ctx, h, id)
}

// InsertMeasurement adds one and returns its id.
func InsertMeasurement(ctx context.Context, h pg.Handle, by *int64, m MeasurementRow) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO measurement (machine_id, assembly_id, point, quantity, readings, opening, expected, instrument,
			measured_on, finding_id, attachment_id, note, account_id, load, power_supply_id)
		VALUES ($1, $2, $3, $4, CAST($5 AS jsonb), $6, CAST($7 AS jsonb), $8, CAST($9 AS date), $10, $11, $12, $13, $14,
			$15) RETURNING id`,
		m.MachineID, m.AssemblyID, m.Point, m.Quantity, m.Readings, m.Opening, m.Expected, m.Instrument, m.On,
		m.FindingID, m.AttachmentID, m.Note, by, m.Load, m.SupplyID)
	return id, err
}

// UpdateMeasurement rewrites readings and what is said of them. The caller holds the row's lock.
func UpdateMeasurement(ctx context.Context, h pg.Handle, m MeasurementRow) error {
	_, err := h.ExecContext(ctx,
		`UPDATE measurement SET readings = CAST($2 AS jsonb), expected = CAST($3 AS jsonb), instrument = $4,
			attachment_id = $5, note = $6, trouble = $7, voided = $8,
		version = version + 1 WHERE id = $1`, m.ID, m.Readings, m.Expected, m.Instrument, m.AttachmentID, m.Note,
		m.Trouble, m.Voided)
	return err
}

// AdjusterRow is a trimmer or control, kept whole as JSON.
type AdjusterRow struct {
	ID        int64  `db:"id"`
	MachineID int64  `db:"machine_id"`
	Body      string `db:"body"`
	Version   int    `db:"version"`
}

const adjusterSelect = `SELECT id, machine_id, CAST(body AS text) AS body, version FROM adjuster `

// AdjustersOf lists those of a machine.
func AdjustersOf(ctx context.Context, h pg.Handle, machineID int64) ([]AdjusterRow, error) {
	found := []AdjusterRow{}
	err := h.SelectContext(ctx, &found, adjusterSelect+`WHERE machine_id = $1 ORDER BY id`, machineID)
	return found, err
}

// LockAdjuster keeps others from changing one until the transaction ends, and reads it.
func LockAdjuster(ctx context.Context, h pg.Handle, id int64) (AdjusterRow, error) {
	var a AdjusterRow
	err := pg.Get(ctx, h, &a, fmt.Sprintf("adjuster %d", id), adjusterSelect+`WHERE id = $1 FOR NO KEY UPDATE`, id)
	return a, err
}

// InsertAdjuster adds one and returns its id.
func InsertAdjuster(ctx context.Context, h pg.Handle, machineID int64, body string) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO adjuster (machine_id, body) VALUES ($1, CAST($2 AS jsonb)) RETURNING id`,
		machineID, body)
	return id, err
}

// UpdateAdjuster rewrites one. The caller holds its lock.
func UpdateAdjuster(ctx context.Context, h pg.Handle, id int64, body string) error {
	_, err := h.ExecContext(ctx, `UPDATE adjuster SET body = CAST($2 AS jsonb), version = version + 1 WHERE id = $1`,
		id, body)
	return err
}
