package arrivals

import (
	"context"
	"fmt"

	"frugalheron/store/pg"
)

// LotItemFields are what people write about a thing of a lot.
type LotItemFields struct {
	Kind           string `db:"kind"`
	Title          string `db:"title"`
	EstimateCents  *int64 `db:"estimate_cents"`   // what it was thought to be worth when the lot came
	HandCents      *int64 `db:"hand_cents"`       // its share of the cost, where shares are given by hand
	ValueCents     *int64 `db:"value_cents"`      // what it is worth today
	ValueNote      string `db:"value_note"`       // how one knows
	PassedTo       *int64 `db:"passed_to"`        // to whom it was passed on
	PassedOn       string `db:"passed_on"`        // when it was passed on, EDTF; empty while it is here
	PassedForCents *int64 `db:"passed_for_cents"` // for how much
	Note           string `db:"note"`
}

// LotItem is a thing of a lot.
type LotItem struct {
	ID            int64 `db:"id"`
	AcquisitionID int64 `db:"acquisition_id"`
	LotItemFields
	MachineID  *int64 `db:"machine_id"` // the machine it became, or null
	Accession  string `db:"accession"`
	AssemblyID *int64 `db:"assembly_id"` // the assembly it became, or null
	Party      string `db:"party"`       // to whom it was passed on
	Voided     bool   `db:"voided"`
	Version    int    `db:"version"`
}

const lotItemSelect = `SELECT i.id, i.acquisition_id, i.kind, i.title, i.estimate_cents, i.hand_cents, i.value_cents,
	i.value_note, i.passed_to, i.passed_on,
		i.passed_for_cents, i.note, i.machine_id, COALESCE(m.accession, '') AS accession, i.assembly_id,
		COALESCE(p.name, '') AS party, i.voided, i.version
	FROM lot_item i LEFT JOIN machine m ON m.id = i.machine_id LEFT JOIN party p ON p.id = i.passed_to `

// InsertLotItem adds a thing behind the others of a lot and returns its id.
func InsertLotItem(ctx context.Context, h pg.Handle, acquisitionID int64, f LotItemFields) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO lot_item (acquisition_id, ordinal, kind, title, estimate_cents, hand_cents, value_cents,
			value_note, passed_to, passed_on, passed_for_cents, note)
		VALUES ($1, (SELECT COALESCE(max(ordinal), 0) + 1 FROM lot_item
		WHERE acquisition_id = $1), $2, $3, $4, $5, $6, $7, $8, $9, $10, $11) RETURNING id`,
		acquisitionID, f.Kind, f.Title, f.EstimateCents, f.HandCents, f.ValueCents, f.ValueNote, f.PassedTo, f.PassedOn,
		f.PassedForCents, f.Note)
	return id, err
}

// UpdateLotItem writes all fields and counts the version up. The caller holds the lock of the lot.
func UpdateLotItem(ctx context.Context, h pg.Handle, id int64, f LotItemFields) error {
	_, err := h.ExecContext(ctx,
		`UPDATE lot_item SET kind = $2, title = $3, estimate_cents = $4, hand_cents = $5, value_cents = $6,
			value_note = $7,
		passed_to = $8, passed_on = $9, passed_for_cents = $10, note = $11, version = version + 1 WHERE id = $1`,
		id, f.Kind, f.Title, f.EstimateCents, f.HandCents, f.ValueCents, f.ValueNote, f.PassedTo, f.PassedOn,
		f.PassedForCents, f.Note)
	return err
}

// LinkLotItem says which machine or assembly a thing of a lot became; both nil for neither.
func LinkLotItem(ctx context.Context, h pg.Handle, id int64, machineID, assemblyID *int64) error {
	_, err := h.ExecContext(ctx,
		`UPDATE lot_item SET machine_id = $2, assembly_id = $3, version = version + 1 WHERE id = $1`, id, machineID,
		assemblyID)
	return err
}

// VoidLotItem takes a thing out of its lot, or puts it back.
func VoidLotItem(ctx context.Context, h pg.Handle, id int64, voided bool) error {
	_, err := h.ExecContext(ctx, `UPDATE lot_item SET voided = $2, version = version + 1 WHERE id = $1`, id, voided)
	return err
}

// LotItemByID reads a thing of a lot.
func LotItemByID(ctx context.Context, h pg.Handle, id int64) (LotItem, error) {
	var i LotItem
	err := pg.Get(ctx, h, &i, fmt.Sprintf("item %d of a lot", id), lotItemSelect+`WHERE i.id = $1`, id)
	return i, err
}

// LotItemsOf lists the things of a lot, in order.
func LotItemsOf(ctx context.Context, h pg.Handle, acquisitionID int64) ([]LotItem, error) {
	items := []LotItem{}
	err := h.SelectContext(ctx, &items,
		lotItemSelect+`WHERE i.acquisition_id = $1 AND NOT i.voided ORDER BY i.ordinal, i.id`, acquisitionID)
	return items, err
}

// LotItemOf finds the thing of a lot that a machine or an assembly was; ErrNotFound for none.
func LotItemOf(ctx context.Context, h pg.Handle, machineID, assemblyID *int64) (LotItem, error) {
	var i LotItem
	err := pg.Get(ctx, h, &i, "item of a lot",
		lotItemSelect+`WHERE (i.machine_id = $1 OR i.assembly_id = $2) AND NOT i.voided`, machineID, assemblyID)
	return i, err
}
