package slotplan

import (
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"frugalheron/core/malformed"
)

// Bounds of a plan.
const (
	MostSlots   = 256 // with those that cards give
	MostChoices = 256
	MostCards   = 64
)

// position is a slot with where it stands.
type position struct {
	Slot
	giver int // the card that adds it; -1 for none
	bus   int // in bus order
	chain int // on the chain; -1 where it is not
	inRow int // among the slots of its row
}

// backplane is an input whose names are resolved.
type backplane struct {
	in    Input
	slots []position
	rows  map[string][]int // slots by row
	at    []int            // the slot of each card as it stands; -1 where it is out
	index map[string]int   // cards by id
	after [][]int
	near  []int // the card that each stands beside; -1 for none

	covered [][][]int // by card and slot; nil where it does not fit into the row
	blocked [][][]int
}

func newBackplane(in Input) (*backplane, error) {
	b := &backplane{in: in, rows: map[string][]int{}, index: map[string]int{}}
	if len(in.Cards) > MostCards {
		return nil, malformed.Named("cards", "%d of them; at most %d are taken", len(in.Cards), MostCards)
	}
	slotAt := map[string]int{}
	add := func(field string, s Slot, giver int) error {
		_, isThere := slotAt[s.ID]
		switch {
		case strings.TrimSpace(s.ID) == "":
			return malformed.Named(field+".id", "a slot needs a name")
		case isThere:
			return malformed.Named(field+".id", "there are two slots %q", s.ID)
		case len(b.slots) == MostSlots:
			return malformed.Named(field, "more than %d slots", MostSlots)
		}
		slotAt[s.ID] = len(b.slots)
		row := s.Row
		if giver >= 0 {
			row = "\x00" + s.ID // a row of its own
		}
		b.rows[row] = append(b.rows[row], len(b.slots))
		s.Row = row
		b.slots = append(b.slots, position{Slot: s, giver: giver, chain: -1, inRow: len(b.rows[row]) - 1})
		return nil
	}
	for i, s := range in.Slots {
		if err := add(fmt.Sprintf("slots[%d]", i), s, -1); err != nil {
			return nil, err
		}
	}
	for i, c := range in.Cards {
		at := fmt.Sprintf("cards[%d]", i)
		_, isThere := b.index[c.ID]
		switch {
		case strings.TrimSpace(c.ID) == "":
			return nil, malformed.Named(at+".id", "a card needs a name")
		case isThere:
			return nil, malformed.Named(at+".id", "there are two cards %q", c.ID)
		}
		b.index[c.ID] = i
		for n, g := range c.Gives {
			if err := add(fmt.Sprintf("%s.gives[%d]", at, n), Slot{ID: g.ID, Kind: g.Kind}, i); err != nil {
				return nil, err
			}
		}
	}
	if err := b.order(slotAt); err != nil {
		return nil, err
	}
	for i := range in.Cards {
		if err := b.resolve(i, slotAt); err != nil {
			return nil, err
		}
	}
	return b, b.checkRails()
}

// order puts the slots into bus order: the chain, then the others as they are listed; those that cards give are listed last.
func (b *backplane) order(slotAt map[string]int) error {
	for n, id := range b.in.Chain {
		at, known := slotAt[id]
		if !known {
			return malformed.Named(fmt.Sprintf("chain[%d]", n), "there is no slot %q", id)
		}
		if b.slots[at].chain >= 0 {
			return malformed.Named(fmt.Sprintf("chain[%d]", n), "the slot %q is on the chain already", id)
		}
		b.slots[at].chain, b.slots[at].bus = n, n
	}
	last := len(b.in.Chain)
	for i := range b.slots {
		if b.slots[i].chain < 0 {
			b.slots[i].bus = last
			last++
		}
	}
	return nil
}

