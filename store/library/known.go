package library

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// KnownFields are what people write about an assembly that is recognised wherever it is.
type KnownFields struct {
	Kind      string `db:"kind"`
	Name      string `db:"name"`
	Maker     string `db:"maker"`
	Numbers   string `db:"numbers"`   // part numbers, one a line
	Revisions string `db:"revisions"` // that it speaks of; empty for every one
	Printed   string `db:"printed"`   // words that tell it from others, one a line
	Chips     string `db:"chips"`     // types that tell it from others, one a line
	Details   string `db:"details"`   // in the notation of core/known
	Signs     string `db:"signs"`     // what it shows, in the notation of core/sign
	Note      string `db:"note"`
	Source    string `db:"source"` // how one knows
}

// Known is a known assembly.
type Known struct {
	ID int64 `db:"id"`
	KnownFields
	Struck    bool      `db:"struck"` // it was named by mistake
	Version   int       `db:"version"`
	UpdatedAt time.Time `db:"updated_at"`
}

const knownSelect = `SELECT k.id, k.kind, k.name, k.maker, k.numbers, k.revisions, k.printed, k.chips, k.details, k.signs,
	k.note, k.source, k.struck, k.version, k.updated_at FROM known_assembly k `

// KnownState tells how often known assemblies were changed.
func KnownState(ctx context.Context, h pg.Handle) (n int64, isOwn bool, err error) {
	return pg.StateOf(ctx, h,
		`SELECT n, COALESCE(xmin = CAST(pg_current_xact_id_if_assigned() AS xid), false) AS own FROM known_state`)
}

// changeKnown counts a change of known assemblies.
func changeKnown(ctx context.Context, h pg.Handle) error {
	_, err := h.ExecContext(ctx, `UPDATE known_state SET n = n + 1`)
	return err
}

