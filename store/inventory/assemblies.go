package inventory

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// AssemblyFields are what people write about an assembly and the way it is fitted.
type AssemblyFields struct {
	Kind    string `db:"kind"`  // what sort of thing it is
	Title   string `db:"title"` // what the board is called
	Part    string `db:"part"`  // part number on the board
	Rev     string `db:"rev"`   // revision on the board
	Serial  string `db:"serial"`
	Slot    string `db:"slot"`    // where in the machine it sits
	Fit     string `db:"fit"`     // when it came into the machine
	Purpose string `db:"purpose"` // what its memory is for, where the sheet does not say
}

// Assembly is a board or other unit, with where it is fitted today.
type Assembly struct {
	ID        int64  `db:"id"`
	MachineID *int64 `db:"machine_id"` // the machine it is fitted in, or null
	AssemblyFields
	IsVoided  bool      `db:"is_voided"` // it was entered by mistake and struck out
	Version   int       `db:"version"`
	Revision  int       `db:"revision"` // newest revision of its sheet; 0 before the first
	UpdatedAt time.Time `db:"updated_at"`
}

const assemblySelect = `SELECT a.id, f.machine_id, a.kind, a.title, a.part, a.rev, a.serial, COALESCE(f.slot,
	'') AS slot,
		COALESCE(f.fit, 'unknown') AS fit, a.purpose, f.id IS NULL AS is_voided, a.version, a.updated_at,
		COALESCE((SELECT max(n) FROM sheet_revision r WHERE r.assembly_id = a.id), 0) AS revision
	FROM assembly a LEFT JOIN fitting f ON f.assembly_id = a.id AND f.until IS NULL `

// InsertAssembly adds an assembly where a fitting says; slot and fit are those of the fields.
func InsertAssembly(ctx context.Context, h pg.Handle, at Fitting, a AssemblyFields) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO assembly (kind, title, part, rev, serial, purpose)
		VALUES (COALESCE(NULLIF($1, ''), 'board'), $2, $3, $4, $5, $6) RETURNING id`, a.Kind, a.Title, a.Part, a.Rev,
		a.Serial, a.Purpose)
	if err != nil {
		return 0, err
	}
	at.AssemblyID, at.Slot, at.Fit = id, a.Slot, a.Fit
	_, err = InsertFitting(ctx, h, at)
	return id, err
}

// UpdateAssembly writes all fields and counts the version up. The caller holds the row's lock.
func UpdateAssembly(ctx context.Context, h pg.Handle, id int64, a AssemblyFields) error {
	_, err := h.ExecContext(ctx,
		`UPDATE assembly SET title = $2, part = $3, rev = $4, serial = $5, purpose = $6, kind = $7,
		version = version + 1, updated_at = now() WHERE id = $1`, id, a.Title, a.Part, a.Rev, a.Serial, a.Purpose,
		a.Kind)
	if err != nil {
		return err
	}
	_, err = h.ExecContext(ctx, `UPDATE fitting SET slot = $2, fit = $3 WHERE assembly_id = $1 AND until IS NULL`, id,
		a.Slot, a.Fit)
	return err
}

// AssemblyByID reads an assembly.
func AssemblyByID(ctx context.Context, h pg.Handle, id int64) (Assembly, error) {
	var a Assembly
	err := pg.Get(ctx, h, &a, fmt.Sprintf("assembly %d", id), assemblySelect+`WHERE a.id = $1`, id)
	return a, err
}

// LockAssembly reads an assembly and keeps others from changing it or its sheet until the
// transaction ends.
func LockAssembly(ctx context.Context, h pg.Handle, id int64) (Assembly, error) {
	if _, err := h.ExecContext(ctx, `SELECT 1 FROM assembly WHERE id = $1 FOR UPDATE`, id); err != nil {
		return Assembly{}, err
	}
	return AssemblyByID(ctx, h, id)
}

// AssembliesOf lists what is fitted in a machine today, in order; its outside is none of them.
func AssembliesOf(ctx context.Context, h pg.Handle, machineID int64) ([]Assembly, error) {
	assemblies := []Assembly{}
	err := h.SelectContext(ctx, &assemblies,
		assemblySelect+`WHERE f.machine_id = $1 AND a.kind <> 'exterior' ORDER BY f.ordinal, a.id`, machineID)
	return assemblies, err
}

// ExteriorKind is the kind of the one assembly of a machine that is its outside.
const ExteriorKind = "exterior"

// IsExterior reports whether it is the outside of a machine, whose sheet has words of its own.
func (a Assembly) IsExterior() bool { return a.Kind == ExteriorKind }

// InsertExterior gives a machine its outside, since a day.
func InsertExterior(ctx context.Context, h pg.Handle, machineID int64, since string) error {
	_, err := h.ExecContext(ctx,
		`WITH added AS (INSERT INTO assembly (title, kind) VALUES ('Outside', 'exterior') RETURNING id)
		INSERT INTO fitting (assembly_id, machine_id, since) SELECT id, $1, CAST($2 AS date) FROM added`,
		machineID, since)
	return err
}

// ExteriorOf reads the outside of a machine.
func ExteriorOf(ctx context.Context, h pg.Handle, machineID int64) (Assembly, error) {
	var a Assembly
	err := pg.Get(ctx, h, &a, fmt.Sprintf("outside of machine %d", machineID),
		assemblySelect+`WHERE f.machine_id = $1 AND a.kind = 'exterior'`, machineID)
	return a, err
}
