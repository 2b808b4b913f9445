package population

import (
	"fmt"
	"frugalheron/core/malformed"
	"maps"
	"slices"

	"frugalheron/core/device"
	"frugalheron/core/memory"
)

// Bounds of a machine: what is told of each size is counted in a byte.
const (
	mostSizes   = 16
	mostSockets = 128
	mostBanks   = 64
	mostStock   = 10_000
)

// machine is an input whose names are resolved.
type machine struct {
	Input
	library *device.Library
	sizes   []size
	parents []int          // the bank that is filled before each; -1 for none
	order   []int          // banks such that each comes behind its parent
	bank    map[string]int // by socket
	modules map[string]module
	ready   []int // modules that could serve, fitted or in stock, by size
}

func newMachine(library *device.Library, in Input) (*machine, error) {
	m := &machine{Input: in, library: library, bank: map[string]int{}, modules: map[string]module{}}
	if err := m.readSizes(); err != nil {
		return nil, err
	}
	if err := m.readBanks(); err != nil {
		return nil, err
	}
	for _, socket := range slices.Sorted(maps.Keys(in.Fitted)) {
		if _, known := m.bank[socket]; !known {
			return nil, malformed.Named("fitted", "there is no socket %q", socket)
		}
		if text := in.Fitted[socket]; text != nil && *text != "" {
			m.modules[socket] = m.read(*text)
		}
	}
	m.ready = make([]int, len(m.sizes))
	for _, one := range m.modules {
		m.count(one, 1)
	}
	for i, s := range in.Stock {
		if s.Count < 0 || s.Count > mostStock {
			return nil, malformed.Named(fmt.Sprintf("stock[%d].count", i), "%d is no number of modules up to %d",
				s.Count, mostStock)
		}
		m.count(m.read(s.Text), s.Count)
	}
	return m, nil
}

func (m *machine) count(one module, n int) {
	if m.serves(one) {
		m.ready[one.size] += n
	}
}

// serves reports whether a module may stand in a socket at all.
func (m *machine) serves(one module) bool {
	return one.size >= 0 && !m.isSlow(one) && !m.lacksParity(one.org) && !m.isTooDeep(one)
}

func (m *machine) isSlow(one module) bool { return m.Rules.MaxNs != nil && one.ns > *m.Rules.MaxNs }

func (m *machine) lacksParity(org device.Organisation) bool { return m.Rules.Parity && !hasParity(org) }

// isTooDeep is no question where the maker says which populations may stand.
func (m *machine) isTooDeep(one module) bool {
	return m.Rules.Organisation != nil && m.Allowed == nil && one.chips > m.Rules.Organisation.Words
}

// readSizes takes those that are listed and, where the maker allows rows alone, those of the rows.
func (m *machine) readSizes() error {
	add := func(field, name string) error {
		org, isSize := memory.ParseModule(name)
		if !isSize {
			return malformed.Named(field, "%q is no size of a module; write it as 1Mx9", name)
		}
		if m.sizeOf(org, false) < 0 {
			m.sizes = append(m.sizes, size{name, org})
		}
		if len(m.sizes) > mostSizes {
			return malformed.Named(field, "more than %d sizes", mostSizes)
		}
		return nil
	}
	for i, name := range m.Sizes {
		if err := add(fmt.Sprintf("sizes[%d]", i), name); err != nil {
			return err
		}
	}
	for i, row := range m.Allowed {
		for _, bank := range slices.Sorted(maps.Keys(row.Fill)) {
			if name := row.Fill[bank]; name != nil {
				if err := add(fmt.Sprintf("allowed[%d].fill", i), *name); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

func (m *machine) readBanks() error {
	index := map[string]int{}
	if len(m.Banks) > mostBanks {
		return malformed.Named("banks", "%d of them; at most %d are taken", len(m.Banks), mostBanks)
	}
	for i, b := range m.Banks {
		if _, isThere := index[b.ID]; isThere {
			return malformed.Named(fmt.Sprintf("banks[%d].id", i), "there are two banks %q", b.ID)
		}
		index[b.ID] = i
		for n, socket := range b.Sockets {
			if _, isThere := m.bank[socket]; isThere || socket == "" {
				return malformed.Named(fmt.Sprintf("banks[%d].sockets[%d]", i, n), "%q is no socket of its own", socket)
			}
			m.bank[socket] = i
		}
	}
	if len(m.bank) > mostSockets {
		return malformed.Named("banks", "%d sockets; at most %d are taken", len(m.bank), mostSockets)
	}
	for i, row := range m.Allowed {
		for bank := range row.Fill {
			if _, known := index[bank]; !known {
				return malformed.Named(fmt.Sprintf("allowed[%d].fill", i), "there is no bank %q", bank)
			}
		}
		if row.Bytes < 0 {
			return malformed.Named(fmt.Sprintf("allowed[%d].bytes", i), "%d is no number of bytes", row.Bytes)
		}
	}
	for i, b := range m.Banks {
		parent := -1
		if b.After != nil {
			var known bool
			if parent, known = index[*b.After]; !known {
				return malformed.Named(fmt.Sprintf("banks[%d].after", i), "there is no bank %q", *b.After)
			}
		}
		m.parents = append(m.parents, parent)
	}
	return m.sortBanks()
}

func (m *machine) sortBanks() error {
	isPlaced := make([]bool, len(m.Banks))
	for len(m.order) < len(m.Banks) {
		before := len(m.order)
		for i, parent := range m.parents {
			if !isPlaced[i] && (parent < 0 || isPlaced[parent]) {
				isPlaced[i] = true
				m.order = append(m.order, i)
			}
		}
		if len(m.order) == before {
			i := slices.Index(isPlaced, false)
			return malformed.Named(fmt.Sprintf("banks[%d].after", i), "the bank %s comes after itself in the end", m.Banks[i].ID)
		}
	}
	return nil
}
