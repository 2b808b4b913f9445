package inventory

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/people"
	"frugalheron/store/pg"
)

// MachineFields are what people write about a machine.
type MachineFields struct {
	Accession  string `db:"accession"` // accession number
	Name       string `db:"name"`      // what the machine is called
	Maker      string `db:"maker"`
	Model      string `db:"model"`
	ModelID    *int64 `db:"model_id"` // the model that it is of; null where nobody described it
	Serial     string `db:"serial"`
	EraFrom    *int   `db:"era_from"`   // first year in which its parts are expected; settles date codes with an open decade
	EraTo      *int   `db:"era_to"`     // last year in which its parts are expected
	Place      string `db:"place"`      // where it stands
	Provenance string `db:"provenance"` // where it comes from
}

// Machine is a machine of the collection.
type Machine struct {
	ID int64 `db:"id"`
	MachineFields
	Version   int       `db:"version"` // counts changes; a change names the version it started from
	UpdatedAt time.Time `db:"updated_at"`
}

const machineColumns = `m.id, m.accession, m.name, m.maker, m.model, m.model_id, m.serial, m.era_from,
	m.era_to,
	COALESCE(p.name, '') AS place, m.provenance, m.version, m.updated_at`

// InsertMachine adds a machine and returns its id. An accession number that is taken violates
// machine_accession_key.
func InsertMachine(ctx context.Context, h pg.Handle, m MachineFields) (int64, error) {
	place, err := PlaceID(ctx, h, m.Place)
	if err != nil {
		return 0, err
	}
	var id int64
	err = h.GetContext(ctx, &id,
		`INSERT INTO machine (accession, name, maker, model, serial, era_from, era_to, place_id, provenance,
			model_id)
		VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10) RETURNING id`,
		m.Accession, m.Name, m.Maker, m.Model, m.Serial, m.EraFrom, m.EraTo, place, m.Provenance, m.ModelID)
	return id, err
}

// UpdateMachine writes all fields and counts the version up. The caller holds the row's lock.
func UpdateMachine(ctx context.Context, h pg.Handle, id int64, m MachineFields) error {
	place, err := PlaceID(ctx, h, m.Place)
	if err != nil {
		return err
	}
	_, err = h.ExecContext(ctx, `UPDATE machine SET accession = $2, name = $3, maker = $4, model = $5, serial = $6,
			era_from = $7, era_to = $8, place_id = $9, provenance = $10, model_id = $11, version = version + 1,
			updated_at = now()
		WHERE id = $1`,
		id, m.Accession, m.Name, m.Maker, m.Model, m.Serial, m.EraFrom, m.EraTo, place, m.Provenance, m.ModelID)
	return err
}

// MachineByID reads a machine.
func MachineByID(ctx context.Context, h pg.Handle, id int64) (Machine, error) {
	return machine(ctx, h, id, "")
}

// LockMachine reads a machine and keeps others from changing it until the transaction ends.
func LockMachine(ctx context.Context, h pg.Handle, id int64) (Machine, error) {
	return machine(ctx, h, id, " FOR NO KEY UPDATE OF m")
}

func machine(ctx context.Context, h pg.Handle, id int64, lock string) (Machine, error) {
	var m Machine
	err := pg.Get(ctx, h, &m, fmt.Sprintf("machine %d", id),
		`SELECT `+machineColumns+` FROM machine m LEFT JOIN place p ON p.id = m.place_id WHERE m.id = $1`+lock, id)
	return m, err
}

// ListPlaces names the places in use, by name; with public as others than staff may know them.
func ListPlaces(ctx context.Context, h pg.Handle, public bool) ([]string, error) {
	places := []string{}
	name := "name"
	if public {
		name = people.PublicOr(people.PublicPlace, "place.id", "name")
	}
	err := h.SelectContext(ctx, &places, `SELECT DISTINCT `+name+` AS called FROM place ORDER BY called`)
	return places, err
}

// PlaceID finds a place by name, or adds it; nil for no name. A place that is there is not locked:
// people who name the same one do not wait for each other.
func PlaceID(ctx context.Context, h pg.Handle, name string) (*int64, error) {
	if name == "" {
		return nil, nil
	}
	if _, err := h.ExecContext(ctx,
		`INSERT INTO place (name) SELECT $1 WHERE NOT EXISTS (SELECT 1 FROM place WHERE name = $1)
		ON CONFLICT ON CONSTRAINT place_name_key DO NOTHING`, name); err != nil {
		return nil, err
	}
	var id int64
	err := h.GetContext(ctx, &id, `SELECT id FROM place WHERE name = $1`, name)
	return &id, err
}

// EnsurePlace adds a place unless it is there. Who also locks an assembly does so after this.
func EnsurePlace(ctx context.Context, h pg.Handle, name string) error {
	_, err := PlaceID(ctx, h, name)
	return err
}
