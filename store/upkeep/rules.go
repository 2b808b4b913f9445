// Package upkeep keeps what is done again and again: rules, rounds, what was done, plans, and addresses of calendars.
package upkeep

import (
	"context"
	"fmt"

	"frugalheron/store/pg"
)

// Rule says what is done again and again; what is written of it is kept whole, as JSON.
type Rule struct {
	ID      int64  `db:"id"`
	Of      string `db:"of_class"` // machine, or the key of an ageing class
	ModelID *int64 `db:"model_id"`
	Model   string `db:"model"` // what the model is called; empty for a rule of all
	Body    string `db:"body"`
	Voided  bool   `db:"voided"`
	Version int    `db:"version"`
}

const ruleSelect = `SELECT r.id, r.of_class, r.model_id, COALESCE(d.maker || ' ' || d.model, '') AS model,
		CAST(r.body AS text) AS body, r.voided, r.version
	FROM upkeep_rule r LEFT JOIN machine_model d ON d.id = r.model_id `

// Rules lists those that hold, in the order in which they were written.
func Rules(ctx context.Context, h pg.Handle) ([]Rule, error) {
	found := []Rule{}
	err := h.SelectContext(ctx, &found, ruleSelect+`WHERE NOT r.voided ORDER BY r.id`)
	return found, err
}

// RuleByID reads one, voided or not.
func RuleByID(ctx context.Context, h pg.Handle, id int64) (Rule, error) {
	var r Rule
	err := pg.Get(ctx, h, &r, fmt.Sprintf("upkeep rule %d", id), ruleSelect+`WHERE r.id = $1`, id)
	return r, err
}

// LockRule keeps others from changing one until the transaction ends, and reads it.
func LockRule(ctx context.Context, h pg.Handle, id int64) (Rule, error) {
	if _, err := h.ExecContext(ctx, `SELECT 1 FROM upkeep_rule WHERE id = $1 FOR NO KEY UPDATE`, id); err != nil {
		return Rule{}, err
	}
	return RuleByID(ctx, h, id)
}

// InsertRule adds one and returns its id. A model that is none violates upkeep_rule_model_fkey; words that another rule of
// the same has, upkeep_rule_words_key.
func InsertRule(ctx context.Context, h pg.Handle, r Rule) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO upkeep_rule (of_class, model_id, body) VALUES ($1, $2, CAST($3 AS jsonb))
		RETURNING id`, r.Of, r.ModelID, r.Body)
	return id, err
}

// UpdateRule rewrites one, as InsertRule does. The caller holds its lock.
func UpdateRule(ctx context.Context, h pg.Handle, r Rule) error {
	_, err := h.ExecContext(ctx, `UPDATE upkeep_rule SET of_class = $2, model_id = $3, body = CAST($4 AS jsonb),
		voided = $5, version = version + 1 WHERE id = $1`, r.ID, r.Of, r.ModelID, r.Body, r.Voided)
	return err
}
