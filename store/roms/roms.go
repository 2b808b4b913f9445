package roms

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// RomFields are what people write about the content of a read-only memory.
type RomFields struct {
	Name    string `db:"name"`    // what it is, as Monitor; known wherever the content is met
	Edition string `db:"version"` // version of the content, as 1.1
	Note    string `db:"note"`
	Public  bool   `db:"public"` // viewers may have the bytes; sums are for everybody
}

// RomImage is the content of a read-only memory, known by its SHA-256.
type RomImage struct {
	ID        int64  `db:"id"`
	SHA256    string `db:"sha256"`
	Bytes     int    `db:"bytes"`
	CRC32     string `db:"crc32"`
	SHA1      string `db:"sha1"`
	Effective string `db:"effective"` // SHA-256 of one copy of what repeats: it is the same for the same content in a larger device
	RomFields
	MadeFrom string    `db:"made_from"` // for one that was put together or taken apart here, from what
	Version  int       `db:"changes"`   // counts changes; a change names the version it started from
	At       time.Time `db:"at"`

	ReadFirst string `db:"read_first"` // where and when, in words; empty for one that was read from no chip
}

const romColumns = `i.id, i.sha256, i.bytes, i.crc32, i.sha1, i.effective, i.name, i.version, i.note, i.public, i.made_from, i.changes, i.at,
	` + readFirst + ` AS read_first`

// readFirst says where an image was read first, as U9 of EH-0113, 2026-04-02: until somebody names it, it is called so.
const readFirst = `COALESCE((SELECT concat(r.designator, ' of ', COALESCE(m.accession, a.title), ', ', r.read_on)
	FROM rom_read r JOIN assembly a ON a.id = r.assembly_id
	LEFT JOIN fitting f ON f.assembly_id = a.id AND f.since <= r.at AND (f.until IS NULL OR f.until > r.at)
	LEFT JOIN machine m ON m.id = f.machine_id
	WHERE r.sha256 = i.sha256 AND NOT r.voided ORDER BY r.id, f.since DESC LIMIT 1), '')`

// PutRom notes an image unless it is noted, and reports whether it is new.
func PutRom(ctx context.Context, h pg.Handle, by *int64, i RomImage, inspection any) (bool, error) {
	encoded, err := json.Marshal(inspection)
	if err != nil {
		return false, err
	}
	result, err := h.ExecContext(ctx,
		`INSERT INTO rom_image (sha256, bytes, crc32, sha1, effective, inspection, made_from, account_id)
		VALUES ($1, $2, $3, $4, $5, CAST($6 AS jsonb), $7, $8)
		ON CONFLICT ON CONSTRAINT rom_image_sha256_key DO NOTHING`,
		i.SHA256, i.Bytes, i.CRC32, i.SHA1, i.Effective, string(encoded), i.MadeFrom, by)
	if err != nil {
		return false, err
	}
	n, err := result.RowsAffected()
	return n > 0, err
}

// UpdateRom writes all fields and counts the change. The caller holds the row's lock.
func UpdateRom(ctx context.Context, h pg.Handle, sha256 string, f RomFields) error {
	_, err := h.ExecContext(ctx,
		`UPDATE rom_image SET name = $2, version = $3, note = $4, public = $5, changes = changes + 1 WHERE sha256 = $1`,
		sha256, f.Name, f.Edition, f.Note, f.Public)
	return err
}

// RomBySHA reads an image's record.
func RomBySHA(ctx context.Context, h pg.Handle, sha256 string) (RomImage, error) {
	return romBy(ctx, h, sha256, "")
}

// LockRom does so and keeps others from changing it until the transaction ends.
func LockRom(ctx context.Context, h pg.Handle, sha256 string) (RomImage, error) {
	return romBy(ctx, h, sha256, " FOR NO KEY UPDATE")
}

func romBy(ctx context.Context, h pg.Handle, sha256, lock string) (RomImage, error) {
	var i RomImage
	err := pg.Get(ctx, h, &i, "image "+sha256, `SELECT `+romColumns+` FROM rom_image i WHERE i.sha256 = $1`+lock,
		sha256)
	return i, err
}

