// Package sharing keeps which peripherals serve which machines.
package sharing

import (
	"context"
	"fmt"

	"frugalheron/store/pg"
)

// Fields are what people write about a peripheral that serves a machine.
type Fields struct {
	AssemblyID int64  `db:"assembly_id"`
	MachineID  int64  `db:"machine_id"`
	As         string `db:"serves_as"` // keyboard, monitor, supply ...
	Without    string `db:"without"`   // what the machine does not do without one
}

// Service is one, with where the peripheral is.
type Service struct {
	ID int64 `db:"id"`
	Fields
	Accession string  `db:"accession"` // of the machine that it serves
	Machine   string  `db:"machine"`
	Title     string  `db:"title"` // of the peripheral
	In        string  `db:"is_in"` // accession number of the machine that it is in
	InID      *int64  `db:"in_id"`
	Place     string  `db:"place"`
	LentTo    string  `db:"lent_to"`
	Due       *string `db:"due"`
	IsGone    bool    `db:"is_gone"` // it was struck out
	Ended     bool    `db:"ended"`
	Version   int     `db:"version"`
}

const serviceSelect = `SELECT s.id, s.assembly_id, s.machine_id, s.serves_as, s.without, m.accession, m.name AS machine,
		a.title, COALESCE(i.accession, '') AS is_in, f.machine_id AS in_id, COALESCE(p.name, '') AS place,
		COALESCE(f.lent_to, '') AS lent_to, CAST(f.due AS text) AS due, f.id IS NULL AS is_gone, s.ended, s.version
	FROM service s JOIN machine m ON m.id = s.machine_id JOIN assembly a ON a.id = s.assembly_id
	LEFT JOIN fitting f ON f.assembly_id = a.id AND f.until IS NULL LEFT JOIN machine i ON i.id = f.machine_id
	LEFT JOIN place p ON p.id = f.place_id `

// Around lists all services of some machines and of some peripherals, and those that hang together with them: of each
// peripheral all machines, of each of these all that serves them.
func Around(ctx context.Context, h pg.Handle, machineIDs, assemblyIDs []int64) ([]Service, error) {
	found := []Service{}
	err := h.SelectContext(ctx, &found, serviceSelect+`WHERE NOT s.ended AND s.machine_id IN (
			SELECT b.machine_id FROM service b WHERE NOT b.ended AND b.assembly_id IN (
				SELECT c.assembly_id FROM service c WHERE NOT c.ended AND (c.machine_id = ANY (CAST($1 AS bigint[]))
					OR c.assembly_id = ANY (CAST($2 AS bigint[])))))
		ORDER BY m.accession, lower(s.serves_as), s.id`, machineIDs, assemblyIDs)
	return found, err
}

// ByID reads one, ended or not.
func ByID(ctx context.Context, h pg.Handle, id int64) (Service, error) {
	var s Service
	err := pg.Get(ctx, h, &s, fmt.Sprintf("service %d", id), serviceSelect+`WHERE s.id = $1`, id)
	return s, err
}

// Lock keeps others from changing one until the transaction ends, and reads it.
func Lock(ctx context.Context, h pg.Handle, id int64) (Service, error) {
	if _, err := h.ExecContext(ctx, `SELECT 1 FROM service WHERE id = $1 FOR NO KEY UPDATE`, id); err != nil {
		return Service{}, err
	}
	return ByID(ctx, h, id)
}

// Insert adds one and returns its id. One that is there violates service_key.
func Insert(ctx context.Context, h pg.Handle, by *int64, f Fields) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO service (assembly_id, machine_id, serves_as, without, account_id)
		VALUES ($1, $2, $3, $4, $5) RETURNING id`, f.AssemblyID, f.MachineID, f.As, f.Without, by)
	return id, err
}

// End ends one, or takes that back. The caller holds the row's lock.
func End(ctx context.Context, h pg.Handle, id int64, ended bool) error {
	_, err := h.ExecContext(ctx, `UPDATE service SET ended = $2, version = version + 1 WHERE id = $1`, id, ended)
	return err
}
