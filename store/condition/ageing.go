package condition

import (
	"context"
	"time"

	"frugalheron/store/pg"
)

// AgeingRow is what a machine holds that ages, and what the ranking needs to know of the machine.
type AgeingRow struct {
	MachineID int64   `db:"machine_id"`
	Parts     string  `db:"parts"`
	Acquired  *string `db:"acquired"`
	EraFrom   *int    `db:"era_from"`
	Climate   string  `db:"climate"`
}

// A place of which nobody said the climate has that of the smallest one around it: places are written from the
// outside in, divided by commas.
const ageingSelect = `WITH standing AS MATERIALIZED (
		SELECT p.id, (SELECT a.climate FROM place a WHERE a.climate <> '' AND (a.id = p.id
		OR starts_with(p.name, a.name || ',')) ORDER BY length(a.name) DESC LIMIT 1) AS climate
		FROM place p)
	SELECT g.machine_id, g.parts, CAST(q.arrived_from AS text) AS acquired, m.era_from, COALESCE(p.climate,
	'') AS climate
	FROM machine_ageing g JOIN machine m ON m.id = g.machine_id LEFT JOIN standing p ON p.id = m.place_id
		LEFT JOIN lot_item i ON i.machine_id = m.id AND NOT i.voided LEFT
		JOIN acquisition q ON q.id = i.acquisition_id `

// Ageing lists what ages in all machines; with an id in that one.
func Ageing(ctx context.Context, h pg.Handle, machineID int64) ([]AgeingRow, error) {
	found := []AgeingRow{}
	err := h.SelectContext(ctx, &found,
		ageingSelect+`WHERE g.parts <> '' AND (CAST($1 AS bigint) = 0 OR g.machine_id = $1) ORDER BY g.machine_id`,
		machineID)
	return found, err
}

// BoardAgeingRow is what a board in no machine holds that ages, and where it lies.
type BoardAgeingRow struct {
	AssemblyID int64   `db:"assembly_id"`
	Parts      string  `db:"parts"`
	Climate    string  `db:"climate"`
	Acquired   *string `db:"acquired"` // when it came, by its lot; null where nobody knows
}

// BoardAgeing lists what ages on boards that are in no machine.
func BoardAgeing(ctx context.Context, h pg.Handle) ([]BoardAgeingRow, error) {
	found := []BoardAgeingRow{}
	err := h.SelectContext(ctx, &found, `SELECT g.assembly_id, g.parts, COALESCE((SELECT a.climate FROM place a
			WHERE a.climate <> '' AND (a.id = p.id OR starts_with(p.name, a.name || ','))
			ORDER BY length(a.name) DESC LIMIT 1), '') AS climate,
			CAST(q.arrived_from AS text) AS acquired
		FROM board_ageing g JOIN fitting f ON f.assembly_id = g.assembly_id AND f.until IS NULL
		LEFT JOIN place p ON p.id = f.place_id
		LEFT JOIN lot_item i ON i.assembly_id = g.assembly_id AND NOT i.voided
		LEFT JOIN acquisition q ON q.id = i.acquisition_id WHERE f.machine_id IS NULL AND g.parts <> ''
		ORDER BY g.assembly_id`)
	return found, err
}

// PutBoardAgeing writes what ages on a board that is in no machine.
func PutBoardAgeing(ctx context.Context, h pg.Handle, assemblyID int64, parts string, rules int) error {
	_, err := h.ExecContext(ctx, `INSERT INTO board_ageing (assembly_id, parts, rules) VALUES ($1, $2, $3)
		ON CONFLICT ON CONSTRAINT board_ageing_pkey DO UPDATE SET parts = excluded.parts, rules = excluded.rules`,
		assemblyID, parts, rules)
	return err
}

// DropBoardAgeing takes a board off the list that is in a machine now, or was struck out.
func DropBoardAgeing(ctx context.Context, h pg.Handle, assemblyID int64) error {
	_, err := h.ExecContext(ctx, `DELETE FROM board_ageing WHERE assembly_id = $1`, assemblyID)
	return err
}

