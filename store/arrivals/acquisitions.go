package arrivals

import (
	"context"
	"encoding/json"
	"fmt"

	"frugalheron/store/people"
	"frugalheron/store/pg"
)

// ExtraCost is a cost beside the price of a lot.
type ExtraCost struct {
	What  string `json:"what"`
	Cents int64  `json:"cents"`
}

// ExtraCosts are kept as JSON.
type ExtraCosts []ExtraCost

// Scan reads them from the database.
func (c *ExtraCosts) Scan(value any) error {
	switch v := value.(type) {
	case []byte:
		return json.Unmarshal(v, c)
	case string:
		return json.Unmarshal([]byte(v), c)
	}
	return fmt.Errorf("extra costs: %T", value)
}

// AcquisitionFields are what people write about an arrival: how things came, from whom, for how much.
type AcquisitionFields struct {
	Title      string     `db:"title"`
	Method     string     `db:"method"`
	Arrived    string     `db:"arrived"`     // EDTF, as 2025-03-14 or 2025~
	PartyID    *int64     `db:"party_id"`    // from whom
	PriceCents *int64     `db:"price_cents"` // without extra costs; null when unknown
	Currency   string     `db:"currency"`    // ISO 4217; empty for the collection's own
	Costs      ExtraCosts `db:"costs"`       // carriage, fees and the like
	Spread     string     `db:"spread"`      // how the cost is spread over the items
	Condition  string     `db:"condition"`   // as received
	Powered    string     `db:"powered"`     // when it last ran, and whether anybody powered it since, as it was said
	CameWith   string     `db:"came_with"`   // what else came
	Note       string     `db:"note"`
}

// Acquisition is an arrival of one thing or of many.
type Acquisition struct {
	ID int64 `db:"id"`
	AcquisitionFields
	Party   string `db:"party"` // from whom, or empty
	Lot     *int   `db:"lot"`   // number of the lot within its year, once a thing of it was numbered
	Items   int    `db:"items"`
	Version int    `db:"version"`
}

const acquisitionSelect = `SELECT q.id, q.title, q.method, q.arrived, q.party_id, q.price_cents, q.currency, q.costs,
	q.spread, q.condition, q.powered,
		q.came_with, q.note, COALESCE(p.name, '') AS party, q.lot, q.version,
		(SELECT count(*) FROM lot_item i WHERE i.acquisition_id = q.id AND NOT i.voided) AS items
	FROM acquisition q LEFT JOIN party p ON p.id = q.party_id `

func (f AcquisitionFields) args(day *string) ([]any, error) {
	if f.Costs == nil {
		f.Costs = ExtraCosts{}
	}
	costs, err := json.Marshal(f.Costs)
	return []any{f.Title, f.Method, f.Arrived, day, f.PartyID, f.PriceCents, f.Currency, string(costs), f.Spread,
		f.Condition, f.Powered, f.CameWith, f.Note}, err
}

// InsertAcquisition adds an arrival and returns its id. Day is the first day that its date can mean.
func InsertAcquisition(ctx context.Context, h pg.Handle, f AcquisitionFields, day *string) (int64, error) {
	args, err := f.args(day)
	if err != nil {
		return 0, err
	}
	var id int64
	err = h.GetContext(ctx, &id,
		`INSERT INTO acquisition (title, method, arrived, arrived_from, party_id, price_cents, currency, costs, spread,
			condition, powered, came_with, note)
		VALUES ($1, $2, $3, CAST($4 AS date), $5, $6, $7, CAST($8 AS jsonb), $9, $10, $11, $12, $13) RETURNING id`,
		args...)
	return id, err
}

// UpdateAcquisition writes all fields and counts the version up. The caller holds the row's lock.
func UpdateAcquisition(ctx context.Context, h pg.Handle, id int64, f AcquisitionFields, day *string) error {
	args, err := f.args(day)
	if err != nil {
		return err
	}
	_, err = h.ExecContext(ctx,
		`UPDATE acquisition SET title = $1, method = $2, arrived = $3, arrived_from = CAST($4 AS date), party_id = $5,
			price_cents = $6,
		currency = $7, costs = CAST($8 AS jsonb), spread = $9, condition = $10, powered = $11, came_with = $12,
		note = $13,
		version = version + 1, updated_at = now() WHERE id = $14`, append(args, id)...)
	return err
}

// CountAcquisitionChange counts the version of an arrival up: something of its items changed.
func CountAcquisitionChange(ctx context.Context, h pg.Handle, id int64) error {
	_, err := h.ExecContext(ctx, `UPDATE acquisition SET version = version + 1, updated_at = now() WHERE id = $1`, id)
	return err
}

// NumberLot keeps the number of a lot within its year.
func NumberLot(ctx context.Context, h pg.Handle, id int64, lot int) error {
	_, err := h.ExecContext(ctx, `UPDATE acquisition SET lot = $2 WHERE id = $1`, id, lot)
	return err
}

// AcquisitionByID reads an arrival.
func AcquisitionByID(ctx context.Context, h pg.Handle, id int64) (Acquisition, error) {
	return acquisition(ctx, h, id, "")
}

// LockAcquisition reads an arrival and keeps others from changing it or its items until the
// transaction ends.
func LockAcquisition(ctx context.Context, h pg.Handle, id int64) (Acquisition, error) {
	return acquisition(ctx, h, id, " FOR NO KEY UPDATE OF q")
}

func acquisition(ctx context.Context, h pg.Handle, id int64, lock string) (Acquisition, error) {
	var q Acquisition
	err := pg.Get(ctx, h, &q, fmt.Sprintf("acquisition %d", id), acquisitionSelect+`WHERE q.id = $1`+lock, id)
	return q, err
}

// ListAcquisitions reads a page, the newest arrival first: those whose words all occur in what is said of
// them or of their items, or in their party's name; with public only in what others than staff may see.
func ListAcquisitions(ctx context.Context, h pg.Handle, words []string, public bool,
	skip, limit int) ([]Acquisition, error) {
	found := []Acquisition{}
	items := `(SELECT string_agg(i.title, ' ') FROM lot_item i WHERE i.acquisition_id = q.id)`
	said := `concat_ws(' ', q.title, q.method, q.arrived, q.note, ` + items + `, p.name)`
	if public {
		said = people.PublicOr(people.PublicLot, "q.id",
			`concat_ws(' ', q.title, q.method, q.arrived, q.note, `+items+`)`)
	}
	where, args := pg.LikeAll(`lower(`+said+`)`, words, []any{skip, limit})
	where = pg.AnyWord(where)
	err := h.SelectContext(ctx, &found,
		acquisitionSelect+`WHERE `+where+` ORDER BY q.arrived_from DESC NULLS FIRST, q.id DESC OFFSET $1 LIMIT $2`,
		args...)
	return found, err
}
