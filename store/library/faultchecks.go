package library

import (
	"context"

	"frugalheron/store/pg"
)

// FaultCheckFields are what somebody found out about a fault that boards of a kind are known to have.
type FaultCheckFields struct {
	KnownID    int64  `db:"known_id"`
	AssemblyID int64  `db:"assembly_id"`
	Fault      string `db:"fault"` // as the record names it
	HasIt      bool   `db:"has_it"`
	Note       string `db:"note"`
	On         string `db:"checked_on"` // YYYY-MM-DD
}

// FaultCheck is one, with who found it out.
type FaultCheck struct {
	ID int64 `db:"id"`
	FaultCheckFields
	By string `db:"by_name"`
}

// InsertFaultCheck adds one and returns its id.
func InsertFaultCheck(ctx context.Context, h pg.Handle, by *int64, f FaultCheckFields) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO fault_check (known_id, assembly_id, fault, has_it, note, checked_on, account_id)
			VALUES ($1, $2, $3, $4, $5, CAST($6 AS date), $7) RETURNING id`, f.KnownID, f.AssemblyID, f.Fault, f.HasIt,
		f.Note, f.On, by)
	return id, err
}

// FaultChecks lists what was found out of assemblies; the newest of each fault comes last.
func FaultChecks(ctx context.Context, h pg.Handle, assemblyIDs []int64) ([]FaultCheck, error) {
	found := []FaultCheck{}
	err := h.SelectContext(ctx, &found,
		`SELECT c.id, c.known_id, c.assembly_id, c.fault, c.has_it, c.note, CAST(c.checked_on AS text) AS checked_on,
			COALESCE(w.name, '') AS by_name FROM fault_check c LEFT JOIN account w ON w.id = c.account_id
		WHERE c.assembly_id = ANY (CAST($1 AS bigint[])) ORDER BY c.checked_on, c.id`, assemblyIDs)
	return found, err
}
