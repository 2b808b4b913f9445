package app

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/core/reckoning"
	"frugalheron/store"
)

// sumMachine writes the sums of a machine anew, by which lists sort, filter and count, and the
// identifiers by which it is met elsewhere.
func sumMachine(ctx context.Context, tx *sqlx.Tx, machineID int64) error {
	if err := store.LockMachineSums(ctx, tx, machineID); err != nil {
		return err
	}
	boards, err := store.BoardCountsOf(ctx, tx, machineID)
	if err != nil {
		return err
	}
	counts := make([]reckoning.Counts, len(boards))
	for i, b := range boards {
		counts[i] = reckoning.Counts(b)
	}
	stage := reckoning.StageOf(counts)
	if err := store.PutMachineSum(ctx, tx, machineID, string(stage.State), stage.Count); err != nil {
		return err
	}
	if err := sumAgeing(ctx, tx, machineID); err != nil {
		return err
	}
	return sumKnown(ctx, tx, machineID)
}

// sumMachines does so for the machines that an assembly left and came to.
func sumMachines(ctx context.Context, tx *sqlx.Tx, machines ...*int64) error {
	ids := []int64{}
	for _, id := range machines {
		if id != nil {
			ids = append(ids, *id)
		}
	}
	if err := store.LockMachineSums(ctx, tx, ids...); err != nil {
		return err
	}
	for _, id := range ids {
		if err := sumMachine(ctx, tx, id); err != nil {
			return err
		}
	}
	return nil
}
