package arrivals

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/evidence"
	"frugalheron/store/pg"
)

// CustodyFields are what one source says of a machine's past: who had it, when, where.
type CustodyFields struct {
	Role    string `db:"role"` // key of a role, as used-by
	Who     string `db:"who"`  // where no party is named
	Place   string `db:"place"`
	Dates   string `db:"dates"`    // EDTF, as 1983/1985
	UsedFor string `db:"used_for"` // what it was used for
	evidence.Citation
}

// Custody is a statement about a machine's past that was kept. Its party is whom it is about.
type Custody struct {
	ID        int64 `db:"id"`
	MachineID int64 `db:"machine_id"`
	CustodyFields
	Party     string    `db:"party"`     // name of the party, or empty
	Retracted string    `db:"retracted"` // why it does not count any more, or empty
	By        string    `db:"by_name"`   // who noted it
	At        time.Time `db:"at"`
	Version   int       `db:"version"`
}

const custodySelect = `SELECT s.id, s.machine_id, s.role, s.who, s.place, s.dates, s.used_for, ` +
	evidence.CitationColumns + `, COALESCE(p.name, '') AS party,
		s.retracted, COALESCE(c.name, '') AS by_name, s.at, s.version
	FROM custody s LEFT JOIN party p ON p.id = s.party_id LEFT JOIN account c ON c.id = s.account_id `

// InsertCustody keeps a statement about a machine's past and returns its id.
func InsertCustody(ctx context.Context, h pg.Handle, machineID int64, by *int64, s CustodyFields) (int64, error) {
	var id int64
	args := append([]any{machineID, by, s.Role, s.Who, s.Place, s.Dates, s.UsedFor}, s.Args()...)
	err := h.GetContext(ctx, &id,
		`INSERT INTO custody (machine_id, account_id, role, who, place, dates, used_for, kind, cited, page, link,
			picture_id, region, party_id, stated_on)
		VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, CAST($13 AS jsonb), $14, $15) RETURNING id`, args...)
	return id, err
}

// UpdateCustody writes all fields and counts the version up. The caller holds the row's lock.
func UpdateCustody(ctx context.Context, h pg.Handle, id int64, s CustodyFields) error {
	args := append([]any{id, s.Role, s.Who, s.Place, s.Dates, s.UsedFor}, s.Args()...)
	_, err := h.ExecContext(ctx,
		`UPDATE custody SET role = $2, who = $3, place = $4, dates = $5, used_for = $6, kind = $7, cited = $8,
			page = $9, link = $10,
		picture_id = $11, region = CAST($12 AS jsonb), party_id = $13, stated_on = $14, version = version + 1
		WHERE id = $1`, args...)
	return err
}

// LockCustody reads a statement and keeps others from changing it until the transaction ends.
func LockCustody(ctx context.Context, h pg.Handle, id int64) (Custody, error) {
	var s Custody
	err := pg.Get(ctx, h, &s, fmt.Sprintf("statement %d about the past", id),
		custodySelect+`WHERE s.id = $1 FOR UPDATE OF s`, id)
	return s, err
}

// CustodyOf lists what was said of a machine's past, in the order in which it was noted.
func CustodyOf(ctx context.Context, h pg.Handle, machineID int64) ([]Custody, error) {
	links := []Custody{}
	err := h.SelectContext(ctx, &links, custodySelect+`WHERE s.machine_id = $1 ORDER BY s.id`, machineID)
	return links, err
}
