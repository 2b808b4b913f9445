package setup

import (
	"context"
	"fmt"

	"frugalheron/store/pg"
)

// What a machine has one of.
const (
	OperatingCard = "operating card"
	Backplane     = "backplane"
	MemoryRules   = "memory rules"
)

// Document is what a machine has one of, kept whole as JSON. Version 0 is one that nobody wrote yet.
type Document struct {
	MachineID int64  `db:"machine_id"`
	Body      string `db:"body"`
	Version   int    `db:"version"`
}

// DocumentOf reads that of a machine.
func DocumentOf(ctx context.Context, h pg.Handle, kind string, machineID int64) (Document, error) {
	var d Document
	err := pg.Get(ctx, h, &d, fmt.Sprintf("machine %d", machineID), `SELECT m.id AS machine_id,
		COALESCE(CAST(d.body AS text), '{}') AS body, COALESCE(d.version, 0) AS version
		FROM machine m LEFT JOIN machine_document d ON d.machine_id = m.id AND d.kind = $2
		WHERE m.id = $1`, machineID, kind)
	return d, err
}

// LockDocument keeps others from writing that of a machine until the transaction ends, and reads it.
func LockDocument(ctx context.Context, h pg.Handle, kind string, machineID int64) (Document, error) {
	if _, err := h.ExecContext(ctx, `SELECT 1 FROM machine WHERE id = $1 FOR NO KEY UPDATE`, machineID); err != nil {
		return Document{}, err
	}
	return DocumentOf(ctx, h, kind, machineID)
}

// PutDocument writes that of a machine and counts its version up. The caller holds its lock.
func PutDocument(ctx context.Context, h pg.Handle, kind string, d Document) error {
	_, err := h.ExecContext(ctx, `INSERT INTO machine_document (machine_id, kind, body) VALUES ($1, $2, CAST($3 AS jsonb))
		ON CONFLICT ON CONSTRAINT machine_document_pkey
		DO UPDATE SET body = EXCLUDED.body, version = machine_document.version + 1,
			at = now()`, d.MachineID, kind, d.Body)
	return err
}

// ModelDocument is that of another machine of the same model.
type ModelDocument struct {
	MachineID int64  `db:"machine_id"`
	Accession string `db:"accession"`
	Body      string `db:"body"`
}

// DocumentsOfModel lists those of other machines of a machine's model, the newest first; at most limit.
func DocumentsOfModel(ctx context.Context, h pg.Handle, kind string, machineID int64,
	limit int) ([]ModelDocument, error) {
	found := []ModelDocument{}
	err := h.SelectContext(ctx, &found, `SELECT o.id AS machine_id, o.accession, CAST(d.body AS text) AS body
		FROM machine m JOIN machine o ON o.model_id = m.model_id AND o.id <> m.id
		JOIN machine_document d ON d.machine_id = o.id AND d.kind = $2
		WHERE m.id = $1 ORDER BY d.at DESC, o.id LIMIT $3`, machineID, kind, limit)
	return found, err
}

// DrawOf tells what the chips of some boards draw by rail, as the sums of their sheets keep it, by assembly.
func DrawOf(ctx context.Context, h pg.Handle, assemblyIDs []int64) (map[int64]string, error) {
	rows := []struct {
		AssemblyID int64  `db:"assembly_id"`
		Draw       string `db:"draw"`
	}{}
	err := h.SelectContext(ctx, &rows, `SELECT assembly_id, CAST(COALESCE(totals->'draw', '{}') AS text) AS draw
		FROM sheet_total WHERE assembly_id = ANY (CAST($1 AS bigint[]))`, assemblyIDs)
	found := map[int64]string{}
	for _, row := range rows {
		found[row.AssemblyID] = row.Draw
	}
	return found, err
}

// InSocket is what a sheet has at a designator.
type InSocket struct {
	Designator string `db:"designator"`
	AssemblyID int64  `db:"assembly_id"`
	Line       int    `db:"line"`
	Marking    string `db:"marking"`
	Empty      bool   `db:"empty"`
}

// Sockets finds what the sheets of a machine have at some designators, in the order of its boards.
func Sockets(ctx context.Context, h pg.Handle, machineID int64, designators []string) ([]InSocket, error) {
	found := []InSocket{}
	err := h.SelectContext(ctx, &found, `SELECT d.designator, e.assembly_id, e.line, e.marking, e.empty
		FROM unnest(CAST($2 AS text[])) WITH ORDINALITY AS d (designator, n)
		JOIN fitting f ON f.machine_id = $1 AND f.until IS NULL
		JOIN entry e ON e.assembly_id = f.assembly_id AND d.designator = ANY (e.designators)
		ORDER BY d.n, f.ordinal, e.assembly_id, e.line`, machineID, designators)
	return found, err
}
