package evidence

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// StatementFields are what one source says of an attribute of a machine.
type StatementFields struct {
	Attribute string `db:"attribute"` // key of an attribute, or a name of its own
	Subject   string `db:"subject"`   // the part that it is about; empty for the machine
	Value     string `db:"value"`     // as it was said
	Nature    string `db:"nature"`    // empty for that of the attribute
	Form      string `db:"form"`      // empty for that of the attribute
	Citation
}

// Statement is one that was kept.
type Statement struct {
	ID        int64 `db:"id"`
	MachineID int64 `db:"machine_id"`
	StatementFields
	Party     string    `db:"party"`     // who said it, or empty
	Retracted string    `db:"retracted"` // why it does not count any more, or empty
	By        string    `db:"by_name"`   // who noted it
	At        time.Time `db:"at"`
	Version   int       `db:"version"`
}

const statementSelect = `SELECT s.id, s.machine_id, s.attribute, s.subject, s.value, s.nature, s.form, ` + CitationColumns +
	`, COALESCE(p.name, '') AS party, s.retracted,
		COALESCE(c.name, '') AS by_name, s.at, s.version
	FROM statement s LEFT JOIN party p ON p.id = s.party_id LEFT JOIN account c ON c.id = s.account_id `

// InsertStatement keeps a statement and returns its id.
func InsertStatement(ctx context.Context, h pg.Handle, machineID int64, by *int64, s StatementFields) (int64, error) {
	var id int64
	args := append([]any{machineID, by, s.Attribute, s.Value, s.Subject, s.Nature, s.Form}, s.Args()...)
	err := h.GetContext(ctx, &id,
		`INSERT INTO statement (machine_id, account_id, attribute, value, subject, nature, form, kind, cited, page, link,
			picture_id, region, party_id, stated_on)
		VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, CAST($13 AS jsonb), $14, $15) RETURNING id`, args...)
	return id, err
}

// Testimony is a table of statements that can be retracted.
type Testimony string

// Tables of statements.
const (
	OfAttributes Testimony = "statement"
	OfCustody    Testimony = "custody"
)

// Retract says why a statement does not count any more; an empty text lets it count again.
func Retract(ctx context.Context, h pg.Handle, table Testimony, id int64, why string) error {
	_, err := h.ExecContext(ctx, `UPDATE `+string(table)+` SET retracted = $2, version = version + 1 WHERE id = $1`, id,
		why)
	return err
}

// LockStatement reads a statement and keeps others from changing it until the transaction ends.
func LockStatement(ctx context.Context, h pg.Handle, id int64) (Statement, error) {
	var s Statement
	err := pg.Get(ctx, h, &s, fmt.Sprintf("statement %d", id), statementSelect+`WHERE s.id = $1 FOR UPDATE OF s`, id)
	return s, err
}

// StatementsOf lists what was said of a machine, in the order in which it was noted.
func StatementsOf(ctx context.Context, h pg.Handle, machineID int64) ([]Statement, error) {
	statements := []Statement{}
	err := h.SelectContext(ctx, &statements, statementSelect+`WHERE s.machine_id = $1 ORDER BY s.id`, machineID)
	return statements, err
}
