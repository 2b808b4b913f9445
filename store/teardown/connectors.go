package teardown

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// ConnectorRow is a connector of a machine's map; what is written about it is kept whole, as JSON.
type ConnectorRow struct {
	ID        int64      `db:"id"`
	MachineID int64      `db:"machine_id"`
	Name      string     `db:"name"`
	Body      string     `db:"body"`
	Open      bool       `db:"open"`
	OpenSince *time.Time `db:"open_since"`
	Voided    bool       `db:"voided"`
	Version   int        `db:"version"`
}

const connectorSelect = `SELECT id, machine_id, name, CAST(body AS text) AS body, open, open_since, voided, version
	FROM connector `

// ConnectorsOf lists the connectors of a machine, in the order in which they were entered.
func ConnectorsOf(ctx context.Context, h pg.Handle, machineID int64) ([]ConnectorRow, error) {
	found := []ConnectorRow{}
	err := h.SelectContext(ctx, &found, connectorSelect+`WHERE machine_id = $1 AND NOT voided ORDER BY id`, machineID)
	return found, err
}

// ConnectorByID reads one, struck or not.
func ConnectorByID(ctx context.Context, h pg.Handle, id int64) (ConnectorRow, error) {
	var c ConnectorRow
	err := pg.Get(ctx, h, &c, fmt.Sprintf("connector %d", id), connectorSelect+`WHERE id = $1`, id)
	return c, err
}

// InsertConnector adds one and returns its id. A name that is there violates connector_name_key.
func InsertConnector(ctx context.Context, h pg.Handle, machineID int64, name, body string) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO connector (machine_id, name, body) VALUES ($1, $2, CAST($3 AS jsonb)) RETURNING id`, machineID,
		name, body)
	return id, err
}

// UpdateConnector rewrites what is written about one.
func UpdateConnector(ctx context.Context, h pg.Handle, id int64, name, body string, voided bool) error {
	_, err := h.ExecContext(ctx,
		`UPDATE connector SET name = $2, body = CAST($3 AS jsonb), voided = $4, version = version + 1 WHERE id = $1`,
		id, name, body, voided)
	return err
}

// OpenConnector notes that one was unplugged, or plugged in again.
func OpenConnector(ctx context.Context, h pg.Handle, id int64, open bool) error {
	_, err := h.ExecContext(ctx,
		`UPDATE connector SET open = $2, open_since = CASE WHEN $2 THEN COALESCE(open_since, now()) END,
			version = version + 1 WHERE id = $1`, id, open)
	return err
}
