package slotplan

import (
	"frugalheron/core/quantity"
	"maps"
	"slices"
	"strconv"
)

// lastOfChain is the card that uses the chain furthest down; -1 for none.
func (b *backplane) lastOfChain(at []int) int {
	last := -1
	for i, slot := range at {
		if slot >= 0 && b.uses(i) && b.slots[slot].chain >= 0 &&
			(last < 0 || b.slots[slot].chain > b.slots[at[last]].chain) {
			last = i
		}
	}
	return last
}

// fillers are the empty slots of the chain before the last card that uses it.
func (b *backplane) fillers(at []int) []string {
	empty := []string{}
	last := b.lastOfChain(at)
	if last < 0 {
		return empty
	}
	taken := map[int]bool{}
	for i, slot := range at {
		if slot >= 0 {
			taken[slot] = true
			for _, one := range b.covered[i][slot] {
				taken[one] = true
			}
		}
	}
	end := b.slots[at[last]].chain
	chain := make([]int, len(b.in.Chain))
	for i, s := range b.slots {
		if s.chain >= 0 {
			chain[s.chain] = i
		}
	}
	for _, slot := range chain[:end] {
		// A slot that is not there, as its giver is out, takes no filler.
		if giver := b.slots[slot].giver; !taken[slot] && (giver < 0 || at[giver] >= 0) {
			empty = append(empty, b.slots[slot].ID)
		}
	}
	return empty
}

// draw is what is drawn of a rail, by the base and all cards, in amperes to a billionth: sums of written figures are
// compared with written figures.
func (b *backplane) draw(rail string) float64 {
	sum := b.in.Base[rail]
	for _, c := range b.in.Cards {
		sum += c.Draw[rail]
	}
	return quantity.Billionth(sum)
}

func amperes(figure float64) string { return strconv.FormatFloat(figure, 'f', -1, 64) }

func (b *backplane) railNames() []string {
	names := map[string]bool{}
	for _, figures := range []map[string]float64{b.in.Rails, b.in.Base} {
		for rail := range figures {
			names[rail] = true
		}
	}
	for _, c := range b.in.Cards {
		for rail := range c.Draw {
			names[rail] = true
		}
	}
	return slices.Sorted(maps.Keys(names))
}

func (b *backplane) rails() map[string]Rail {
	told := map[string]Rail{}
	for _, name := range b.railNames() {
		rail := Rail{Draw: b.draw(name)}
		if rating, known := b.in.Rails[name]; known {
			left := quantity.Billionth(rating - rail.Draw)
			rail.Rating, rail.Headroom = &rating, &left
		}
		told[name] = rail
	}
	return told
}

// overRails are the rails of which more is drawn than they give.
func (b *backplane) overRails() []string {
	over := []string{}
	for _, name := range b.railNames() {
		if rating, known := b.in.Rails[name]; known && b.draw(name) > quantity.Billionth(rating) {
			over = append(over, name)
		}
	}
	return over
}
