package rom

import (
	"maps"
	"slices"
)

// Holding is how far a board holds a set of images.
type Holding struct {
	Complete bool     `json:"complete"`
	Same     []string `json:"same"`    // sockets that hold what belongs there
	Differ   []string `json:"differ"`  // sockets that hold something else
	Missing  []string `json:"missing"` // sockets that were not read
}

// HoldsSet lays what a board holds beside a set, both by socket and named by their SHA-256. A board that
// holds nothing of it in the right socket has nothing to do with the set: false.
func HoldsSet(set, board map[string]string) (Holding, bool) {
	h := Holding{Same: []string{}, Differ: []string{}, Missing: []string{}}
	for _, place := range slices.Sorted(maps.Keys(set)) {
		switch held, ok := board[place]; {
		case !ok:
			h.Missing = append(h.Missing, place)
		case held == set[place]:
			h.Same = append(h.Same, place)
		default:
			h.Differ = append(h.Differ, place)
		}
	}
	h.Complete = len(h.Same) == len(set)
	return h, len(h.Same) > 0
}
