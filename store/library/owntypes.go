package library

import (
	"context"
	"fmt"
	"strings"
	"time"

	"frugalheron/store/pg"
)

// OwnTypeFields are what people write about a type that the collection named itself.
type OwnTypeFields struct {
	Number    string  `db:"number"` // device number without speed and package, as HX9040
	Class     string  `db:"class"`
	Function  string  `db:"function"` // what the device does
	Words     int     `db:"words"`    // words a memory holds; 0 for other devices
	Bits      int     `db:"bits"`
	Package   string  `db:"package"`    // package and pins, as DIP-40
	ClockMHz  float64 `db:"clock_mhz"`  // rated clock in megahertz; 0 when not known
	TypicalMA float64 `db:"typical_ma"` // typical +5 V current in milliamperes; 0 when not known
	Notes     string  `db:"notes"`

	Maker       string `db:"maker"`
	Currents    string `db:"currents"`    // what it draws by rail, in milliamperes typically and at most, as +5 180/260, +12 20
	Ageing      string `db:"ageing"`      // how it ages, as: loses its charge
	Substitutes string `db:"substitutes"` // numbers that can take its place, with commas between
	Documents   string `db:"documents"`   // data sheets and the like, one a line
}

// OwnType is a type that the collection named itself.
type OwnType struct {
	ID int64 `db:"id"`
	OwnTypeFields
	Version   int       `db:"version"`
	UpdatedAt time.Time `db:"updated_at"`
}

const ownTypeColumns = `id, number, class, function, words, bits, package, clock_mhz, typical_ma, notes, maker, currents, ageing, substitutes, documents, version, updated_at`

// ListOwnTypes lists all, by number.
func ListOwnTypes(ctx context.Context, h pg.Handle) ([]OwnType, error) {
	types := []OwnType{}
	err := h.SelectContext(ctx, &types, `SELECT `+ownTypeColumns+` FROM own_type ORDER BY number`)
	return types, err
}

// OwnTypeByID reads a type. Whoever changes types holds the library's lock already.
func OwnTypeByID(ctx context.Context, h pg.Handle, id int64) (OwnType, error) {
	var t OwnType
	err := pg.Get(ctx, h, &t, fmt.Sprintf("own type %d", id), `SELECT `+ownTypeColumns+` FROM own_type WHERE id = $1`,
		id)
	return t, err
}