// BoardsWithOldAgeing lists boards in no machine whose parts were told by other rules, or not yet.
func BoardsWithOldAgeing(ctx context.Context, h pg.Handle, rules, limit int) ([]int64, error) {
	ids := []int64{}
	err := h.SelectContext(ctx, &ids, `SELECT f.assembly_id FROM fitting f
		LEFT JOIN board_ageing g ON g.assembly_id = f.assembly_id WHERE f.until IS NULL AND f.machine_id IS NULL
		AND (g.assembly_id IS NULL OR g.rules <> $1) ORDER BY f.assembly_id LIMIT $2`, rules, limit)
	return ids, err
}

// LooseBoard is a board that is in no machine, and where it is.
type LooseBoard struct {
	ID    int64  `db:"id"`
	Title string `db:"title"`
	Place string `db:"place"`
}

// LooseBoards reads how some boards are called that are in no machine.
func LooseBoards(ctx context.Context, h pg.Handle, ids []int64) ([]LooseBoard, error) {
	found := []LooseBoard{}
	err := h.SelectContext(ctx, &found, `SELECT a.id, a.title, COALESCE(p.name, NULLIF(f.lent_to, ''), '') AS place
		FROM assembly a JOIN fitting f ON f.assembly_id = a.id AND f.until IS NULL
		LEFT JOIN place p ON p.id = f.place_id WHERE a.id = ANY (CAST($1 AS bigint[])) AND f.machine_id IS NULL`, ids)
	return found, err
}

// LockAgeing keeps others from writing what ages in a machine until the transaction ends. Who reads what it
// follows from after this misses nothing that was written before.
func LockAgeing(ctx context.Context, h pg.Handle, machineID int64) error {
	_, err := h.ExecContext(ctx,
		`INSERT INTO machine_ageing (machine_id, parts) VALUES ($1, '')
			ON CONFLICT ON CONSTRAINT machine_ageing_pkey DO NOTHING`, machineID)
	if err != nil {
		return err
	}
	_, err = h.ExecContext(ctx, `SELECT 1 FROM machine_ageing WHERE machine_id = $1 FOR UPDATE`, machineID)
	return err
}

// PutAgeing writes what ages in a machine.
func PutAgeing(ctx context.Context, h pg.Handle, machineID int64, parts string, rules int) error {
	_, err := h.ExecContext(ctx, `INSERT INTO machine_ageing (machine_id, parts, rules) VALUES ($1, $2, $3)
		ON CONFLICT ON CONSTRAINT machine_ageing_pkey DO UPDATE SET parts = excluded.parts, rules = excluded.rules`,
		machineID, parts, rules)
	return err
}

// MachinesWithOldAgeing lists machines whose parts were told by other rules, or not yet.
func MachinesWithOldAgeing(ctx context.Context, h pg.Handle, rules, limit int) ([]int64, error) {
	ids := []int64{}
	err := h.SelectContext(ctx, &ids, `SELECT m.id FROM machine m LEFT JOIN machine_ageing g ON g.machine_id = m.id
		WHERE g.machine_id IS NULL OR g.rules <> $1 ORDER BY m.id LIMIT $2`, rules, limit)
	return ids, err
}

// HeldPart is a line of a sheet of a machine, as far as it tells what a part is.
type HeldPart struct {
	AssemblyID int64   `db:"assembly_id"`
	Board      string  `db:"board"`
	BoardKind  string  `db:"board_kind"`
	Line       int     `db:"line"`
	Places     string  `db:"places"` // designators, with spaces between
	Count      int     `db:"count"`
	Kind       string  `db:"kind"`
	Class      string  `db:"class"`
	Ages       string  `db:"ages"` // how it ages, by its type
	Marking    string  `db:"marking"`
	Socketed   bool    `db:"socketed"`
	Findings   string  `db:"findings"`  // as the sheet has them, each with its !
	Made       *string `db:"made"`      // last day of its date code
	New        *string `db:"new_since"` // since when it is new, in EDTF
}

const heldSelect = `SELECT e.assembly_id, a.title AS board, a.kind AS board_kind, e.line,
	array_to_string(e.designators, ' ') AS places, e.count, e.kind, e.type_class AS class, e.type_ages AS ages,
	e.marking, e.socketed, CAST(e.date_to AS text) AS made, e.new_since,
	COALESCE((SELECT string_agg('!' || (x->>'kind') || COALESCE(': ' || NULLIF(x->>'note', ''), ''), ' ')
	FROM jsonb_array_elements(e.findings) x), '') AS findings
	FROM entry e JOIN assembly a ON a.id = e.assembly_id `

