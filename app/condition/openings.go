package condition

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/store/condition"
)

// Opening is a machine that is proposed to be opened.
type Opening struct {
	Machine MachineName `json:"machine"`
	Minutes int         `json:"minutes" doc:"To open it, look at what is due, and put it together again"`
	Timed   bool        `json:"timed" doc:"Opening it was timed by a log; else a rule of thumb"`
	Due     []Risk      `json:"due" doc:"What is due in it, the first to look at first"`
	More    int         `json:"more" doc:"What is due beside that"`
}

// OpeningPlan is what to open first in so much time.
type OpeningPlan struct {
	Openings []Opening `json:"openings"`
	Minutes  int       `json:"minutes" doc:"That all of it takes"`
	Left     int       `json:"left" doc:"Minutes that are left"`
	Waiting  int       `json:"waiting" doc:"Machines with something due that are not in the plan"`
}

// Bounds of a plan that is shown.
const (
	mostOpenings = 60
	mostLooks    = 6
)

// minutesToFetch is how long it takes to have a board in store at hand: nothing is opened. A rule of thumb.
const minutesToFetch = 5

// PlanOpenings says what to open first in some minutes.
func (s *Service) PlanOpenings(ctx context.Context, actor action.Actor, minutes int) (OpeningPlan, error) {
	plan := OpeningPlan{Openings: []Opening{}}
	if err := actor.Must(action.MayLook); err != nil {
		return plan, err
	}
	table, order, err := s.rank(ctx, actor, 0)
	if err != nil {
		return plan, err
	}
	times, err := condition.OpeningTimes(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return plan, err
	}
	chosen, left, waiting := order.Plan(minutes, func(id int64) int {
		if isBoard(id) {
			return minutesToFetch
		}
		return times[id]
	})
	plan.Left, plan.Minutes, plan.Waiting = left, minutes-left, waiting
	for _, c := range chosen[:min(len(chosen), mostOpenings)] {
		shown := c.Look[:min(len(c.Look), mostLooks)]
		look, err := tellRisks(ctx, s.kernel.Reader(ctx), table, order, shown)
		if err != nil {
			return plan, err
		}
		plan.Openings = append(plan.Openings,
			Opening{Machine: look[0].Machine, Minutes: c.Minutes, Timed: times[c.Machine] > 0, Due: look,
				More: len(c.Look) - len(shown)})
	}
	return plan, nil
}