// InsertOwnType adds a type and returns its id: that which it had before, or a new one for 0. A number that is taken
// violates own_type_number_key.
func InsertOwnType(ctx context.Context, h pg.Handle, was int64, t OwnTypeFields) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO own_type (id, number, class, function, words, bits, package, clock_mhz, typical_ma, notes, maker,
			currents, ageing, substitutes, documents)
		OVERRIDING SYSTEM VALUE
		VALUES (COALESCE(NULLIF(CAST($15 AS bigint), 0), nextval(pg_get_serial_sequence('own_type', 'id'))),
			$1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14) RETURNING id`,
		t.Number, t.Class, t.Function, t.Words, t.Bits, t.Package, t.ClockMHz, t.TypicalMA, t.Notes, t.Maker,
		t.Currents, t.Ageing, t.Substitutes, t.Documents, was)
	return id, err
}

// UpdateOwnType writes all fields and counts the version up.
func UpdateOwnType(ctx context.Context, h pg.Handle, id int64, t OwnTypeFields) error {
	_, err := h.ExecContext(ctx,
		`UPDATE own_type SET number = $2, class = $3, function = $4, words = $5, bits = $6, package = $7,
			clock_mhz = $8, typical_ma = $9, notes = $10, maker = $11, currents = $12, ageing = $13, substitutes = $14,
			documents = $15, version = version + 1, updated_at = now() WHERE id = $1`,
		id, t.Number, t.Class, t.Function, t.Words, t.Bits, t.Package, t.ClockMHz, t.TypicalMA, t.Notes, t.Maker,
		t.Currents, t.Ageing, t.Substitutes, t.Documents)
	return err
}

// DeleteOwnType takes a type out of the library; its history stays.
func DeleteOwnType(ctx context.Context, h pg.Handle, id int64) error {
	_, err := h.ExecContext(ctx, `DELETE FROM own_type WHERE id = $1`, id)
	return err
}

// LibraryState tells how often own types were changed.
func LibraryState(ctx context.Context, h pg.Handle) (n int64, isOwn bool, err error) {
	return pg.StateOf(ctx, h,
		`SELECT n, COALESCE(xmin = CAST(pg_current_xact_id_if_assigned() AS xid), false) AS own FROM library_state`)
}

// libraryLock is the advisory lock on the library. A row's lock would not do: people who share one overtake whoever
// waits to write, for ever; here all wait in the order in which they came.
const libraryLock = 6001

// HoldLibrary does the same and keeps own types from changing until the transaction ends.
func HoldLibrary(ctx context.Context, h pg.Handle) (n int64, isOwn bool, err error) {
	if _, err := h.ExecContext(ctx, `SELECT pg_advisory_xact_lock_shared($1)`, libraryLock); err != nil {
		return 0, false, err
	}
	return LibraryState(ctx, h)
}

// LockLibrary waits until all transactions that hold the library have ended, and keeps others from holding it.
func LockLibrary(ctx context.Context, h pg.Handle) error {
	_, err := h.ExecContext(ctx, `SELECT pg_advisory_xact_lock($1)`, libraryLock)
	return err
}

// ChangeLibrary counts a change of the library that it has locked.
func ChangeLibrary(ctx context.Context, h pg.Handle) error {
	if err := LockLibrary(ctx, h); err != nil {
		return err
	}
	_, err := h.ExecContext(ctx, `UPDATE library_state SET n = n + 1`)
	return err
}

// AssembliesMarked lists assemblies whose sheets hold a number anywhere in a marking.
func AssembliesMarked(ctx context.Context, h pg.Handle, numbers []string) ([]int64, error) {
	patterns := make([]string, len(numbers))
	for i, number := range numbers {
		patterns[i] = "%" + pg.LikeEscaper.Replace(strings.ToUpper(number)) + "%"
	}
	ids := []int64{}
	err := h.SelectContext(ctx, &ids, `SELECT DISTINCT assembly_id FROM entry
		WHERE upper(translate(marking, 'µμ', 'UU')) LIKE ANY (CAST($1 AS text[])) ORDER BY assembly_id`, patterns)
	return ids, err
}

// CountOccurrences counts the parts of each type that are fitted somewhere today or lie in store.
func CountOccurrences(ctx context.Context, h pg.Handle, numbers []string) (map[string]int, error) {
	rows := []struct {
		Number string `db:"type_number"`
		Parts  int    `db:"parts"`
	}{}
	err := h.SelectContext(ctx, &rows, `SELECT type_number, sum(count) AS parts FROM entry
		WHERE type_number = ANY (CAST($1 AS text[])) AND NOT empty GROUP BY type_number`, numbers)
	counts := make(map[string]int, len(rows))
	for _, row := range rows {
		counts[row.Number] = row.Parts
	}
	return counts, err
}

// TypeHolder is a machine that holds parts of a type.
type TypeHolder struct {
	MachineID int64 `db:"machine_id"`
	Parts     int   `db:"parts"`
}

// HoldersOf lists the machines that hold parts of a type, at most limit.
func HoldersOf(ctx context.Context, h pg.Handle, number string, limit int) ([]TypeHolder, error) {
	found := []TypeHolder{}
	err := h.SelectContext(ctx, &found,
		`SELECT f.machine_id, sum(e.count) AS parts FROM entry e JOIN fitting f ON f.assembly_id = e.assembly_id
			AND f.until IS NULL
		WHERE e.type_number = $1 AND NOT e.empty AND f.machine_id IS NOT NULL GROUP BY f.machine_id
		ORDER BY f.machine_id LIMIT $2`, number, limit)
	return found, err
}

// Occurrence is a line of a sheet on which a type occurs.
type Occurrence struct {
	MachineID  *int64 `db:"machine_id"` // null for an assembly that is in no machine
	Accession  string `db:"accession"`
	Machine    string `db:"machine"`
	AssemblyID int64  `db:"assembly_id"`
	Assembly   string `db:"assembly"`
	Line       int    `db:"line"`
	Count      int    `db:"count"`
	Marking    string `db:"marking"`
}

// OccurrencesOf lists the lines on which a type occurs, by machine, at most limit.
func OccurrencesOf(ctx context.Context, h pg.Handle, number string, limit int) ([]Occurrence, error) {
	found := []Occurrence{}
	err := h.SelectContext(ctx, &found,
		`SELECT f.machine_id, COALESCE(m.accession, '') AS accession, COALESCE(m.name, '') AS machine,
			e.assembly_id, a.title AS assembly, e.line, e.count, e.marking
		FROM entry e JOIN assembly a ON a.id = e.assembly_id
		LEFT JOIN fitting f ON f.assembly_id = a.id AND f.until IS NULL
		LEFT JOIN machine m ON m.id = f.machine_id
		WHERE e.type_number = $1 AND NOT e.empty
		ORDER BY m.accession NULLS LAST, f.ordinal, e.assembly_id, e.line LIMIT $2`, number, limit)
	return found, err
}
