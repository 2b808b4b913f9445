package sheets

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/core/device/builtin"
	"frugalheron/store/pg"
	"frugalheron/store/sheets"
)

// renewBatch is how many assemblies are made anew in one go.
const renewBatch = 20

// RereckonOld makes totals anew that an older version of the library gave. Several processes may
// do so at once; each assembly is locked while it is worked on.
func (s *Service) RereckonOld(ctx context.Context) error {
	return s.renewThose(ctx, sheets.AssembliesWithOldTotals, builtin.Version)
}

// TellOldStories tells anew what the revisions of sheets amount to, where older rules told it.
func (s *Service) TellOldStories(ctx context.Context) error {
	return s.renewThose(ctx, sheets.AssembliesWithOldStories, storyRules)
}

// renewThose makes anew what follows from the sheets of assemblies that a list has for a version, until it is empty.
func (s *Service) renewThose(ctx context.Context,
	list func(ctx context.Context, h pg.Handle, version, limit int) ([]int64, error), version int) error {
	for {
		ids, err := list(ctx, s.kernel.Reader(ctx), version, renewBatch)
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
