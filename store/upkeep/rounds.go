package upkeep

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// Round is one task done to many machines in one walk, kept whole as JSON.
type Round struct {
	ID      int64     `db:"id"`
	RuleID  int64     `db:"rule_id"`
	Body    string    `db:"body"`
	IsOpen  bool      `db:"is_open"`
	Voided  bool      `db:"voided"`
	Version int       `db:"version"`
	By      string    `db:"by_name"`
	At      time.Time `db:"at"`
	Rule    string    `db:"rule"` // what is written of its rule, as JSON
	Of      string    `db:"of_class"`
	Done    int       `db:"done"`    // stops that were answered
	LastAt  time.Time `db:"last_at"` // when the last of them was; when it was begun while none is
}

const roundSelect = `SELECT r.id, r.rule_id, CAST(r.body AS text) AS body, r.is_open, r.voided, r.version,
		COALESCE(a.name, '') AS by_name, r.at, CAST(u.body AS text) AS rule, u.of_class, d.done, COALESCE(d.last_at, r.at) AS last_at
	FROM upkeep_round r JOIN upkeep_rule u ON u.id = r.rule_id LEFT JOIN account a ON a.id = r.account_id
		CROSS JOIN LATERAL (SELECT count(*) AS done, max(e.at) AS last_at FROM upkeep_deed e
			WHERE e.round_id = r.id AND NOT e.voided) d `

// Rounds lists those that are open, and of the others the newest ones.
func Rounds(ctx context.Context, h pg.Handle, limit int) ([]Round, error) {
	found := []Round{}
	err := h.SelectContext(ctx, &found, roundSelect+`WHERE NOT r.voided ORDER BY r.is_open DESC, r.id DESC LIMIT $1`, limit)
	return found, err
}

// RoundByID reads one, voided or not.
func RoundByID(ctx context.Context, h pg.Handle, id int64) (Round, error) {
	var r Round
	err := pg.Get(ctx, h, &r, fmt.Sprintf("round %d", id), roundSelect+`WHERE r.id = $1`, id)
	return r, err
}

// LockRound keeps others from ending or changing one until the transaction ends, and reads it.
func LockRound(ctx context.Context, h pg.Handle, id int64) (Round, error) {
	if _, err := h.ExecContext(ctx, `SELECT 1 FROM upkeep_round WHERE id = $1 FOR NO KEY UPDATE`, id); err != nil {
		return Round{}, err
	}
	return RoundByID(ctx, h, id)
}

// InsertRound begins one and returns its id. While one of the same rule is open it violates upkeep_round_open_key.
func InsertRound(ctx context.Context, h pg.Handle, by *int64, ruleID int64, body string) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO upkeep_round (rule_id, body, account_id) VALUES ($1, CAST($2 AS jsonb), $3)
		RETURNING id`, ruleID, body, by)
	return id, err
}

// UpdateRound rewrites one. The caller holds its lock.
func UpdateRound(ctx context.Context, h pg.Handle, r Round) error {
	_, err := h.ExecContext(ctx, `UPDATE upkeep_round SET body = CAST($2 AS jsonb), is_open = $3, voided = $4,
		version = version + 1 WHERE id = $1`, r.ID, r.Body, r.IsOpen, r.Voided)
	return err
}
