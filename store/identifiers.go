package store

import (
	"context"
	"encoding/json"
	"time"
)

// IdentifierRow is an identifier as it stands somewhere on or about a machine.
type IdentifierRow struct {
	Key       string `db:"key" json:"key"`
	Attribute string `db:"attribute" json:"attribute"`
	Value     string `db:"value" json:"value"`
	Source    string `db:"source" json:"source"`
}

// ReplaceIdentifiers notes the identifiers of a machine in place of those noted before.
func ReplaceIdentifiers(ctx context.Context, h Handle, machineID int64, rows []IdentifierRow) error {
	if _, err := h.ExecContext(ctx, `DELETE FROM identifier WHERE machine_id = $1`, machineID); err != nil {
		return err
	}
	encoded, err := json.Marshal(rows)
	if err != nil || len(rows) == 0 {
		return err
	}
	_, err = h.ExecContext(ctx, `INSERT INTO identifier (key, machine_id, attribute, value, source)
		SELECT r.key, $1, r.attribute, r.value, r.source
		FROM jsonb_to_recordset(CAST($2 AS jsonb)) AS r(key text, attribute text, value text, source text)
		ON CONFLICT ON CONSTRAINT identifier_pkey DO NOTHING`, machineID, string(encoded))
	return err
}

// Meeting is an identifier that a machine shares with another, and what was made of it.
type Meeting struct {
	Key       string     `db:"key" json:"key"`
	Value     string     `db:"value" json:"value" doc:"As it stands here"`
	Source    string     `db:"source" json:"source" doc:"Where it stands here"`
	OtherID   int64      `db:"other_id" json:"otherId" doc:"The other machine"`
	Accession string     `db:"accession" json:"accession"`
	Name      string     `db:"name" json:"name"`
	There     string     `db:"there" json:"there" doc:"Where it stands there"`
	Decision  string     `db:"decision" json:"decision" enum:",linked,dismissed" doc:"Empty while nobody has decided"`
	Reason    string     `db:"reason" json:"reason"`
	By        string     `db:"by_name" json:"by"`
	At        *time.Time `db:"at" json:"at"`
}

// MeetingsOf lists the identifiers that a machine shares with others.
func MeetingsOf(ctx context.Context, h Handle, machineID int64) ([]Meeting, error) {
	meetings := []Meeting{}
	err := h.SelectContext(ctx, &meetings, `SELECT i.key, min(i.value) AS value, string_agg(DISTINCT i.source, ', ') AS source, o.machine_id AS other_id,
			m.accession, m.name, string_agg(DISTINCT o.source, ', ') AS there,
			COALESCE(min(d.decision), '') AS decision, COALESCE(min(d.reason), '') AS reason, COALESCE(min(c.name), '') AS by_name, min(d.at) AS at
		FROM identifier i JOIN identifier o ON o.key = i.key AND o.machine_id <> i.machine_id
		JOIN machine m ON m.id = o.machine_id
		LEFT JOIN identifier_meeting d ON d.key = i.key AND d.lower_id = LEAST(i.machine_id, o.machine_id) AND d.higher_id = GREATEST(i.machine_id, o.machine_id)
		LEFT JOIN account c ON c.id = d.account_id
		WHERE i.machine_id = $1 GROUP BY i.key, o.machine_id, m.accession, m.name ORDER BY m.accession, i.key LIMIT 50`, machineID)
	return meetings, err
}

// DecideMeeting keeps what was made of an identifier that two machines share.
func DecideMeeting(ctx context.Context, h Handle, key string, one, other int64, by *int64, decision, reason string) error {
	_, err := h.ExecContext(ctx, `INSERT INTO identifier_meeting (key, lower_id, higher_id, account_id, decision, reason)
		VALUES ($1, LEAST(CAST($2 AS bigint), CAST($3 AS bigint)), GREATEST(CAST($2 AS bigint), CAST($3 AS bigint)), $4, $5, $6)
		ON CONFLICT ON CONSTRAINT identifier_meeting_key DO UPDATE SET decision = EXCLUDED.decision, reason = EXCLUDED.reason, account_id = EXCLUDED.account_id, at = now()`,
		key, one, other, by, decision, reason)
	return err
}
