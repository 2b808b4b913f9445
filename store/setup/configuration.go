// Package setup keeps how machines are set up.
package setup

import (
	"context"
	"fmt"

	"frugalheron/store/pg"
)

// Configuration is how a machine was set up on a day; what is written of it is kept whole, as JSON.
type Configuration struct {
	ID        int64  `db:"id"`
	MachineID int64  `db:"machine_id"`
	On        string `db:"on_day"`
	Body      string `db:"body"`
	Voided    bool   `db:"voided"`
	Version   int    `db:"version"`
}

const configurationSelect = `SELECT id, machine_id, to_char(on_day, 'YYYY-MM-DD') AS on_day, CAST(body AS text) AS body, voided,
	version FROM configuration `

// Configurations lists those of a machine, the newest first; at most limit.
func Configurations(ctx context.Context, h pg.Handle, machineID int64, limit int) ([]Configuration, error) {
	found := []Configuration{}
	err := h.SelectContext(ctx, &found, configurationSelect+`WHERE machine_id = $1 AND NOT voided
		ORDER BY on_day DESC, id DESC LIMIT $2`, machineID, limit)
	return found, err
}

// Noted lists those of a machine as Configurations does, with nothing but their cards in the body.
func Noted(ctx context.Context, h pg.Handle, machineID int64, limit int) ([]Configuration, error) {
	found := []Configuration{}
	err := h.SelectContext(ctx, &found, `SELECT id, machine_id, to_char(on_day, 'YYYY-MM-DD') AS on_day,
		CAST(jsonb_build_object('cards', body->'cards') AS text) AS body, voided, version FROM configuration
		WHERE machine_id = $1 AND NOT voided ORDER BY on_day DESC, id DESC LIMIT $2`, machineID, limit)
	return found, err
}

// HasFirmware reports whether any of a machine says what its firmware keeps.
func HasFirmware(ctx context.Context, h pg.Handle, machineID int64) (bool, error) {
	var has bool
	err := h.GetContext(ctx, &has, `SELECT EXISTS (SELECT 1 FROM configuration
		WHERE machine_id = $1 AND NOT voided AND COALESCE(body->>'firmware', '') <> '')`, machineID)
	return has, err
}

// ConfigurationByID reads one, voided or not.
func ConfigurationByID(ctx context.Context, h pg.Handle, id int64) (Configuration, error) {
	var c Configuration
	err := pg.Get(ctx, h, &c, fmt.Sprintf("configuration %d", id), configurationSelect+`WHERE id = $1`, id)
	return c, err
}

// LockConfiguration keeps others from changing one until the transaction ends, and reads it.
func LockConfiguration(ctx context.Context, h pg.Handle, id int64) (Configuration, error) {
	var c Configuration
	err := pg.Get(ctx, h, &c, fmt.Sprintf("configuration %d", id),
		configurationSelect+`WHERE id = $1 FOR NO KEY UPDATE`, id)
	return c, err
}

// InsertConfiguration adds one and returns its id.
func InsertConfiguration(ctx context.Context, h pg.Handle, c Configuration) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO configuration (machine_id, on_day, body)
		VALUES ($1, CAST($2 AS date), CAST($3 AS jsonb)) RETURNING id`, c.MachineID, c.On, c.Body)
	return id, err
}

// UpdateConfiguration rewrites one. The caller holds its lock.
func UpdateConfiguration(ctx context.Context, h pg.Handle, c Configuration) error {
	_, err := h.ExecContext(ctx, `UPDATE configuration SET on_day = CAST($2 AS date), body = CAST($3 AS jsonb),
		version = version + 1 WHERE id = $1`, c.ID, c.On, c.Body)
	return err
}

// VoidConfiguration strikes one out, or takes that back. The caller holds its lock.
func VoidConfiguration(ctx context.Context, h pg.Handle, id int64, voided bool) error {
	_, err := h.ExecContext(ctx, `UPDATE configuration SET voided = $2, version = version + 1 WHERE id = $1`, id, voided)
	return err
}

// Battery is one on a sheet of a machine.
type Battery struct {
	Designator string `db:"designator"`
	Title      string `db:"title"`
}

// Batteries lists those that the sheets of a machine have in place.
func Batteries(ctx context.Context, h pg.Handle, machineID int64) ([]Battery, error) {
	found := []Battery{}
	err := h.SelectContext(ctx, &found, `SELECT COALESCE(e.designators[1], '') AS designator, a.title
		FROM fitting f JOIN assembly a ON a.id = f.assembly_id JOIN entry e ON e.assembly_id = a.id
		WHERE f.machine_id = $1 AND f.until IS NULL AND e.kind = 'battery' AND NOT e.empty
		ORDER BY f.ordinal, a.id, e.line LIMIT 20`, machineID)
	return found, err
}
