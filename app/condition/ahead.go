package condition

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/core/risk"
	"frugalheron/store/condition"
)

// LooksAhead is the work that ageing parts ask for.
type LooksAhead struct {
	Overdue int            `json:"overdue" doc:"Parts, or groups of equal ones, that should have been looked at by now"`
	Months  []LooksInMonth `json:"months" doc:"This month and the next ones"`
}

// LooksInMonth is how many of them fall due in a month.
type LooksInMonth struct {
	Month string `json:"month" says:"code" doc:"As 2026-11"`
	Looks int    `json:"looks"`
}

// monthsAhead is how far one plans.
const monthsAhead = 12

// LooksAhead says how many looks are overdue, and how many fall due month by month.
func (s *Service) LooksAhead(ctx context.Context, actor action.Actor) (LooksAhead, error) {
	ahead := LooksAhead{Months: []LooksInMonth{}}
	if err := actor.Must(action.MayLook); err != nil {
		return ahead, err
	}
	_, order, err := s.rank(ctx, actor, 0)
	if err != nil {
		return ahead, err
	}
	var months []risk.Month
	ahead.Overdue, months = order.Ahead(monthsAhead)
	for _, m := range months {
		ahead.Months = append(ahead.Months, LooksInMonth(m))
	}
	return ahead, nil
}

// YearOfFindings is how many findings were open at the end of a year, or are today in this one.
type YearOfFindings struct {
	Year     int `json:"year"`
	Hazard   int `json:"hazard"`
	Repair   int `json:"repair"`
	Watch    int `json:"watch"`
	Cosmetic int `json:"cosmetic"`
	Machines int `json:"machines" doc:"Machines that were surveyed in the year"`
}

// FindingsByYear tells the condition of the collection over the years: what was noted and not yet gone at the end of
// each. A year in which nobody looked tells nothing new, which the machines surveyed in it show.
func (s *Service) FindingsByYear(ctx context.Context, actor action.Actor) ([]YearOfFindings, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	rows, err := condition.OpenByYear(ctx, s.kernel.Reader(ctx), actor.Today())
	years := make([]YearOfFindings, len(rows))
	for i, row := range rows {
		years[i] = YearOfFindings(row)
	}
	return years, err
}
