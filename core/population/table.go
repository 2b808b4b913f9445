package population

import (
	"cmp"
	"slices"

	"frugalheron/core/device"
)

// mostCombined is how many ways of filling the banks are looked at for a table.
const mostCombined = 20_000

// Standing is a population that may stand, whatever lies ready: a size a bank, empty for one without modules.
type Standing struct {
	Bytes   int64
	Sizes   []string // by bank, in the order of the banks
	Jumpers map[string]any
}

// Table lists the populations that may stand where each bank has one size, the smallest first. It is not ok where there are
// more ways to fill the banks than are looked at.
func Table(library *device.Library, in Input) (rows []Standing, ok bool, err error) {
	in.Fitted, in.Stock = nil, nil
	m, err := newMachine(library, in)
	if err != nil {
		return nil, false, err
	}
	rows = []Standing{}
	if in.Allowed != nil {
		for _, row := range in.Allowed {
			one := Standing{Bytes: row.Bytes, Jumpers: row.Jumpers}
			for _, b := range in.Banks {
				size := ""
				if name := row.Fill[b.ID]; name != nil {
					size = *name
				}
				one.Sizes = append(one.Sizes, size)
			}
			rows = append(rows, one)
		}
		return sorted(rows), true, nil
	}
	ways := 1
	for range m.Banks {
		if ways *= len(m.sizes) + 1; ways > mostCombined {
			return rows, false, nil
		}
	}
	for way := 1; way < ways; way++ {
		one := Standing{}
		m.modules = map[string]module{}
		for i, rest := 0, way; i < len(m.Banks); i, rest = i+1, rest/(len(m.sizes)+1) {
			size := rest%(len(m.sizes)+1) - 1
			if size < 0 {
				one.Sizes = append(one.Sizes, "")
				continue
			}
			one.Sizes = append(one.Sizes, m.sizes[size].name)
			for _, socket := range m.Banks[i].Sockets {
				m.modules[socket] = module{size: size, org: m.sizes[size].org}
			}
		}
		if one.Bytes = m.bytes(); len(m.broken()) == 0 {
			rows = append(rows, one)
		}
	}
	return sorted(rows), true, nil
}

func sorted(rows []Standing) []Standing {
	slices.SortStableFunc(rows, func(a, b Standing) int {
		return cmp.Or(cmp.Compare(a.Bytes, b.Bytes), slices.Compare(b.Sizes, a.Sizes))
	})
	return rows
}
