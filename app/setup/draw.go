package setup

import (
	"maps"
	"slices"

	"frugalheron/core/cardcage"
	"frugalheron/core/slotplan"
)

// draw puts a plan down as it is shown. Versions are those of the boards that are in the machine.
func (p *SlotPlan) draw(cage cardcage.Cage, versions map[int64]int) {
	p.Remarks = append(p.Remarks, cage.Remarks...)
	p.Undrawn = append(p.Undrawn, slices.Sorted(maps.Keys(cage.Unknown))...)
	out, err := slotplan.Plan(cage.In)
	if err != nil {
		p.Refused = err.Error()
		out = slotplan.Output{}
	}
	p.OK, p.Solvable = out.OK, len(out.Assignment) > 0 || len(cage.In.Cards) == 0
	p.Fillers, p.Proposal = append(p.Fillers, out.Fillers...), cage.Propose(out)
	wrong := map[string]bool{}
	for _, problem := range out.Problems {
		p.Problems = append(p.Problems, PlanProblem(problem))
		for _, name := range problem.Cards {
			wrong[name] = wrong[name] || !problem.IsFiller()
		}
	}
	for _, rail := range slices.Sorted(maps.Keys(out.Rails)) {
		r := out.Rails[rail]
		p.Rails = append(p.Rails, PlanRail{rail, r.Draw, r.Rating, r.Headroom})
	}
	for _, c := range cage.In.Cards {
		p.Cards = append(p.Cards, p.card(cage, c, versions[cage.IDOf(c.ID)], wrong[c.ID]))
	}
	stands, _ := slotplan.Stand(cage.In) // nothing stands anywhere in one that is refused
	for _, row := range cage.AllRows() {
		drawn := PlanRow{Chassis: row.Chassis, Name: row.Name, Kind: row.Kind, Slots: []PlanSlot{}}
		for _, id := range row.Slots {
			slot := PlanSlot{ID: id, Chain: slices.Index(cage.In.Chain, id) + 1, Cards: []int64{}}
			for _, name := range stands.In[id] {
				slot.Cards = append(slot.Cards, cage.IDOf(name))
			}
			slot.Filler = slices.Contains(stands.Fillers, id)
			drawn.Slots = append(drawn.Slots, slot)
		}
		p.Rows = append(p.Rows, drawn)
	}
}

func (p *SlotPlan) card(cage cardcage.Cage, c slotplan.Card, version int, isWrong bool) PlanCard {
	id := cage.IDOf(c.ID)
	drawn := PlanCard{AssemblyID: id, Name: c.ID, Fitted: version > 0, Version: version, Needs: []PlanNeed{},
		Draw:  []RailDraw{},
		Wrong: isWrong, OnBoard: cage.IsBoard(c.ID)}
	if c.At != nil && !drawn.OnBoard {
		drawn.Slot = *c.At
	}
	for _, n := range c.Needs {
		need := PlanNeed{Resource: n.Resource, Choices: []string{}, Shared: n.Shared}
		for _, choice := range n.Choices {
			need.Choices = append(need.Choices, choice.String())
		}
		if n.Now != nil {
			need.Now = n.Now.String()
		}
		drawn.Needs = append(drawn.Needs, need)
	}
	for _, rail := range slices.Sorted(maps.Keys(c.Draw)) {
		drawn.Draw = append(drawn.Draw, RailDraw{rail, c.Draw[rail]})
	}
	return drawn
}
