package population

import (
	"errors"
	"fmt"

	"frugalheron/core/device"
	"frugalheron/core/memory"
)

// mostStates bounds how many different populations are looked at beside each other.
const mostStates = 400_000

// errTooMany is for machines with so many sizes and sockets that nobody would look through all they could hold.
var errTooMany = errors.New("there are too many populations to try them all; name fewer sizes, or ask for banks of one size")

// Judge tells whether what is fitted may stand, and what could stand instead. An input that cannot be is refused by its
// place.
func Judge(library *device.Library, in Input) (Output, error) {
	m, err := newMachine(library, in)
	if err != nil {
		return Output{}, err
	}
	out := Output{Bytes: m.bytes(), Broken: m.broken(), Plans: []Plan{}}
	out.Legal = len(out.Broken) == 0
	var found []filling
	if m.Allowed != nil {
		found = m.rows()
	} else if found, err = m.fillings(); err != nil {
		return Output{}, err
	}
	for _, f := range m.chosen(found, out.Legal) {
		out.Plans = append(out.Plans, m.plan(f))
	}
	if len(out.Plans) == 0 && (m.Want != nil || !out.Legal) {
		out.Why = m.whyNone(found)
	}
	return out, nil
}

func (m *machine) whyNone(found []filling) string {
	var most int64
	for _, f := range found {
		most = max(most, f.bytes)
	}
	switch {
	case len(found) == 0:
		return "no population with modules of these sizes may stand"
	case m.Want == nil:
		return "what is fitted and in stock makes no population that may stand; buying would"
	}
	return fmt.Sprintf("the most that may stand is %s", memory.Format(most))
}

// rows are the populations of the maker's list. What they amount to is what the list says, or else what is in them.
func (m *machine) rows() []filling {
	found := []filling{}
	for _, row := range m.Allowed {
		f := filling{jumpers: row.Jumpers}
		isFit := true
		for i, b := range m.Banks {
			var in counts
			if size := m.sizeInRow(row, b); size >= 0 {
				isFit = isFit && !m.lacksParity(m.sizes[size].org)
				in[size] = uint8(len(b.Sockets))
			}
			f.banks, f.all, f.changes = append(f.banks, in), f.all.plus(in), f.changes+m.changesOf(i, in)
		}
		if !isFit || f.all.sum() == 0 {
			continue
		}
		if m.weigh(&f); row.Bytes > 0 {
			f.bytes = row.Bytes
		}
		found = append(found, f)
	}
	return found
}

// state is how far banks were filled: with how many modules of each size, and which banks, that others come after, carry
// those.
type state struct {
	all     counts
	carries uint64
}

// step is the cheapest way to a state.
type step struct {
	before  state
	in      counts
	changes int
}

// fillings finds, for every number of modules of each size, the population with the fewest changes: bank by bank, each
// after the one that it needs.
func (m *machine) fillings() ([]filling, error) {
	waits := make([]int, len(m.Banks)) // how far on the last bank stands that comes after each
	for n, bank := range m.order {
		if parent := m.parents[bank]; parent >= 0 {
			waits[parent] = n
		}
	}
	stages := []map[state]step{{state{}: {}}}
	for n, bank := range m.order {
		next := map[state]step{}
		options := m.options(bank)
		for from, way := range stages[n] {
			parent := m.parents[bank]
			mayFill := parent < 0 || from.carries>>parent&1 == 1
			for _, o := range options {
				if o.modules > 0 && !mayFill {
					continue
				}
				to := state{from.all.plus(o.in), from.carries}
				if m.Rules.MaxBytes != nil && m.bytesOf(to.all) > *m.Rules.MaxBytes {
					continue
				}
				if o.modules > 0 {
					to.carries |= 1 << bank
				}
				// Which banks carry others is forgotten as soon as none comes after them any more.
				for other := range m.Banks {
					if waits[other] <= n {
						to.carries &^= 1 << other
					}
				}
				if known, isKnown := next[to]; !isKnown || way.changes+o.changes < known.changes ||
					way.changes+o.changes == known.changes && before(o.in, from, known) {
					next[to] = step{from, o.in, way.changes + o.changes}
				}
			}
		}
		if len(next) > mostStates {
			return nil, errTooMany
		}
		stages = append(stages, next)
	}
	return m.readOff(stages), nil
}

// before orders ways of the same cost, so that the same question has the same answer.
func before(in counts, from state, known step) bool {
	for i := range in {
		if in[i] != known.in[i] {
			return in[i] > known.in[i]
		}
	}
	for i := range from.all {
		if from.all[i] != known.before.all[i] {
			return from.all[i] > known.before.all[i]
		}
	}
	return from.carries > known.before.carries
}

func (m *machine) readOff(stages []map[state]step) []filling {
	found := []filling{}
	last := stages[len(stages)-1]
	for end, way := range last {
		if end.all.sum() == 0 {
			continue
		}
		f := filling{banks: make([]counts, len(m.Banks)), all: end.all, changes: way.changes}
		for n, at := len(m.order)-1, end; n >= 0; n-- {
			step := stages[n+1][at]
			f.banks[m.order[n]], at = step.in, step.before
		}
		m.weigh(&f)
		found = append(found, f)
	}
	sortByCounts(found)
	return found
}

// option is what a bank could hold.
type option struct {
	in      counts
	modules int
	changes int
}

// options lists all numbers of modules of each size that a bank may hold.
func (m *machine) options(bank int) []option {
	sockets := len(m.Banks[bank].Sockets)
	found := []option{}
	add := func(in counts) { found = append(found, option{in, in.sum(), m.changesOf(bank, in)}) }
	var fill func(from, left int, in counts)
	fill = func(from, left int, in counts) {
		if from == len(m.sizes) {
			if !m.Rules.Full || left == 0 || left == sockets {
				add(in)
			}
			return
		}
		fill(from+1, left, in)
		if m.lacksParity(m.sizes[from].org) || m.Rules.SameInBank && left < sockets {
			return
		}
		for n := 1; n <= left; n++ {
			in[from] = uint8(n)
			fill(from+1, left-n, in)
		}
	}
	fill(0, sockets, counts{})
	return found
}
