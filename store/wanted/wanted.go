// Package wanted keeps what is looked for, and what is offered before it is bought.
package wanted

import (
	"context"
	"fmt"

	"frugalheron/store/pg"
)

// Want is something that is looked for; what is written of it is kept whole, as JSON.
type Want struct {
	ID        int64  `db:"id"`
	MachineID *int64 `db:"machine_id"`
	Accession string `db:"accession"`
	Body      string `db:"body"`
	IsOpen    bool   `db:"is_open"`
	Voided    bool   `db:"voided"`
	Version   int    `db:"version"`
}

const wantSelect = `SELECT w.id, w.machine_id, COALESCE(m.accession, '') AS accession, CAST(w.body AS text) AS body,
	w.is_open, w.voided, w.version FROM want w LEFT JOIN machine m ON m.id = w.machine_id `

// Wants lists what is looked for, what is open first; at most limit.
func Wants(ctx context.Context, h pg.Handle, limit int) ([]Want, error) {
	found := []Want{}
	err := h.SelectContext(ctx, &found, wantSelect+`WHERE NOT w.voided ORDER BY w.is_open DESC, w.id LIMIT $1`, limit)
	return found, err
}

// WantByID reads one, voided or not.
func WantByID(ctx context.Context, h pg.Handle, id int64) (Want, error) {
	var w Want
	err := pg.Get(ctx, h, &w, fmt.Sprintf("want %d", id), wantSelect+`WHERE w.id = $1`, id)
	return w, err
}

// LockWant keeps others from changing one until the transaction ends, and reads it.
func LockWant(ctx context.Context, h pg.Handle, id int64) (Want, error) {
	var w Want
	err := pg.Get(ctx, h, &w, fmt.Sprintf("want %d", id), wantSelect+`WHERE w.id = $1 FOR NO KEY UPDATE OF w`, id)
	return w, err
}

// InsertWant adds one and returns its id.
func InsertWant(ctx context.Context, h pg.Handle, w Want) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO want (machine_id, body, is_open) VALUES ($1, CAST($2 AS jsonb), $3)
		RETURNING id`, w.MachineID, w.Body, w.IsOpen)
	return id, err
}

// UpdateWant rewrites one. The caller holds its lock.
func UpdateWant(ctx context.Context, h pg.Handle, w Want) error {
	_, err := h.ExecContext(ctx, `UPDATE want SET machine_id = $2, body = CAST($3 AS jsonb), is_open = $4, voided = $5,
		version = version + 1 WHERE id = $1`, w.ID, w.MachineID, w.Body, w.IsOpen, w.Voided)
	return err
}

// Offer is what somebody offers, kept whole as JSON, and the lot that it became.
type Offer struct {
	ID      int64  `db:"id"`
	Body    string `db:"body"`
	LotID   *int64 `db:"acquisition_id"`
	IsOpen  bool   `db:"is_open"`
	Voided  bool   `db:"voided"`
	Version int    `db:"version"`
}

const offerSelect = `SELECT id, CAST(body AS text) AS body, acquisition_id, is_open, voided, version FROM offer `

// Offers lists them, the open ones first, then the newest; at most limit.
func Offers(ctx context.Context, h pg.Handle, limit int) ([]Offer, error) {
	found := []Offer{}
	err := h.SelectContext(ctx, &found, offerSelect+`WHERE NOT voided ORDER BY is_open DESC, id DESC LIMIT $1`, limit)
	return found, err
}

// OfferByID reads one, voided or not.
func OfferByID(ctx context.Context, h pg.Handle, id int64) (Offer, error) {
	var o Offer
	err := pg.Get(ctx, h, &o, fmt.Sprintf("offer %d", id), offerSelect+`WHERE id = $1`, id)
	return o, err
}

// LockOffer keeps others from changing one until the transaction ends, and reads it.
func LockOffer(ctx context.Context, h pg.Handle, id int64) (Offer, error) {
	var o Offer
	err := pg.Get(ctx, h, &o, fmt.Sprintf("offer %d", id), offerSelect+`WHERE id = $1 FOR NO KEY UPDATE`, id)
	return o, err
}

// InsertOffer adds one and returns its id.
func InsertOffer(ctx context.Context, h pg.Handle, o Offer) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO offer (body, is_open) VALUES (CAST($1 AS jsonb), $2) RETURNING id`, o.Body,
		o.IsOpen)
	return id, err
}

// UpdateOffer rewrites one. The caller holds its lock.
func UpdateOffer(ctx context.Context, h pg.Handle, o Offer) error {
	_, err := h.ExecContext(ctx, `UPDATE offer SET body = CAST($2 AS jsonb), acquisition_id = $3, is_open = $4, voided = $5,
		version = version + 1 WHERE id = $1`, o.ID, o.Body, o.LotID, o.IsOpen, o.Voided)
	return err
}

// Held is what machines and boards are called, and how many there are.
type Held struct {
	Name  string `db:"name"`
	Count int    `db:"count"`
}

// Holdings lists models, and part numbers of boards and cards, by how many there are.
func Holdings(ctx context.Context, h pg.Handle) ([]Held, error) {
	found := []Held{}
	err := h.SelectContext(ctx, &found, `SELECT name, count(*) AS count FROM (
			SELECT COALESCE(NULLIF(d.model, ''), m.name) AS name FROM machine m LEFT JOIN machine_model d ON d.id = m.model_id
			UNION ALL SELECT part FROM assembly WHERE part <> '' AND kind <> 'exterior') n
		WHERE name <> '' GROUP BY name ORDER BY lower(name), name`)
	return found, err
}

// Bought is a thing that came in a lot, with what it was thought to be worth then.
type Bought struct {
	LotID int64  `db:"acquisition_id"`
	Title string `db:"title"`
	On    string `db:"arrived"`
	Cents int64  `db:"cents"`
	Money string `db:"currency"`
	Whole bool   `db:"is_whole"` // the price is that of the lot, as it holds nothing else
}

// PricesOfLots lists what lots cost that hold one thing, and what things of others were thought to be worth.
func PricesOfLots(ctx context.Context, h pg.Handle) ([]Bought, error) {
	found := []Bought{}
	err := h.SelectContext(ctx, &found, `SELECT q.id AS acquisition_id, i.title, q.arrived, q.currency,
			COALESCE(CASE WHEN n.items = 1 THEN q.price_cents END, i.estimate_cents) AS cents,
			n.items = 1 AND q.price_cents IS NOT NULL AS is_whole
		FROM lot_item i JOIN acquisition q ON q.id = i.acquisition_id
		JOIN (SELECT acquisition_id, count(*) AS items FROM lot_item WHERE NOT voided GROUP BY acquisition_id) n
			ON n.acquisition_id = q.id
		WHERE NOT i.voided AND COALESCE(CASE WHEN n.items = 1 THEN q.price_cents END, i.estimate_cents) IS NOT NULL
		ORDER BY q.arrived DESC, i.id DESC LIMIT 5000`)
	return found, err
}