// RomInspection reads what was found in an image, as JSON.
func RomInspection(ctx context.Context, h pg.Handle, sha256 string) (string, error) {
	var encoded string
	err := pg.Get(ctx, h, &encoded, "image "+sha256, `SELECT CAST(inspection AS text) FROM rom_image WHERE sha256 = $1`,
		sha256)
	return encoded, err
}

// ListedRom is an image of a list, with where it sits.
type ListedRom struct {
	RomImage
	Sockets int `db:"sockets"` // sockets in which it was read
}

// ListRoms lists images by name and version; words must all occur in name, version, note or a sum; with public not in
// the note.
func ListRoms(ctx context.Context, h pg.Handle, words []string, public bool, skip, limit int) ([]ListedRom, error) {
	said := `i.name, i.version, i.sha256, i.sha1, i.crc32`
	if !public {
		said += `, i.note`
	}
	where, args := pg.LikeAll(`lower(concat_ws(' ', `+said+`))`, words, []any{skip, limit})
	where = pg.AnyWord(where)
	found := []ListedRom{}
	err := h.SelectContext(ctx, &found, `SELECT `+romColumns+`,
			(SELECT count(DISTINCT (r.assembly_id, r.designator)) FROM rom_read r
				WHERE r.sha256 = i.sha256 AND NOT r.voided) AS sockets
		FROM rom_image i WHERE `+where+
		` ORDER BY i.name = '', lower(i.name), i.version, i.at, i.sha256 OFFSET $1 LIMIT $2`, args...)
	return found, err
}

// SameContent lists other images with the same content in another number of copies.
func SameContent(ctx context.Context, h pg.Handle, i RomImage) ([]RomImage, error) {
	found := []RomImage{}
	err := h.SelectContext(ctx, &found,
		`SELECT `+romColumns+` FROM rom_image i WHERE i.effective = $1 AND i.sha256 <> $2 ORDER BY i.bytes`,
		i.Effective, i.SHA256)
	return found, err
}

// RomRead is a reading of the chip in a socket.
type RomRead struct {
	ID         int64     `db:"id"`
	SHA256     string    `db:"sha256"`
	AssemblyID int64     `db:"assembly_id"`
	Designator string    `db:"designator"`
	Label      string    `db:"label"`     // what stands on the chip
	Marking    string    `db:"marking"`   // what the sheet said of the chip then
	Revision   int       `db:"revision"`  // of the sheet, then
	Method     string    `db:"method"`    // how it was read
	ReadOn     string    `db:"read_on"`   // YYYY-MM-DD
	Exception  string    `db:"exception"` // why no second reading can be had; empty when one can
	Voided     bool      `db:"voided"`
	By         string    `db:"by_name"`
	At         time.Time `db:"at"`
}

const romReadSelect = `SELECT r.id, r.sha256, r.assembly_id, r.designator, r.label, r.marking, r.revision, r.method,
	CAST(r.read_on AS text) AS read_on, r.exception, r.voided,
	COALESCE(c.name, '') AS by_name, r.at FROM rom_read r LEFT JOIN account c ON c.id = r.account_id `

// ReadChip is a chip whose content is known, with what the lab found in it.
type ReadChip struct {
	Board      string `db:"board"`
	Designator string `db:"designator"`
	Bytes      int64  `db:"bytes"`
	Effective  int64  `db:"effective"` // without what repeats
	Blank      int64  `db:"blank"`     // of these, bytes of blank runs
	Purpose    string `db:"purpose"`   // what its line says that memory is for
}