// HeldParts lists the parts that a machine holds today; empty sockets are none.
func HeldParts(ctx context.Context, h pg.Handle, machineID int64) ([]HeldPart, error) {
	found := []HeldPart{}
	err := h.SelectContext(ctx, &found, heldSelect+`JOIN fitting f ON f.assembly_id = a.id
		WHERE f.machine_id = $1 AND f.until IS NULL AND a.kind <> 'exterior' AND NOT e.empty
		ORDER BY f.ordinal, a.id, e.line`, machineID)
	return found, err
}

// PartsOnBoard lists the parts that a board holds; empty sockets are none.
func PartsOnBoard(ctx context.Context, h pg.Handle, assemblyID int64) ([]HeldPart, error) {
	found := []HeldPart{}
	err := h.SelectContext(ctx, &found, heldSelect+`WHERE a.id = $1 AND NOT e.empty ORDER BY e.line`, assemblyID)
	return found, err
}

// ReadOut is that a chip was read out.
type ReadOut struct {
	AssemblyID int64     `db:"assembly_id"`
	Designator string    `db:"designator"`
	On         string    `db:"read_on"`
	At         time.Time `db:"at"`
}

// ReadOuts lists when the chips of a machine's boards were read out, or those of one board.
func ReadOuts(ctx context.Context, h pg.Handle, machineID, assemblyID int64) ([]ReadOut, error) {
	found := []ReadOut{}
	err := h.SelectContext(ctx, &found, `SELECT r.assembly_id, r.designator, CAST(r.read_on AS text) AS read_on, r.at
		FROM rom_read r WHERE NOT r.voided AND (r.assembly_id = $2 OR r.assembly_id IN
		(SELECT f.assembly_id FROM fitting f WHERE f.machine_id = $1 AND f.until IS NULL)) ORDER BY r.id`, machineID,
		assemblyID)
	return found, err
}

// UpkeepLook is when parts of a class on a board were last dealt with, or looked at, in the course of upkeep.
type UpkeepLook struct {
	Class    string `db:"of_class"`
	Assembly int64  `db:"board"`
	On       string `db:"done_on"`
}

// UpkeepLooks lists them for the boards of a machine, or for one board.
func UpkeepLooks(ctx context.Context, h pg.Handle, machineID, assemblyID int64) ([]UpkeepLook, error) {
	found := []UpkeepLook{}
	err := h.SelectContext(ctx, &found, `WITH here AS (SELECT f.assembly_id AS id FROM fitting f WHERE f.machine_id = $1
			AND f.until IS NULL UNION SELECT CAST($2 AS bigint))
		SELECT d.of_class, h.id AS board, CAST(max(d.done_on) AS text) AS done_on
		FROM upkeep_deed d JOIN here h ON h.id = ANY (d.boards)
		WHERE d.boards && ARRAY(SELECT id FROM here) AND NOT d.voided AND d.how <> 'not' GROUP BY d.of_class, h.id`,
		machineID, assemblyID)
	return found, err
}

// BoardName is what an assembly is called.
type BoardName struct {
	ID    int64  `db:"id"`
	Kind  string `db:"kind"`
	Title string `db:"title"`
}

// BoardsIn lists what is fitted in a machine today, its outside with it.
func BoardsIn(ctx context.Context, h pg.Handle, machineID int64) ([]BoardName, error) {
	found := []BoardName{}
	err := h.SelectContext(ctx, &found, `SELECT a.id, a.kind, a.title FROM fitting f
		JOIN assembly a ON a.id = f.assembly_id WHERE f.machine_id = $1 AND f.until IS NULL ORDER BY f.ordinal, a.id`,
		machineID)
	return found, err
}

// AgeingSpot says what a part that ages is called, for the few that are shown.
type AgeingSpot struct {
	AssemblyID int64  `db:"assembly_id"`
	Line       int    `db:"line"`
	Board      string `db:"board"`
	Places     string `db:"places"`
	Marking    string `db:"marking"`
}