func (b *backplane) resolve(i int, slotAt map[string]int) error {
	c, field := b.in.Cards[i], fmt.Sprintf("cards[%d]", i)
	at := -1
	if c.At != nil {
		var known bool
		if at, known = slotAt[*c.At]; !known {
			return malformed.Named(field+".at", "there is no slot %q", *c.At)
		}
	}
	b.at = append(b.at, at)
	after := []int{}
	for n, id := range c.After {
		other, known := b.index[id]
		if !known || other == i {
			return malformed.Named(fmt.Sprintf("%s.after[%d]", field, n), "%q is no other card", id)
		}
		after = append(after, other)
	}
	b.after = append(b.after, after)
	near := -1
	if c.Beside != nil {
		var known bool
		if near, known = b.index[*c.Beside]; !known || near == i {
			return malformed.Named(field+".beside", "%q is no other card", *c.Beside)
		}
	}
	b.near = append(b.near, near)
	switch {
	case c.Span < 0:
		return malformed.Named(field+".span", "%d is no number of slots", c.Span)
	case !slices.Contains([]string{"", "up", "down"}, c.Grows):
		return malformed.Named(field+".grows", "%q is neither up nor down", c.Grows)
	case !slices.Contains([]string{"", Passes, Breaks, None}, c.Chain):
		return malformed.Named(field+".chain", "%q is none of passes, breaks, none", c.Chain)
	}
	for n, need := range c.Needs {
		if err := need.check(fmt.Sprintf("%s.needs[%d]", field, n)); err != nil {
			return err
		}
	}
	covered, blocked := make([][]int, len(b.slots)), make([][]int, len(b.slots))
	for slot := range b.slots {
		covered[slot] = b.covers(c, slot)
		var err error
		if blocked[slot], err = b.blocks(field, c, slot, slotAt); err != nil {
			return err
		}
	}
	b.covered, b.blocked = append(b.covered, covered), append(b.blocked, blocked)
	return nil
}

func (n Need) check(field string) error {
	if strings.TrimSpace(n.Resource) == "" {
		return malformed.Named(field+".resource", "a need names what it takes")
	}
	if len(n.Choices) > MostChoices {
		return malformed.Named(field+".choices", "more than %d", MostChoices)
	}
	for i, c := range n.Choices {
		if c.err != nil {
			return malformed.Named(fmt.Sprintf("%s.choices[%d]", field, i), "%w", c.err)
		}
	}
	if n.Now != nil && n.Now.err != nil {
		return malformed.Named(field+".now", "%w", n.Now.err)
	}
	return nil
}

// covers lists the slots that a card takes up; nil where its row ends before.
func (b *backplane) covers(c Card, slot int) []int {
	row, step := b.rows[b.slots[slot].Row], 1
	if c.Grows == "down" {
		step = -1
	}
	taken := []int{}
	for n := range max(c.Span, 1) {
		at := b.slots[slot].inRow + n*step
		if at < 0 || at >= len(row) {
			return nil
		}
		taken = append(taken, row[at])
	}
	return taken
}

// blocks lists the slots that must be empty while a card sits in one.
func (b *backplane) blocks(field string, c Card, slot int, slotAt map[string]int) ([]int, error) {
	empty := []int{}
	row := b.rows[b.slots[slot].Row]
	for i, written := range c.Blocks {
		if other, known := slotAt[written]; known {
			empty = append(empty, other)
			continue
		}
		n, err := strconv.Atoi(strings.TrimPrefix(written, "+"))
		if !strings.HasPrefix(written, "+") || err != nil || n < 1 {
			return nil, malformed.Named(fmt.Sprintf("%s.blocks[%d]", field, i), "%q is neither a slot nor a next one, as +1", written)
		}
		if at := b.slots[slot].inRow + n; at < len(row) {
			empty = append(empty, row[at])
		}
	}
	return empty, nil
}

func (b *backplane) checkRails() error {
	check := func(field string, figures map[string]float64) error {
		for _, rail := range slices.Sorted(maps.Keys(figures)) {
			if !(figures[rail] >= 0 && figures[rail] < 1e9) {
				return malformed.Named(field, "%v is no current for %s", figures[rail], rail)
			}
		}
		return nil
	}
	if err := check("rails", b.in.Rails); err != nil {
		return err
	}
	if err := check("base", b.in.Base); err != nil {
		return err
	}
	for i, c := range b.in.Cards {
		if err := check(fmt.Sprintf("cards[%d].draw", i), c.Draw); err != nil {
			return err
		}
	}
	return nil
}

func (b *backplane) uses(card int) bool {
	chain := b.in.Cards[card].Chain
	return chain == Passes || chain == Breaks
}
