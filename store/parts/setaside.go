package parts

import (
	"context"
	"fmt"

	"frugalheron/store/pg"
)

// SetAside is what of a drawer, or of a line of an order, is meant for a need of a job alone.
type SetAside struct {
	ID      int64  `db:"id"`
	JobID   int64  `db:"job_id"`
	Need    string `db:"need"`
	StockID *int64 `db:"stock_id"`
	OrderID *int64 `db:"order_id"`
	Line    int    `db:"line"`
	Count   int    `db:"count"`

	Job       string `db:"job"`
	MachineID int64  `db:"machine_id"`
	Accession string `db:"accession"`
}

const setAsideSelect = `SELECT a.id, a.job_id, a.need, a.stock_id, a.order_id, a.line, a.count, j.body->>'title' AS job,
		j.machine_id, m.accession
	FROM set_aside a JOIN job j ON j.id = a.job_id JOIN machine m ON m.id = j.machine_id `

// SetAsides lists all of them, the oldest first.
func SetAsides(ctx context.Context, h pg.Handle) ([]SetAside, error) {
	found := []SetAside{}
	err := h.SelectContext(ctx, &found, setAsideSelect+`ORDER BY a.id`)
	return found, err
}

// SetAsideFor lists those of a job, the oldest first.
func SetAsideFor(ctx context.Context, h pg.Handle, jobID int64) ([]SetAside, error) {
	found := []SetAside{}
	err := h.SelectContext(ctx, &found, setAsideSelect+`WHERE a.job_id = $1 ORDER BY a.id`, jobID)
	return found, err
}

// SetAsideOfOrder lists those of an order, the oldest first.
func SetAsideOfOrder(ctx context.Context, h pg.Handle, orderID int64) ([]SetAside, error) {
	found := []SetAside{}
	err := h.SelectContext(ctx, &found, setAsideSelect+`WHERE a.order_id = $1 ORDER BY a.id`, orderID)
	return found, err
}

// SetAsideOfStock lists those of drawers, the oldest first.
func SetAsideOfStock(ctx context.Context, h pg.Handle, stockIDs []int64) ([]SetAside, error) {
	found := []SetAside{}
	err := h.SelectContext(ctx, &found, setAsideSelect+`WHERE a.stock_id = ANY (CAST($1 AS bigint[])) ORDER BY a.id`,
		stockIDs)
	return found, err
}

// SetAsideByID reads one.
func SetAsideByID(ctx context.Context, h pg.Handle, id int64) (SetAside, error) {
	var s SetAside
	err := pg.Get(ctx, h, &s, fmt.Sprintf("what is set aside as %d", id), setAsideSelect+`WHERE a.id = $1`, id)
	return s, err
}

// InsertSetAside adds one and returns its id.
func InsertSetAside(ctx context.Context, h pg.Handle, s SetAside) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO set_aside (job_id, need, stock_id, order_id, line, count)
		VALUES ($1, $2, $3, $4, $5, $6) RETURNING id`, s.JobID, s.Need, s.StockID, s.OrderID, s.Line, s.Count)
	return id, err
}

// UpdateSetAside says that fewer are set aside; none at 0.
func UpdateSetAside(ctx context.Context, h pg.Handle, id int64, count int) error {
	if count == 0 {
		_, err := h.ExecContext(ctx, `DELETE FROM set_aside WHERE id = $1`, id)
		return err
	}
	_, err := h.ExecContext(ctx, `UPDATE set_aside SET count = $2 WHERE id = $1`, id, count)
	return err
}
