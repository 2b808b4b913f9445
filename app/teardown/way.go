package teardown

import (
	"context"
	"strings"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/sheet"
	"frugalheron/core/teardown"
	storeteardown "frugalheron/store/teardown"
)

// WayView is how one gets at a part of a machine, by a procedure of its model or by a log.
type WayView struct {
	By        string `json:"by" says:"text" doc:"The procedure, or the log, from which it follows"`
	Procedure int64  `json:"procedureId" doc:"0 for a log"`
	teardown.Way
}

// WaysTo tells how one gets at a part of a machine: by each procedure of its model, and by each log of the machine
// itself.
func (s *Service) WaysTo(ctx context.Context, actor action.Actor, machineID int64, part string) ([]WayView, error) {
	if err := input.OneLine("to", &part); err != nil {
		return nil, err
	}
	if part == "" {
		return nil, action.Reject("to", "say which part, as BT1")
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) ([]WayView, error) {
		opened, err := s.OpenedUp(ctx, actor, machineID)
		if err != nil {
			return nil, err
		}
		board := ""
		if sheet.IsDesignator(part) {
			board, err = storeteardown.BoardWith(ctx, s.kernel.Reader(ctx), machineID, strings.ToUpper(part))
			if err != nil {
				return nil, err
			}
		}
		ways := []WayView{}
		for _, p := range opened.Procedures {
			steps, err := stepsOf(p.Body)
			if err != nil {
				return nil, err
			}
			ways = append(ways, WayView{p.Title, p.ID, teardown.WayTo(part, board, steps)})
		}
		logs := []int64{}
		if opened.Now != nil {
			logs = append(logs, opened.Now.ID)
		}
		for _, log := range opened.Before {
			logs = append(logs, log.ID)
		}
		for _, id := range logs[:min(len(logs), mostLogs)] {
			log, err := s.Teardown(ctx, actor, id)
			if err != nil {
				return nil, err
			}
			if len(log.Steps) > 0 {
				ways = append(ways, WayView{"log: " + log.Purpose, 0, teardown.WayTo(part, board, log.plain())})
			}
		}
		return ways, nil
	})
}

// mostLogs bounds the logs, the newest first, of which a way is told.
const mostLogs = 3

// plain are the steps of a log as those of a procedure.
func (t TeardownView) plain() []teardown.Step {
	steps := make([]teardown.Step, len(t.Steps))
	for i, step := range t.Steps {
		steps[i] = step.Step
	}
	return steps
}
