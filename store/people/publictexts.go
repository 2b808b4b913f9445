package people

import (
	"context"
	"fmt"

	"frugalheron/store/pg"
)

// PublicKind is a kind of texts that others than staff search in, or are counted by.
type PublicKind string

// Kinds.
const (
	PublicMachine     PublicKind = "machine"       // all that is searched of a machine
	PublicMachineName PublicKind = "machine name"  // by which lists are sorted
	PublicMaker       PublicKind = "machine maker" // who built a machine: of a home-built one, a person
	PublicPlace       PublicKind = "place"         // the name of a place
	PublicAssembly    PublicKind = "assembly"      // all that is searched of an assembly
	PublicLot         PublicKind = "lot"           // all that is searched of an arrival
)

// PublicKinds lists all.
var PublicKinds = []PublicKind{PublicMachine, PublicMachineName, PublicMaker, PublicPlace, PublicAssembly, PublicLot}

// IsSearched reports whether the text is searched in, and not shown.
func (k PublicKind) IsSearched() bool {
	return k != PublicMachineName && k != PublicMaker && k != PublicPlace
}

// PublicSource is what the public text of a record is made from.
type PublicSource struct {
	ID    int64  `db:"id"`
	Plain string `db:"plain"` // codes and numbers, in which nobody is named
	Prose string `db:"prose"` // texts, with ProseSeparator between
}

// ProseSeparator stands between the texts of a record: each is read by itself, so that no name is found across two.
const ProseSeparator = "\x1f"

// publicSources select plain and prose of each kind as columns of x, by id.
var publicSources = map[PublicKind]string{
	PublicMachine: `SELECT m.id, concat_ws(' ', m.accession, m.model, m.serial) AS plain,
		concat_ws(E'\x1f', m.name, m.maker, m.provenance, p.name) AS prose FROM machine m LEFT
		JOIN place p ON p.id = m.place_id`,
	PublicMachineName: `SELECT id, '' AS plain, name AS prose FROM machine`,
	PublicMaker:       `SELECT id, '' AS plain, maker AS prose FROM machine`,
	PublicPlace:       `SELECT id, '' AS plain, name AS prose FROM place`,
	PublicAssembly:    `SELECT id, concat_ws(' ', part, rev, serial, kind) AS plain, title AS prose FROM assembly`,
	PublicLot: `SELECT q.id, concat_ws(' ', q.method, q.arrived) AS plain,
		concat_ws(E'\x1f', q.title, q.note, (SELECT string_agg(i.title, E'\x1f') FROM lot_item i
		WHERE i.acquisition_id = q.id)) AS prose FROM acquisition q`,
}

// PublicSourcesOf reads what the public texts of records are made from.
func PublicSourcesOf(ctx context.Context, h pg.Handle, kind PublicKind, ids []int64) ([]PublicSource, error) {
	found := []PublicSource{}
	err := h.SelectContext(ctx, &found,
		`SELECT id, plain, prose FROM (`+publicSources[kind]+`) x WHERE id = ANY (CAST($1 AS bigint[])) ORDER BY id`,
		ids)
	return found, err
}

// RecordsSaying lists the records whose texts hold one of the hints, in lower case, those in which it may stand in
// other letters, and those that have a public text already.
func RecordsSaying(ctx context.Context, h pg.Handle, kind PublicKind, hints []string) ([]int64, error) {
	ids := []int64{}
	err := h.SelectContext(ctx, &ids, `SELECT id FROM (`+publicSources[kind]+`) x
		WHERE lower(prose) LIKE ANY (CAST($1 AS text[])) OR prose ~ '[^\x01-\x7f]' OR prose ~ '-\s*\n'
		UNION SELECT id FROM public_text WHERE kind = $2 ORDER BY id`, pg.Holding(hints), kind)
	return ids, err
}

// PutPublicText keeps what is public of a record's texts.
func PutPublicText(ctx context.Context, h pg.Handle, kind PublicKind, id int64, body string) error {
	_, err := h.ExecContext(ctx, `INSERT INTO public_text (kind, id, body) VALUES ($1, $2, $3)
		ON CONFLICT ON CONSTRAINT public_text_pkey DO UPDATE SET body = excluded.body`, kind, id, body)
	return err
}

// DeletePublicTexts forgets them: all that the records say is public.
func DeletePublicTexts(ctx context.Context, h pg.Handle, kind PublicKind, ids []int64) error {
	_, err := h.ExecContext(ctx, `DELETE FROM public_text WHERE kind = $1 AND id = ANY (CAST($2 AS bigint[]))`, kind,
		ids)
	return err
}

// PublicOr writes an expression for what is public of a text.
func PublicOr(kind PublicKind, id, text string) string {
	return fmt.Sprintf(`COALESCE((SELECT x.body FROM public_text x WHERE x.kind = '%s' AND x.id = %s), %s)`, kind, id,
		text)
}

// LikeAllPublic is likeAll over what is public of a column that an index serves: rows with a public text of their own
// are looked for there, all others in the column.
func LikeAllPublic(kind PublicKind, id, column string, words []string, args []any) (string, []any) {
	open, args := pg.LikeAll(column, words, args)
	if open == "" {
		return "", args
	}
	kept, args := pg.LikeAll("x.body", words, args)
	own := fmt.Sprintf(`SELECT x.id FROM public_text x WHERE x.kind = '%s'`, kind)
	return fmt.Sprintf(`(%s AND %s NOT IN (%s) OR %s IN (%s AND %s))`, open, id, own, id, own, kept), args
}

// HasPublicTexts reports whether any record says less to others than staff.
func HasPublicTexts(ctx context.Context, h pg.Handle) (bool, error) {
	var has bool
	err := h.GetContext(ctx, &has, `SELECT EXISTS (SELECT 1 FROM public_text)`)
	return has, err
}
