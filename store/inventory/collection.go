package inventory

import (
	"context"

	"frugalheron/store/pg"
)

// CollectionFields are the settings of the collection as a whole.
type CollectionFields struct {
	Name             string  `db:"name"`
	AccessionPattern string  `db:"accession_pattern"`
	Currency         string  `db:"currency"`    // ISO 4217, in which lots are entered unless they say another
	TimeZone         string  `db:"time_zone"`   // name in the time zone database of the zone in which days are counted. Empty until one is chosen, which counts as UTC; left out, the one that is chosen stays
	MainsVolts       float64 `db:"mains_volts"` // what comes out of the wall; 0 where nobody said
	MainsHz          float64 `db:"mains_hz"`
	SupplyMonths     int     `db:"supply_months"` // for how long an inspection of a supply counts
}

// Collection is the collection as a whole.
type Collection struct {
	CollectionFields
	Version int `db:"version"`
}

// ReadCollection reads it.
func ReadCollection(ctx context.Context, h pg.Handle) (Collection, error) {
	return collection(ctx, h, "")
}

// LockCollection reads it and keeps others from changing it, and from giving numbers, until the
// transaction ends.
func LockCollection(ctx context.Context, h pg.Handle) (Collection, error) {
	return collection(ctx, h, " FOR UPDATE")
}

func collection(ctx context.Context, h pg.Handle, lock string) (Collection, error) {
	var c Collection
	err := pg.Get(ctx, h, &c, "collection", `SELECT name, accession_pattern, currency, time_zone, mains_volts, mains_hz,
		supply_months, version FROM collection`+lock)
	return c, err
}

// UpdateCollection writes all fields and counts the version up. The caller holds the lock.
func UpdateCollection(ctx context.Context, h pg.Handle, c CollectionFields) error {
	_, err := h.ExecContext(ctx,
		`UPDATE collection SET name = $1, accession_pattern = $2, currency = $3, time_zone = $4, mains_volts = $5,
		mains_hz = $6, supply_months = $7, version = version + 1`, c.Name, c.AccessionPattern, c.Currency, c.TimeZone,
		c.MainsVolts, c.MainsHz, c.SupplyMonths)
	return err
}

// GivenNumber is an accession number that was given once.
type GivenNumber struct {
	Number    string `db:"number"`
	MachineID *int64 `db:"machine_id"` // the machine it was given to, or null
	Accession string `db:"accession"`  // the number that machine has today
	Note      string `db:"note"`       // why no machine has it
}

// GiveNumber notes that a machine has a number. It returns false when it was given to another thing before.
func GiveNumber(ctx context.Context, h pg.Handle, number string, machineID int64) (bool, error) {
	var holder int64
	err := h.GetContext(ctx, &holder, `INSERT INTO accession_number (number, machine_id) VALUES ($1, $2)
		ON CONFLICT ON CONSTRAINT accession_number_pkey DO UPDATE SET number = EXCLUDED.number
		RETURNING COALESCE(machine_id, 0)`, number, machineID)
	return holder == machineID, err
}

// NoteNumber notes a number that no machine has, with the reason. One that a machine has or had is left
// alone: then it returns false.
func NoteNumber(ctx context.Context, h pg.Handle, number, note string) (bool, error) {
	result, err := h.ExecContext(ctx, `INSERT INTO accession_number (number, note) VALUES ($1, $2)
		ON CONFLICT ON CONSTRAINT accession_number_pkey DO UPDATE SET note = EXCLUDED.note
		WHERE accession_number.machine_id IS NULL`, number, note)
	if err != nil {
		return false, err
	}
	n, err := result.RowsAffected()
	return n == 1, err
}

// NumbersLike lists the numbers that were ever given and start with a text.
func NumbersLike(ctx context.Context, h pg.Handle, start string) ([]GivenNumber, error) {
	numbers := []GivenNumber{}
	err := h.SelectContext(ctx, &numbers, `SELECT n.number, n.machine_id, COALESCE(m.accession, '') AS accession, n.note
		FROM accession_number n LEFT JOIN machine m ON m.id = n.machine_id WHERE n.number LIKE $1 ORDER BY n.number`,
		pg.LikeEscaper.Replace(start)+"%")
	return numbers, err
}
