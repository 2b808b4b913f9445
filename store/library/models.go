package library

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// ModelFields are what people write about a model of machines.
type ModelFields struct {
	Maker    string `db:"maker"`
	Model    string `db:"model"`
	Made     string `db:"made"`     // when it was made, EDTF, as 1984/1988
	Variants string `db:"variants"` // one a line
	Expected string `db:"expected"` // what a machine of the model holds, an assembly a line
	Figures  string `db:"figures"`  // what is measured and shown, in the notation of core/model
	Facts    string `db:"facts"`    // what is told of it, in the notation of core/model
	Signs    string `db:"signs"`    // what it shows, in the notation of core/sign
	Note     string `db:"note"`
	Source   string `db:"source"` // how one knows
}

// MachineModel is a model of machines.
type MachineModel struct {
	ID int64 `db:"id"`
	ModelFields
	Machines  int       `db:"machines"` // machines of the model in the collection
	Version   int       `db:"version"`
	UpdatedAt time.Time `db:"updated_at"`
}

const modelSelect = `SELECT d.id, d.maker, d.model, d.made, d.variants, d.expected, d.figures, d.facts, d.signs, d.note,
	d.source, d.version, d.updated_at,
		(SELECT count(*) FROM machine m WHERE m.model_id = d.id) AS machines FROM machine_model d `

// InsertModel adds a model and returns its id. One that is there violates machine_model_key.
func InsertModel(ctx context.Context, h pg.Handle, f ModelFields) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO machine_model (maker, model, made, variants, expected, figures, facts, signs, note, source)
			VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10) RETURNING id`,
		f.Maker, f.Model, f.Made, f.Variants, f.Expected, f.Figures, f.Facts, f.Signs, f.Note, f.Source)
	return id, err
}

// UpdateModel writes all fields and counts the version up. The caller holds the row's lock.
func UpdateModel(ctx context.Context, h pg.Handle, id int64, f ModelFields) error {
	_, err := h.ExecContext(ctx,
		`UPDATE machine_model SET maker = $2, model = $3, made = $4, variants = $5, expected = $6, figures = $7,
			facts = $8, signs = $9, note = $10, source = $11,
		version = version + 1, updated_at = now() WHERE id = $1`, id, f.Maker, f.Model, f.Made, f.Variants, f.Expected,
		f.Figures, f.Facts, f.Signs, f.Note, f.Source)
	return err
}

// ModelByID reads a model.
func ModelByID(ctx context.Context, h pg.Handle, id int64) (MachineModel, error) {
	var m MachineModel
	err := pg.Get(ctx, h, &m, fmt.Sprintf("model %d", id), modelSelect+`WHERE d.id = $1`, id)
	return m, err
}

// LockModel keeps others from changing a model until the transaction ends, and reads it.
func LockModel(ctx context.Context, h pg.Handle, id int64) (MachineModel, error) {
	if _, err := h.ExecContext(ctx, `SELECT 1 FROM machine_model WHERE id = $1 FOR NO KEY UPDATE`, id); err != nil {
		return MachineModel{}, err
	}
	return ModelByID(ctx, h, id)
}

// ModelOfMachine reads the model that a machine is of; ErrNotFound when nobody described it.
func ModelOfMachine(ctx context.Context, h pg.Handle, machineID int64) (MachineModel, error) {
	var m MachineModel
	err := pg.Get(ctx, h, &m, fmt.Sprintf("model of machine %d", machineID),
		modelSelect+`JOIN machine of ON of.model_id = d.id WHERE of.id = $1`, machineID)
	return m, err
}

// ModelCalled finds the model that maker and model name; null for none.
func ModelCalled(ctx context.Context, h pg.Handle, maker, model string) (*int64, error) {
	ids := []int64{}
	err := h.SelectContext(ctx, &ids, `SELECT id FROM machine_model WHERE lower(maker) = lower($1)
		AND lower(model) = lower($2)`, maker, model)
	if err != nil || len(ids) == 0 {
		return nil, err
	}
	return &ids[0], nil
}

// TakeMachines has the machines that name a model be of it, where they are of none.
func TakeMachines(ctx context.Context, h pg.Handle, id int64) error {
	_, err := h.ExecContext(ctx, `UPDATE machine m SET model_id = d.id FROM machine_model d WHERE d.id = $1
		AND m.model_id IS NULL AND lower(m.maker) = lower(d.maker) AND lower(m.model) = lower(d.model)`, id)
	return err
}

// MachineOfModel is a machine that is of a model.
type MachineOfModel struct {
	ID        int64  `db:"id"`
	Accession string `db:"accession"`
	Name      string `db:"name"`
	Serial    string `db:"serial"`
}

// MachinesOfModel lists the machines of a model by accession number, at most limit.
func MachinesOfModel(ctx context.Context, h pg.Handle, id int64, limit int) ([]MachineOfModel, error) {
	found := []MachineOfModel{}
	err := h.SelectContext(ctx, &found,
		`SELECT id, accession, name, serial FROM machine WHERE model_id = $1 ORDER BY accession LIMIT $2`, id, limit)
	return found, err
}

// ListModels lists models whose maker, model or variants hold all words, by maker and model.
func ListModels(ctx context.Context, h pg.Handle, words []string, limit int) ([]MachineModel, error) {
	where, args := pg.LikeAll(`lower(d.maker || ' ' || d.model || ' ' || d.variants)`, words, []any{limit})
	if where == "" {
		where = "true"
	}
	found := []MachineModel{}
	err := h.SelectContext(ctx, &found, modelSelect+`WHERE `+where+` ORDER BY lower(d.maker), lower(d.model) LIMIT $1`,
		args...)
	return found, err
}

// DatedEntry is a line of a kept sheet whose parts are dated.
type DatedEntry struct {
	AssemblyID  int64  `db:"assembly_id"`
	Line        int    `db:"line"`
	Designators string `db:"designators"` // with spaces between
	Count       int    `db:"count"`
	Marking     string `db:"marking"`
	Socketed    bool   `db:"socketed"`
	From        string `db:"date_from"`
	To          string `db:"date_to"`
	New         bool   `db:"is_new"` // put in later as a replacement
}

// DatedEntriesOf lists the dated lines of assemblies.
func DatedEntriesOf(ctx context.Context, h pg.Handle, assemblyIDs []int64) ([]DatedEntry, error) {
	found := []DatedEntry{}
	err := h.SelectContext(ctx, &found,
		`SELECT assembly_id, line, array_to_string(designators, ' ') AS designators, count, marking, socketed,
			CAST(date_from AS text) AS date_from, CAST(date_to AS text) AS date_to,
			new_since IS NOT NULL AS is_new
		FROM entry WHERE assembly_id = ANY (CAST($1 AS bigint[])) AND date_from IS NOT NULL AND date_to IS NOT NULL
		AND NOT empty ORDER BY assembly_id, line`, assemblyIDs)
	return found, err
}
