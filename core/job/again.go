package job

import "cmp"

// Mended is a job that is done: on which board, by which usual job, and how long it took.
type Mended struct {
	Board    int64
	Template string
	Minutes  int
	On       string // YYYY-MM-DD
}

// Again is a fault of one class that one board had again and again.
type Again struct {
	Board    int64
	Template string
	Times    int
	Minutes  int    // spent on all of them; 0 where nobody said
	First    string // day of the first
	Last     string // day of the last
}

// often is from how many times on the question is put whether to go on mending. Rule of thumb of this house: twice is bad
// luck, three times is a pattern.
const often = 3

// OftenMended lists what was mended so often on one board by the same usual job that one asks whether to go on, or to
// replace the board or what is behind it; in the order of the first of each.
func OftenMended(done []Mended) []Again {
	type class struct {
		board    int64
		template string
	}
	counted, order := map[class]*Again{}, []class{}
	for _, m := range done {
		if m.Board == 0 || m.Template == "" {
			continue
		}
		key := class{m.Board, m.Template}
		a := counted[key]
		if a == nil {
			a = &Again{Board: m.Board, Template: m.Template}
			counted[key] = a
			order = append(order, key)
		}
		a.Times++
		a.Minutes += m.Minutes
		a.Last = max(a.Last, m.On)
		a.First = min(cmp.Or(a.First, m.On), cmp.Or(m.On, a.First))
	}
	found := []Again{}
	for _, key := range order {
		if counted[key].Times >= often {
			found = append(found, *counted[key])
		}
	}
	return found
}
