package stock

import (
	"cmp"
	"slices"

	"frugalheron/core/part"
)

// Plan is how all needs are met.
type Plan struct {
	Needs  []Met
	lines  []Line
	orders []OnOrder
	left   map[heldKey]int // what no need has
}

// heldKey is a drawer (order 0), or a line of an order.
type heldKey struct {
	stock, order int64
	line         int
}

type needKey struct {
	job  int64
	text string
}

// planner gives out what is there.
type planner struct {
	lines  []Line
	orders []OnOrder
	left   map[heldKey]int // what nobody has yet
	held   map[needKey][]Held
	first  map[int64]int64 // who was given of a drawer first
	grades map[string]map[string]part.Grade
}

// grade says how a part stands for a need; equal words are compared once.
func (p *planner) grade(need, have *part.Part) part.Grade {
	of := p.grades[need.Text]
	if of == nil {
		of = map[string]part.Grade{}
		p.grades[need.Text] = of
	}
	grade, known := of[have.Text]
	if !known {
		grade = part.GradeOf(*need, *have)
		of[have.Text] = grade
	}
	return grade
}

// Make gives out what is there and what is to come, need by need.
func Make(needs []Need, lines []Line, orders []OnOrder, held []Held) Plan {
	p := planner{lines: lines, orders: slices.Clone(orders), left: map[heldKey]int{}, held: map[needKey][]Held{},
		first: map[int64]int64{}, grades: map[string]map[string]part.Grade{}}
	// What comes first serves first; what nobody knows the day of, last.
	slices.SortStableFunc(p.orders, func(a, b OnOrder) int {
		return cmp.Or(cmp.Compare(cmp.Or(a.Due, "~"), cmp.Or(b.Due, "~")), cmp.Compare(a.Order, b.Order))
	})
	for _, l := range lines {
		p.left[heldKey{stock: l.ID}] = l.Count
	}
	for _, o := range p.orders {
		p.left[heldKey{order: o.Order, line: o.Line}] = o.Count
	}
	for _, h := range held {
		p.left[keyOf(h)] -= h.Count
		if h.Stock != 0 && p.first[h.Stock] == 0 {
			p.first[h.Stock] = h.Job
		}
		p.held[needKey{h.Job, h.Text}] = append(p.held[needKey{h.Job, h.Text}], h)
	}
	plan := Plan{Needs: make([]Met, 0, len(needs)), lines: lines, orders: p.orders, left: p.left}
	for _, n := range needs {
		plan.Needs = append(plan.Needs, p.meet(n))
	}
	return plan
}

func keyOf(h Held) heldKey { return heldKey{stock: h.Stock, order: h.Order, line: h.Line} }

func (p *planner) meet(n Need) Met {
	m := Met{Need: n, Offers: []Offer{}, Coming: []Coming{}, Taken: []Taken{}}
	open := n.Count
	// A job that asks twice in the same words has what is set aside shared between both.
	aside := p.held[needKey{n.Job, n.Text}]
	for i := range aside {
		h := &aside[i]
		count := min(open, h.Count)
		if count == 0 {
			continue
		}
		open -= count
		h.Count -= count
		if h.Stock != 0 {
			m.Reserved += count
			continue
		}
		for _, o := range p.orders {
			if o.Order == h.Order && o.Line == h.Line {
				m.Coming = append(m.Coming, Coming{Order: o.Order, Line: o.Line, Text: o.Text, Due: o.Due, Count: count,
					Held: true, Fit: part.Compare(n.Part, o.Part)})
			}
		}
	}
	if open > 0 {
		open = p.fromDrawers(&m, open)
	}
	if open <= 0 {
		m.Taken = []Taken{}
	}
	if open > 0 {
		open = p.fromOrders(&m, open)
	}
	m.Missing = max(0, open)
	switch {
	case m.Missing > 0:
		m.State = Short
	case len(m.Coming) > 0:
		m.State = Ordered
	case m.Reserved >= n.Count:
		m.State = Reserved
	default:
		m.State = InStock
	}
	return m
}

func (p *planner) fromDrawers(m *Met, open int) int {
	type drawer struct{ grade, at int }
	fitting := []drawer{}
	for i := range p.lines {
		l := &p.lines[i]
		if l.Faulty || l.Count == 0 || !part.MayFit(&m.Part, &l.Part) {
			continue
		}
		grade := p.grade(&m.Part, &l.Part)
		if grade == part.No {
			continue
		}
		if l.Unsure != "" {
			grade = part.Acceptable
		}
		fitting = append(fitting, drawer{slices.Index(part.Grades(), grade), i})
	}
	slices.SortFunc(fitting, func(a, b drawer) int { return cmp.Or(a.grade-b.grade, a.at-b.at) })
	for _, f := range fitting {
		l := &p.lines[f.at]
		key := heldKey{stock: l.ID}
		free := p.left[key]
		if free <= 0 {
			if job := p.first[l.ID]; job != m.Job {
				m.Taken = append(m.Taken, Taken{l.ID, l.Text, job})
			}
			continue
		}
		count := min(open, free)
		if count == 0 && len(m.Offers) >= mostOffers {
			break
		}
		open -= count
		p.left[key] -= count
		if count > 0 && p.first[l.ID] == 0 {
			p.first[l.ID] = m.Job
		}
		offer := Offer{Stock: l.ID, Text: l.Text, Free: free, Count: count, Fit: part.Compare(m.Part, l.Part)}
		if l.Unsure != "" {
			offer.Grade, offer.Why = part.Acceptable, append([]string{l.Unsure}, offer.Why...)
		}
		m.Offers = append(m.Offers, offer)
	}
	return open
}

// mostOffers is how many drawers are told for a need beside those that serve it: more than a person compares.
const mostOffers = 5

func (p *planner) fromOrders(m *Met, open int) int {
	for i := range p.orders {
		o := &p.orders[i]
		key := heldKey{order: o.Order, line: o.Line}
		if open == 0 || p.left[key] <= 0 || !part.MayFit(&m.Part, &o.Part) {
			continue
		}
		fit := part.Compare(m.Part, o.Part)
		if fit.Grade == part.No {
			continue
		}
		count := min(open, p.left[key])
		p.left[key] -= count
		open -= count
		m.Coming = append(m.Coming, Coming{Order: o.Order, Line: o.Line, Text: o.Text, Due: o.Due, Count: count,
			Fit: fit})
	}
	return open
}
