package sheets

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// Revision is one state of an assembly's sheet. Revisions are only ever added; n counts from 1.
type Revision struct {
	AssemblyID int64     `db:"assembly_id"`
	N          int       `db:"n"` // counts from 1; 0 stands for no sheet yet
	Body       string    `db:"body"`
	By         string    `db:"by_name"` // who wrote it
	At         time.Time `db:"at"`
}

const revisionSelect = `SELECT r.assembly_id, r.n, r.body, COALESCE(c.name, '') AS by_name, r.at
	FROM sheet_revision r LEFT JOIN account c ON c.id = r.account_id `

// InsertRevision adds a revision. Two writers of one n violate sheet_revision_pkey.
func InsertRevision(ctx context.Context, h pg.Handle, assemblyID int64, n int, body string, accountID *int64) error {
	_, err := h.ExecContext(ctx,
		`INSERT INTO sheet_revision (assembly_id, n, body, account_id) VALUES ($1, $2, $3, $4)`,
		assemblyID, n, body, accountID)
	return err
}

// NewestRevision reads the newest revision of an assembly's sheet; ErrNotFound before the first.
func NewestRevision(ctx context.Context, h pg.Handle, assemblyID int64) (Revision, error) {
	var r Revision
	err := pg.Get(ctx, h, &r, fmt.Sprintf("sheet of assembly %d", assemblyID),
		revisionSelect+`WHERE r.assembly_id = $1 ORDER BY r.n DESC LIMIT 1`, assemblyID)
	return r, err
}

// RevisionsOf lists the revisions of an assembly's sheet, the newest first.
func RevisionsOf(ctx context.Context, h pg.Handle, assemblyID int64, before, limit int) ([]Revision, error) {
	revisions := []Revision{}
	err := h.SelectContext(ctx, &revisions,
		revisionSelect+`WHERE r.assembly_id = $1 AND r.n < $2 ORDER BY r.n DESC LIMIT $3`, assemblyID, before, limit)
	return revisions, err
}

// NewestRevisionsIn reads the newest sheets of all assemblies fitted in a machine today.
func NewestRevisionsIn(ctx context.Context, h pg.Handle, machineID int64) ([]Revision, error) {
	revisions := []Revision{}
	err := h.SelectContext(ctx, &revisions, `SELECT r.assembly_id, r.n, r.body, COALESCE(c.name, '') AS by_name, r.at
		FROM fitting f
		JOIN LATERAL (SELECT * FROM sheet_revision s WHERE s.assembly_id = f.assembly_id ORDER BY s.n DESC
		LIMIT 1) r ON true
		LEFT JOIN account c ON c.id = r.account_id
		WHERE f.machine_id = $1 AND f.until IS NULL`, machineID)
	return revisions, err
}

// Saved is when the sheets of a machine were saved last; nil for never.
type Saved struct {
	Boards   *time.Time `db:"boards"`
	Exterior *time.Time `db:"exterior"`
}

// SavedIn reads it.
func SavedIn(ctx context.Context, h pg.Handle, machineID int64) (Saved, error) {
	var s Saved
	err := h.GetContext(ctx, &s, `SELECT max(r.at) FILTER (WHERE a.kind <> 'exterior') AS boards,
			max(r.at) FILTER (WHERE a.kind = 'exterior') AS exterior
		FROM fitting f JOIN assembly a ON a.id = f.assembly_id
		JOIN LATERAL (SELECT at FROM sheet_revision s WHERE s.assembly_id = f.assembly_id ORDER BY s.n DESC
		LIMIT 1) r ON true
		WHERE f.machine_id = $1 AND f.until IS NULL`, machineID)
	return s, err
}

// RevisionOf reads one revision of an assembly's sheet.
func RevisionOf(ctx context.Context, h pg.Handle, assemblyID int64, n int) (Revision, error) {
	var r Revision
	err := pg.Get(ctx, h, &r, fmt.Sprintf("revision %d of assembly %d", n, assemblyID),
		revisionSelect+`WHERE r.assembly_id = $1 AND r.n = $2`, assemblyID, n)
	return r, err
}
