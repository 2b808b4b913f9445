// Package parts keeps what lies in the stores, what is on order, and what of both is set aside for jobs.
package parts

import (
	"context"
	"fmt"

	"frugalheron/store/inventory"
	"frugalheron/store/pg"
)

// Stock is a drawer; what is written of it is kept whole, as JSON.
type Stock struct {
	ID        int64  `db:"id"`
	Body      string `db:"body"`
	Count     int    `db:"count"`
	Place     string `db:"place"`
	FromJobID *int64 `db:"from_job_id"`
	Words     string `db:"words"`
	Voided    bool   `db:"voided"`
	Version   int    `db:"version"`
	SetAside  int    `db:"set_aside"` // of the count
	Files     int    `db:"files"`     // drawings and pictures

	FromJob       string `db:"from_job"`
	FromMachineID *int64 `db:"from_machine_id"`
	FromAccession string `db:"from_accession"`
	BackMachineID *int64 `db:"back_machine_id"` // where it goes back to, where that is a machine
	BackAccession string `db:"back_accession"`
}

const stockSelect = `SELECT s.id, CAST(s.body AS text) AS body, s.count, COALESCE(p.name, '') AS place, s.from_job_id, s.words,
		s.voided, s.version,
		COALESCE(j.body->>'title', '') AS from_job, j.machine_id AS from_machine_id,
		COALESCE(m.accession, '') AS from_accession,
		(SELECT count(*) FROM attachment t WHERE t.stock_id = s.id AND NOT t.voided) AS files,
		s.back_machine_id, COALESCE(b.accession, '') AS back_accession,
		COALESCE((SELECT sum(count) FROM set_aside a WHERE a.stock_id = s.id), 0) AS set_aside
	FROM stock s LEFT JOIN place p ON p.id = s.place_id LEFT JOIN job j ON j.id = s.from_job_id
	LEFT JOIN machine m ON m.id = j.machine_id LEFT JOIN machine b ON b.id = s.back_machine_id `

// ListStock reads a page of the drawers whose words, with place and former machine, hold all words, in the order of their ids.
func ListStock(ctx context.Context, h pg.Handle, words []string, after int64, limit int) ([]Stock, error) {
	where, args := pg.LikeAll(`s.words || ' ' || lower(concat_ws(' ', p.name, m.accession, b.accession))`, words, []any{after, limit})
	if where != "" {
		where = " AND " + where
	}
	found := []Stock{}
	err := h.SelectContext(ctx, &found, stockSelect+`WHERE NOT s.voided AND s.id > $1`+where+` ORDER BY s.id LIMIT $2`,
		args...)
	return found, err
}

// StockForMachine lists the drawers whose part came out of a machine, goes back to it, or is for one of its names, in
// lower case.
func StockForMachine(ctx context.Context, h pg.Handle, machineID int64, names []string) ([]Stock, error) {
	found := []Stock{}
	err := h.SelectContext(ctx, &found, stockSelect+`WHERE NOT s.voided AND s.count > 0
		AND (j.machine_id = $1 OR s.back_machine_id = $1 OR lower(s.body->>'model') = ANY (CAST($2 AS text[]))) ORDER BY s.id LIMIT 100`, machineID,
		names)
	return found, err
}

// StockByID reads one, voided or not.
func StockByID(ctx context.Context, h pg.Handle, id int64) (Stock, error) {
	var s Stock
	err := pg.Get(ctx, h, &s, fmt.Sprintf("part %d of the stores", id), stockSelect+`WHERE s.id = $1`, id)
	return s, err
}

// LockStock keeps others from changing one, or what is set aside of it, until the transaction ends, and reads it.
func LockStock(ctx context.Context, h pg.Handle, id int64) (Stock, error) {
	if _, err := h.ExecContext(ctx, `SELECT 1 FROM stock WHERE id = $1 FOR NO KEY UPDATE`, id); err != nil {
		return Stock{}, err
	}
	return StockByID(ctx, h, id)
}

// InsertStock adds one and returns its id.
func InsertStock(ctx context.Context, h pg.Handle, s Stock) (int64, error) {
	place, err := inventory.PlaceID(ctx, h, s.Place)
	if err != nil {
		return 0, err
	}
	var id int64
	err = h.GetContext(ctx, &id, `INSERT INTO stock (body, count, place_id, from_job_id, words, back_machine_id)
		VALUES (CAST($1 AS jsonb), $2, $3, $4, $5, $6) RETURNING id`, s.Body, s.Count, place, s.FromJobID, s.Words,
		s.BackMachineID)
	return id, err
}

// UpdateStock rewrites one. The caller holds its lock.
func UpdateStock(ctx context.Context, h pg.Handle, s Stock) error {
	place, err := inventory.PlaceID(ctx, h, s.Place)
	if err != nil {
		return err
	}
	_, err = h.ExecContext(ctx, `UPDATE stock SET body = CAST($2 AS jsonb), count = $3, place_id = $4, words = $5, voided = $6,
		back_machine_id = $7, version = version + 1 WHERE id = $1`, s.ID, s.Body, s.Count, place, s.Words, s.Voided,
		s.BackMachineID)
	return err
}
