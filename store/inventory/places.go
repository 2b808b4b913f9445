package inventory

import (
	"context"
	"fmt"

	"frugalheron/store/pg"
)

// RenamePlace gives a place another name, and with it all places that lie in it, and returns how many these are. Places
// are written from the outside in, divided by commas. A name that another has violates place_name_key.
func RenamePlace(ctx context.Context, h pg.Handle, from, to string) (int64, error) {
	result, err := h.ExecContext(ctx, `UPDATE place SET name = $2 || substr(name, length($1) + 1)
		WHERE name = $1 OR starts_with(name, $1 || ',')`, from, to)
	if err != nil {
		return 0, err
	}
	return result.RowsAffected()
}

// HoldsPlace reports whether a place is written down, or one that lies in it.
func HoldsPlace(ctx context.Context, h pg.Handle, name string) (bool, error) {
	var holds bool
	err := h.GetContext(ctx, &holds, `SELECT EXISTS (SELECT 1 FROM place WHERE name = $1 OR starts_with(name, $1 || ','))`,
		name)
	return holds, err
}

// LockPlace keeps others from renaming a place until the transaction ends; ErrNotFound for none.
func LockPlace(ctx context.Context, h pg.Handle, id int64) error {
	var name string
	return pg.Get(ctx, h, &name, fmt.Sprintf("place %d", id), `SELECT name FROM place WHERE id = $1 FOR UPDATE`, id)
}
