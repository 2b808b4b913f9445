package arrivals

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/app/evidence"
	"frugalheron/store/arrivals"
	storeevidence "frugalheron/store/evidence"
	"frugalheron/store/pg"
)

var (
	ofCustody = evidence.NewRetraction(storeevidence.OfCustody, eventRetractCustody, eventLetCustodyCount,
		action.MayKeepTheRecord,
		func(ctx context.Context, h pg.Handle, id int64) (int64, any, error) {
			before, err := arrivals.LockCustody(ctx, h, id)
			return before.MachineID, custodyOf(before), err
		})
)

// RetractCustody says that a statement about a machine's past does not count any more, and why.
func (s *Service) RetractCustody(ctx context.Context, actor action.Actor, id int64, why string) (int64, error) {
	return s.evidence.Retract(ctx, actor, ofCustody, id, why)
}
