package history

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// Event is a row of the history: who did what to which record. Rows are only ever added.
type Event struct {
	ID          int64            `db:"id"`
	At          time.Time        `db:"at"`
	AccountID   *int64           `db:"account_id"`
	Action      string           `db:"action"`
	SubjectKind string           `db:"subject_kind"`
	SubjectID   int64            `db:"subject_id"`
	MachineID   *int64           `db:"machine_id"`
	Before      *json.RawMessage `db:"before"`
	After       *json.RawMessage `db:"after"`
	Undoes      *int64           `db:"undoes"` // the event that it takes back
}

// ActionSaveSheet is the action that saves a sheet: its text is a revision, and not kept twice.
const ActionSaveSheet = "save sheet"

// InsertEvent adds a row to the history and returns its id. Before and after are written as JSON;
// nil stays null.
func InsertEvent(ctx context.Context, h pg.Handle, e Event, before, after any) (int64, error) {
	beforeJSON, err := nullableJSON(before)
	if err != nil {
		return 0, err
	}
	afterJSON, err := nullableJSON(after)
	if err != nil {
		return 0, err
	}
	var id int64
	err = h.GetContext(ctx, &id,
		`INSERT INTO history (account_id, action, subject_kind, subject_id, machine_id, before, after, undoes)
		VALUES ($1, $2, $3, $4, $5, $6, $7, $8) RETURNING id`, e.AccountID, e.Action, e.SubjectKind, e.SubjectID,
		e.MachineID, beforeJSON, afterJSON, e.Undoes)
	return id, err
}

// EventsOf lists the history of one record, oldest first.
func EventsOf(ctx context.Context, h pg.Handle, subjectKind string, subjectID int64) ([]Event, error) {
	events := []Event{}
	err := h.SelectContext(ctx, &events,
		`SELECT id, at, account_id, action, subject_kind, subject_id, machine_id, before, after
		FROM history WHERE subject_kind = $1 AND subject_id = $2 ORDER BY id`, subjectKind, subjectID)
	return events, err
}

func nullableJSON(value any) (*string, error) {
	if value == nil {
		return nil, nil
	}
	encoded, err := json.Marshal(value)
	text := string(encoded)
	return &text, err
}

// EventRow is an event with the names that people know its account and records by.
type EventRow struct {
	Event
	By        string `db:"by_name"`
	Accession string `db:"accession"`
	Subject   string `db:"subject"`
	IsNewest  bool   `db:"is_newest"` // nothing was done to the same record since
}

const toldSelect = `SELECT h.id, h.at, h.account_id, h.action, h.subject_kind, h.subject_id, h.machine_id, h.before,
	h.after,
		COALESCE(c.name, '') AS by_name, COALESCE(m.accession, '') AS accession,
		CASE h.subject_kind WHEN 'machine' THEN COALESCE(m.name, '') WHEN 'assembly' THEN COALESCE(a.title,
		'') ELSE '' END AS subject,
		` + isNewest + ` AS is_newest
	FROM history h
	LEFT JOIN account c ON c.id = h.account_id
	LEFT JOIN machine m ON m.id = h.machine_id
	LEFT JOIN assembly a ON h.subject_kind = 'assembly' AND a.id = h.subject_id `

// EventReader says what somebody may read in the history. The condition stands in every statement that reads events
// for people, so that pages are full and nothing is filtered behind.
type EventReader struct {
	Kinds      []string // of subjects; nil for all
	NotActions []string
	Account    int64 // whose own account may be read of
	PublicOnly bool  // of pictures and documents, those that everybody may see, then and now
}

