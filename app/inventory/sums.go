package inventory

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/core/reckoning"
	"frugalheron/store/inventory"
)

// renewSums writes the sums of machines anew, by which lists sort, filter and count.
func renewSums(ctx context.Context, tx *sqlx.Tx, ids []int64) error {
	if err := inventory.LockMachineSums(ctx, tx, ids...); err != nil {
		return err
	}
	for _, id := range ids {
		boards, err := inventory.BoardCountsOf(ctx, tx, id)
		if err != nil {
			return err
		}
		counts := make([]reckoning.Counts, len(boards))
		for i, b := range boards {
			counts[i] = reckoning.Counts(b)
		}
		stage := reckoning.StageOf(counts)
		if err := inventory.PutMachineSum(ctx, tx, id, string(stage.State), stage.Count); err != nil {
			return err
		}
	}
	return nil
}
