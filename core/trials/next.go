package trials

import (
	"fmt"
	"math/bits"
	"strings"
)

// mostSearched is up to how many factors that matter all states are compared; beyond, the best that is found by changing
// one factor after the other is told.
const mostSearched = 14

// choice is a state that could be tried next, with all by which it is compared.
type choice struct {
	on      state
	uneven  int // by how many the explanations that predict one result outnumber the others
	danger  int // factors that may hurt
	changes int // factors unlike the last trial
	effort  float64
}

// next chooses the trial that splits what is left most evenly by what each predicts; of equal ones that with the fewest
// dangerous factors, then the fewest changes, the least effort, and the factors that come first. Nil when fewer than two
// are left.
func (c trialCase) next(left []candidate, isExplained bool) *NextTrial {
	if len(left) < 2 {
		return nil
	}
	var last, matter state
	if n := len(c.trials); n > 0 {
		last = c.trials[n-1].on
	}
	danger := c.dangerous()
	for _, e := range left {
		matter |= e.all
	}
	judge := func(on state) choice {
		predicted := 0
		for _, e := range left {
			if e.predicts(on) == OK {
				predicted++
			}
		}
		uneven := 2*predicted - len(left)
		one := choice{on: on, uneven: max(uneven, -uneven), danger: bits.OnesCount64(uint64(on & danger)),
			changes: bits.OnesCount64(uint64(on ^ last))}
		for i, f := range c.factors {
			if (on ^ last).has(1 << i) {
				one.effort += f.Effort
			}
		}
		return one
	}
	// What is in no explanation splits nothing: it stays as it was, unless it may hurt.
	rest := last &^ matter &^ danger
	best := judge(rest)
	if bits.OnesCount64(uint64(matter)) <= mostSearched {
		for on := matter; on != 0; on = (on - 1) & matter {
			if one := judge(on | rest); one.isBetter(best) {
				best = one
			}
		}
	} else {
		best = c.climb(judge, matter, best)
	}
	return &NextTrial{On: c.names(best.on), Why: c.why(best, last, left, isExplained)}
}

// climb changes one factor or swaps two for as long as that is better.
func (c trialCase) climb(judge func(state) choice, matter state, best choice) choice {
	for isBetter := true; isBetter; {
		isBetter = false
		from := best.on
		for i := range c.factors {
			for j := i; j < len(c.factors); j++ {
				flip := state(1<<i | 1<<j)
				if !matter.has(flip) {
					continue
				}
				if one := judge(from ^ flip); one.isBetter(best) {
					best, isBetter = one, true
				}
			}
		}
	}
	return best
}

func (a choice) isBetter(b choice) bool {
	switch {
	case a.uneven != b.uneven:
		return a.uneven < b.uneven
	case a.danger != b.danger:
		return a.danger < b.danger
	case a.changes != b.changes:
		return a.changes < b.changes
	case a.effort != b.effort:
		return a.effort < b.effort
	}
	return comesFirst(a.on, b.on)
}

// comesFirst compares the positions of factors one after the other; where one state ends, it comes first.
func comesFirst(a, b state) bool {
	for a != 0 && b != 0 {
		x, y := bits.TrailingZeros64(uint64(a)), bits.TrailingZeros64(uint64(b))
		if x != y {
			return x < y
		}
		a &= a - 1
		b &= b - 1
	}
	return a == 0 && b != 0
}

func (c trialCase) why(best choice, last state, left []candidate, isExplained bool) string {
	ok := 0
	for _, e := range left {
		if e.predicts(best.on) == OK {
			ok++
		}
	}
	say := "say"
	if ok == 1 {
		say = "says"
	}
	why := fmt.Sprintf("of %d explanations %d %s that it goes well then, %d that it fails", len(left), ok, say, len(left)-ok)
	if len(c.trials) > 0 {
		changes := []string{}
		if on := c.names(best.on &^ last); len(on) > 0 {
			changes = append(changes, "on "+strings.Join(on, ", "))
		}
		if off := c.names(last &^ best.on); len(off) > 0 {
			changes = append(changes, "off "+strings.Join(off, ", "))
		}
		if len(changes) > 0 {
			why += "; against the last trial " + strings.Join(changes, " and ")
		}
	}
	if best.danger > 0 {
		why += "; mind what may hurt: " + strings.Join(c.names(best.on&c.dangerous()), ", ")
	}
	if !isExplained {
		why = "nothing is explained yet, as no trial had that result; " + why
	}
	return why
}

// dangerous are the factors that may hurt.
func (c trialCase) dangerous() state {
	var all state
	for i, f := range c.factors {
		if f.Danger {
			all |= 1 << i
		}
	}
	return all
}
