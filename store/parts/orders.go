package parts

import (
	"context"
	"fmt"

	"frugalheron/store/pg"
)

// Order is what was ordered, kept whole as JSON.
type Order struct {
	ID      int64  `db:"id"`
	Body    string `db:"body"`
	IsOpen  bool   `db:"is_open"`
	Voided  bool   `db:"voided"`
	Version int    `db:"version"`
}

const orderSelect = `SELECT id, CAST(body AS text) AS body, is_open, voided, version FROM parts_order `

// ListOrders reads a page of orders, those first of which something is to come, else the newest first.
func ListOrders(ctx context.Context, h pg.Handle, limit int) ([]Order, error) {
	found := []Order{}
	err := h.SelectContext(ctx, &found, orderSelect+`WHERE NOT voided ORDER BY is_open DESC, id DESC LIMIT $1`, limit)
	return found, err
}

// OpenOrders lists those of which something is to come, the oldest first.
func OpenOrders(ctx context.Context, h pg.Handle) ([]Order, error) {
	found := []Order{}
	err := h.SelectContext(ctx, &found, orderSelect+`WHERE NOT voided AND is_open ORDER BY id`)
	return found, err
}

// OrderByID reads one, voided or not.
func OrderByID(ctx context.Context, h pg.Handle, id int64) (Order, error) {
	var o Order
	err := pg.Get(ctx, h, &o, fmt.Sprintf("order %d", id), orderSelect+`WHERE id = $1`, id)
	return o, err
}

// LockOrder keeps others from changing one, or what is set aside of it, until the transaction ends, and reads it.
func LockOrder(ctx context.Context, h pg.Handle, id int64) (Order, error) {
	var o Order
	err := pg.Get(ctx, h, &o, fmt.Sprintf("order %d", id), orderSelect+`WHERE id = $1 FOR NO KEY UPDATE`, id)
	return o, err
}

// InsertOrder adds one and returns its id.
func InsertOrder(ctx context.Context, h pg.Handle, body string, isOpen bool) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO parts_order (body, is_open) VALUES (CAST($1 AS jsonb), $2) RETURNING id`, body, isOpen)
	return id, err
}

// UpdateOrder rewrites one. The caller holds its lock.
func UpdateOrder(ctx context.Context, h pg.Handle, o Order) error {
	_, err := h.ExecContext(ctx, `UPDATE parts_order SET body = CAST($2 AS jsonb), is_open = $3, voided = $4,
		version = version + 1 WHERE id = $1`, o.ID, o.Body, o.IsOpen, o.Voided)
	return err
}
