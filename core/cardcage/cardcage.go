// Package cardcage answers: by what is recorded of a machine, what sits in its backplane, does that go together, and what
// would have to move or be set otherwise?
//
// It makes a plan for core/slotplan out of records: where cards are fitted, what is known of their kind, how their jumpers and
// switches were found, what their chips draw. What no record says breaks no rule, and is told.
package cardcage

import (
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/complement"
	"frugalheron/core/configuration"
	"frugalheron/core/known"
	"frugalheron/core/slotplan"
)

// Card is an assembly of a machine, or one that is thought into it.
type Card struct {
	ID       int64
	Title    string
	Part     string
	Kind     string // board, card, drive, supply ...
	Slot     string // in which it is said to sit
	Known    []string
	Details  []known.Details // by records that say as firmly what it is, the one that fits best first
	IsSure   bool            // it is sure that it is of its record
	Settings []configuration.Meaning
	Drawn    map[string]float64 // amperes by its chips, a rule of thumb
}

// details are those of the record that fits best.
func (c Card) details() known.Details {
	if len(c.Details) == 0 {
		return known.Details{}
	}
	return c.Details[0]
}

// Cage is a plan, with what leads from it back to the records.
type Cage struct {
	In      slotplan.Input
	Rows    []Row
	Remarks []string        // what is not known, and so breaks no rule
	Unknown map[string]bool // cards of which nobody said what they draw
	cards   map[string]Card // by their names in the plan
	how     map[string]map[slotplan.Choice][]Way
	boards  map[string]bool // names of what sits in no slot
}

// Way is a position of a jumper or switch.
type Way struct {
	Setting string `json:"setting"`
	At      string `json:"at"`
}

// onBoard marks the slot of what sits in none: it takes resources all the same.
const onBoard = "\x00"

// Fill makes a plan of what is recorded. Written is nil where nobody wrote the backplane down: then the slots are those that
// boards are known to give. Moves are cards that are thought elsewhere, by id; an empty slot is out of the machine.
func Fill(written *Backplane, cards []Card, ratings map[string]float64, moves map[int64]string) Cage {
	c := Cage{cards: map[string]Card{}, how: map[string]map[slotplan.Choice][]Way{}, boards: map[string]bool{},
		Unknown: map[string]bool{}, Remarks: []string{}}
	c.In.Rails, c.In.Base = ratings, map[string]float64{}
	if c.In.Rails == nil {
		c.In.Rails = map[string]float64{}
	}
	cards = moved(cards, moves)
	c.rows(written, cards)
	c.names(cards)
	for _, card := range cards {
		c.put(card)
	}
	c.relate(cards)
	c.fit(written)
	if written != nil {
		for rail, amperes := range written.Rails {
			c.In.Rails[rail] = amperes
		}
		for rail, amperes := range written.Base {
			c.In.Base[rail] = amperes
		}
	}
	c.remark(written)
	return c
}

func moved(cards []Card, moves map[int64]string) []Card {
	all := []Card{}
	for _, card := range cards {
		if to, isMoved := moves[card.ID]; isMoved {
			if to == "" {
				continue
			}
			card.Slot = to
		}
		all = append(all, card)
	}
	return all
}

// sits reports whether an assembly belongs into a slot.
func (c Card) sits() bool { return complement.NameOf(c.Slot) != "" || c.Kind == "card" }

// rows are those that are written down, else the slots that boards give and those in which cards are said to sit.
func (c *Cage) rows(written *Backplane, cards []Card) {
	if written != nil && len(written.Rows) > 0 {
		c.Rows = written.Rows
		c.In.Chain = written.Chain
	} else {
		c.givenRows(cards)
	}
	for i, r := range c.Rows {
		for _, id := range r.Slots {
			c.In.Slots = append(c.In.Slots, slotplan.Slot{ID: id, Kind: kind(r.Kind), Row: fmt.Sprint(i)})
		}
	}
}

func (c *Cage) givenRows(cards []Card) {
	n := 0
	for _, card := range cards {
		if card.sits() {
			continue
		}
		for _, given := range card.details().Gives {
			r := Row{Kind: given.Kind}
			for i := range given.Count {
				n++
				name := fmt.Sprint(n)
				if i < len(given.Names) {
					name = complement.NameOf(given.Names[i])
				}
				if !c.hasSlot(name) {
					r.Slots = append(r.Slots, name)
				}
			}
			c.Rows = append(c.Rows, r)
		}
	}
	known, rest := len(c.Rows) > 0, Row{}
	given := map[string]bool{}
	for _, card := range cards {
		if card.sits() {
			for _, name := range givenBy(card, card.Title) {
				given[name] = true
			}
		}
	}
	for _, card := range cards {
		name := complement.NameOf(card.Slot)
		if name == "" || given[name] || c.hasSlot(name) || slices.Contains(rest.Slots, name) {
			continue
		}
		rest.Slots = append(rest.Slots, name)
		if known {
			c.Remarks = append(c.Remarks, fmt.Sprintf("%s is said to sit in slot %s, which the record of no board has",
				card.Title, name))
		}
	}
	if len(rest.Slots) > 0 {
		slices.SortFunc(rest.Slots, complement.Order)
		c.Rows = append(c.Rows, rest)
		if !known {
			c.Remarks = append(c.Remarks, "how many slots there are is not known; write the backplane down, or let the "+
				"record of the main board say it, as gives 5 slots | 8-bit")
		}
	}
}

