package sheets

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/core/device/builtin"
	"frugalheron/store/pg"
	"frugalheron/store/sheets"
)

// rereckonBatch is how many assemblies RereckonOld takes in one go.
const rereckonBatch = 20

// RereckonOld makes totals anew that an older version of the library gave. Several processes may
// do so at once; each assembly is locked while it is worked on.
func (s *Service) RereckonOld(ctx context.Context) error {
	for {
		ids, err := sheets.AssembliesWithOldTotals(ctx, s.kernel.Reader(ctx), builtin.Version, rereckonBatch)
		if err != nil || len(ids) == 0 {
			return err
		}
		err = s.kernel.InTx(ctx, func(tx *sqlx.Tx) error {
			if err := s.library.Hold(ctx, tx); err != nil {
				return err
			}
			return pg.NoteDue(ctx, tx, pg.ProjectedEntries, ids)
		})
		if err != nil {
			return err
		}
	}
}
