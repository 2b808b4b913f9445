package unknowns

import (
	"context"
	"encoding/json"
	"fmt"

	"frugalheron/store/pg"
)

// Identification reads what was thought about an assembly; ErrNotFound when nobody has yet.
func Identification(ctx context.Context, h pg.Handle, assemblyID int64) (pg.KeptDocument, error) {
	var m pg.KeptDocument
	err := pg.Get(ctx, h, &m, fmt.Sprintf("mystery of assembly %d", assemblyID),
		`SELECT CAST(body AS text) AS body, version FROM identification WHERE assembly_id = $1`, assemblyID)
	return m, err
}

// PutIdentification writes it. The caller holds the assembly's lock.
func PutIdentification(ctx context.Context, h pg.Handle, assemblyID int64, body any) error {
	encoded, err := json.Marshal(body)
	if err != nil {
		return err
	}
	_, err = h.ExecContext(ctx, `INSERT INTO identification (assembly_id, body) VALUES ($1, CAST($2 AS jsonb))
		ON CONFLICT ON CONSTRAINT identification_pkey DO UPDATE
		SET body = excluded.body, version = identification.version + 1, updated_at = now()`, assemblyID,
		string(encoded))
	return err
}

// AssembliesWithIdentification lists the assemblies of a machine that somebody puzzles over; with 0 all.
func AssembliesWithIdentification(ctx context.Context, h pg.Handle, machineID int64) ([]int64, error) {
	ids := []int64{}
	err := h.SelectContext(ctx, &ids,
		`SELECT y.assembly_id FROM identification y JOIN fitting f ON f.assembly_id = y.assembly_id AND f.until IS NULL
		WHERE CAST($1 AS bigint) = 0 OR f.machine_id = $1 ORDER BY y.assembly_id`, machineID)
	return ids, err
}
