package stock

import (
	"slices"
	"strings"
)

// ToOrder is what to order together: so many of one part, for which jobs.
type ToOrder struct {
	Text  string
	Count int
	Jobs  []int64
	// Refill says how many of them only fill up a drawer that has fewer than it should.
	Refill int
}

// ToOrder lists what is missing, equal words together, in the order of the needs; then what fills up drawers.
func (p Plan) ToOrder() []ToOrder {
	list := []ToOrder{}
	entry := func(text string) *ToOrder {
		at := slices.IndexFunc(list, func(o ToOrder) bool { return sameWords(o.Text, text) })
		if at < 0 {
			list = append(list, ToOrder{Text: text, Jobs: []int64{}})
			at = len(list) - 1
		}
		return &list[at]
	}
	for _, m := range p.Needs {
		if m.Missing == 0 {
			continue
		}
		o := entry(m.Part.Text)
		o.Count += m.Missing
		if !slices.Contains(o.Jobs, m.Job) {
			o.Jobs = append(o.Jobs, m.Job)
		}
	}
	for _, l := range p.lines {
		short := l.Minimum - max(0, p.left[heldKey{stock: l.ID}])
		for _, o := range p.orders {
			if sameWords(o.Text, l.Text) {
				short -= max(0, p.left[heldKey{order: o.Order, line: o.Line}])
			}
		}
		if l.Minimum > 0 && short > 0 {
			o := entry(l.Text)
			o.Count += short
			o.Refill += short
		}
	}
	return list
}

func sameWords(a, b string) bool {
	return strings.EqualFold(strings.Join(strings.Fields(a), " "), strings.Join(strings.Fields(b), " "))
}

// Unblocked is a job that goes on when an order is here.
type Unblocked struct {
	Job int64
	// With are the other orders that it waits for as well.
	With []int64
}

// Unblocks tells for each order which jobs it lets go on: those of which nothing else is missing.
func (p Plan) Unblocks() map[int64][]Unblocked {
	orders, isShort := map[int64][]int64{}, map[int64]bool{}
	jobs := []int64{}
	for _, m := range p.Needs {
		if _, seen := orders[m.Job]; !seen {
			orders[m.Job] = []int64{}
			jobs = append(jobs, m.Job)
		}
		isShort[m.Job] = isShort[m.Job] || m.State == Short
		for _, c := range m.Coming {
			if !slices.Contains(orders[m.Job], c.Order) {
				orders[m.Job] = append(orders[m.Job], c.Order)
			}
		}
	}
	unblocks := map[int64][]Unblocked{}
	for _, job := range jobs {
		if isShort[job] {
			continue
		}
		for _, order := range orders[job] {
			with := slices.DeleteFunc(slices.Clone(orders[job]), func(other int64) bool { return other == order })
			unblocks[order] = append(unblocks[order], Unblocked{job, with})
		}
	}
	return unblocks
}
