package upkeep

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// Machine is what upkeep needs to know of one.
type Machine struct {
	ID        int64   `db:"id"`
	Accession string  `db:"accession"`
	Name      string  `db:"name"`
	ModelID   *int64  `db:"model_id"`
	Place     string  `db:"place"`
	Away      string  `db:"away"`     // where it is while it is not in the house
	Acquired  *string `db:"acquired"` // first day on which it can have come; null where nobody knows
	Looked    *string `db:"looked"`   // of the last survey that was ended
	Ran       *string `db:"ran"`      // when power was last applied
}

// Machines lists them, or the one with an id.
func Machines(ctx context.Context, h pg.Handle, id int64) ([]Machine, error) {
	found := []Machine{}
	err := h.SelectContext(ctx, &found, `SELECT m.id, m.accession, m.name, m.model_id, COALESCE(p.name, '') AS place,
			CASE WHEN o.lent_to <> '' THEN 'lent to ' || o.lent_to
				WHEN o.bound_for <> '' THEN 'on its way to ' || o.bound_for ELSE '' END AS away,
			CAST(q.arrived AS text) AS acquired, CAST(s.looked AS text) AS looked, CAST(u.ran AS text) AS ran
		FROM machine m LEFT JOIN place p ON p.id = m.place_id
			LEFT JOIN location o ON o.machine_id = m.id AND o.until IS NULL
			LEFT JOIN (SELECT i.machine_id, min(a.arrived_from) AS arrived FROM lot_item i
				JOIN acquisition a ON a.id = i.acquisition_id WHERE NOT i.voided GROUP BY i.machine_id) q
				ON q.machine_id = m.id
			LEFT JOIN (SELECT machine_id, max(made_on) AS looked FROM survey WHERE finished GROUP BY machine_id) s
				ON s.machine_id = m.id
			LEFT JOIN (SELECT machine_id, max(done_on) AS ran FROM power_up WHERE NOT voided GROUP BY machine_id) u
				ON u.machine_id = m.id
		WHERE CAST($1 AS bigint) = 0 OR m.id = $1 ORDER BY m.id`, id)
	return found, err
}

// LooseBoard is a board that is in no machine, and where it lies.
type LooseBoard struct {
	ID       int64   `db:"id"`
	Title    string  `db:"title"`
	Place    string  `db:"place"`
	Acquired *string `db:"acquired"`
}

// LooseBoards lists those that lie in the house and hold something that ages.
func LooseBoards(ctx context.Context, h pg.Handle) ([]LooseBoard, error) {
	found := []LooseBoard{}
	err := h.SelectContext(ctx, &found, `SELECT a.id, a.title, COALESCE(p.name, '') AS place,
			CAST(q.arrived AS text) AS acquired
		FROM board_ageing g JOIN assembly a ON a.id = g.assembly_id
			JOIN fitting f ON f.assembly_id = a.id AND f.until IS NULL AND f.machine_id IS NULL
			LEFT JOIN place p ON p.id = f.place_id
			LEFT JOIN (SELECT i.assembly_id, min(c.arrived_from) AS arrived FROM lot_item i
				JOIN acquisition c ON c.id = i.acquisition_id WHERE NOT i.voided GROUP BY i.assembly_id) q
				ON q.assembly_id = a.id
		WHERE g.parts <> '' AND COALESCE(f.lent_to, '') = '' ORDER BY a.id`)
	return found, err
}

// Plan is what somebody means to do on a day, kept whole as JSON.
type Plan struct {
	ID        int64  `db:"id"`
	On        string `db:"planned_on"`
	RuleID    *int64 `db:"rule_id"`
	JobID     *int64 `db:"job_id"`
	MachineID *int64 `db:"machine_id"`
	Body      string `db:"body"`
	Voided    bool   `db:"voided"`
	Version   int    `db:"version"`
	Accession string `db:"accession"` // of its machine; empty for none
	Job       string `db:"job"`       // the job as it is kept; empty for none
	JobState  string `db:"job_state"`
	Rule      string `db:"rule"` // the rule as it is kept; empty for none
}