// condition writes what may be read, behind other arguments of a statement.
func (r EventReader) condition(args []any) (string, []any) {
	args = append(args, r.Kinds, r.Account, r.NotActions, r.PublicOnly)
	n := len(args) - 3
	return fmt.Sprintf(` AND (CAST($%d AS text[]) IS NULL OR h.subject_kind = ANY (CAST($%d AS text[]))
		OR h.subject_kind = 'account' AND h.subject_id = $%d)
		AND NOT h.action = ANY (CAST($%d AS text[]))
		AND NOT ($%d AND h.subject_kind = 'attachment' AND (COALESCE(CAST(h.before->>'staffOnly' AS boolean), false)
			OR COALESCE(CAST(h.after->>'staffOnly' AS boolean), false) OR EXISTS (SELECT 1 FROM attachment t
			WHERE t.id = h.subject_id AND t.staff_only)))`,
		n, n, n+1, n+2, n+3), args
}

// EventQuery selects a page of the history, the newest first.
type EventQuery struct {
	EventReader
	Machine  int64 // of this machine and what is or was fitted in it; 0 for all
	Assembly int64 // of this assembly, wherever it was, and of what was found and measured on it; 0 for all
	Lot      int64 // of this arrival and its things; 0 for all
	Before   int64 // events below this id; 0 for the newest
	Limit    int
}

// ofAssembly chooses what was done to the assembly in $2, and to what was found and measured on it.
const ofAssembly = ` AND (h.subject_kind, h.subject_id) IN (SELECT 'assembly', CAST($2 AS bigint)
	UNION ALL SELECT 'finding', f.id FROM finding f WHERE f.assembly_id = $2
	UNION ALL SELECT 'measurement', g.id FROM measurement g WHERE g.assembly_id = $2)`

// ListEvents reads a page.
func ListEvents(ctx context.Context, h pg.Handle, q EventQuery) ([]EventRow, error) {
	events := []EventRow{}
	may, args := q.condition([]any{q.Machine, q.Assembly, q.Before, q.Limit, q.Lot})
	if q.Assembly != 0 {
		may += ofAssembly // stands alone, so that it is found by its index
	}
	err := h.SelectContext(ctx, &events, toldSelect+`WHERE (CAST($1 AS bigint) = 0 OR h.machine_id = $1)
		AND CAST($2 AS bigint) >= 0 -- see ofAssembly
		AND (CAST($3 AS bigint) = 0 OR h.id < $3) AND (CAST($5 AS bigint) = 0 OR h.subject_kind = 'acquisition'
		AND h.subject_id = $5
			OR h.subject_kind = 'lot item' AND h.subject_id IN (SELECT id FROM lot_item WHERE acquisition_id = $5))`+
		may+`
		ORDER BY h.id DESC LIMIT $4`, args...)
	return events, err
}

// EventByID reads an event that somebody may read of; ErrNotFound for others.
func EventByID(ctx context.Context, h pg.Handle, reader EventReader, id int64) (EventRow, error) {
	var e EventRow
	may, args := reader.condition([]any{id})
	err := pg.Get(ctx, h, &e, fmt.Sprintf("event %d", id), toldSelect+`WHERE h.id = $1`+may, args...)
	return e, err
}

// isNewest says of an event h that nothing was done to the same record since: what was done and taken back does not count,
// nor does taking it back; what was taken back and done anew does.
const isNewest = `NOT EXISTS (SELECT 1 FROM history l
		WHERE l.subject_kind = h.subject_kind AND l.subject_id = h.subject_id AND l.id > h.id
			AND COALESCE(l.undoes <= h.id, true)
			AND NOT EXISTS (SELECT 1 FROM history u WHERE u.undoes = l.id
				AND NOT EXISTS (SELECT 1 FROM history v WHERE v.undoes = u.id)))`

// IsNewestEvent reports whether nothing was done to the same record since an event.
func IsNewestEvent(ctx context.Context, h pg.Handle, id int64) (bool, error) {
	var is bool
	err := pg.Get(ctx, h, &is, fmt.Sprintf("event %d", id), `SELECT `+isNewest+` FROM history h WHERE h.id = $1`, id)
	return is, err
}
