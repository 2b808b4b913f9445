package files

import (
	"context"
	"encoding/json"
	"fmt"

	"frugalheron/store/pg"
)

// Annotation reads the numbers on a picture; ErrNotFound when there are none yet.
func Annotation(ctx context.Context, h pg.Handle, attachmentID int64) (pg.KeptDocument, int64, error) {
	var p struct {
		pg.KeptDocument
		AssemblyID int64 `db:"assembly_id"`
	}
	err := pg.Get(ctx, h, &p, fmt.Sprintf("plan of picture %d", attachmentID),
		`SELECT CAST(body AS text) AS body, version, assembly_id FROM annotation WHERE attachment_id = $1`,
		attachmentID)
	return p.KeptDocument, p.AssemblyID, err
}

// PutAnnotation writes them. The caller holds the picture's lock.
func PutAnnotation(ctx context.Context, h pg.Handle, attachmentID, assemblyID int64, body any) error {
	encoded, err := json.Marshal(body)
	if err != nil {
		return err
	}
	_, err = h.ExecContext(ctx,
		`INSERT INTO annotation (attachment_id, assembly_id, body) VALUES ($1, $2, CAST($3 AS jsonb))
		ON CONFLICT ON CONSTRAINT annotation_pkey DO UPDATE
		SET assembly_id = excluded.assembly_id, body = excluded.body, version = annotation.version + 1,
		updated_at = now()`,
		attachmentID, assemblyID, string(encoded))
	return err
}

// AnnotatedPicture is a picture with numbers on it.
type AnnotatedPicture struct {
	AttachmentID int64  `db:"attachment_id"`
	AssemblyID   int64  `db:"assembly_id"`
	Assembly     string `db:"assembly"`
	Caption      string `db:"caption"`
	Callouts     int    `db:"callouts"`
}

// AnnotatedPictures lists the pictures of a machine that have numbers on them.
func AnnotatedPictures(ctx context.Context, h pg.Handle, machineID int64, forViewers bool) ([]AnnotatedPicture, error) {
	found := []AnnotatedPicture{}
	err := h.SelectContext(ctx, &found,
		`SELECT p.attachment_id, p.assembly_id, a.title AS assembly, COALESCE(NULLIF(t.caption, ''),
			t.file_name) AS caption,
			jsonb_array_length(p.body->'callouts') AS callouts
		FROM annotation p JOIN attachment t ON t.id = p.attachment_id JOIN assembly a ON a.id = p.assembly_id
		WHERE t.machine_id = $1 AND NOT t.voided AND NOT ($2 AND t.staff_only) ORDER BY p.attachment_id`, machineID,
		forViewers)
	return found, err
}
