package condition

import (
	"cmp"
	"context"
	"math"
	"slices"

	"frugalheron/app/action"
	"frugalheron/core/condition"
	"frugalheron/core/risk"
	storecondition "frugalheron/store/condition"
	"frugalheron/store/pg"
)

// Risk is a part that ages, with its place in the order.
type Risk struct {
	Machine      MachineName `json:"machine" doc:"Its id is 0 for a board that is in none: then its name and place are those of the board"`
	AssemblyID   int64       `json:"assemblyId"`
	Board        string      `json:"board" says:"text"`
	Line         int         `json:"line" doc:"Line of the board's sheet; 0 for the board itself"`
	Place        string      `json:"place" says:"text" doc:"Designators, or what it is called"`
	Class        string      `json:"class"`
	Name         string      `json:"name" doc:"Of the class"`
	Subsystem    string      `json:"subsystem" doc:"Where a survey looks at it"`
	Count        int         `json:"count"`
	Rank         float64     `json:"rank" doc:"Missed looks times the weight of what happens: an order, not a probability"`
	OverdueRatio float64     `json:"overdueRatio" doc:"Months since the last look, by the months between two looks"`
	IsDue        bool        `json:"isDue"`
	Why          string      `json:"why" says:"text" doc:"All of it in a sentence"`
}

// RiskPage is a page of the order.
type RiskPage struct {
	Risks []Risk `json:"risks"`
	Total int    `json:"total" doc:"Parts, or groups of equal parts, that are ranked"`
	Due   int    `json:"due" doc:"Of them those that should have been looked at by now"`
	Next  int    `json:"next" doc:"Give this as after to get the next page; 0 on the last"`
}

// Risks ranks what ages, what to look at first at the top: of one machine, or for 0 of the collection.
func (s *Service) Risks(ctx context.Context, actor action.Actor, machineID int64, after, limit int) (RiskPage, error) {
	page := RiskPage{Risks: []Risk{}}
	if err := actor.Must(action.MayLook); err != nil {
		return page, err
	}
	table, order, err := s.rank(ctx, actor, machineID)
	if err != nil {
		return page, err
	}
	page.Total, page.Due = order.Len(), order.Due
	if end := after + limit; end < page.Total {
		page.Next = end
	}
	page.Risks, err = tellRisks(ctx, s.kernel.Reader(ctx), table, order, order.From(after, after+limit))
	return page, err
}

// rank orders what ages in a machine, or for 0 in the collection.
func (s *Service) rank(ctx context.Context, actor action.Actor, machineID int64) (risk.Table, *risk.Order, error) {
	a, err := AgeingIn(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return nil, nil, err
	}
	return a.Table, risk.Rank(a.Table, a.Machines, a.Parts, dayOf(actor.Today())), nil
}

// tellRisks names some of the ranked parts.
func tellRisks(ctx context.Context, h pg.Handle, table risk.Table, order *risk.Order,
	some []risk.Ranked) ([]Risk, error) {
	machines, assemblies, lines, loose := []int64{}, []int64{}, []int{}, []int64{}
	for _, one := range some {
		if isBoard(one.Machine) {
			loose = append(loose, one.Assembly)
		}
		machines, assemblies, lines = append(machines, one.Machine), append(assemblies, one.Assembly),
			append(lines, one.Line)
	}
	names, err := storecondition.MachineNames(ctx, h, machines)
	if err != nil {
		return nil, err
	}
	boards, err := storecondition.LooseBoards(ctx, h, loose)
	if err != nil {
		return nil, err
	}
	spots, err := storecondition.AgeingSpots(ctx, h, assemblies, lines)
	if err != nil {
		return nil, err
	}
	told := make([]Risk, len(some))
	for i, one := range some {
		t := Risk{
			AssemblyID: one.Assembly, Line: one.Line, Class: one.Class, Name: table[one.Class].Name, Count: one.Count,
			Rank: round2(one.Rank), OverdueRatio: round2(one.OverdueRatio),
			IsDue: one.IsDue(), Why: order.Sentence(one), Subsystem: subsystemOf(one.Class),
		}
		for _, n := range names {
			if n.ID == one.Machine {
				t.Machine = MachineName(n)
			}
		}
		for _, b := range boards {
			if one.Machine == asIfMachine(b.ID) {
				t.Machine = MachineName{Name: b.Title, Place: b.Place}
			}
		}
		for _, s := range spots {
			if s.AssemblyID == one.Assembly && s.Line == one.Line {
				t.Board, t.Place = s.Board, cmp.Or(s.Places, s.Marking, s.Board)
			}
		}
		told[i] = t
	}
	return told, nil
}

func round2(v float64) float64 { return math.Round(v*100) / 100 }

// subsystemOf is the subsystem in which a survey looks at a class.
func subsystemOf(class string) string {
	for _, s := range condition.Subsystems() {
		if slices.Contains(s.Classes, class) {
			return s.Key
		}
	}
	return ""
}
