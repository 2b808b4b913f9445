package history

import (
	"context"

	"frugalheron/store/pg"
)

// LastEvent is the number of the newest event that any transaction has written, finished or not.
func LastEvent(ctx context.Context, h pg.Handle) (int64, error) {
	var n int64
	err := h.GetContext(ctx, &n, `SELECT last_value FROM history_id_seq`)
	return n, err
}

// OwnEvents lists the events behind a number that this transaction has written.
func OwnEvents(ctx context.Context, h pg.Handle, after int64) ([]Event, error) {
	events := []Event{}
	err := h.SelectContext(ctx, &events,
		`SELECT id, at, account_id, action, subject_kind, subject_id, machine_id, before, after
		FROM history WHERE id > $1 AND xmin = CAST(pg_current_xact_id() AS xid) ORDER BY id`, after)
	return events, err
}

// EventsSaying says which events are looked for: those of kinds of subjects whose text may hold one of the hints, in
// lower case, before an event (0 for all). SheetAction is the action that saves a sheet, whose text is the revision.
type EventsSaying struct {
	Kinds, Hints []string
	SheetAction  string
	Before       int64
	Limit        int
}

// ListEventsSaying lists the events, the newest first, that wrote what holds one of the hints, or letters and line
// breaks in which it may stand another way; and whose fields no later event on the same subject wrote anew.
func ListEventsSaying(ctx context.Context, h pg.Handle, asked EventsSaying) ([]Event, error) {
	events := []Event{}
	err := h.SelectContext(ctx, &events,
		`SELECT id, at, account_id, action, subject_kind, subject_id, machine_id, before, after
		FROM (SELECT h.*, COALESCE(r.body, CAST(h.after AS text)) AS written FROM history h
			LEFT JOIN sheet_revision r ON h.action = $4 AND r.assembly_id = h.subject_id
			AND r.n = CAST(h.after ->> 'revision' AS integer)) w
		WHERE subject_kind = ANY (CAST($1 AS text[])) AND ($2 = 0 OR id < $2)
			AND (lower(written) LIKE ANY (CAST($3 AS text[])) OR written ~ '[^\x01-\x7f]' OR written ~ '-\s*(\n|\\n)')
			AND NOT EXISTS (SELECT 1 FROM history n WHERE n.subject_kind = w.subject_kind
			AND n.subject_id = w.subject_id AND n.id > w.id
				AND CASE WHEN w.action = $4 THEN n.action = w.action
					WHEN n.before IS NULL OR jsonb_typeof(w.after) <> 'object' THEN false
					ELSE jsonb_exists_all(n.after, ARRAY(SELECT jsonb_object_keys(w.after))) END)
		ORDER BY id DESC LIMIT $5`, asked.Kinds, asked.Before, pg.Holding(asked.Hints), asked.SheetAction, asked.Limit)
	return events, err
}
