package sheets

import (
	"context"
	"encoding/json"

	"frugalheron/core/sheet"
	"frugalheron/store/pg"
)

// EntryRow is a parsed line of the newest revision, as it is kept for search. Rows travel to and
// from the database as JSON, so the JSON names are those that the statements below use.
type EntryRow struct {
	Line        int      `json:"line"`
	Designators []string `json:"designators"`
	Count       int      `json:"count"`
	Kind        string   `json:"kind"`
	Marking     string   `json:"marking"`
	TypeNumber  string   `json:"typeNumber"` // type in the library, or empty
	TypeClass   string   `json:"typeClass"`
	TypeAges    string   `json:"typeAges"` // how it ages, by its type; empty where nothing is known
	SpeedNs     int      `json:"speedNs"`
	DateFrom    *string  `json:"dateFrom"` // YYYY-MM-DD, or null
	DateTo      *string  `json:"dateTo"`
	Purpose     string   `json:"purpose"`
	Socketed    bool     `json:"socketed"`
	Empty       bool     `json:"empty"`
	Doubtful    bool     `json:"doubtful"`
	New         *string  `json:"new"` // since when the part is new, in EDTF, or null
	// Unidentified is what nobody knows, be it a chip or not.
	Unidentified bool         `json:"unidentified"`
	Findings     []sheet.Mark `json:"findings"`
}

// ReplaceEntries throws away the entries of an assembly and keeps those of a revision instead.
func ReplaceEntries(ctx context.Context, h pg.Handle, assemblyID int64, revision int, rows []EntryRow) error {
	if _, err := h.ExecContext(ctx, `DELETE FROM entry WHERE assembly_id = $1`, assemblyID); err != nil {
		return err
	}
	encoded, err := json.Marshal(rows)
	if err != nil {
		return err
	}
	// One parameter for all rows: sheets may be longer than a statement may have parameters.
	_, err = h.ExecContext(ctx,
		`INSERT INTO entry (assembly_id, revision, line, designators, count, kind, marking, type_number,
			type_class, type_ages, speed_ns, date_from, date_to, purpose, socketed, empty, doubtful, new_since,
			unidentified, findings)
		SELECT $1, $2, r.* FROM jsonb_to_recordset(CAST($3 AS jsonb)) AS r(line integer, designators text[],
		count integer, kind text,
			marking text, "typeNumber" text, "typeClass" text, "typeAges" text, "speedNs" integer, "dateFrom" date,
			"dateTo" date,
			purpose text,
			socketed boolean, empty boolean, doubtful boolean, new text, unidentified boolean,
			findings jsonb)`, assemblyID, revision, string(encoded))
	return err
}

// EntriesOf lists the entries of an assembly after a line, in order.
func EntriesOf(ctx context.Context, h pg.Handle, assemblyID int64, afterLine, limit int) ([]EntryRow, error) {
	encoded := []string{}
	err := h.SelectContext(ctx, &encoded,
		`SELECT CAST(jsonb_build_object('line', line, 'designators', designators, 'count', count, 'kind', kind,
			'marking', marking, 'typeNumber', type_number, 'typeClass', type_class, 'typeAges', type_ages, 'speedNs',
			speed_ns, 'dateFrom',
			date_from, 'dateTo', date_to,
			'purpose', purpose, 'socketed', socketed, 'empty', empty, 'doubtful', doubtful, 'new', new_since,
			'unidentified', unidentified, 'findings', findings) AS text)
		FROM entry WHERE assembly_id = $1 AND line > $2 ORDER BY line LIMIT $3`, assemblyID, afterLine, limit)
	if err != nil {
		return nil, err
	}
	rows := make([]EntryRow, len(encoded))
	for i, text := range encoded {
		if err := json.Unmarshal([]byte(text), &rows[i]); err != nil {
			return nil, err
		}
	}
	return rows, nil
}

