package slotplan

import (
	"errors"
	"math/bits"
)

// mostSteps bounds a search. What is drawn and written down by people is decided in far fewer.
const mostSteps = 4_000_000

var (
	errNone    = errors.New("there is no solution")
	errTooMany = errors.New("there are too many possibilities to try them all; say of some cards where they stay")
)

// values is a set of values of a variable, at most 256.
type values [4]uint64

func (v *values) add(n int)      { v[n>>6] |= 1 << (n & 63) }
func (v *values) has(n int) bool { return v[n>>6]>>(n&63)&1 == 1 }

func (v *values) count() int {
	return bits.OnesCount64(v[0]) + bits.OnesCount64(v[1]) + bits.OnesCount64(v[2]) + bits.OnesCount64(v[3])
}

func (v *values) and(w *values) values {
	return values{v[0] & w[0], v[1] & w[1], v[2] & w[2], v[3] & w[3]}
}

// each calls for one value after the other, until that returns true.
func (v *values) each(stop func(int) bool) bool {
	for i, left := range v {
		for ; left != 0; left &= left - 1 {
			if stop(i<<6 + bits.TrailingZeros64(left)) {
				return true
			}
		}
	}
	return false
}

// Special values of search.keep.
const (
	free   = -1 // any value costs nothing
	cannot = -2 // every value costs one
)

// search looks for a value of each variable such that no two are at odds, with as few as may be unlike those that they
// have now.
type search struct {
	domains []values
	keep    []int                     // the value that costs nothing, or one of the above
	atOdds  func(i, a, j, b int) bool // whether two variables cannot have these values
	seat    func(i, a int) int        // no two variables may have values with the same seat; -1 for none
	seats   int                       // how many there are
	holds   func(chosen []int) bool   // whether all values together can be; nil where pairs tell all
	hasRoom func(chosen []int) bool   // whether those without a value could have room; nil where nothing tells

	allowed     map[[3]int]values // of variable j, by i, its value and j
	taken, seen []int             // by seat, while it is looked whether all have one
	steps       int
}

// best finds the cheapest assignment; of equal ones that whose values come first, variable by variable.
func (s *search) best() (chosen []int, cost int, err error) {
	none := s.unfixed()
	if _, err := s.solve(none, len(s.domains)); err != nil {
		return nil, 0, err
	}
	for {
		found, err := s.solve(none, cost)
		if err == errNone {
			cost++
			continue
		}
		if err != nil {
			return nil, 0, err
		}
		chosen, err = s.first(found, cost)
		return chosen, cost, err
	}
}

// first turns a solution into the one whose values come first, at no higher cost.
func (s *search) first(found []int, most int) ([]int, error) {
	fixed := s.unfixed()
	for i := range fixed {
		var failed error
		s.domains[i].each(func(a int) bool {
			if a >= found[i] {
				return true
			}
			fixed[i] = a
			better, err := s.solve(fixed, most)
			if err == nil {
				found = better
				return true
			}
			if err != errNone {
				failed = err
				return true
			}
			return false
		})
		if failed != nil {
			return nil, failed
		}
		fixed[i] = found[i]
	}
	return found, nil
}

// unfixed is no value for any variable.
func (s *search) unfixed() []int {
	none := make([]int, len(s.domains))
	for i := range none {
		none[i] = free
	}
	return none
}

// solve finds any assignment that costs no more, with some values fixed; errNone when there is none.
func (s *search) solve(fixed []int, most int) ([]int, error) {
	domains := append([]values{}, s.domains...)
	for i, a := range fixed {
		if a != free {
			domains[i] = values{}
			if s.domains[i].has(a) {
				domains[i].add(a)
			}
		}
	}
	chosen := s.unfixed()
	s.steps = 0
	if s.extend(domains, chosen, most) {
		return chosen, nil
	}
	if s.steps > mostSteps {
		return nil, errTooMany
	}
	return nil, errNone
}

// extend gives values to the variables that have none, for no more than is left to spend.
func (s *search) extend(domains []values, chosen []int, left int) bool {
	if s.steps++; s.steps > mostSteps {
		return false
	}
	next, fewest, forced := -1, 0, 0
	for i := range domains {
		if chosen[i] != free {
			continue
		}
		n := domains[i].count()
		if n == 0 {
			return false
		}
		if s.keep[i] == cannot || s.keep[i] >= 0 && !domains[i].has(s.keep[i]) {
			forced++
		}
		if next < 0 || n < fewest {
			next, fewest = i, n
		}
	}
	if next < 0 {
		return s.holds == nil || s.holds(chosen)
	}
	if forced > left || s.hasRoom != nil && !s.hasRoom(chosen) || !s.haveSeats(domains, chosen) {
		return false
	}
	try := func(a int) bool {
		rest := left
		if s.keep[next] != free && s.keep[next] != a {
			rest--
		}
		if rest < 0 || s.steps > mostSteps {
			return false
		}
		narrowed := append([]values{}, domains...)
		narrowed[next] = values{}
		narrowed[next].add(a)
		chosen[next] = a
		for j := range narrowed {
			if chosen[j] == free {
				fits := s.fits(next, a, j)
				narrowed[j] = narrowed[j].and(&fits)
			}
		}
		if s.extend(narrowed, chosen, rest) {
			return true
		}
		chosen[next] = free
		return false
	}
	// What is as it is now is tried first: it costs nothing.
	now := s.keep[next]
	isNow := now >= 0 && domains[next].has(now)
	if isNow && try(now) {
		return true
	}
	return domains[next].each(func(a int) bool { return (!isNow || a != now) && try(a) })
}

// fits are the values of another variable that go with a value.
func (s *search) fits(i, a, j int) values {
	key := [3]int{i, a, j}
	fits, known := s.allowed[key]
	if known {
		return fits
	}
	s.domains[j].each(func(b int) bool {
		if !s.atOdds(i, a, j, b) {
			fits.add(b)
		}
		return false
	})
	if s.allowed == nil {
		s.allowed = map[[3]int]values{}
	}
	s.allowed[key] = fits
	return fits
}

// haveSeats reports whether all that are left could have seats of their own, whatever else is asked of them: a matching,
// by augmenting paths. Without it, one card too many would be tried in every order.
func (s *search) haveSeats(domains []values, chosen []int) bool {
	if s.taken == nil {
		s.taken, s.seen = make([]int, s.seats), make([]int, s.seats)
	}
	for seat := range s.taken {
		s.taken[seat], s.seen[seat] = free, free
	}
	for i := range domains {
		if chosen[i] == free && !s.sit(domains, i, i) {
			return false
		}
	}
	return true
}

// sit finds a seat for a variable; those that were looked at in the same turn are not looked at again.
func (s *search) sit(domains []values, i, turn int) bool {
	return domains[i].each(func(a int) bool {
		seat := s.seat(i, a)
		if seat < 0 {
			return true
		}
		if s.seen[seat] == turn {
			return false
		}
		s.seen[seat] = turn
		if s.taken[seat] == free || s.sit(domains, s.taken[seat], turn) {
			s.taken[seat] = i
			return true
		}
		return false
	})
}
