package pg

import "context"

// Projections are what follows from records and is kept, in the order in which it is made anew: each may follow from
// those before it, and all who write several lock in this order.
var Projections = []string{
	ProjectedEntries, ProjectedAssemblyIdentifiers, ProjectedLotIdentifiers, ProjectedMachineSum,
	ProjectedMachineEvidence, ProjectedMachineAgeing, ProjectedBoardAgeing,
	"public machine", "public machine name", "public machine maker",
	"public place", "public assembly", "public lot",
}

// Names of projections, as the triggers of the database note them.
const (
	ProjectedEntries             = "entries"              // of an assembly's newest sheet, with positions and totals
	ProjectedAssemblyIdentifiers = "assembly identifiers" // by which one that is in no machine is met
	ProjectedLotIdentifiers      = "lot identifiers"      // those in the documents of an arrival
	ProjectedMachineSum          = "machine sum"          // what lists sort, filter and count by
	ProjectedMachineEvidence     = "machine evidence"     // how much is disputed, and identifiers
	ProjectedMachineAgeing       = "machine ageing"       // which parts age, and when somebody looked
	ProjectedBoardAgeing         = "board ageing"         // the same of boards that are in no machine
)

// TakeDue reads which projections this transaction has to make anew, and takes them off the list.
func TakeDue(ctx context.Context, h Handle) (map[string][]int64, error) {
	rows := []struct {
		Projection string `db:"projection"`
		ID         int64  `db:"id"`
	}{}
	err := h.SelectContext(ctx, &rows,
		`DELETE FROM projection_due WHERE tx = pg_current_xact_id() RETURNING projection, id`)
	due := map[string][]int64{}
	for _, row := range rows {
		due[row.Projection] = append(due[row.Projection], row.ID)
	}
	return due, err
}

// NoteDue has projections made anew that no trigger notes, as those that follow from what was read of the library.
func NoteDue(ctx context.Context, h Handle, projection string, ids []int64) error {
	_, err := h.ExecContext(ctx,
		`INSERT INTO projection_due (projection, id) SELECT $1, unnest(CAST($2 AS bigint[])) ON CONFLICT DO NOTHING`,
		projection, ids)
	return err
}

// TakeOverLeftDue makes up to limit of what other transactions left over due in this one, and returns how many.
func TakeOverLeftDue(ctx context.Context, h Handle, limit int) (int, error) {
	result, err := h.ExecContext(ctx, `WITH left_over AS (DELETE FROM projection_due WHERE (tx, projection, id) IN
			(SELECT tx, projection, id FROM projection_due WHERE tx <> pg_current_xact_id() ORDER BY projection, id
			LIMIT $1 FOR UPDATE SKIP LOCKED)
			RETURNING projection, id)
		INSERT INTO projection_due (projection, id) SELECT DISTINCT projection, id FROM left_over
		ON CONFLICT DO NOTHING`, limit)
	if err != nil {
		return 0, err
	}
	n, err := result.RowsAffected()
	return int(n), err
}