// InsertKnown adds a known assembly and returns its id.
func InsertKnown(ctx context.Context, h pg.Handle, f KnownFields) (int64, error) {
	if err := changeKnown(ctx, h); err != nil {
		return 0, err
	}
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO known_assembly (kind, name, maker, numbers, revisions, printed, chips, details, signs, note,
			source) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11) RETURNING id`,
		f.Kind, f.Name, f.Maker, f.Numbers, f.Revisions, f.Printed, f.Chips, f.Details, f.Signs, f.Note, f.Source)
	return id, err
}

// UpdateKnown writes all fields and counts the version up. The caller holds the row's lock.
func UpdateKnown(ctx context.Context, h pg.Handle, id int64, f KnownFields) error {
	if err := changeKnown(ctx, h); err != nil {
		return err
	}
	_, err := h.ExecContext(ctx,
		`UPDATE known_assembly SET kind = $2, name = $3, maker = $4, numbers = $5, revisions = $6, printed = $7,
			chips = $8, details = $9, signs = $10, note = $11, source = $12, version = version + 1, updated_at = now()
			WHERE id = $1`, id, f.Kind, f.Name, f.Maker, f.Numbers, f.Revisions, f.Printed, f.Chips, f.Details, f.Signs,
		f.Note, f.Source)
	return err
}

// StrikeKnown takes a known assembly out of what is recognised, or back into it. The caller holds the row's lock.
func StrikeKnown(ctx context.Context, h pg.Handle, id int64, struck bool) error {
	if err := changeKnown(ctx, h); err != nil {
		return err
	}
	_, err := h.ExecContext(ctx,
		`UPDATE known_assembly SET struck = $2, version = version + 1, updated_at = now() WHERE id = $1`, id, struck)
	return err
}

// KnownByID reads a known assembly.
func KnownByID(ctx context.Context, h pg.Handle, id int64) (Known, error) {
	var k Known
	err := pg.Get(ctx, h, &k, fmt.Sprintf("known assembly %d", id), knownSelect+`WHERE k.id = $1`, id)
	return k, err
}

// LockKnown keeps others from changing a known assembly until the transaction ends, and reads it.
func LockKnown(ctx context.Context, h pg.Handle, id int64) (Known, error) {
	if _, err := h.ExecContext(ctx, `SELECT 1 FROM known_assembly WHERE id = $1 FOR NO KEY UPDATE`, id); err != nil {
		return Known{}, err
	}
	return KnownByID(ctx, h, id)
}

// AllKnown lists what is recognised.
func AllKnown(ctx context.Context, h pg.Handle) ([]Known, error) {
	found := []Known{}
	err := h.SelectContext(ctx, &found, knownSelect+`WHERE NOT k.struck ORDER BY k.id`)
	return found, err
}

// ListKnown lists a page of known assemblies that hold all words, by name, behind one; 0 lists from the start.
func ListKnown(ctx context.Context, h pg.Handle, words []string, after int64, limit int) ([]Known, error) {
	where, args := pg.LikeAll(
		`lower(k.name || ' ' || k.maker || ' ' || k.kind || ' ' || k.numbers || ' ' || k.printed)`, words,
		[]any{after, limit})
	if where != "" {
		where = ` AND ` + where
	}
	found := []Known{}
	err := h.SelectContext(ctx, &found, knownSelect+`WHERE NOT k.struck
		AND (lower(k.name), k.id) > (COALESCE((SELECT lower(name) FROM known_assembly WHERE id = $1), ''),
			CAST($1 AS bigint))`+where+` ORDER BY lower(k.name), k.id LIMIT $2`, args...)
	return found, err
}

// KnownThing is an assembly that is fitted or lies somewhere, by what it can be recognised.
type KnownThing struct {
	AssemblyID int64  `db:"assembly_id"`
	Title      string `db:"title"`
	Part       string `db:"part"`
	Rev        string `db:"rev"`
	MachineID  *int64 `db:"machine_id"` // null for one that is in no machine
	Accession  string `db:"accession"`
	Machine    string `db:"machine"`
	Place      string `db:"place"` // where it lies, when it is in none
	RAMBytes   int64  `db:"ram_bytes"`
}

const thingSelect = `SELECT a.id AS assembly_id, a.title, a.part, a.rev, f.machine_id,
	COALESCE(m.accession, '') AS accession, COALESCE(m.name, '') AS machine, COALESCE(p.name, '') AS place,
	COALESCE(CAST(t.totals->>'ramBytes' AS bigint), 0) AS ram_bytes
	FROM assembly a JOIN fitting f ON f.assembly_id = a.id AND f.until IS NULL
	LEFT JOIN machine m ON m.id = f.machine_id LEFT JOIN place p ON p.id = f.place_id
	LEFT JOIN sheet_total t ON t.assembly_id = a.id `

// ThingsOf reads assemblies by their ids.
func ThingsOf(ctx context.Context, h pg.Handle, assemblyIDs []int64) ([]KnownThing, error) {
	found := []KnownThing{}
	err := h.SelectContext(ctx, &found, thingSelect+`WHERE a.id = ANY (CAST($1 AS bigint[]))
		ORDER BY f.ordinal, a.id`, assemblyIDs)
	return found, err
}

// ThingsLike lists assemblies that may be known by one of some numbers, folded, with or without their revision behind it,
// or by words in their titles; at most limit.
func ThingsLike(ctx context.Context, h pg.Handle, keys, words []string, limit int) ([]KnownThing, error) {
	found := []KnownThing{}
	err := h.SelectContext(ctx, &found, thingSelect+`WHERE a.kind <> 'exterior' AND a.id IN (
			SELECT b.id FROM unnest(CAST($1 AS text[])) key JOIN assembly b ON b.part_key <> ''
				AND b.part_key ~>=~ key AND b.part_key ~<~ (key || chr(65533))
				AND (length(b.part_key) <= length(key) + 2 OR substr(b.part_key, length(key) + 1, 3) = 'REV')
			UNION SELECT b.id FROM unnest(CAST($2 AS text[])) pattern JOIN assembly b ON b.search LIKE pattern)
		ORDER BY m.accession NULLS LAST, f.ordinal, a.id LIMIT $3`, keys, pg.Holding(words), limit)
	return found, err
}

// ThingsWithChips lists assemblies on which at least so many chips of some types stand; at most limit.
func ThingsWithChips(ctx context.Context, h pg.Handle, numbers []string, least, limit int) ([]KnownThing, error) {
	found := []KnownThing{}
	err := h.SelectContext(ctx, &found, thingSelect+`WHERE a.id IN (
			SELECT e.assembly_id FROM entry e WHERE e.type_number = ANY (CAST($1 AS text[])) AND NOT e.empty
			AND NOT e.doubtful AND e.kind = 'chip' GROUP BY e.assembly_id HAVING sum(e.count) >= $2)
		ORDER BY m.accession NULLS LAST, f.ordinal, a.id LIMIT $3`, numbers, least, limit)
	return found, err
}

// ChipCount is how many chips of a type stand on an assembly.
type ChipCount struct {
	AssemblyID int64  `db:"assembly_id"`
	Number     string `db:"type_number"`
	Count      int    `db:"count"`
}

// ChipsOf counts the identified chips of assemblies by type.
func ChipsOf(ctx context.Context, h pg.Handle, assemblyIDs []int64) ([]ChipCount, error) {
	found := []ChipCount{}
	err := h.SelectContext(ctx, &found, `SELECT assembly_id, type_number, sum(count) AS count FROM entry
		WHERE assembly_id = ANY (CAST($1 AS bigint[])) AND kind = 'chip' AND type_number <> '' AND NOT empty
		AND NOT doubtful GROUP BY assembly_id, type_number`, assemblyIDs)
	return found, err
}

// RarestTypes orders types by on how many lines of all sheets they stand, the rarest first.
func RarestTypes(ctx context.Context, h pg.Handle, numbers []string) ([]string, error) {
	found := []string{}
	err := h.SelectContext(ctx, &found, `SELECT number FROM unnest(CAST($1 AS text[])) number ORDER BY
		(SELECT count(*) FROM (SELECT 1 FROM entry e WHERE e.type_number = number LIMIT 10000) lines), number`, numbers)
	return found, err
}

// NumberInUse is a part number that stands on assemblies.
type NumberInUse struct {
	Key        string `db:"part_key"` // folded
	Part       string `db:"part"`     // as it stands on one
	Title      string `db:"title"`    // of that one
	Kind       string `db:"kind"`
	AssemblyID int64  `db:"assembly_id"`
	MachineID  *int64 `db:"machine_id"`
	Accession  string `db:"accession"`
	Machine    string `db:"machine"`
	Parts      int    `db:"parts"`    // assemblies with it
	Machines   int    `db:"machines"` // that they are in
}

// NumbersInUse lists part numbers that are none of some, folded, of a machine, or with 0 of all: what stands on most
// first, at most limit.
func NumbersInUse(ctx context.Context, h pg.Handle, machineID int64, but []string, limit int) ([]NumberInUse, error) {
	found := []NumberInUse{}
	err := h.SelectContext(ctx, &found, `SELECT n.part_key, a.part, a.title, a.kind, n.assembly_id, f.machine_id,
			COALESCE(m.accession, '') AS accession, COALESCE(m.name, '') AS machine, n.parts, n.machines
		FROM (SELECT a.part_key, min(a.id) AS assembly_id, count(*) AS parts, count(DISTINCT f.machine_id) AS machines
			FROM assembly a JOIN fitting f ON f.assembly_id = a.id AND f.until IS NULL
			WHERE a.part_key <> '' AND a.kind <> 'exterior' AND (CAST($1 AS bigint) = 0 OR f.machine_id = $1)
			AND a.part_key <> ALL (COALESCE(CAST($2 AS text[]), '{}'))
			GROUP BY a.part_key ORDER BY parts DESC, a.part_key LIMIT $3) n
		JOIN assembly a ON a.id = n.assembly_id JOIN fitting f ON f.assembly_id = a.id AND f.until IS NULL
		LEFT JOIN machine m ON m.id = f.machine_id ORDER BY n.parts DESC, n.part_key`, machineID, but, limit)
	return found, err
}
