// Package signs keeps what somebody saw machines show, and finds what that is read by.
package signs

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// Sighting is what somebody saw a machine show.
type Sighting struct {
	ID         int64     `db:"id"`
	MachineID  int64     `db:"machine_id"`
	Accession  string    `db:"accession"`
	Machine    string    `db:"machine"`
	AssemblyID *int64    `db:"assembly_id"` // that showed it, where that is told
	Assembly   string    `db:"assembly"`
	Kind       string    `db:"kind"`
	Shown      string    `db:"shown"`
	During     string    `db:"during"` // what the machine was doing
	Note       string    `db:"note"`
	On         string    `db:"seen_on"`
	Voided     bool      `db:"voided"`
	Version    int       `db:"version"`
	By         string    `db:"by_name"`
	At         time.Time `db:"at"`
}

const sightingSelect = `SELECT s.id, s.machine_id, m.accession, m.name AS machine, s.assembly_id,
	COALESCE(b.title, '') AS assembly, s.kind, s.shown, s.during, s.note, CAST(s.seen_on AS text) AS seen_on, s.voided,
	s.version, COALESCE(a.name, '') AS by_name, s.at
	FROM sighting s JOIN machine m ON m.id = s.machine_id LEFT JOIN assembly b ON b.id = s.assembly_id
	LEFT JOIN account a ON a.id = s.account_id `

// SightingsOf lists what was seen on a machine, or with 0 on any, the newest first; at most limit.
func SightingsOf(ctx context.Context, h pg.Handle, machineID int64, limit int) ([]Sighting, error) {
	found := []Sighting{}
	err := h.SelectContext(ctx, &found, sightingSelect+`WHERE NOT s.voided
		AND (CAST($1 AS bigint) = 0 OR s.machine_id = $1) ORDER BY s.seen_on DESC, s.id DESC LIMIT $2`, machineID,
		limit)
	return found, err
}

// SightingByID reads one, struck or not.
func SightingByID(ctx context.Context, h pg.Handle, id int64) (Sighting, error) {
	var s Sighting
	err := pg.Get(ctx, h, &s, fmt.Sprintf("sighting %d", id), sightingSelect+`WHERE s.id = $1`, id)
	return s, err
}

// LockSighting keeps others from changing one until the transaction ends, and reads it.
func LockSighting(ctx context.Context, h pg.Handle, id int64) (Sighting, error) {
	if _, err := h.ExecContext(ctx, `SELECT 1 FROM sighting WHERE id = $1 FOR NO KEY UPDATE`, id); err != nil {
		return Sighting{}, err
	}
	return SightingByID(ctx, h, id)
}

// InsertSighting adds one and returns its id.
func InsertSighting(ctx context.Context, h pg.Handle, by *int64, s Sighting) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO sighting (machine_id, assembly_id, kind, shown, during, note, seen_on,
			account_id) VALUES ($1, $2, $3, $4, $5, $6, CAST($7 AS date), $8) RETURNING id`,
		s.MachineID, s.AssemblyID, s.Kind, s.Shown, s.During, s.Note, s.On, by)
	return id, err
}

// VoidSighting strikes one out, or takes that back. The caller holds the row's lock.
func VoidSighting(ctx context.Context, h pg.Handle, id int64, voided bool) error {
	_, err := h.ExecContext(ctx, `UPDATE sighting SET voided = $2, version = version + 1 WHERE id = $1`, id, voided)
	return err
}

// Fitted is an assembly that is or was in a machine.
type Fitted struct {
	MachineID  int64   `db:"machine_id"`
	AssemblyID int64   `db:"assembly_id"`
	Title      string  `db:"title"`
	Part       string  `db:"part"`
	Since      string  `db:"since"`
	Until      *string `db:"until"`
	Fit        string  `db:"fit"`
	IsFirst    bool    `db:"is_first"` // nobody tells where it was before
}

// FittedIn lists what is or was in machines, in the order in which it is fitted.
func FittedIn(ctx context.Context, h pg.Handle, machineIDs []int64) ([]Fitted, error) {
	found := []Fitted{}
	err := h.SelectContext(ctx, &found, `SELECT f.machine_id, a.id AS assembly_id, a.title, a.part,
			CAST(f.since AS text) AS since, CAST(f.until AS text) AS until, f.fit,
			NOT EXISTS (SELECT 1 FROM fitting x WHERE x.assembly_id = f.assembly_id AND x.since < f.since) AS is_first
		FROM fitting f JOIN assembly a ON a.id = f.assembly_id
		WHERE f.machine_id = ANY (CAST($1 AS bigint[])) AND a.kind <> 'exterior'
		ORDER BY f.ordinal, a.id`, machineIDs)
	return found, err
}

// ModelSigns is what machines of a model show.
type ModelSigns struct {
	MachineID int64  `db:"machine_id"`
	ModelID   int64  `db:"model_id"`
	Maker     string `db:"maker"`
	Model     string `db:"model"`
	Signs     string `db:"signs"`
}

// ModelsOf reads the models of machines.
func ModelsOf(ctx context.Context, h pg.Handle, machineIDs []int64) ([]ModelSigns, error) {
	found := []ModelSigns{}
	err := h.SelectContext(ctx, &found, `SELECT m.id AS machine_id, d.id AS model_id, d.maker, d.model, d.signs
		FROM machine m JOIN machine_model d ON d.id = m.model_id WHERE m.id = ANY (CAST($1 AS bigint[]))`, machineIDs)
	return found, err
}

// Answered is what somebody found out that a sign means which no list tells of.
type Answered struct {
	Subject   string `db:"subject"`
	MachineID *int64 `db:"machine_id"` // null where the answer holds for all of the model
	Answer    string `db:"answer"`
	Source    string `db:"source"`
	On        string `db:"answered_on"`
}

// AnsweredSigns lists the answered questions about signs.
func AnsweredSigns(ctx context.Context, h pg.Handle) ([]Answered, error) {
	found := []Answered{}
	err := h.SelectContext(ctx, &found, `SELECT subject, machine_id, answer, source,
		CAST(answered_on AS text) AS answered_on FROM question WHERE sort = 'sign' AND answered_on IS NOT NULL`)
	return found, err
}

// Listed is a model or a known assembly with signs.
type Listed struct {
	ModelID int64  `db:"model_id"` // 0 for a known assembly
	KnownID int64  `db:"known_id"`
	Maker   string `db:"maker"`
	Name    string `db:"name"`
	Signs   string `db:"signs"`
}

// AllListed lists models and known assemblies with signs that hold all words, by maker and name; at most limit.
func AllListed(ctx context.Context, h pg.Handle, words []string, limit int) ([]Listed, error) {
	where, args := pg.LikeAll(`lower(l.maker || ' ' || l.name || ' ' || l.signs)`, words, []any{limit})
	if where == "" {
		where = "true"
	}
	found := []Listed{}
	err := h.SelectContext(ctx, &found, `SELECT * FROM (
			SELECT id AS model_id, CAST(0 AS bigint) AS known_id, maker, model AS name, signs FROM machine_model
			UNION ALL SELECT 0, id, maker, name, signs FROM known_assembly WHERE NOT struck) l
		WHERE l.signs <> '' AND `+where+` ORDER BY lower(l.maker), lower(l.name), l.known_id LIMIT $1`, args...)
	return found, err
}
