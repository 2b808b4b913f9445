package files

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// Blob is what was uploaded; its bytes lie in the blob store under their SHA-256.
type Blob struct {
	SHA256    string `db:"sha256"`
	Bytes     int64  `db:"bytes"`
	MediaType string `db:"media_type"`
	Width     int    `db:"width"` // in pixels, upright; 0 for a document
	Height    int    `db:"height"`
}

// AttachmentFields are what people write about a picture or a document.
type AttachmentFields struct {
	Caption     string `db:"caption"`
	View        string `db:"view"`     // what it shows: front, rear, board top, label ...
	Taken       string `db:"taken"`    // when it was taken or written, EDTF
	Language    string `db:"language"` // of a document, BCP 47, as en or de-CH
	Translation string `db:"translation"`
	Address     string `db:"address"`    // of a web page, kept as text
	Captured    string `db:"captured"`   // day on which the page was captured, YYYY-MM-DD
	Numbers     string `db:"numbers"`    // serials and other identifiers that stand in it, one a line
	StaffOnly   bool   `db:"staff_only"` // not shown to viewers
	Portrait    bool   `db:"portrait"`   // a picture by which the machine is known; of several, the one chosen last
}

// Owner is what a picture or document belongs to; all but one are nil.
type Owner struct {
	MachineID     *int64 `db:"machine_id"`
	AcquisitionID *int64 `db:"acquisition_id"`
	StockID       *int64 `db:"stock_id"`
	OfferID       *int64 `db:"offer_id"`
}

// ofOwner chooses what belongs to an owner whose ids stand from $1 on.
const ofOwner = `(t.machine_id = $1 OR t.acquisition_id = $2 OR t.stock_id = $3 OR t.offer_id = $4)`

func (o Owner) ids() []any { return []any{o.MachineID, o.AcquisitionID, o.StockID, o.OfferID} }

// Attachment is a picture or document of something.
type Attachment struct {
	ID   int64  `db:"id"`
	Kind string `db:"kind"`
	Owner
	FileName string `db:"file_name"`
	AttachmentFields
	Blob
	By      string    `db:"by_name"`
	At      time.Time `db:"at"`
	Cited   int       `db:"cited"` // statements that cite it
	Voided  bool      `db:"voided"`
	Version int       `db:"version"`
}

const attachmentSelect = `SELECT t.id, t.kind, t.machine_id, t.acquisition_id, t.stock_id, t.offer_id, t.file_name, t.caption, t.view, t.taken,
	t.language, t.translation,
		t.address, t.captured, t.numbers, t.staff_only,
		t.portrait_since IS NOT NULL AS portrait, b.sha256, b.bytes, b.media_type, b.width, b.height,
		COALESCE(c.name, '') AS by_name, t.at, t.voided, t.version,
		(SELECT count(*) FROM statement s WHERE s.picture_id = t.id AND s.retracted = '') + (SELECT count(*)
		FROM custody s WHERE s.picture_id = t.id AND s.retracted = '') AS cited
	FROM attachment t JOIN blob b ON b.sha256 = t.sha256 LEFT JOIN account c ON c.id = t.account_id `

// PutBlob notes what lies in the blob store, unless it is noted.
func PutBlob(ctx context.Context, h pg.Handle, b Blob) error {
	_, err := h.ExecContext(ctx,
		`INSERT INTO blob (sha256, bytes, media_type, width, height) VALUES ($1, $2, $3, $4, $5)
		ON CONFLICT ON CONSTRAINT blob_pkey DO NOTHING`, b.SHA256, b.Bytes, b.MediaType, b.Width, b.Height)
	return err
}

// InsertAttachment adds a picture or document and returns its id.
func InsertAttachment(ctx context.Context, h pg.Handle, by *int64, t Attachment) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO attachment (machine_id, acquisition_id, stock_id, offer_id, kind, sha256, file_name, caption, view,
			taken, language, translation, address, captured, numbers, staff_only, account_id)
		VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17) RETURNING id`,
		append(t.ids(), t.Kind, t.SHA256, t.FileName, t.Caption, t.View, t.Taken, t.Language,
			t.Translation, t.Address, t.Captured, t.Numbers, t.StaffOnly, by)...)
	return id, err
}

// UpdateAttachment writes all fields and counts the version up. The caller holds the row's lock.
func UpdateAttachment(ctx context.Context, h pg.Handle, id int64, t AttachmentFields) error {
	_, err := h.ExecContext(ctx,
		`UPDATE attachment SET caption = $2, view = $3, taken = $4, language = $5, translation = $6, address = $7,
			captured = $8,
		numbers = $9, staff_only = $10,
		portrait_since = CASE WHEN $11 THEN COALESCE(portrait_since, now()) END, version = version + 1 WHERE id = $1`,
		id, t.Caption, t.View, t.Taken, t.Language, t.Translation, t.Address, t.Captured, t.Numbers, t.StaffOnly,
		t.Portrait)
	return err
}

// VoidAttachment takes one out of all lists, or puts it back; the bytes stay.
func VoidAttachment(ctx context.Context, h pg.Handle, id int64, voided bool) error {
	_, err := h.ExecContext(ctx, `UPDATE attachment SET voided = $2, version = version + 1 WHERE id = $1`, id, voided)
	return err
}

// AttachmentByID reads one.
func AttachmentByID(ctx context.Context, h pg.Handle, id int64) (Attachment, error) {
	var t Attachment
	err := pg.Get(ctx, h, &t, fmt.Sprintf("attachment %d", id), attachmentSelect+`WHERE t.id = $1`, id)
	return t, err
}

// LockAttachment reads one and keeps others from changing it until the transaction ends.
func LockAttachment(ctx context.Context, h pg.Handle, id int64) (Attachment, error) {
	var t Attachment
	err := pg.Get(ctx, h, &t, fmt.Sprintf("attachment %d", id),
		attachmentSelect+`WHERE t.id = $1 FOR NO KEY UPDATE OF t`, id)
	return t, err
}

// AttachmentQuery selects a page of the pictures and documents of an owner, in the order in which they came.
type AttachmentQuery struct {
	Owner
	ForViewers bool // leaves out what is for staff only
	After      int64
	Limit      int
}

// ListAttachments reads a page.
func ListAttachments(ctx context.Context, h pg.Handle, q AttachmentQuery) ([]Attachment, error) {
	found := []Attachment{}
	err := h.SelectContext(ctx, &found,
		attachmentSelect+`WHERE `+ofOwner+` AND NOT t.voided AND t.id > $5 AND NOT ($6 AND t.staff_only)
		ORDER BY t.id LIMIT $7`, append(q.ids(), q.After, q.ForViewers, q.Limit)...)
	return found, err
}

// NumbersOf lists the attachments of an owner in which numbers stand.
func NumbersOf(ctx context.Context, h pg.Handle, owner Owner) ([]Attachment, error) {
	found := []Attachment{}
	err := h.SelectContext(ctx, &found,
		attachmentSelect+`WHERE `+ofOwner+` AND NOT t.voided AND t.numbers <> '' ORDER BY t.id`, owner.ids()...)
	return found, err
}

// AttachmentOfBlob finds what an owner has of the same content, struck out or not; ErrNotFound for none.
func AttachmentOfBlob(ctx context.Context, h pg.Handle, sha256 string, owner Owner) (Attachment, error) {
	var t Attachment
	err := pg.Get(ctx, h, &t, "attachment of blob "+sha256,
		attachmentSelect+`WHERE `+ofOwner+` AND t.sha256 = $5 ORDER BY t.voided, t.id LIMIT 1`,
		append(owner.ids(), sha256)...)
	return t, err
}
