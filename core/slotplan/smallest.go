package slotplan

import "math/bits"

// mostTried bounds how many sets of cards are looked at for the smallest that cannot live together; beyond, a set is named
// of which every card is needed.
const mostTried = 2_000_000

// cardSet has a bit for each card.
type cardSet uint64

func (s cardSet) list() []int {
	cards := []int{}
	for ; s != 0; s &= s - 1 {
		cards = append(cards, bits.TrailingZeros64(uint64(s)))
	}
	return cards
}

// smallest looks for a set smaller than the best so far that has no solution.
//
// Whatever cannot live together has a card of every set without which all others can. So of all sets, by size, only those
// are tried that have one of each; one that can live is made as large as it goes, and what is left is another such set.
func (b *backplane) smallest(of func([]int) *search, best []int, found bool) (set []int, isSmaller bool, err error) {
	n := len(b.in.Cards)
	all := cardSet(1)<<n - 1
	hasNone := func(cards cardSet) bool {
		s := of(cards.list())
		_, failed := s.solve(s.unfixed(), len(s.domains))
		if failed == errTooMany {
			err = failed
		}
		return failed == errNone
	}
	if !hasNone(all) {
		return nil, false, err
	}
	most := n
	if found {
		most = len(best) - 1
	}
	mustHave, tried := []cardSet{}, 0
	for size := 1; size <= most; size++ {
		for cards := cardSet(1)<<size - 1; cards <= all && cards != 0; cards = nextOfSize(cards) {
			if tried++; tried > mostTried {
				return b.needed(all, hasNone, best, found)
			}
			if !cards.hasOneOfEach(mustHave) {
				continue
			}
			if hasNone(cards) {
				return cards.list(), true, err
			}
			large := cards
			for i := range n {
				if one := cardSet(1) << i; large&one == 0 && !hasNone(large|one) {
					large |= one
				}
			}
			if err != nil {
				return nil, false, err
			}
			mustHave = append(mustHave, all&^large)
		}
	}
	return nil, false, err
}

func (s cardSet) hasOneOfEach(sets []cardSet) bool {
	for _, one := range sets {
		if s&one == 0 {
			return false
		}
	}
	return true
}

// nextOfSize is the next larger figure with as many bits.
func nextOfSize(s cardSet) cardSet {
	low := s & -s
	high := s + low
	return high | (s^high)>>2/low
}

// needed leaves out one card after the other of which none is needed.
func (b *backplane) needed(set cardSet, hasNone func(cardSet) bool, best []int, found bool) ([]int, bool, error) {
	for i := range b.in.Cards {
		if without := set &^ (1 << i); hasNone(without) {
			set = without
		}
	}
	cards := set.list()
	return cards, !found || len(cards) < len(best), nil
}
