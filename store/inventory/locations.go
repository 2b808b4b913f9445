package inventory

import (
	"context"

	"frugalheron/store/pg"
)

// Location is where a machine is or was: at a place, lent, or on its way.
type Location struct {
	ID        int64   `db:"id"`
	MachineID int64   `db:"machine_id"`
	Place     string  `db:"place"`
	LentTo    string  `db:"lent_to"`
	BoundFor  string  `db:"bound_for"` // where it is going, while it is on its way
	Due       *string `db:"due"`       // day by which a loan is to be back, YYYY-MM-DD, or null
	Note      string  `db:"note"`
	Since     string  `db:"since"` // YYYY-MM-DD
	Until     *string `db:"until"` // day on which it left; null for where it is today
}

// LocationsOf lists where a machine has been, the newest first.
func LocationsOf(ctx context.Context, h pg.Handle, machineID int64) ([]Location, error) {
	locations := []Location{}
	err := h.SelectContext(ctx, &locations,
		`SELECT s.id, s.machine_id, COALESCE(p.name, '') AS place, s.lent_to, s.bound_for, CAST(s.due AS text) AS due,
			s.note,
			CAST(s.since AS text) AS since, CAST(s.until AS text) AS until
		FROM location s LEFT JOIN place p ON p.id = s.place_id WHERE s.machine_id = $1 ORDER BY s.id DESC`, machineID)
	return locations, err
}

// InsertLocation puts a machine somewhere and returns the id. One that is still present elsewhere violates
// location_present_key.
func InsertLocation(ctx context.Context, h pg.Handle, s Location) (int64, error) {
	place, err := PlaceID(ctx, h, s.Place)
	if err != nil {
		return 0, err
	}
	var id int64
	err = h.GetContext(ctx, &id, `INSERT INTO location (machine_id, place_id, lent_to, bound_for, due, note, since)
		VALUES ($1, $2, $3, $4, CAST($5 AS date), $6, CAST($7 AS date)) RETURNING id`, s.MachineID, place, s.LentTo,
		s.BoundFor, s.Due, s.Note, s.Since)
	return id, err
}

// CloseLocation ends a stay on a day; nil makes it the present one again.
func CloseLocation(ctx context.Context, h pg.Handle, id int64, day *string) error {
	_, err := h.ExecContext(ctx, `UPDATE location SET until = CAST($2 AS date) WHERE id = $1`, id, day)
	return err
}

// DeleteLocation removes a stay that never was. The history keeps that it was entered.
func DeleteLocation(ctx context.Context, h pg.Handle, id int64) error {
	_, err := h.ExecContext(ctx, `DELETE FROM location WHERE id = $1`, id)
	return err
}

// SetPlace writes where a machine stands today into its record, and counts its version up.
func SetPlace(ctx context.Context, h pg.Handle, machineID int64, place string) error {
	id, err := PlaceID(ctx, h, place)
	if err != nil {
		return err
	}
	_, err = h.ExecContext(ctx,
		`UPDATE machine SET place_id = $2, version = version + 1, updated_at = now() WHERE id = $1`, machineID, id)
	return err
}

// PlaceCount is a place with what is there today.
type PlaceCount struct {
	Name       string `db:"name"`
	Climate    string `db:"climate"` // how it treats what stands there; empty while nobody said
	Machines   int    `db:"machines"`
	Assemblies int    `db:"assemblies"` // that are in no machine
	Parts      int    `db:"parts"`      // drawers of the stores
}

// CountPlaces lists all places with what is there today, by name.
func CountPlaces(ctx context.Context, h pg.Handle) ([]PlaceCount, error) {
	counts := []PlaceCount{}
	err := h.SelectContext(ctx, &counts, `SELECT p.name, p.climate,
			(SELECT count(*) FROM machine_sum s WHERE s.place_id = p.id) AS machines,
			(SELECT count(*) FROM fitting f WHERE f.place_id = p.id AND f.until IS NULL
			AND f.machine_id IS NULL) AS assemblies,
			(SELECT count(*) FROM stock k WHERE k.place_id = p.id AND NOT k.voided) AS parts
		FROM place p ORDER BY p.name`)
	return counts, err
}