// ReadChipsIn lists the chips of a machine's boards by their newest readings; none that is not there any more.
func ReadChipsIn(ctx context.Context, h pg.Handle, machineID int64) ([]ReadChip, error) {
	found := []ReadChip{}
	err := h.SelectContext(ctx, &found, `SELECT DISTINCT ON (f.ordinal, a.id, r.designator) a.title AS board, r.designator,
			i.bytes, CAST(i.inspection->>'effectiveBytes' AS bigint) AS effective,
			LEAST(CAST(i.inspection->>'blankBytes' AS bigint), CAST(i.inspection->>'effectiveBytes' AS bigint)) AS blank,
			e.purpose
		FROM fitting f JOIN assembly a ON a.id = f.assembly_id JOIN rom_read r ON r.assembly_id = a.id AND NOT r.voided
		JOIN rom_image i ON i.sha256 = r.sha256
		JOIN entry e ON e.assembly_id = a.id AND r.designator = ANY (e.designators) AND NOT e.empty
		WHERE f.machine_id = $1 AND f.until IS NULL ORDER BY f.ordinal, a.id, r.designator, r.id DESC`, machineID)
	return found, err
}

// InsertRomRead notes a reading and returns its id.
func InsertRomRead(ctx context.Context, h pg.Handle, by *int64, r RomRead) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO rom_read (sha256, assembly_id, designator, label, marking, revision, method, read_on, exception,
			account_id)
		VALUES ($1, $2, $3, $4, $5, $6, $7, CAST($8 AS date), $9, $10) RETURNING id`,
		r.SHA256, r.AssemblyID, r.Designator, r.Label, r.Marking, r.Revision, r.Method, r.ReadOn, r.Exception, by)
	return id, err
}

// RomReadByID reads one.
func RomReadByID(ctx context.Context, h pg.Handle, id int64) (RomRead, error) {
	var r RomRead
	err := pg.Get(ctx, h, &r, fmt.Sprintf("reading %d", id), romReadSelect+`WHERE r.id = $1`, id)
	return r, err
}

// VoidRomRead takes a reading out of all lists, or puts it back.
func VoidRomRead(ctx context.Context, h pg.Handle, id int64, voided bool) error {
	_, err := h.ExecContext(ctx, `UPDATE rom_read SET voided = $2 WHERE id = $1`, id, voided)
	return err
}

// ExceptRomRead says why a reading counts alone; empty for one that does not.
func ExceptRomRead(ctx context.Context, h pg.Handle, id int64, why string) error {
	_, err := h.ExecContext(ctx, `UPDATE rom_read SET exception = $2 WHERE id = $1`, id, why)
	return err
}

// RomReadsOf lists the readings of assemblies, the oldest first.
func RomReadsOf(ctx context.Context, h pg.Handle, assemblyIDs []int64) ([]RomRead, error) {
	found := []RomRead{}
	err := h.SelectContext(ctx, &found,
		romReadSelect+`WHERE r.assembly_id = ANY (CAST($1 AS bigint[])) AND NOT r.voided ORDER BY r.read_on, r.id`,
		assemblyIDs)
	return found, err
}

// RomImages reads the records of images, by SHA-256.
func RomImages(ctx context.Context, h pg.Handle, sums []string) (map[string]RomImage, error) {
	found := []RomImage{}
	err := h.SelectContext(ctx, &found,
		`SELECT `+romColumns+` FROM rom_image i WHERE i.sha256 = ANY (CAST($1 AS text[]))`, sums)
	byName := make(map[string]RomImage, len(found))
	for _, i := range found {
		byName[i.SHA256] = i
	}
	return byName, err
}

// RomHolder is a socket in which an image was read last.
type RomHolder struct {
	SHA256     string `db:"sha256"`
	MachineID  *int64 `db:"machine_id"`
	Accession  string `db:"accession"`
	Machine    string `db:"machine"`
	Model      string `db:"model"`
	AssemblyID int64  `db:"assembly_id"`
	Assembly   string `db:"assembly"`
	Part       string `db:"part"` // part number of the assembly
	Designator string `db:"designator"`
	Label      string `db:"label"`
	ReadOn     string `db:"read_on"`
}

const holderSelect = `SELECT DISTINCT ON (r.assembly_id, r.designator) r.sha256, f.machine_id, COALESCE(m.accession,
	'') AS accession, COALESCE(m.name, '') AS machine,
		COALESCE(m.maker || ' ' || m.model, '') AS model, r.assembly_id, a.title AS assembly, a.part, r.designator,
		r.label, CAST(r.read_on AS text) AS read_on
	FROM rom_read r JOIN assembly a ON a.id = r.assembly_id
	LEFT JOIN fitting f ON f.assembly_id = a.id AND f.until IS NULL LEFT JOIN machine m ON m.id = f.machine_id
	WHERE NOT r.voided `

// RomHolders lists the sockets in which one of some images was read last.
func RomHolders(ctx context.Context, h pg.Handle, sums []string) ([]RomHolder, error) {
	found := []RomHolder{}
	err := h.SelectContext(ctx, &found,
		`SELECT * FROM (`+holderSelect+`ORDER BY r.assembly_id, r.designator, r.read_on DESC, r.id DESC) h
		WHERE h.sha256 = ANY (CAST($1 AS text[])) ORDER BY h.accession, h.assembly, h.designator LIMIT 500`, sums)
	return found, err
}

// ImageOfModel is an image that was read on machines of a model.
type ImageOfModel struct {
	SHA256   string `db:"sha256"`
	Name     string `db:"name"`
	Version  string `db:"version"`
	Bytes    int64  `db:"bytes"`
	Machines string `db:"machines"` // their accession numbers, with commas between
}

// ImagesOfModel lists the images that were read on machines of a model, by name and version, at most limit.
func ImagesOfModel(ctx context.Context, h pg.Handle, modelID int64, limit int) ([]ImageOfModel, error) {
	found := []ImageOfModel{}
	err := h.SelectContext(ctx, &found, `SELECT i.sha256, i.name, i.version, i.bytes,
			string_agg(DISTINCT m.accession, ', ' ORDER BY m.accession) AS machines
		FROM machine m JOIN fitting f ON f.machine_id = m.id AND f.until IS NULL
		JOIN rom_read r ON r.assembly_id = f.assembly_id AND NOT r.voided JOIN rom_image i ON i.sha256 = r.sha256
		WHERE m.model_id = $1 GROUP BY i.sha256, i.name, i.version, i.bytes
		ORDER BY i.name = '', lower(i.name), i.version, i.sha256 LIMIT $2`, modelID, limit)
	return found, err
}

// Siblings lists what was read last in the same socket of other assemblies of the same part number, or of
// the same title in machines of the same model.
func Siblings(ctx context.Context, h pg.Handle, assemblyID int64, designator string) ([]RomHolder, error) {
	found := []RomHolder{}
	err := h.SelectContext(ctx, &found, holderSelect+`AND r.designator = $2 AND r.assembly_id <> $1 AND EXISTS (
			SELECT 1 FROM assembly o LEFT JOIN fitting g ON g.assembly_id = o.id AND g.until IS NULL LEFT
			JOIN machine n ON n.id = g.machine_id
			WHERE o.id = $1 AND (o.part_key <> '' AND o.part_key = a.part_key OR o.title = a.title AND (n.model_id = m.model_id
			OR n.model <> '' AND n.maker = m.maker AND n.model = m.model)))
		ORDER BY r.assembly_id, r.designator, r.read_on DESC, r.id DESC LIMIT 100`, assemblyID, designator)
	return found, err
}

// RomSocket is a line of a kept sheet that names read-only memories.
type RomSocket struct {
	AssemblyID  int64  `db:"assembly_id"`
	Line        int    `db:"line"`
	Designators string `db:"designators"` // with spaces between
	Marking     string `db:"marking"`
	TypeNumber  string `db:"type_number"`
	Empty       bool   `db:"empty"`
}

// RomSocketsOf lists the lines of assemblies that name types of some classes, those of read-only memories, in
// the order of the sheets.
func RomSocketsOf(ctx context.Context, h pg.Handle, assemblyIDs []int64, classes []string) ([]RomSocket, error) {
	found := []RomSocket{}
	err := h.SelectContext(ctx, &found,
		`SELECT assembly_id, line, array_to_string(designators, ' ') AS designators, marking, type_number, empty
		FROM entry WHERE assembly_id = ANY (CAST($1 AS bigint[])) AND type_class = ANY (CAST($2 AS text[]))
		AND NOT empty ORDER BY assembly_id, line`, assemblyIDs, classes)
	return found, err
}
