package population

import (
	"fmt"
	"slices"

	"frugalheron/core/memory"
)

// broken lists the rules that what is fitted breaks.
func (m *machine) broken() []Broken {
	found := []Broken{}
	add := func(rule Rule, sockets []string, format string, about ...any) {
		if len(sockets) > 0 || rule == NotAllowed {
			found = append(found, Broken{rule, sockets, fmt.Sprintf(format, about...)})
		}
	}
	if m.Allowed == nil {
		for i, b := range m.Banks {
			m.brokenBank(i, b, add)
		}
		m.brokenModules(Size, add)
		m.brokenModules(Organisation, add)
		if m.Rules.MaxBytes != nil && m.bytes() > *m.Rules.MaxBytes {
			add(Max, m.filled(), "%s are fitted; the machine takes %s", memory.Format(m.bytes()),
				memory.Format(*m.Rules.MaxBytes))
		}
	} else if m.rowNow() < 0 {
		add(NotAllowed, m.filled(), "the maker's list has no such population")
	}
	m.brokenModules(Parity, add)
	m.brokenModules(Speed, add)
	return found
}

func (m *machine) brokenBank(i int, b Bank, add func(Rule, []string, string, ...any)) {
	filled, empty, sizes := []string{}, []string{}, map[string]bool{}
	for _, socket := range b.Sockets {
		one, isFilled := m.modules[socket]
		if !isFilled {
			empty = append(empty, socket)
			continue
		}
		filled = append(filled, socket)
		sizes[fmt.Sprint(one.org)] = true
	}
	if len(filled) == 0 {
		return
	}
	if m.Rules.Full {
		add(Full, empty, "the bank %s is filled in full or not at all", b.ID)
	}
	if parent := m.parents[i]; parent >= 0 && !m.carries(parent) {
		add(Order, filled, "the bank %s comes after the bank %s, which is to be filled first", b.ID, m.Banks[parent].ID)
	}
	if m.Rules.SameInBank && len(sizes) > 1 {
		add(Mixed, filled, "the modules of the bank %s are of several sizes", b.ID)
	}
}

// carries reports whether a bank is filled so that one may be filled after it.
func (m *machine) carries(bank int) bool {
	n := 0
	for _, socket := range m.Banks[bank].Sockets {
		if _, isFilled := m.modules[socket]; isFilled {
			n++
		}
	}
	return n > 0 && (!m.Rules.Full || n == len(m.Banks[bank].Sockets))
}

var offences = map[Rule]string{Size: "the sockets take no module of that size", Parity: "they have no parity",
	Speed: "they are slower than %d ns", Organisation: "their chips are deeper than the %d words that the board addresses"}

func (m *machine) brokenModules(rule Rule, add func(Rule, []string, string, ...any)) {
	offending := []string{}
	for _, socket := range m.filled() {
		one := m.modules[socket]
		if rule == Size && one.size < 0 || rule == Parity && m.lacksParity(one.org) || rule == Speed && m.isSlow(one) ||
			rule == Organisation && m.isTooDeep(one) {
			offending = append(offending, socket)
		}
	}
	if len(offending) == 0 {
		return
	}
	switch rule {
	case Speed:
		add(rule, offending, offences[rule], *m.Rules.MaxNs)
	case Organisation:
		add(rule, offending, offences[rule], m.Rules.Organisation.Words)
	default:
		add(rule, offending, offences[rule])
	}
}

// filled are the sockets with a module, in the order of the banks.
func (m *machine) filled() []string {
	sockets := []string{}
	for _, b := range m.Banks {
		for _, socket := range b.Sockets {
			if _, isFilled := m.modules[socket]; isFilled {
				sockets = append(sockets, socket)
			}
		}
	}
	return sockets
}

func (m *machine) bytes() int64 {
	var sum int64
	for _, one := range m.modules {
		sum += dataBytes(one.org)
	}
	return sum
}

// rowNow is the row of the maker that stands; -1 for none.
func (m *machine) rowNow() int {
	return slices.IndexFunc(m.Allowed, func(row Row) bool {
		for _, b := range m.Banks {
			want := m.sizeInRow(row, b)
			for _, socket := range b.Sockets {
				one, isFilled := m.modules[socket]
				if isFilled != (want >= 0) || isFilled && one.size != want {
					return false
				}
			}
		}
		return true
	})
}

// sizeInRow is the size that a row puts into a bank; -1 for none.
func (m *machine) sizeInRow(row Row, b Bank) int {
	name := row.Fill[b.ID]
	if name == nil {
		return -1
	}
	org, _ := memory.ParseModule(*name)
	return m.sizeOf(org, false)
}
