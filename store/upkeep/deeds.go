package upkeep

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// Deed is what was done, or seen, or could not be done, of a rule to a machine or a board that is in none.
type Deed struct {
	ID         int64     `db:"id"`
	RuleID     int64     `db:"rule_id"`
	RoundID    *int64    `db:"round_id"`
	Stop       int       `db:"stop"` // of the round, counted from 1; 0 for one that was done by itself
	MachineID  *int64    `db:"machine_id"`
	AssemblyID *int64    `db:"assembly_id"`
	Boards     []int64   `db:"-"` // on which the parts sit; only to write
	Of         string    `db:"of_class"`
	On         string    `db:"done_on"`
	How        string    `db:"how"`
	Body       string    `db:"body"`
	Voided     bool      `db:"voided"`
	Version    int       `db:"version"`
	By         string    `db:"by_name"`
	At         time.Time `db:"at"`
}

const deedSelect = `SELECT d.id, d.rule_id, d.round_id, d.stop, d.machine_id, d.assembly_id, d.of_class,
		CAST(d.done_on AS text) AS done_on, d.how, CAST(d.body AS text) AS body, d.voided, d.version,
		COALESCE(a.name, '') AS by_name, d.at
	FROM upkeep_deed d LEFT JOIN account a ON a.id = d.account_id `

// DeedsOfRound lists what was done in a round, in the order of its stops.
func DeedsOfRound(ctx context.Context, h pg.Handle, roundID int64) ([]Deed, error) {
	found := []Deed{}
	err := h.SelectContext(ctx, &found, deedSelect+`WHERE d.round_id = $1 AND NOT d.voided ORDER BY d.stop`, roundID)
	return found, err
}

// DeedByID reads one, voided or not.
func DeedByID(ctx context.Context, h pg.Handle, id int64) (Deed, error) {
	var d Deed
	err := pg.Get(ctx, h, &d, fmt.Sprintf("deed %d", id), deedSelect+`WHERE d.id = $1`, id)
	return d, err
}

// LockDeed keeps others from changing one until the transaction ends, and reads it.
func LockDeed(ctx context.Context, h pg.Handle, id int64) (Deed, error) {
	if _, err := h.ExecContext(ctx, `SELECT 1 FROM upkeep_deed WHERE id = $1 FOR NO KEY UPDATE`, id); err != nil {
		return Deed{}, err
	}
	return DeedByID(ctx, h, id)
}

// InsertDeed adds one and returns its id. A second one of a stop violates upkeep_deed_stop_key.
func InsertDeed(ctx context.Context, h pg.Handle, by *int64, d Deed) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id, `INSERT INTO upkeep_deed (rule_id, round_id, stop, machine_id, assembly_id, boards, of_class,
			done_on, how, body, account_id)
		VALUES ($1, $2, $3, $4, $5, CAST($6 AS bigint[]), $7, CAST($8 AS date), $9, CAST($10 AS jsonb),
			$11) RETURNING id`,
		d.RuleID, d.RoundID, d.Stop, d.MachineID, d.AssemblyID, d.Boards, d.Of, d.On, d.How, d.Body, by)
	return id, err
}

// UpdateDeed rewrites how one went. The caller holds its lock.
func UpdateDeed(ctx context.Context, h pg.Handle, d Deed) error {
	_, err := h.ExecContext(ctx, `UPDATE upkeep_deed SET done_on = CAST($2 AS date), how = $3, body = CAST($4 AS jsonb),
		voided = $5, version = version + 1 WHERE id = $1`, d.ID, d.On, d.How, d.Body, d.Voided)
	return err
}

// Counted is a deed that counts, of one machine as a whole, or of one board.
type Counted struct {
	RuleID    int64  `db:"rule_id"`
	MachineID int64  `db:"machine_id"` // 0 for what was done to parts
	BoardID   int64  `db:"board_id"`   // 0 for what was done to a machine as a whole
	On        string `db:"done_on"`
	How       string `db:"how"`
}

// CountedDeeds lists the last of each rule, way, and machine or board: what could not be done counts for nothing.
func CountedDeeds(ctx context.Context, h pg.Handle) ([]Counted, error) {
	found := []Counted{}
	err := h.SelectContext(ctx, &found, `
		SELECT rule_id, machine_id, 0 AS board_id, CAST(max(done_on) AS text) AS done_on, how FROM upkeep_deed
		WHERE NOT voided AND how <> 'not' AND of_class = 'machine' GROUP BY rule_id, machine_id, how
		UNION ALL
		SELECT rule_id, 0, board, CAST(max(done_on) AS text), how FROM upkeep_deed, unnest(boards) AS board
		WHERE NOT voided AND how <> 'not' AND of_class <> 'machine' GROUP BY rule_id, board, how`)
	return found, err
}

// DeedsOfMachine lists what was done to a machine, or to boards that are in it today, the newest first.
func DeedsOfMachine(ctx context.Context, h pg.Handle, machineID int64, limit int) ([]Deed, error) {
	found := []Deed{}
	err := h.SelectContext(ctx, &found, deedSelect+`WHERE NOT d.voided AND (d.machine_id = $1 OR d.boards &&
			ARRAY(SELECT f.assembly_id FROM fitting f WHERE f.machine_id = $1 AND f.until IS NULL))
		ORDER BY d.done_on DESC, d.id DESC LIMIT $2`, machineID, limit)
	return found, err
}
