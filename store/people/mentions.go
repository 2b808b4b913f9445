package people

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// Mention is a place in a text that names a person.
type Mention struct {
	ID        int64     `db:"id"`
	PartyID   int64     `db:"party_id"`
	Party     string    `db:"party"`      // whom it may name
	Role      string    `db:"role"`       // what others than staff read in its place
	Spelling  string    `db:"spelling"`   // the name as it is written there
	Around    string    `db:"around"`     // the words around it
	MachineID *int64    `db:"machine_id"` // the machine it was written about, or null
	Accession string    `db:"accession"`
	LotID     *int64    `db:"lot_id"`       // the arrival it was written about, or null
	Subject   string    `db:"subject_kind"` // what sort of record it was written about
	At        time.Time `db:"at"`
	Meant     *bool     `db:"meant"` // it is this person; null while nobody has decided
	Version   int       `db:"version"`
	TextSum   string    `db:"text_sum"`
}

const mentionSelect = `SELECT n.id, n.party_id, y.name AS party, y.role, n.spelling, n.around, h.machine_id,
	COALESCE(m.accession, '') AS accession,
		CASE h.subject_kind WHEN 'acquisition' THEN h.subject_id END AS lot_id, h.subject_kind, h.at, n.meant,
		n.version, n.text_sum
	FROM mention n JOIN party y ON y.id = n.party_id JOIN history h ON h.id = n.event_id LEFT
	JOIN machine m ON m.id = h.machine_id `

// FoundMention is a mention that was found in a text.
type FoundMention struct {
	PartyID, EventID      int64
	Said, Around, TextSum string
}

// NoteMention keeps a mention, unless it is known; isNew tells.
func NoteMention(ctx context.Context, h pg.Handle, f FoundMention) (isNew bool, err error) {
	result, err := h.ExecContext(ctx,
		`INSERT INTO mention (party_id, spelling, around, text_sum, event_id) VALUES ($1, $2, $3, $4, $5)
		ON CONFLICT ON CONSTRAINT mention_once_key DO NOTHING`, f.PartyID, f.Said, f.Around, f.TextSum, f.EventID)
	if err != nil {
		return false, err
	}
	n, err := result.RowsAffected()
	return n == 1, err
}

// OpenMentions lists those that nobody has decided about, of people who are private, the newest text first.
func OpenMentions(ctx context.Context, h pg.Handle, limit int) ([]Mention, error) {
	found := []Mention{}
	err := h.SelectContext(ctx, &found,
		mentionSelect+`WHERE n.meant IS NULL AND y.private ORDER BY n.event_id DESC, n.id DESC LIMIT $1`, limit)
	return found, err
}

// LockMention reads a mention and keeps others from deciding about it until the transaction ends.
func LockMention(ctx context.Context, h pg.Handle, id int64) (Mention, error) {
	var n Mention
	err := pg.Get(ctx, h, &n, fmt.Sprintf("mention %d", id), mentionSelect+`WHERE n.id = $1 FOR UPDATE OF n`, id)
	return n, err
}

// DecideMention keeps whether the person is meant.
func DecideMention(ctx context.Context, h pg.Handle, id int64, by *int64, meant *bool) error {
	_, err := h.ExecContext(ctx,
		`UPDATE mention SET meant = $2, account_id = $3, decided_at = now(), version = version + 1 WHERE id = $1`, id,
		meant, by)
	return err
}

// DecidedMention is what was decided about a mention.
type DecidedMention struct {
	PartyID int64  `db:"party_id"`
	TextSum string `db:"text_sum"`
	Said    string `db:"spelling"`
	Meant   bool   `db:"meant"`
}

// DecidedMentions lists what was decided about mentions of people who are private.
func DecidedMentions(ctx context.Context, h pg.Handle) ([]DecidedMention, error) {
	found := []DecidedMention{}
	err := h.SelectContext(ctx, &found,
		`SELECT n.party_id, n.text_sum, n.spelling, n.meant FROM mention n JOIN party y ON y.id = n.party_id
		WHERE n.meant IS NOT NULL AND y.private ORDER BY n.id`)
	return found, err
}

// PrivacyState tells how often it changed who is private; isOwn says that this transaction changed it.
func PrivacyState(ctx context.Context, h pg.Handle) (n int64, isOwn bool, err error) {
	return pg.StateOf(ctx, h,
		`SELECT n, COALESCE(xmin = CAST(pg_current_xact_id_if_assigned() AS xid), false) AS own FROM privacy_state`)
}
