package dating

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/core/verdict"
)

// Verdicts are the lines of the reckoning that say when a machine was built.
func (s *Service) Verdicts(ctx context.Context, actor action.Actor, machineID int64) ([]verdict.Verdict, error) {
	dated, err := s.Dating(ctx, actor, machineID)
	if err != nil {
		return nil, err
	}
	return verdict.Telling(dated.Result.Verdict()), nil
}
