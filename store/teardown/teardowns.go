package teardown

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// Teardown is a log of how a machine was taken apart.
type Teardown struct {
	ID          int64      `db:"id"`
	MachineID   int64      `db:"machine_id"`
	Purpose     string     `db:"purpose"`   // what it is opened for
	Rows        int        `db:"tray_rows"` // rows of the tray
	Columns     int        `db:"tray_columns"`
	ProcedureID *int64     `db:"procedure_id"` // the procedure of the model that it started from, or null
	Outcome     string     `db:"outcome"`      // with exceptions: something was left over, or left off on purpose
	Why         string     `db:"why"`          // what the outcome rests on; empty while it is open
	StartedBy   string     `db:"started_by"`
	StartedAt   time.Time  `db:"started_at"`
	EndedBy     string     `db:"ended_by"`
	EndedAt     *time.Time `db:"ended_at"`
}

const teardownSelect = `SELECT t.id, t.machine_id, t.purpose, t.tray_rows, t.tray_columns, t.procedure_id, t.outcome,
	t.why,
		COALESCE(s.name, '') AS started_by, t.started_at, COALESCE(e.name, '') AS ended_by, t.ended_at
	FROM teardown t LEFT JOIN account s ON s.id = t.started_by LEFT JOIN account e ON e.id = t.ended_by `

// InsertTeardown starts a log and returns its id. While another is open it violates teardown_open_key.
func InsertTeardown(ctx context.Context, h pg.Handle, by *int64, t Teardown) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO teardown (machine_id, purpose, tray_rows, tray_columns, procedure_id, started_by)
			VALUES ($1, $2, $3, $4, $5, $6) RETURNING id`,
		t.MachineID, t.Purpose, t.Rows, t.Columns, t.ProcedureID, by)
	return id, err
}

// TeardownByID reads one.
func TeardownByID(ctx context.Context, h pg.Handle, id int64) (Teardown, error) {
	var t Teardown
	err := pg.Get(ctx, h, &t, fmt.Sprintf("teardown %d", id), teardownSelect+`WHERE t.id = $1`, id)
	return t, err
}

// TeardownsOf lists the logs of a machine, the newest first.
func TeardownsOf(ctx context.Context, h pg.Handle, machineID int64) ([]Teardown, error) {
	found := []Teardown{}
	err := h.SelectContext(ctx, &found, teardownSelect+`WHERE t.machine_id = $1 ORDER BY t.id DESC`, machineID)
	return found, err
}

// EndTeardown writes how putting together ended.
func EndTeardown(ctx context.Context, h pg.Handle, id int64, by *int64, outcome, why string) error {
	_, err := h.ExecContext(ctx,
		`UPDATE teardown SET outcome = $2, why = $3, ended_by = $4, ended_at = now() WHERE id = $1`, id, outcome, why,
		by)
	return err
}

// ReopenTeardown takes back that it ended.
func ReopenTeardown(ctx context.Context, h pg.Handle, id int64) error {
	_, err := h.ExecContext(ctx,
		`UPDATE teardown SET outcome = 'open', why = '', ended_by = NULL, ended_at = NULL WHERE id = $1`, id)
	return err
}

// StepRow is a step of a log, with its parts as JSON.
type StepRow struct {
	ID         int64      `db:"id"`
	TeardownID int64      `db:"teardown_id"`
	Body       string     `db:"body"`
	Pictures   string     `db:"pictures"`
	Reversal   string     `db:"reversal"`
	Voided     bool       `db:"voided"`
	Version    int        `db:"version"`
	By         string     `db:"by_name"`
	At         time.Time  `db:"at"`
	ReversedBy string     `db:"reversed_by_name"`
	ReversedAt *time.Time `db:"reversed_at"`
}

const stepSelect = `SELECT p.id, p.teardown_id, CAST(p.body AS text) AS body, CAST(p.pictures AS text) AS pictures,
	CAST(p.reversal AS text) AS reversal, p.voided, p.version,
		COALESCE(a.name, '') AS by_name, p.at, COALESCE(r.name, '') AS reversed_by_name, p.reversed_at
	FROM teardown_step p LEFT JOIN account a ON a.id = p.account_id LEFT JOIN account r ON r.id = p.reversed_by `

// StepsOf lists the steps of a log in their order, without those struck out.
func StepsOf(ctx context.Context, h pg.Handle, teardownID int64) ([]StepRow, error) {
	found := []StepRow{}
	err := h.SelectContext(ctx, &found, stepSelect+`WHERE p.teardown_id = $1 AND NOT p.voided ORDER BY p.id`,
		teardownID)
	return found, err
}

// StepByID reads one, struck or not.
func StepByID(ctx context.Context, h pg.Handle, id int64) (StepRow, error) {
	var s StepRow
	err := pg.Get(ctx, h, &s, fmt.Sprintf("step %d", id), stepSelect+`WHERE p.id = $1`, id)
	return s, err
}

// InsertStep adds a step at the end and returns its id.
func InsertStep(ctx context.Context, h pg.Handle, teardownID int64, by *int64, body, pictures string) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO teardown_step (teardown_id, body, pictures, account_id)
			VALUES ($1, CAST($2 AS jsonb), CAST($3 AS jsonb), $4) RETURNING id`,
		teardownID, body, pictures, by)
	return id, err
}

// UpdateStep rewrites what came off.
func UpdateStep(ctx context.Context, h pg.Handle, id int64, body, pictures string, voided bool) error {
	_, err := h.ExecContext(ctx,
		`UPDATE teardown_step SET body = CAST($2 AS jsonb), pictures = CAST($3 AS jsonb), voided = $4,
			version = version + 1 WHERE id = $1`, id, body, pictures, voided)
	return err
}

