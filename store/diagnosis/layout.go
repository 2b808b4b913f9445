package diagnosis

import (
	"context"
	"fmt"

	"frugalheron/store/pg"
)

// Layout is how the memory of a machine is laid out, kept whole as JSON. Version 0 is one that nobody wrote yet.
type Layout struct {
	MachineID int64  `db:"machine_id"`
	Body      string `db:"body"`
	Version   int    `db:"version"`
}

const layoutSelect = `SELECT m.id AS machine_id, COALESCE(CAST(l.body AS text), '{}') AS body, COALESCE(l.version, 0) AS version
	FROM machine m LEFT JOIN memory_layout l ON l.machine_id = m.id WHERE m.id = $1`

// LayoutOf reads that of a machine.
func LayoutOf(ctx context.Context, h pg.Handle, machineID int64) (Layout, error) {
	var l Layout
	err := pg.Get(ctx, h, &l, fmt.Sprintf("machine %d", machineID), layoutSelect, machineID)
	return l, err
}

// LockLayout keeps others from writing that of a machine until the transaction ends, and reads it.
func LockLayout(ctx context.Context, h pg.Handle, machineID int64) (Layout, error) {
	if _, err := h.ExecContext(ctx, `SELECT 1 FROM machine WHERE id = $1 FOR NO KEY UPDATE`, machineID); err != nil {
		return Layout{}, err
	}
	return LayoutOf(ctx, h, machineID)
}

// PutLayout writes that of a machine and counts its version up. The caller holds its lock.
func PutLayout(ctx context.Context, h pg.Handle, l Layout) error {
	_, err := h.ExecContext(ctx, `INSERT INTO memory_layout (machine_id, body) VALUES ($1, CAST($2 AS jsonb))
		ON CONFLICT ON CONSTRAINT memory_layout_pkey
		DO UPDATE SET body = EXCLUDED.body, version = memory_layout.version + 1, at = now()`, l.MachineID, l.Body)
	return err
}

// LayoutsOfModel lists the layouts of other machines of a machine's model, the newest first; at most limit.
func LayoutsOfModel(ctx context.Context, h pg.Handle, machineID int64, limit int) ([]ModelLayout, error) {
	found := []ModelLayout{}
	err := h.SelectContext(ctx, &found, `SELECT o.id AS machine_id, o.accession, CAST(l.body AS text) AS body
		FROM machine m JOIN machine o ON o.model_id = m.model_id AND o.id <> m.id
		JOIN memory_layout l ON l.machine_id = o.id
		WHERE m.id = $1 ORDER BY l.at DESC, o.id LIMIT $2`, machineID, limit)
	return found, err
}

// ModelLayout is the layout of another machine of the same model.
type ModelLayout struct {
	MachineID int64  `db:"machine_id"`
	Accession string `db:"accession"`
	Body      string `db:"body"`
}

// PlacesOf finds the boards that hold some designators in a machine today.
func PlacesOf(ctx context.Context, h pg.Handle, machineID int64, designators []string) ([]Place, error) {
	found := []Place{}
	err := h.SelectContext(ctx, &found, `SELECT DISTINCT d.designator, e.assembly_id, a.title, e.line, e.marking, f.ordinal
		FROM unnest(CAST($2 AS text[])) AS d (designator)
		JOIN fitting f ON f.machine_id = $1 AND f.until IS NULL
		JOIN assembly a ON a.id = f.assembly_id
		JOIN entry e ON e.assembly_id = a.id AND d.designator = ANY (e.designators) AND NOT e.empty
		ORDER BY d.designator, f.ordinal, e.assembly_id`, machineID, designators)
	return found, err
}

// Place is where a designator stands on a sheet.
type Place struct {
	Designator string `db:"designator"`
	AssemblyID int64  `db:"assembly_id"`
	Title      string `db:"title"`
	Line       int    `db:"line"`
	Marking    string `db:"marking"`
	Ordinal    int    `db:"ordinal"`
}
