package slotplan

import (
	"fmt"
	"slices"
)

// unfit says why a card cannot sit in a slot, whatever else is in; empty where it can.
func (b *backplane) unfit(i, slot int) (Kind, string) {
	c, s := b.in.Cards[i], b.slots[slot]
	switch {
	case !slices.Contains(c.Kinds, s.Kind):
		return WrongKind, fmt.Sprintf("slot %s is %s, which does not take the %s", s.ID, s.Kind, c.ID)
	case b.covered[i][slot] == nil:
		return Span, fmt.Sprintf("the %s is %d slots wide, and the row of slot %s ends before", c.ID, c.Span, s.ID)
	case intersect(b.covered[i][slot], b.blocked[i][slot]):
		return Blocked, fmt.Sprintf("the %s in slot %s takes up a slot that it wants empty", c.ID, s.ID)
	case s.giver == i:
		return WrongKind, fmt.Sprintf("the %s cannot sit in slot %s, which it gives itself", c.ID, s.ID)
	}
	return "", ""
}

func intersect(a, b []int) bool {
	return slices.ContainsFunc(a, func(n int) bool { return slices.Contains(b, n) })
}

// complain takes what is wrong, in words that are put together only where somebody reads them.
type complain func(kind Kind, format string, about ...any)

// oneWay says what the card i in slot a asks of the card j in slot b that is not so.
func (b *backplane) oneWay(i, a, j, at int, tell complain) {
	one, other := b.in.Cards[i], b.in.Cards[j]
	mine, theirs := b.slots[a], b.slots[at]
	if intersect(b.blocked[i][a], b.covered[j][at]) {
		tell(Blocked, "the %s in slot %s wants the slot empty in which the %s is", one.ID, mine.ID, other.ID)
	}
	if a != at && slices.Contains(b.after[i], j) && mine.bus < theirs.bus {
		tell(Order, "the %s stands before the %s, and belongs behind it", one.ID, other.ID)
	}
	if one.First && theirs.bus < mine.bus {
		tell(NotFirst, "the %s has to be first, and the %s is before it", one.ID, other.ID)
	}
	if one.Chain == Breaks && b.uses(j) && mine.chain >= 0 && theirs.chain > mine.chain {
		tell(ChainBreak, "the chain ends at the %s in slot %s, and the %s behind it has none", one.ID, mine.ID,
			other.ID)
	}
	if b.near[i] == j && !b.adjacent(b.covered[i][a], b.covered[j][at]) {
		tell(Apart, "the %s belongs beside the %s", one.ID, other.ID)
	}
}

// adjacent reports whether two runs of slots of one row touch each other.
func (b *backplane) adjacent(mine, theirs []int) bool {
	for _, a := range mine {
		for _, c := range theirs {
			one, other := b.slots[a], b.slots[c]
			if one.Row == other.Row && (one.inRow-other.inRow == 1 || other.inRow-one.inRow == 1) {
				return true
			}
		}
	}
	return false
}

// pairAtOdds tells all that is wrong between two cards in their slots.
func (b *backplane) pairAtOdds(i, a, j, at int, tell complain) {
	if a == at || intersect(b.covered[i][a], b.covered[j][at]) {
		tell(Overlap, "the %s and the %s take up the same slot", b.in.Cards[i].ID, b.in.Cards[j].ID)
	}
	b.oneWay(i, a, j, at, tell)
	b.oneWay(j, at, i, a, tell)
}

// clash reports whether two needs cannot have these settings.
func clash(one, other Need, a, c Choice, isSameCard bool) bool {
	return one.Resource == other.Resource && a.meets(c) && (isSameCard || !one.Shared || !other.Shared)
}

// problems tells what is wrong as it stands.
func (b *backplane) problems() []Problem {
	found := []Problem{}
	at := b.inNow()
	for i, c := range b.in.Cards {
		if at[i] >= 0 {
			if kind, why := b.unfit(i, at[i]); why != "" {
				found = append(found, Problem{kind, []string{c.ID}, why})
			}
		}
	}
	for i, c := range b.in.Cards {
		for j := i + 1; j < len(b.in.Cards); j++ {
			if at[i] < 0 || at[j] < 0 {
				continue
			}
			b.pairAtOdds(i, at[i], j, at[j], func(kind Kind, format string, about ...any) {
				found = append(found, Problem{kind, []string{c.ID, b.in.Cards[j].ID}, fmt.Sprintf(format, about...)})
			})
		}
	}
	found = append(found, b.clashesNow(at)...)
	for _, rail := range b.overRails() {
		drawing := []string{}
		for _, c := range b.in.Cards {
			if c.Draw[rail] > 0 {
				drawing = append(drawing, c.ID)
			}
		}
		found = append(found, Problem{OverRail, drawing, fmt.Sprintf("%s A are drawn of %s, which gives %s A",
			amperes(b.draw(rail)), rail, amperes(b.in.Rails[rail]))})
	}
	last := b.lastOfChain(at)
	for _, slot := range b.fillers(at) {
		found = append(found, Problem{ChainBreak, []string{b.in.Cards[last].ID},
			fmt.Sprintf("slot %s is empty before the %s: the chain needs a filler", slot, b.in.Cards[last].ID)})
	}
	return found
}

// inNow are the slots of the cards as they stand; -1 where one is out, or sits on a card that is out.
func (b *backplane) inNow() []int {
	at := slices.Clone(b.at)
	for isStable := false; !isStable; {
		isStable = true
		for i, slot := range at {
			if slot >= 0 && b.slots[slot].giver >= 0 && at[b.slots[slot].giver] < 0 {
				at[i], isStable = -1, false
			}
		}
	}
	return at
}

// clashesNow tells settings that meet as they are, of cards that are in.
func (b *backplane) clashesNow(at []int) []Problem {
	found := []Problem{}
	for i, one := range b.in.Cards {
		for j := i; j < len(b.in.Cards); j++ {
			other := b.in.Cards[j]
			if at[i] < 0 || at[j] < 0 {
				continue
			}
			for x, need := range one.Needs {
				for y, theirs := range other.Needs {
					if i == j && y <= x || need.Now == nil || theirs.Now == nil ||
						!clash(need, theirs, *need.Now, *theirs.Now, i == j) {
						continue
					}
					found = append(found, overlap(need, theirs, one.ID, other.ID))
				}
			}
		}
	}
	return found
}

// overlap says that two settings meet, of two cards or of one.
func overlap(mine, theirs Need, one, other string) Problem {
	setting := fmt.Sprintf("%s %s", mine.Resource, mine.Now)
	if !mine.Now.equals(*theirs.Now) {
		setting = fmt.Sprintf("%s %s and %s", mine.Resource, mine.Now, theirs.Now)
	}
	if one == other {
		return Problem{Overlap, []string{one}, fmt.Sprintf("two settings of the %s meet: %s", one, setting)}
	}
	return Problem{Overlap, []string{one, other}, fmt.Sprintf("the %s and the %s meet: %s", one, other, setting)}
}