// Position is one socket or part of an assembly; it outlives the chip that sits in it.
type Position struct {
	ID         int64  `db:"id"`
	Designator string `db:"designator"` // empty for parts that are only counted
	Ordinal    int    `db:"ordinal"`    // tells counted parts apart, from 1
}

// AddPositions adds those positions that an assembly does not have yet; none is ever removed.
func AddPositions(ctx context.Context, h pg.Handle, assemblyID int64, positions []Position) error {
	designators, ordinals := make([]string, len(positions)), make([]int, len(positions))
	for i, p := range positions {
		designators[i], ordinals[i] = p.Designator, p.Ordinal
	}
	_, err := h.ExecContext(ctx, `INSERT INTO position (assembly_id, designator, ordinal)
		SELECT $1, r.designator, r.ordinal
		FROM unnest(CAST($2 AS text[]), CAST($3 AS integer[])) AS r(designator, ordinal)
		ON CONFLICT ON CONSTRAINT position_designator_key DO NOTHING`, assemblyID, designators, ordinals)
	return err
}

// PositionsOf lists a page of an assembly's positions in the order they were first met.
func PositionsOf(ctx context.Context, h pg.Handle, assemblyID, after int64, limit int) ([]Position, error) {
	positions := []Position{}
	err := h.SelectContext(ctx, &positions, `SELECT id, designator, ordinal FROM position
		WHERE assembly_id = $1 AND id > $2 ORDER BY id LIMIT $3`, assemblyID, after, limit)
	return positions, err
}

// PutTotals keeps the totals of a revision as reckoned with a version of the library, with how many
// entries and problems it has, and what its chips can do.
func PutTotals(ctx context.Context, h pg.Handle, assemblyID int64, revision, libraryVersion, entries, problems int,
	totals any, can []string) error {
	encoded, err := json.Marshal(totals)
	if err != nil {
		return err
	}
	_, err = h.ExecContext(ctx,
		`INSERT INTO sheet_total (assembly_id, revision, library_version, entries, problems, totals, can)
		VALUES ($1, $2, $3, $4, $5, CAST($6 AS jsonb), COALESCE(CAST($7 AS text[]), '{}'))
		ON CONFLICT ON CONSTRAINT sheet_total_pkey DO UPDATE
		SET revision = excluded.revision, library_version = excluded.library_version,
			entries = excluded.entries, problems = excluded.problems, totals = excluded.totals,
			can = excluded.can`,
		assemblyID, revision, libraryVersion, entries, problems, string(encoded), can)
	return err
}

// CountedBoard is what is counted on a board.
type CountedBoard struct {
	Chips    int   `db:"chips"`
	RAMBytes int64 `db:"ram_bytes"`
	ROMBytes int64 `db:"rom_bytes"`
}

// BoardsThatCan counts what is on boards whose chips can do something, but for one board; at most limit.
func BoardsThatCan(ctx context.Context, h pg.Handle, can string, but int64, limit int) ([]CountedBoard, error) {
	found := []CountedBoard{}
	err := h.SelectContext(ctx, &found, `SELECT CAST(t.totals->>'chips' AS integer) AS chips,
			CAST(t.totals->>'ramBytes' AS bigint) AS ram_bytes, CAST(t.totals->>'romBytes' AS bigint) AS rom_bytes
		FROM sheet_total t JOIN fitting f ON f.assembly_id = t.assembly_id AND f.until IS NULL
		WHERE t.can @> ARRAY[CAST($1 AS text)] AND t.assembly_id <> $2
		ORDER BY t.assembly_id LIMIT $3`, can, but, limit)
	return found, err
}

// AssembliesWithOldTotals lists assemblies whose totals come from another version of the library.
func AssembliesWithOldTotals(ctx context.Context, h pg.Handle, libraryVersion, limit int) ([]int64, error) {
	ids := []int64{}
	err := h.SelectContext(ctx, &ids,
		`SELECT assembly_id FROM sheet_total WHERE library_version <> $1 ORDER BY assembly_id LIMIT $2`, libraryVersion,
		limit)
	return ids, err
}