// AgeingSpots names the lines of sheets; a line that is not there any more is left out.
func AgeingSpots(ctx context.Context, h pg.Handle, assemblies []int64, lines []int) ([]AgeingSpot, error) {
	found := []AgeingSpot{}
	err := h.SelectContext(ctx, &found,
		`SELECT w.assembly_id, w.line, a.title AS board, COALESCE(array_to_string(e.designators, ' '), '') AS places,
			COALESCE(e.marking, '') AS marking
		FROM unnest(CAST($1 AS bigint[]), CAST($2 AS integer[])) AS w(assembly_id, line)
		JOIN assembly a ON a.id = w.assembly_id
			LEFT JOIN entry e ON e.assembly_id = w.assembly_id AND e.line = w.line`, assemblies, lines)
	return found, err
}

// MachineName is how a machine is called in a list.
type MachineName struct {
	ID        int64  `db:"id"`
	Accession string `db:"accession"`
	Name      string `db:"name"`
	Place     string `db:"place"`
}

// MachineNames reads how some machines are called.
func MachineNames(ctx context.Context, h pg.Handle, ids []int64) ([]MachineName, error) {
	found := []MachineName{}
	err := h.SelectContext(ctx, &found,
		`SELECT m.id, m.accession, m.name, COALESCE(p.name, '') AS place FROM machine m LEFT
			JOIN place p ON p.id = m.place_id WHERE m.id = ANY (CAST($1 AS bigint[]))`, ids)
	return found, err
}

// OpeningTimes estimates how long opening machines took, in minutes, by the last log of each that was put
// together on the day it was begun; machines without one are left out.
func OpeningTimes(ctx context.Context, h pg.Handle) (map[int64]int, error) {
	var rows []struct {
		MachineID int64 `db:"machine_id"`
		Minutes   int   `db:"minutes"`
	}
	err := h.SelectContext(ctx, &rows,
		`SELECT DISTINCT ON (machine_id) machine_id, CAST(ceil(extract(epoch
			FROM ended_at - started_at) / 60) AS integer) AS minutes
		FROM teardown WHERE outcome <> 'open' AND ended_at - started_at BETWEEN interval '5 minutes'
		AND interval '8 hours' ORDER BY machine_id, id DESC`)
	times := map[int64]int{}
	for _, r := range rows {
		times[r.MachineID] = r.Minutes
	}
	return times, err
}

// OwnClass is an ageing class as the collection has it, as JSON.
type OwnClass struct {
	Key string `db:"key"`
	pg.KeptDocument
}

// OwnClasses lists those that the collection changed.
func OwnClasses(ctx context.Context, h pg.Handle) ([]OwnClass, error) {
	found := []OwnClass{}
	err := h.SelectContext(ctx, &found,
		`SELECT key, CAST(body AS text) AS body, version FROM maintenance_class ORDER BY key`)
	return found, err
}

// PutOwnClass writes one, starting from a version; 0 for the first time. It reports false when it was changed
// since.
func PutOwnClass(ctx context.Context, h pg.Handle, key, body string, version int) (bool, error) {
	result, err := h.ExecContext(ctx,
		`INSERT INTO maintenance_class (key, body) SELECT $1, CAST($2 AS jsonb) WHERE CAST($3 AS bigint) = 0
			OR EXISTS (SELECT 1 FROM maintenance_class WHERE key = $1)
		ON CONFLICT ON CONSTRAINT maintenance_class_pkey DO UPDATE
		SET body = excluded.body, version = maintenance_class.version + 1 WHERE maintenance_class.version = $3`, key,
		body,
		version)
	if err != nil {
		return false, err
	}
	n, err := result.RowsAffected()
	return n == 1, err
}

// SetClimate says how a place treats what stands there, and returns what was said before.
func SetClimate(ctx context.Context, h pg.Handle, place, climate string) (before string, err error) {
	err = pg.Get(ctx, h, &before, "place "+place, `SELECT climate FROM place WHERE name = $1 FOR NO KEY UPDATE`, place)
	if err == nil {
		_, err = h.ExecContext(ctx, `UPDATE place SET climate = $2 WHERE name = $1`, place, climate)
	}
	return before, err
}
