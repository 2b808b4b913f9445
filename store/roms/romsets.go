package roms

import (
	"context"

	"frugalheron/store/pg"
)

// RomSet is all images of a board together, as they belong to one version.
type RomSet struct {
	ID   int64  `db:"id"`
	Name string `db:"name"`
	Note string `db:"note"`
}

// RomSetImage is an image of a set, and the socket that it belongs in.
type RomSetImage struct {
	SetID  int64  `db:"set_id"`
	SHA256 string `db:"sha256"`
	Place  string `db:"place"`
}

// InsertRomSet adds a set and returns its id. A name that is there violates rom_set_name_key.
func InsertRomSet(ctx context.Context, h pg.Handle, name, note string, images []RomSetImage) (int64, error) {
	var id int64
	if err := h.GetContext(ctx, &id, `INSERT INTO rom_set (name, note) VALUES ($1, $2) RETURNING id`, name,
		note); err != nil {
		return 0, err
	}
	sums, places := make([]string, len(images)), make([]string, len(images))
	for i, image := range images {
		sums[i], places[i] = image.SHA256, image.Place
	}
	_, err := h.ExecContext(ctx, `INSERT INTO rom_set_image (set_id, sha256, place)
		SELECT $1, r.sha256, r.place FROM unnest(CAST($2 AS text[]), CAST($3 AS text[])) AS r(sha256, place)`, id,
		sums, places)
	return id, err
}

// ListRomSets lists all sets by name, and their images.
func ListRomSets(ctx context.Context, h pg.Handle) ([]RomSet, []RomSetImage, error) {
	sets, images := []RomSet{}, []RomSetImage{}
	if err := h.SelectContext(ctx, &sets, `SELECT id, name, note FROM rom_set ORDER BY lower(name), id`); err != nil {
		return nil, nil, err
	}
	err := h.SelectContext(ctx, &images,
		`SELECT set_id, sha256, place FROM rom_set_image ORDER BY set_id, length(place), place`)
	return sets, images, err
}
