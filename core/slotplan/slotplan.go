// Package slotplan answers: does what sits in a backplane go together, and if not, what is the least that has to move or
// be set otherwise?
//
// Where a card sits and how it is set do not depend on each other: places are constrained by kinds, widths, orders and
// chains, settings by the resources that two cards must not share. Each is searched by itself.
package slotplan

import "slices"

// Slot is a place for a card. Slots of one row stand beside each other in the order in which they are listed.
type Slot struct {
	ID   string `json:"id"`
	Kind string `json:"kind"`
	Row  string `json:"row"`
}

// Need is a resource that a card takes.
type Need struct {
	Resource string   `json:"resource"` // irq, dma, io, memory, any other
	Choices  []Choice `json:"choices"`
	Now      *Choice  `json:"now"` // null where nobody said
	Shared   bool     `json:"shared"`
}

// How a card takes part in the chain of the bus.
const (
	Passes = "passes" // uses it and hands it on
	Breaks = "breaks" // uses it and does not hand it on
	None   = "none"   // does not use it; its slot counts as bridged
)

// Card is what goes into a slot.
type Card struct {
	ID     string             `json:"id"`
	Kinds  []string           `json:"kinds"` // of slots that take it
	At     *string            `json:"at"`    // the slot it sits in; null where it is out
	After  []string           `json:"after"` // cards that it stands behind, in bus order
	First  bool               `json:"first"` // no other card before it, in bus order
	Span   int                `json:"span"`  // slots wide; 0 is 1
	Grows  string             `json:"grows"` // up, as when it is empty, or down
	Blocks []string           `json:"blocks"`
	Beside *string            `json:"beside"`
	Chain  string             `json:"chain"` // none when it is empty
	Gives  []Given            `json:"gives"` // slots that are there while it is in
	Needs  []Need             `json:"needs"`
	Draw   map[string]float64 `json:"draw"` // amperes by rail
}

// Given is a slot that a card adds: on a riser, an adapter.
type Given struct {
	ID   string `json:"id"`
	Kind string `json:"kind"`
}

// Input is a backplane with its cards.
type Input struct {
	Slots []Slot             `json:"slots"`
	Chain []string           `json:"chain"` // slots in bus order; null where the bus has no chain
	Rails map[string]float64 `json:"rails"` // amperes that each may give
	Base  map[string]float64 `json:"base"`  // that are drawn without a card
	Cards []Card             `json:"cards"`
}

// Place is where a card goes and how it is set.
type Place struct {
	Slot     string         `json:"slot"`
	Settings map[string]any `json:"settings"` // a choice by resource, or a list where it needs several
}

// Rail is what is drawn of one.
type Rail struct {
	Draw     float64  `json:"draw"`
	Rating   *float64 `json:"rating"`   // null where nobody said
	Headroom *float64 `json:"headroom"` // rating less draw, negative when over
}

// Kind says what is wrong.
type Kind string

// What can be wrong.
const (
	WrongKind  Kind = "kind"
	Order      Kind = "order"
	Overlap    Kind = "overlap"
	OverRail   Kind = "rail"
	ChainBreak Kind = "chain"
	Span       Kind = "span"
	Blocked    Kind = "blocks"
	Apart      Kind = "beside"
	NotFirst   Kind = "first"
	Impossible Kind = "impossible"
)

// Problem is what is wrong, of which cards.
type Problem struct {
	Kind   Kind     `json:"kind"`
	Cards  []string `json:"cards"`
	Detail string   `json:"detail"`
}

// Output is how it stands, and what is proposed.
type Output struct {
	OK         bool             `json:"ok"`         // nothing is wrong as it stands; a filler may be missing
	Assignment map[string]Place `json:"assignment"` // empty where there is no solution
	Moves      int              `json:"moves"`      // cards that go to another slot
	Changes    int              `json:"changes"`    // settings unlike now
	Fillers    []string         `json:"fillers"`    // empty slots of the chain that need one
	Rails      map[string]Rail  `json:"rails"`
	Problems   []Problem        `json:"problems"` // as it stands
}

// Plan tells how it stands and proposes the assignment with the fewest moves, then the fewest changes, then the choices
// that come first. Where there is none it names a smallest set of cards that cannot live together. An input that cannot be
// is refused by its place.
func Plan(in Input) (Output, error) {
	b, err := newBackplane(in)
	if err != nil {
		return Output{}, err
	}
	out := Output{Assignment: map[string]Place{}, Fillers: []string{}, Rails: b.rails(), Problems: b.problems()}
	out.OK = !slices.ContainsFunc(out.Problems, func(p Problem) bool { return !p.IsFiller() })
	if len(b.overRails()) == 0 {
		places, settings := b.placing(), b.setting()
		at, moves, errPlaces := places.best()
		set, changes, errSettings := settings.best()
		if errPlaces == errTooMany || errSettings == errTooMany {
			return Output{}, errTooMany
		}
		if errPlaces == nil && errSettings == nil {
			out.Assignment, out.Moves, out.Changes = b.assignment(at, set), moves, changes
			out.Fillers = b.fillers(at)
			return out, nil
		}
	}
	cards, why, err := b.smallestClash()
	if err != nil {
		return Output{}, err
	}
	out.OK = false
	out.Problems = append(out.Problems, Problem{Impossible, cards, why})
	return out, nil
}

// IsFiller tells a missing filler, which names the last card alone, from a chain that is broken between two.
func (p Problem) IsFiller() bool { return p.Kind == ChainBreak && len(p.Cards) == 1 }
