package evidence

import (
	"context"
	"encoding/json"
	"time"

	"frugalheron/store/pg"
)

// RecordRef names a record that identifiers stand on: a machine, an assembly that is in no machine, or a
// lot with its documents.
type RecordRef struct {
	Kind string `db:"kind"`
	ID   int64  `db:"id"`
}

// before reports whether a record comes before another, so that two are always named in one order.
func (r RecordRef) before(other RecordRef) bool {
	return r.Kind < other.Kind || r.Kind == other.Kind && r.ID < other.ID
}

// IdentifierRow is an identifier as it stands somewhere on or about a record.
type IdentifierRow struct {
	Key       string `json:"key"`
	Attribute string `json:"attribute"`
	Value     string `json:"value"`
	Source    string `json:"source"`
	StaffOnly bool   `json:"staff_only"`
}

// ReplaceIdentifiers notes the identifiers of a record in place of those noted before.
func ReplaceIdentifiers(ctx context.Context, h pg.Handle, record RecordRef, rows []IdentifierRow) error {
	if _, err := h.ExecContext(ctx, `DELETE FROM identifier WHERE record_kind = $1 AND record_id = $2`, record.Kind,
		record.ID); err != nil {
		return err
	}
	encoded, err := json.Marshal(rows)
	if err != nil || len(rows) == 0 {
		return err
	}
	_, err = h.ExecContext(ctx,
		`INSERT INTO identifier (key, record_kind, record_id, attribute, value, source, staff_only)
		SELECT r.key, $1, $2, r.attribute, r.value, r.source, r.staff_only
		FROM jsonb_to_recordset(CAST($3 AS jsonb)) AS r(key text, attribute text, value text, source text,
		staff_only boolean)
		ON CONFLICT ON CONSTRAINT identifier_pkey DO NOTHING`, record.Kind, record.ID, string(encoded))
	return err
}

// SharedIdentifier is an identifier that a record shares with another, and what was made of it.
type SharedIdentifier struct {
	Key      string     `db:"key"`
	Value    string     `db:"value"`  // as it stands here
	Source   string     `db:"source"` // where it stands here
	Other    RecordRef  `db:"other"`
	Name     string     `db:"name"`     // what the other record is called
	There    string     `db:"there"`    // where it stands there
	Decision string     `db:"decision"` // empty while nobody has decided
	Reason   string     `db:"reason"`
	By       string     `db:"by_name"`
	At       *time.Time `db:"at"`
}

// SharedIdentifiersOf lists the identifiers that a record shares with others. What stands in the documents of a lot
// and on a thing that came with it is no meeting.
func SharedIdentifiersOf(ctx context.Context, h pg.Handle, record RecordRef,
	forViewers bool) ([]SharedIdentifier, error) {
	sharedIdentifiers := []SharedIdentifier{}
	err := h.SelectContext(ctx, &sharedIdentifiers,
		`SELECT i.key, min(i.value) AS value, string_agg(DISTINCT i.source, ', ') AS source,
			o.record_kind AS "other.kind", o.record_id AS "other.id", string_agg(DISTINCT o.source, ', ') AS there,
			CASE o.record_kind
				WHEN 'machine' THEN (SELECT accession || ' ' || name FROM machine WHERE id = o.record_id)
				WHEN 'assembly' THEN (SELECT title FROM assembly WHERE id = o.record_id)
				ELSE (SELECT title FROM acquisition WHERE id = o.record_id) END AS name,
			COALESCE(min(d.decision), '') AS decision, COALESCE(min(d.reason), '') AS reason, COALESCE(min(c.name),
			'') AS by_name, min(d.at) AS at
		FROM identifier i JOIN identifier o ON o.key = i.key
		AND (o.record_kind, o.record_id) <> (i.record_kind, i.record_id)
		LEFT JOIN shared_identifier d ON d.key = i.key AND (
			(d.lower_kind, d.lower_id, d.higher_kind, d.higher_id) = (i.record_kind, i.record_id, o.record_kind,
			o.record_id)
			OR (d.lower_kind, d.lower_id, d.higher_kind, d.higher_id) = (o.record_kind, o.record_id, i.record_kind,
			i.record_id))
		LEFT JOIN account c ON c.id = d.account_id
		WHERE i.record_kind = $1 AND i.record_id = $2 AND NOT ($3 AND (i.staff_only OR o.staff_only))
			AND NOT came_with(i.record_kind, i.record_id, o.record_kind, o.record_id)
			AND NOT came_with(o.record_kind, o.record_id, i.record_kind, i.record_id)
		GROUP BY i.key, o.record_kind, o.record_id ORDER BY name, i.key LIMIT 50`, record.Kind, record.ID, forViewers)
	return sharedIdentifiers, err
}

// DecideSharedIdentifier keeps what was made of an identifier that two records share.
func DecideSharedIdentifier(ctx context.Context, h pg.Handle, key string, lower, higher RecordRef, by *int64,
	decision, reason string) error {
	if higher.before(lower) {
		lower, higher = higher, lower
	}
	_, err := h.ExecContext(ctx,
		`INSERT INTO shared_identifier (key, lower_kind, lower_id, higher_kind, higher_id, account_id, decision,
			reason)
		VALUES ($1, $2, $3, $4, $5, $6, $7, $8)
		ON CONFLICT ON CONSTRAINT shared_identifier_key DO UPDATE
		SET decision = EXCLUDED.decision, reason = EXCLUDED.reason, account_id = EXCLUDED.account_id, at = now()`,
		key, lower.Kind, lower.ID, higher.Kind, higher.ID, by, decision, reason)
	return err
}
