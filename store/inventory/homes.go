package inventory

import (
	"context"
	"fmt"

	"frugalheron/store/pg"
)

// OwnedKind is a kind of records each of which belongs to a machine, to a lot, or lies in store.
type OwnedKind string

// Kinds, as people call them.
const (
	OwnedBoard   OwnedKind = "board"
	OwnedPicture OwnedKind = "picture"
	OwnedFinding OwnedKind = "finding"
	OwnedSupply  OwnedKind = "supply"
	// CitedPicture is a picture or document that is evidence: one of any lot may speak of a machine.
	CitedPicture OwnedKind = "picture or document"
)

// Home is where a record belongs today.
type Home struct {
	MachineID  *int64 `db:"machine_id"`
	AssemblyID *int64 `db:"assembly_id"` // the board that it is, or is about
	LotID      *int64 `db:"lot_id"`
	Where      string `db:"home"`
}

// homeStatements find the home of a record; one that was struck out has none.
var homeStatements = map[OwnedKind]string{
	OwnedBoard: `SELECT f.machine_id, a.id AS assembly_id, CAST(NULL AS bigint) AS lot_id, COALESCE(m.accession, p.name, NULLIF(f.lent_to,
		''), 'no place') AS home
		FROM assembly a LEFT JOIN fitting f ON f.assembly_id = a.id AND f.until IS NULL
		LEFT JOIN machine m ON m.id = f.machine_id LEFT JOIN place p ON p.id = f.place_id WHERE a.id = $1`,
	OwnedPicture: `SELECT t.machine_id, CAST(NULL AS bigint) AS assembly_id, t.acquisition_id AS lot_id,
		COALESCE(m.accession, q.title, 'the stores') AS home
		FROM attachment t LEFT JOIN machine m ON m.id = t.machine_id LEFT JOIN acquisition q ON q.id = t.acquisition_id
		WHERE t.id = $1 AND NOT t.voided`,
	// What was found on a board goes with it.
	OwnedFinding: `SELECT m.id AS machine_id, d.assembly_id, CAST(NULL AS bigint) AS lot_id, COALESCE(m.accession, p.name,
		NULLIF(f.lent_to, ''), 'no place') AS home
		FROM finding d LEFT JOIN fitting f ON f.assembly_id = d.assembly_id AND f.until IS NULL
		LEFT JOIN machine m ON m.id = CASE WHEN d.assembly_id IS NULL THEN d.machine_id ELSE f.machine_id END
		LEFT JOIN place p ON p.id = f.place_id WHERE d.id = $1 AND NOT d.voided`,
	OwnedSupply: `SELECT s.machine_id, CAST(NULL AS bigint) AS assembly_id, CAST(NULL AS bigint) AS lot_id, m.accession AS home
		FROM power_supply s JOIN machine m ON m.id = s.machine_id WHERE s.id = $1 AND NOT s.voided`,
}

// HomeOf finds where a record belongs; ErrNotFound when there is none, or it was struck out.
func HomeOf(ctx context.Context, h pg.Handle, kind OwnedKind, id int64) (Home, error) {
	var home Home
	statement := homeStatements[kind]
	if kind == CitedPicture {
		statement = homeStatements[OwnedPicture]
	}
	err := pg.Get(ctx, h, &home, fmt.Sprintf("%s %d", kind, id), statement, id)
	return home, err
}
