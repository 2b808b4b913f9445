package library

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// MakerFields are what people write about who made machines and parts.
type MakerFields struct {
	Name    string `db:"name"`
	Founded string `db:"founded"` // EDTF
	Ended   string `db:"ended"`   // EDTF; empty while it goes on, or where it is not known
	Place   string `db:"place"`
	Ties    string `db:"ties"` // how it stands to others, a line each: renamed | Brackwater Systems | 1986 | source
	Note    string `db:"note"`
	Source  string `db:"source"` // how one knows
}

// Maker is who made machines and parts.
type Maker struct {
	ID int64 `db:"id"`
	MakerFields
	Machines  int       `db:"machines"` // machines of the collection that name it
	Version   int       `db:"version"`
	UpdatedAt time.Time `db:"updated_at"`
}

const makerSelect = `SELECT k.id, k.name, k.founded, k.ended, k.place, k.ties, k.note, k.source, k.version,
	k.updated_at,
	(SELECT count(*) FROM machine m WHERE lower(m.maker) = lower(k.name)) AS machines FROM maker k `

// InsertMaker adds a maker and returns its id. A name that is there violates maker_name_key.
func InsertMaker(ctx context.Context, h pg.Handle, f MakerFields) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO maker (name, founded, ended, place, ties, note, source) VALUES ($1, $2, $3, $4, $5, $6, $7)
			RETURNING id`,
		f.Name, f.Founded, f.Ended, f.Place, f.Ties, f.Note, f.Source)
	return id, err
}

// UpdateMaker writes all fields and counts the version up. The caller holds the row's lock.
func UpdateMaker(ctx context.Context, h pg.Handle, id int64, f MakerFields) error {
	_, err := h.ExecContext(ctx,
		`UPDATE maker SET name = $2, founded = $3, ended = $4, place = $5, ties = $6, note = $7, source = $8,
		version = version + 1, updated_at = now() WHERE id = $1`, id, f.Name, f.Founded, f.Ended, f.Place, f.Ties,
		f.Note, f.Source)
	return err
}

// MakerByID reads a maker.
func MakerByID(ctx context.Context, h pg.Handle, id int64) (Maker, error) {
	var m Maker
	err := pg.Get(ctx, h, &m, fmt.Sprintf("maker %d", id), makerSelect+`WHERE k.id = $1`, id)
	return m, err
}

// LockMaker keeps others from changing a maker until the transaction ends, and reads it.
func LockMaker(ctx context.Context, h pg.Handle, id int64) (Maker, error) {
	if _, err := h.ExecContext(ctx, `SELECT 1 FROM maker WHERE id = $1 FOR NO KEY UPDATE`, id); err != nil {
		return Maker{}, err
	}
	return MakerByID(ctx, h, id)
}

// ListMakers lists makers whose name, place or ties hold all words, by name.
func ListMakers(ctx context.Context, h pg.Handle, words []string, limit int) ([]Maker, error) {
	where, args := pg.LikeAll(`lower(k.name || ' ' || k.place || ' ' || k.ties)`, words, []any{limit})
	if where == "" {
		where = "true"
	}
	found := []Maker{}
	err := h.SelectContext(ctx, &found, makerSelect+`WHERE `+where+` ORDER BY lower(k.name) LIMIT $1`, args...)
	return found, err
}