const planSelect = `SELECT p.id, CAST(p.planned_on AS text) AS planned_on, p.rule_id, p.job_id, p.machine_id,
		CAST(p.body AS text) AS body, p.voided, p.version, COALESCE(m.accession, '') AS accession,
		COALESCE(j.body->>'title', '') AS job, COALESCE(j.state, '') AS job_state,
		COALESCE(CAST(r.body AS text), '') AS rule
	FROM plan p LEFT JOIN machine m ON m.id = p.machine_id LEFT JOIN job j ON j.id = p.job_id
		LEFT JOIN upkeep_rule r ON r.id = p.rule_id `

// PlansBetween lists what is planned on days, both included, by day.
func PlansBetween(ctx context.Context, h pg.Handle, from, to string) ([]Plan, error) {
	found := []Plan{}
	err := h.SelectContext(ctx, &found, planSelect+`WHERE NOT p.voided AND p.planned_on BETWEEN CAST($1 AS date)
		AND CAST($2 AS date) ORDER BY p.planned_on, p.id LIMIT 2000`, from, to)
	return found, err
}

// PlanByID reads one, voided or not.
func PlanByID(ctx context.Context, h pg.Handle, id int64) (Plan, error) {
	var p Plan
	err := pg.Get(ctx, h, &p, fmt.Sprintf("plan %d", id), planSelect+`WHERE p.id = $1`, id)
	return p, err
}

// LockPlan keeps others from changing one until the transaction ends, and reads it.
func LockPlan(ctx context.Context, h pg.Handle, id int64) (Plan, error) {
	if _, err := h.ExecContext(ctx, `SELECT 1 FROM plan WHERE id = $1 FOR NO KEY UPDATE`, id); err != nil {
		return Plan{}, err
	}
	return PlanByID(ctx, h, id)
}

