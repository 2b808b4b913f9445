package sheets

import (
	"context"

	"frugalheron/store/pg"
)

// StoryRow is what the revisions of an assembly's sheet amount to, up to one, as JSON.
type StoryRow struct {
	AssemblyID int64  `db:"assembly_id"`
	Through    int    `db:"through"` // the revision up to which it tells
	Rules      int    `db:"rules"`   // by which it was told
	Story      string `db:"story"`
}

const storySelect = `SELECT s.assembly_id, s.through, s.rules, CAST(s.story AS text) AS story FROM sheet_story s `

// StoryOf reads that of an assembly; the error is pg.ErrNotFound before the first.
func StoryOf(ctx context.Context, h pg.Handle, assemblyID int64) (StoryRow, error) {
	var row StoryRow
	err := pg.Get(ctx, h, &row, "story of a sheet", storySelect+`WHERE s.assembly_id = $1`, assemblyID)
	return row, err
}

// StoriesIn reads those of all assemblies that are fitted in a machine today.
func StoriesIn(ctx context.Context, h pg.Handle, machineID int64) ([]StoryRow, error) {
	rows := []StoryRow{}
	err := h.SelectContext(ctx, &rows, storySelect+`JOIN fitting f ON f.assembly_id = s.assembly_id
		WHERE f.machine_id = $1 AND f.until IS NULL ORDER BY f.ordinal, s.assembly_id`, machineID)
	return rows, err
}

// StoriesOf reads those of some assemblies.
func StoriesOf(ctx context.Context, h pg.Handle, assemblies []int64) ([]StoryRow, error) {
	rows := []StoryRow{}
	err := h.SelectContext(ctx, &rows, storySelect+`WHERE s.assembly_id = ANY (CAST($1 AS bigint[]))
		ORDER BY s.assembly_id`, assemblies)
	return rows, err
}

// PutStory keeps one.
func PutStory(ctx context.Context, h pg.Handle, row StoryRow) error {
	_, err := h.ExecContext(ctx, `INSERT INTO sheet_story (assembly_id, through, rules, story)
		VALUES ($1, $2, $3, CAST($4 AS jsonb)) ON CONFLICT ON CONSTRAINT sheet_story_pkey DO UPDATE
		SET through = excluded.through, rules = excluded.rules, story = excluded.story`,
		row.AssemblyID, row.Through, row.Rules, row.Story)
	return err
}

// AssembliesWithOldStories lists assemblies with a sheet whose story was told by other rules, or not yet.
func AssembliesWithOldStories(ctx context.Context, h pg.Handle, rules, limit int) ([]int64, error) {
	ids := []int64{}
	err := h.SelectContext(ctx, &ids, `SELECT t.assembly_id FROM sheet_total t
		LEFT JOIN sheet_story s ON s.assembly_id = t.assembly_id
		WHERE s.assembly_id IS NULL OR s.rules <> $1 ORDER BY t.assembly_id LIMIT $2`, rules, limit)
	return ids, err
}

// RevisionsAfter lists the revisions of an assembly's sheet behind a number, the oldest first.
func RevisionsAfter(ctx context.Context, h pg.Handle, assemblyID int64, n int) ([]Revision, error) {
	revisions := []Revision{}
	err := h.SelectContext(ctx, &revisions, revisionSelect+`WHERE r.assembly_id = $1 AND r.n > $2 ORDER BY r.n`,
		assemblyID, n)
	return revisions, err
}
