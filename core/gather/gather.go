// Package gather finds the fewest swaps of socketed chips that bring all bad ones of several boards onto one of them, so
// that one replacement board, or one board that is left out, serves for all.
package gather

import (
	"cmp"
	"slices"
)

// Chip is what sits at one place of a board.
type Chip struct {
	Place   string
	Type    string // what only its like can stand in for
	SpeedNs int    // 0 where nobody knows
	Bad     bool
	Fixed   bool // soldered: it cannot be swapped
}

// Board is one of those between which chips may be swapped.
type Board struct {
	ID    int64
	Chips []Chip
}

// Seat is a place of a board.
type Seat struct {
	Board int64  `json:"board"`
	Place string `json:"place" says:"text"`
}

// Swap puts the bad chip of one seat where a good one of its type was, and that one in its place.
type Swap struct {
	Type string `json:"type" says:"text"`
	Bad  Seat   `json:"bad"`
	Good Seat   `json:"good"`
}

// Plan is what brings all bad chips onto one board.
type Plan struct {
	Onto  int64  `json:"onto" doc:"The board that has all bad ones afterwards"`
	Bad   int    `json:"bad" doc:"How many it has then"`
	Swaps []Swap `json:"swaps"`
}

// Onto finds the plan with the fewest swaps; of equal ones, that onto the board that comes first. There is none where
// fewer than two boards have bad chips, or where no board has enough good ones, in sockets and fast enough, to give.
func Onto(boards []Board) (best Plan, found bool) {
	wanting := 0
	for _, b := range boards {
		if slices.ContainsFunc(b.Chips, func(c Chip) bool { return c.Bad }) {
			wanting++
		}
	}
	if wanting < 2 {
		return best, false
	}
	for _, target := range boards {
		plan, ok := onto(target, boards)
		if ok && (!found || len(plan.Swaps) < len(best.Swaps)) {
			best, found = plan, true
		}
	}
	return best, found
}

type seated struct {
	Chip
	board int64
}

func onto(target Board, boards []Board) (Plan, bool) {
	plan := Plan{Onto: target.ID, Swaps: []Swap{}}
	give := []seated{}
	for _, c := range target.Chips {
		switch {
		case c.Bad:
			plan.Bad++
		case !c.Fixed:
			give = append(give, seated{c, target.ID})
		}
	}
	take := []seated{}
	for _, b := range boards {
		for _, c := range b.Chips {
			if b.ID == target.ID || !c.Bad {
				continue
			}
			if c.Fixed {
				return plan, false
			}
			take = append(take, seated{c, b.ID})
		}
	}
	// The fastest place is served first, by the slowest chip that serves: what is left serves whoever asks for less. Where
	// nobody knows a speed, only a chip of unknown speed is its like.
	slices.SortStableFunc(take, bySpeed)
	slices.SortStableFunc(give, func(a, b seated) int { return bySpeed(b, a) })
	for _, bad := range take {
		at := slices.IndexFunc(give, func(good seated) bool {
			return good.Type == bad.Type && (good.SpeedNs == 0) == (bad.SpeedNs == 0) && good.SpeedNs <= bad.SpeedNs
		})
		if at < 0 {
			return plan, false
		}
		plan.Swaps = append(plan.Swaps, Swap{Type: bad.Type, Bad: Seat{bad.board, bad.Place},
			Good: Seat{target.ID, give[at].Place}})
		give = slices.Delete(give, at, at+1)
		plan.Bad++
	}
	return plan, true
}

func bySpeed(a, b seated) int { return cmp.Compare(a.SpeedNs, b.SpeedNs) }