// InsertPlan adds one and returns its id. What it is about has to be there: plan_rule_fkey, plan_job_fkey,
// plan_machine_fkey.
func InsertPlan(ctx context.Context, h pg.Handle, p Plan) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO plan (planned_on, rule_id, job_id, machine_id, body)
		VALUES (CAST($1 AS date), $2, $3, $4, CAST($5 AS jsonb)) RETURNING id`, p.On, p.RuleID, p.JobID, p.MachineID,
		p.Body)
	return id, err
}

// UpdatePlan rewrites one. The caller holds its lock.
func UpdatePlan(ctx context.Context, h pg.Handle, p Plan) error {
	_, err := h.ExecContext(ctx, `UPDATE plan SET planned_on = CAST($2 AS date), rule_id = $3, job_id = $4,
		machine_id = $5, body = CAST($6 AS jsonb), voided = $7, version = version + 1 WHERE id = $1`, p.ID, p.On,
		p.RuleID, p.JobID, p.MachineID, p.Body, p.Voided)
	return err
}

// WasDone is work that was done on a day.
type WasDone struct {
	On        string `db:"done_on"`
	Kind      string `db:"kind"` // round, upkeep, job, survey, power-up, log
	What      string `db:"what"`
	MachineID int64  `db:"machine_id"` // 0 for what was done to many
	Accession string `db:"accession"`
	ID        int64  `db:"id"`
	RuleID    int64  `db:"rule_id"` // 0 for what is no upkeep
	Count     int    `db:"count"`
	Minutes   *int   `db:"minutes"` // null where nobody said
}

// DoneBetween lists what was done on days, both included, by day. Days of moments are those of a zone.
func DoneBetween(ctx context.Context, h pg.Handle, from, to, zone string) ([]WasDone, error) {
	found := []WasDone{}
	err := h.SelectContext(ctx, &found, `SELECT CAST(w.done_on AS text) AS done_on, w.kind, w.what,
			COALESCE(w.machine_id, 0) AS machine_id, COALESCE(m.accession, '') AS accession, w.id, w.rule_id, w.count,
			w.minutes
		FROM (
			SELECT max(d.done_on) AS done_on, 'round' AS kind, u.body->>'task' AS what,
				CAST(NULL AS bigint) AS machine_id, r.id, u.id AS rule_id,
				count(*) FILTER (WHERE d.how <> 'not') AS count,
				CAST(NULLIF(r.body->>'minutes', '0') AS integer) AS minutes
			FROM upkeep_round r JOIN upkeep_rule u ON u.id = r.rule_id JOIN upkeep_deed d ON d.round_id = r.id
			WHERE NOT d.voided AND NOT r.voided AND d.done_on BETWEEN CAST($1 AS date) AND CAST($2 AS date)
			GROUP BY r.id, u.id
			UNION ALL
			SELECT d.done_on, 'upkeep', u.body->>'task', d.machine_id, d.id, u.id, 1, NULL
			FROM upkeep_deed d JOIN upkeep_rule u ON u.id = d.rule_id
			WHERE NOT d.voided AND d.round_id IS NULL AND d.how <> 'not'
				AND d.done_on BETWEEN CAST($1 AS date) AND CAST($2 AS date)
			UNION ALL
			SELECT CAST(NULLIF(j.body->'ending'->>'on', '') AS date), 'job', j.body->>'title', j.machine_id, j.id, 0, 1,
				CAST(NULLIF(j.body->>'minutes', '0') AS integer)
			FROM job j WHERE NOT j.voided AND j.state = 'done'
				AND j.body->'ending'->>'on' BETWEEN CAST($1 AS text) AND CAST($2 AS text)
			UNION ALL
			SELECT s.made_on, 'survey', '', s.machine_id, s.id, 0, 1, NULL
			FROM survey s WHERE s.finished AND s.made_on BETWEEN CAST($1 AS date) AND CAST($2 AS date)
			UNION ALL
			SELECT p.done_on, 'power-up', '', p.machine_id, min(p.id), 0, count(*), NULL
			FROM power_up p WHERE NOT p.voided AND p.done_on BETWEEN CAST($1 AS date) AND CAST($2 AS date)
			GROUP BY p.done_on, p.machine_id
			UNION ALL
			SELECT CAST(t.ended_at AT TIME ZONE $3 AS date), 'log', '', t.machine_id, t.id, 0, 1,
				CASE WHEN t.ended_at - t.started_at < interval '8 hours'
					THEN CAST(ceil(extract(epoch FROM t.ended_at - t.started_at) / 60) AS integer) END
			FROM teardown t WHERE t.outcome <> 'open' AND t.ended_at IS NOT NULL
				AND CAST(t.ended_at AT TIME ZONE $3 AS date) BETWEEN CAST($1 AS date) AND CAST($2 AS date)
		) w LEFT JOIN machine m ON m.id = w.machine_id ORDER BY w.done_on, w.kind, w.id LIMIT 2000`, from, to, zone)
	return found, err
}

// Feed is the address at which an account's calendar is read.
type Feed struct {
	AccountID int64     `db:"account_id"`
	MadeAt    time.Time `db:"made_at"`
}

// FeedOf is the one of an account.
func FeedOf(ctx context.Context, h pg.Handle, account int64) (Feed, error) {
	var f Feed
	err := pg.Get(ctx, h, &f, "calendar feed", `SELECT account_id, made_at FROM calendar_feed
		WHERE account_id = $1`, account)
	return f, err
}

// FeedBySecret is the one whose secret hashes to something.
func FeedBySecret(ctx context.Context, h pg.Handle, hash []byte) (Feed, error) {
	var f Feed
	err := pg.Get(ctx, h, &f, "calendar feed", `SELECT account_id, made_at FROM calendar_feed WHERE secret = $1`, hash)
	return f, err
}

// PutFeed gives an account an address; the one before leads nowhere from then on.
func PutFeed(ctx context.Context, h pg.Handle, account int64, hash []byte) error {
	_, err := h.ExecContext(ctx, `INSERT INTO calendar_feed (account_id, secret) VALUES ($1, $2)
		ON CONFLICT ON CONSTRAINT calendar_feed_pkey DO UPDATE SET secret = excluded.secret,
			made_at = now()`, account, hash)
	return err
}

// DropFeed takes the address of an account away.
func DropFeed(ctx context.Context, h pg.Handle, account int64) error {
	_, err := h.ExecContext(ctx, `DELETE FROM calendar_feed WHERE account_id = $1`, account)
	return err
}