func (c *Cage) hasSlot(id string) bool {
	return slices.ContainsFunc(c.Rows, func(r Row) bool { return slices.Contains(r.Slots, id) })
}

// givenBy are the slots that a card adds while it is in.
func givenBy(card Card, name string) []string {
	names := []string{}
	for _, given := range card.details().Gives {
		for i := range given.Count {
			if i < len(given.Names) {
				names = append(names, complement.NameOf(given.Names[i]))
			} else {
				names = append(names, fmt.Sprintf("%s %d", name, len(names)+1))
			}
		}
	}
	return names
}

// names gives each card one by which it is told from the others.
func (c *Cage) names(cards []Card) {
	for _, card := range cards {
		name := card.Title
		for n := 2; ; n++ {
			if _, taken := c.cards[name]; !taken {
				break
			}
			name = fmt.Sprintf("%s (%d)", card.Title, n)
		}
		c.cards[name] = card
	}
}

// NameOf is how the plan calls an assembly; empty where it is not in it.
func (c Cage) NameOf(id int64) string {
	for name, card := range c.cards {
		if card.ID == id {
			return name
		}
	}
	return ""
}

// IDOf is the assembly that the plan calls so; 0 for none.
func (c Cage) IDOf(name string) int64 { return c.cards[name].ID }

// IsBoard reports whether a name is of what sits in no slot.
func (c Cage) IsBoard(name string) bool { return c.boards[name] }

// put takes an assembly in: as a card, or as what is there beside them.
func (c *Cage) put(card Card) {
	name, d := c.NameOf(card.ID), card.details()
	one := slotplan.Card{ID: name, Needs: c.needs(name, card), Draw: c.draw(name, card)}
	if !card.sits() {
		for rail, amperes := range one.Draw {
			c.In.Base[rail] += amperes
		}
		if len(one.Needs) > 0 { // it takes them wherever it is
			id := onBoard + name
			c.boards[name] = true
			c.In.Slots = append(c.In.Slots, slotplan.Slot{ID: id, Kind: id, Row: id})
			one.Draw, one.Kinds, one.At = nil, []string{id}, &id
			c.In.Cards = append(c.In.Cards, one)
		}
		return
	}
	if at := complement.NameOf(card.Slot); at != "" {
		one.At = &at
	}
	one.First, one.Span, one.Grows, one.Chain = d.Placing.First, d.Placing.Wide, d.Placing.Grows, d.Placing.Chain
	one.Blocks = append(one.Blocks, d.Placing.Blocks...)
	for _, covered := range d.Covers {
		one.Blocks = append(one.Blocks, complement.NameOf(covered))
	}
	names := givenBy(card, name)
	n := 0
	for _, given := range d.Gives {
		for range given.Count {
			one.Gives = append(one.Gives, slotplan.Given{ID: names[n], Kind: kind(given.Kind)})
			n++
		}
	}
	c.In.Cards = append(c.In.Cards, one)
}

// draw is what a card draws, by its record, else by its chips.
func (c *Cage) draw(name string, card Card) map[string]float64 {
	draw := map[string]float64{}
	for _, current := range card.details().Currents {
		draw[strings.Join(strings.Fields(current.Rail), "")] += current.Amperes
	}
	if len(draw) == 0 {
		for rail, amperes := range card.Drawn {
			draw[rail] = amperes
		}
	}
	if len(draw) == 0 && card.Kind != "supply" {
		c.Unknown[name] = true
	}
	return draw
}

// AllRows are the rows of the backplane, then those of the slots that cards give.
func (c Cage) AllRows() []Row {
	rows := append([]Row{}, c.Rows...)
	for _, card := range c.In.Cards {
		for _, given := range card.Gives {
			if last := len(rows) - 1; last >= len(c.Rows) && rows[last].Name == card.ID &&
				rows[last].Kind == given.Kind {
				rows[last].Slots = append(rows[last].Slots, given.ID)
				continue
			}
			rows = append(rows, Row{Name: card.ID, Kind: given.Kind, Slots: []string{given.ID}})
		}
	}
	return rows
}
