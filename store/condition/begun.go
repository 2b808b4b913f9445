package condition

import (
	"context"
	"time"

	"frugalheron/store/pg"
)

// BegunRow is a survey that runs, or a machine that is open.
type BegunRow struct {
	Kind      string    `db:"kind"`
	MachineID int64     `db:"machine_id"`
	Accession string    `db:"accession"`
	Machine   string    `db:"machine"`
	Done      int       `db:"done"`
	Since     time.Time `db:"since"`
}

// BegunWork lists what was begun on machines and not ended, the oldest first.
func BegunWork(ctx context.Context, h pg.Handle) ([]BegunRow, error) {
	found := []BegunRow{}
	err := h.SelectContext(ctx, &found, `
		SELECT b.kind, b.machine_id, m.accession, m.name AS machine, b.done, b.since FROM (
			SELECT 'survey' AS kind, machine_id, at AS since,
				(SELECT count(*) FROM jsonb_object_keys(inspections)) AS done
			FROM survey WHERE NOT finished
			UNION ALL
			SELECT 'log', t.machine_id, t.started_at,
				(SELECT count(*) FROM teardown_step s WHERE s.teardown_id = t.id AND NOT s.voided)
			FROM teardown t WHERE t.outcome = 'open'
		) b JOIN machine m ON m.id = b.machine_id ORDER BY b.since, b.machine_id`)
	return found, err
}
