package population

import (
	"cmp"
	"slices"
)

// counts is how many modules of each size there are.
type counts [mostSizes]uint8

func (c counts) plus(d counts) counts {
	for i := range c {
		c[i] += d[i]
	}
	return c
}

func (c counts) sum() int {
	n := 0
	for _, one := range c {
		n += int(one)
	}
	return n
}

// filling is what could stand in each bank, with what that comes to.
type filling struct {
	banks   []counts
	all     counts
	changes int
	bytes   int64
	bought  int
	jumpers map[string]any
}

// weigh adds up bytes and what would have to be bought.
func (m *machine) weigh(f *filling) {
	f.bytes, f.bought = m.bytesOf(f.all), 0
	for i, n := range f.all {
		if i < len(m.sizes) {
			f.bought += max(0, int(n)-m.ready[i])
		}
	}
}

func (m *machine) bytesOf(all counts) int64 {
	var sum int64
	for i, s := range m.sizes {
		sum += int64(all[i]) * dataBytes(s.org)
	}
	return sum
}

// changesOf is how many sockets of a bank are not as they are now when it holds so many of each size: modules that serve
// stay where they are as far as they can, and so do empty sockets.
func (m *machine) changesOf(bank int, in counts) int {
	sockets := m.Banks[bank].Sockets
	var now counts
	empty := 0
	for _, socket := range sockets {
		if one, isFilled := m.modules[socket]; !isFilled {
			empty++
		} else if m.serves(one) {
			now[one.size]++
		}
	}
	stay := min(empty, len(sockets)-in.sum())
	for i := range in {
		stay += int(min(in[i], now[i]))
	}
	return len(sockets) - stay
}

// chosen orders what could stand by what was asked for, and cuts it off.
func (m *machine) chosen(found []filling, isLegal bool) []filling {
	order := func(fs []filling, byBytes func(a, b filling) int) []filling {
		slices.SortStableFunc(fs, func(a, b filling) int {
			return cmp.Or(cmp.Compare(a.bought, b.bought), cmp.Compare(a.changes, b.changes), byBytes(a, b))
		})
		return fs[:min(len(fs), mostPlans)]
	}
	fewer := func(a, b filling) int { return cmp.Compare(a.bytes, b.bytes) }
	more := func(a, b filling) int { return cmp.Compare(b.bytes, a.bytes) }
	keep := func(isKept func(filling) bool) []filling {
		return slices.DeleteFunc(slices.Clone(found), func(f filling) bool { return !isKept(f) })
	}
	switch {
	case m.Want == nil && isLegal:
		return nil
	case m.Want == nil:
		return order(keep(func(f filling) bool { return f.bought == 0 }), more)
	case !m.Want.IsMax:
		return order(keep(func(f filling) bool { return f.bytes >= m.Want.Bytes }), fewer)
	}
	var mostReady, most int64
	for _, f := range found {
		if most = max(most, f.bytes); f.bought == 0 {
			mostReady = max(mostReady, f.bytes)
		}
	}
	best := order(keep(func(f filling) bool { return f.bought == 0 && f.bytes == mostReady }), fewer)
	best = best[:min(len(best), 1)]
	if most > mostReady {
		best = append(best, order(keep(func(f filling) bool { return f.bytes == most }), fewer)...)
	}
	return best[:min(len(best), mostPlans)]
}

// plan puts modules into sockets: those that serve stay, then what lies in stock, then what was taken out of other sockets,
// then what is bought.
func (m *machine) plan(f filling) Plan {
	told := Plan{Sockets: map[string]*string{}, Bytes: f.bytes, Jumpers: map[string]any{}, Changes: f.changes,
		Buy: []Buy{}}
	for name, set := range f.jumpers {
		told.Jumpers[name] = set
	}
	free := map[int][]string{} // texts by size
	for _, s := range m.Stock {
		if one := m.read(s.Text); m.serves(one) {
			for range min(s.Count, mostSockets) {
				free[one.size] = append(free[one.size], s.Text)
			}
		}
	}
	type hole struct {
		socket string
		size   int
	}
	holes := []hole{}
	for i, b := range m.Banks {
		left, empty, open := f.banks[i], len(b.Sockets)-f.banks[i].sum(), []string{}
		for _, socket := range b.Sockets {
			told.Sockets[socket] = nil
			one, isFilled := m.modules[socket]
			switch {
			case isFilled && m.serves(one) && left[one.size] > 0:
				left[one.size]--
				told.Sockets[socket] = &one.text
			case !isFilled && empty > 0:
				empty--
			default:
				if isFilled && m.serves(one) {
					free[one.size] = append(free[one.size], one.text)
				}
				open = append(open, socket)
			}
		}
		for size := range m.sizes {
			for range left[size] {
				holes = append(holes, hole{open[0], size})
				open = open[1:]
			}
		}
	}
	bought := make([]int, len(m.sizes))
	for _, h := range holes {
		text := m.sizes[h.size].name
		if ready := free[h.size]; len(ready) > 0 {
			text, free[h.size] = ready[0], ready[1:]
		} else {
			bought[h.size]++
		}
		told.Sockets[h.socket] = &text
	}
	for i, n := range bought {
		if n > 0 {
			told.Buy = append(told.Buy, Buy{m.sizes[i].name, n})
		}
	}
	return told
}

// sortByCounts puts those with more of the first sizes first.
func sortByCounts(found []filling) {
	slices.SortFunc(found, func(a, b filling) int { return slices.Compare(b.all[:], a.all[:]) })
}
