package action

import (
	"context"
	"fmt"
	"slices"

	"github.com/jmoiron/sqlx"

	"frugalheron/store/pg"
)

// Renewal makes anew what follows from records, given the ids of those that it is kept of, in order.
type Renewal func(ctx context.Context, tx *sqlx.Tx, ids []int64) error

// Follow says how a projection is made anew. Which records' projections are due, the database notes by itself.
func (k *Kernel) Follow(projection string, renew Renewal) {
	if !slices.Contains(pg.Projections, projection) || k.follows[projection] != nil {
		panic(fmt.Sprintf("the projection %q is unknown, or is followed already", projection))
	}
	k.follows[projection] = renew
}

// UpToDate makes anew all that is due in a transaction, in one order of locks for everybody. It is called at the end of
// each action; earlier only by those who go on with what follows.
func (k *Kernel) UpToDate(ctx context.Context, tx *sqlx.Tx) error {
	due := map[string][]int64{}
	for {
		noted, err := pg.TakeDue(ctx, tx)
		if err != nil {
			return err
		}
		for projection, ids := range noted {
			due[projection] = append(due[projection], ids...)
		}
		isDue := func(projection string) bool { return len(due[projection]) > 0 }
		i := slices.IndexFunc(pg.Projections, isDue)
		if i < 0 {
			return nil
		}
		projection := pg.Projections[i]
		renew := k.follows[projection]
		if renew == nil {
			return fmt.Errorf("nobody makes %q anew", projection)
		}
		slices.Sort(due[projection])
		if err := renew(ctx, tx, slices.Compact(due[projection])); err != nil {
			return fmt.Errorf("%s: %w", projection, err)
		}
		delete(due, projection)
	}
}

// leftOverAtOnce is how many projections that are left over are made anew in one transaction: few enough to end within
// a part of a job, also on a busy machine, as what does not would begin again for ever.
const leftOverAtOnce = 500

// RenewLeftOver makes anew what a migration has noted as due, before the application knew of it.
func (k *Kernel) RenewLeftOver(ctx context.Context) error {
	for taken := 1; taken > 0; {
		err := pg.InTx(ctx, k.DB, func(tx *sqlx.Tx) (err error) {
			if taken, err = pg.TakeOverLeftDue(ctx, tx, leftOverAtOnce); err != nil {
				return err
			}
			return k.UpToDate(ctx, tx)
		})
		if err != nil {
			return err
		}
	}
	return nil
}

// Each makes a renewal of one that is done record by record.
func Each(renew func(ctx context.Context, tx *sqlx.Tx, id int64) error) Renewal {
	return func(ctx context.Context, tx *sqlx.Tx, ids []int64) error {
		for _, id := range ids {
			if err := renew(ctx, tx, id); err != nil {
				return err
			}
		}
		return nil
	}
}