// ReverseStep writes how a step was put back; who did it is forgotten when it is off again.
func ReverseStep(ctx context.Context, h pg.Handle, id int64, by *int64, reversal string, isOff bool) error {
	_, err := h.ExecContext(ctx,
		`UPDATE teardown_step SET reversal = CAST($2 AS jsonb),
			reversed_by = CASE WHEN $4 THEN NULL ELSE CAST($3 AS bigint) END,
		reversed_at = CASE WHEN $4 THEN NULL ELSE now() END, version = version + 1 WHERE id = $1`, id, reversal, by,
		isOff)
	return err
}

// ProcedureFields are what people write about how a model is taken apart.
type ProcedureFields struct {
	Maker    string `db:"maker"`
	Model    string `db:"model"`
	Title    string `db:"title"`    // as Down to the main board
	Body     string `db:"body"`     // A step a line, as in a log
	Warnings string `db:"warnings"` // what to know before one starts
}

// Procedure is how machines of a model are taken apart.
type Procedure struct {
	ID int64 `db:"id"`
	ProcedureFields
	TeardownID *int64    `db:"teardown_id"` // the log that it was made from, or null
	Version    int       `db:"version"`
	UpdatedAt  time.Time `db:"updated_at"`
}

const procedureSelect = `SELECT id, maker, model, title, body, warnings, teardown_id, version, updated_at
	FROM procedure `

// ProceduresOf lists the procedures of a model, by title; with an empty maker and model all.
func ProceduresOf(ctx context.Context, h pg.Handle, maker, model string) ([]Procedure, error) {
	found := []Procedure{}
	err := h.SelectContext(ctx, &found,
		procedureSelect+
			`WHERE ($1 = '' AND $2 = '') OR (lower(maker) = lower($1) AND lower(model) = lower($2))
				ORDER BY lower(maker), lower(model), lower(title) LIMIT 500`, maker, model)
	return found, err
}

// ProcedureByID reads one.
func ProcedureByID(ctx context.Context, h pg.Handle, id int64) (Procedure, error) {
	var p Procedure
	err := pg.Get(ctx, h, &p, fmt.Sprintf("procedure %d", id), procedureSelect+`WHERE id = $1`, id)
	return p, err
}

// LockProcedure keeps others from changing one until the transaction ends, and reads it.
func LockProcedure(ctx context.Context, h pg.Handle, id int64) (Procedure, error) {
	if _, err := h.ExecContext(ctx, `SELECT 1 FROM procedure WHERE id = $1 FOR NO KEY UPDATE`, id); err != nil {
		return Procedure{}, err
	}
	return ProcedureByID(ctx, h, id)
}

// InsertProcedure adds one and returns its id. A title that is there violates procedure_title_key.
func InsertProcedure(ctx context.Context, h pg.Handle, f ProcedureFields, teardownID *int64) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO procedure (maker, model, title, body, warnings, teardown_id) VALUES ($1, $2, $3, $4, $5, $6)
			RETURNING id`,
		f.Maker, f.Model, f.Title, f.Body, f.Warnings, teardownID)
	return id, err
}

// UpdateProcedure writes all fields and counts the version up. The caller holds the row's lock.
func UpdateProcedure(ctx context.Context, h pg.Handle, id int64, f ProcedureFields) error {
	_, err := h.ExecContext(ctx,
		`UPDATE procedure SET maker = $2, model = $3, title = $4, body = $5, warnings = $6, version = version + 1,
			updated_at = now() WHERE id = $1`,
		id, f.Maker, f.Model, f.Title, f.Body, f.Warnings)
	return err
}

// ObservedStep is a step that says how something is made on a machine of a model.
type ObservedStep struct {
	MachineID int64  `db:"machine_id"`
	Accession string `db:"accession"`
	Body      string `db:"body"`
}

// ObservedSteps lists the steps of all machines of a model that say how something is made.
func ObservedSteps(ctx context.Context, h pg.Handle, maker, model string) ([]ObservedStep, error) {
	found := []ObservedStep{}
	err := h.SelectContext(ctx, &found,
		`SELECT t.machine_id, m.accession, CAST(p.body AS text) AS body FROM machine m
			LEFT JOIN machine_model d ON d.id = m.model_id
			JOIN teardown t ON t.machine_id = m.id JOIN teardown_step p ON p.teardown_id = t.id
		WHERE lower(COALESCE(d.maker, m.maker)) = lower($1) AND lower(COALESCE(d.model, m.model)) = lower($2)
		AND NOT p.voided
		AND jsonb_array_length(p.body->'differs') > 0 ORDER BY m.accession, p.id`, maker, model)
	return found, err
}

// BoardWith is the title of the board of a machine on whose sheet a designator stands; empty for none.
func BoardWith(ctx context.Context, h pg.Handle, machineID int64, designator string) (string, error) {
	titles := []string{}
	err := h.SelectContext(ctx, &titles, `SELECT a.title FROM entry e JOIN assembly a ON a.id = e.assembly_id
		JOIN fitting f ON f.assembly_id = a.id AND f.until IS NULL
		WHERE f.machine_id = $1 AND $2 = ANY (e.designators) ORDER BY f.ordinal, a.id LIMIT 1`, machineID, designator)
	if err != nil || len(titles) == 0 {
		return "", err
	}
	return titles[0], nil
}
