package dating

import (
	"context"
	"fmt"

	"frugalheron/app/action"
	"frugalheron/core/reckoning"
)

// Verdicts are the lines of the reckoning that say when a machine was built.
func (s *Service) Verdicts(ctx context.Context, actor action.Actor, machineID int64) ([]reckoning.Verdict, error) {
	dated, err := s.Dating(ctx, actor, machineID)
	if err != nil || dated.Result.Estimate == nil {
		return nil, err
	}
	built := dated.Result.Estimate
	line := reckoning.Verdict{
		Key: "built", Label: "Built", Value: fmt.Sprintf("%s to %s", built.From, built.To), State: reckoning.Plain,
		Why: []reckoning.Reason{},
	}
	for _, c := range dated.Result.Conflicts {
		line.State = reckoning.Attention
		line.Why = append(line.Why, reckoning.Reason{Text: "that does not go together: " + c.Why})
	}
	for _, because := range dated.Result.Basis {
		line.Why = append(line.Why, reckoning.Reason{Text: because})
	}
	return reckoning.Telling(line), nil
}
