package slotplan

import (
	"cmp"
	"fmt"
	"frugalheron/core/quantity"
	"slices"
	"strings"
)

// allCards are the positions of all cards.
func (b *backplane) allCards() []int {
	all := make([]int, len(b.in.Cards))
	for i := range all {
		all[i] = i
	}
	return all
}

func (b *backplane) placing() *search { return b.placingOf(b.allCards()) }

// placingOf searches slots for some cards. What a card asks of one that is not among them counts as met, and slots that
// such a one gives are there.
func (b *backplane) placingOf(cards []int) *search {
	s := &search{seats: len(b.slots), seat: func(_, a int) int { return a }}
	for _, card := range cards {
		var fits values
		for slot := range b.slots {
			if kind, _ := b.unfit(card, slot); kind == "" {
				fits.add(slot)
			}
		}
		s.domains = append(s.domains, fits)
		s.keep = append(s.keep, b.at[card])
	}
	s.atOdds = func(i, a, j, at int) bool {
		isOdd := false
		b.pairAtOdds(cards[i], a, cards[j], at, func(Kind, string, ...any) { isOdd = true })
		return isOdd
	}
	s.hasRoom = func(chosen []int) bool { return b.hasRoom(cards, chosen) }
	s.holds = func(chosen []int) bool { return b.standOnBackplane(cards, chosen) }
	return s
}

// hasRoom reports whether as many slots are free as the cards that have none yet are wide together.
func (b *backplane) hasRoom(cards, slots []int) bool {
	room := len(b.slots)
	for i, card := range cards {
		switch {
		case slots[i] == free:
			room -= max(b.in.Cards[card].Span, 1)
		default:
			room -= len(b.covered[card][slots[i]])
		}
	}
	return room >= 0
}

// standOnBackplane reports whether no cards sit in each other's slots in a ring.
func (b *backplane) standOnBackplane(cards, slots []int) bool {
	giver := map[int]int{}
	for i, card := range cards {
		if g := b.slots[slots[i]].giver; g >= 0 {
			giver[card] = g
		}
	}
	for _, card := range cards {
		at, isGiven := card, true
		for range cards {
			if at, isGiven = giver[at]; !isGiven {
				break
			}
		}
		if isGiven {
			return false
		}
	}
	return true
}

// want is a need of a card.
type want struct {
	card int
	Need
}

func (b *backplane) wantsOf(cards []int) []want {
	all := []want{}
	for _, card := range cards {
		for _, need := range b.in.Cards[card].Needs {
			all = append(all, want{card, need})
		}
	}
	return all
}

func (b *backplane) setting() *search { return b.settingOf(b.allCards()) }

// settingOf searches settings for some cards.
func (b *backplane) settingOf(cards []int) *search {
	wants := b.wantsOf(cards)
	seats := map[string]int{}
	byChoice := make([][]int, len(wants))
	s := &search{seat: func(i, a int) int { return byChoice[i][a] }}
	for i, w := range wants {
		var all values
		keep := free
		if w.Now != nil {
			keep = cannot
		}
		for n, c := range w.Choices {
			all.add(n)
			if keep == cannot && c.equals(*w.Now) {
				keep = n
			}
			seat := -1
			if !w.Shared {
				key := fmt.Sprint(w.Resource, "\x00", c.from, "-", c.to)
				if _, known := seats[key]; !known {
					seats[key] = len(seats)
				}
				seat = seats[key]
			}
			byChoice[i] = append(byChoice[i], seat)
		}
		s.domains, s.keep = append(s.domains, all), append(s.keep, keep)
	}
	s.seats = len(seats)
	s.atOdds = func(i, a, j, c int) bool {
		one, other := wants[i], wants[j]
		return clash(one.Need, other.Need, one.Choices[a], other.Choices[c], one.card == other.card)
	}
	return s
}

// assignment writes slots and settings down by card.
func (b *backplane) assignment(at, set []int) map[string]Place {
	told := map[string]Place{}
	n := 0
	for i, c := range b.in.Cards {
		place := Place{Slot: b.slots[at[i]].ID, Settings: map[string]any{}}
		for _, need := range c.Needs {
			chosen := need.Choices[set[n]]
			n++
			switch before := place.Settings[need.Resource].(type) {
			case nil:
				place.Settings[need.Resource] = chosen
			case []Choice:
				place.Settings[need.Resource] = append(before, chosen)
			case Choice:
				place.Settings[need.Resource] = []Choice{before, chosen}
			}
		}
		told[c.ID] = place
	}
	return told
}

// smallestClash names a smallest set of cards that cannot live together, by their draw, their places or their settings, and
// says why.
func (b *backplane) smallestClash() (cards []string, why string, err error) {
	best, found := b.tooMuch()
	if found {
		why = "together they draw more than the supply gives"
	}
	for _, part := range []struct {
		of  func([]int) *search
		why string
	}{
		{b.placingOf, "no slots hold all of them"},
		{b.settingOf, "no settings keep them apart"},
	} {
		set, isSmaller, err := b.smallest(part.of, best, found)
		if err != nil {
			return nil, "", err
		}
		if isSmaller {
			best, found, why = set, true, part.why
		}
	}
	for _, i := range best {
		cards = append(cards, b.in.Cards[i].ID)
	}
	if len(cards) == 0 {
		return []string{}, "more is drawn without any card than the supply gives", nil
	}
	return cards, strings.Join(cards, ", ") + ": " + why, nil
}

// tooMuch is a smallest set of cards that draw more of one rail than it gives.
func (b *backplane) tooMuch() (set []int, found bool) {
	for _, rail := range b.overRails() {
		byDraw := b.allCards()
		slices.SortStableFunc(byDraw, func(i, j int) int {
			return cmp.Compare(b.in.Cards[j].Draw[rail], b.in.Cards[i].Draw[rail])
		})
		sum, n := b.in.Base[rail], 0
		for n < len(byDraw) && quantity.Billionth(sum) <= quantity.Billionth(b.in.Rails[rail]) {
			sum += b.in.Cards[byDraw[n]].Draw[rail]
			n++
		}
		if !found || n < len(set) {
			set, found = slices.Sorted(slices.Values(byDraw[:n])), true
		}
	}
	return set, found
}
