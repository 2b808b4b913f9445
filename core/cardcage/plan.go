package cardcage

import (
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/configuration"
	"frugalheron/core/slotplan"
)

// Move is a card that goes elsewhere.
type Move struct {
	AssemblyID int64  `json:"assemblyId"`
	Card       string `json:"card" says:"text"`
	From       string `json:"from" doc:"Empty where nobody said where it sits, or it is out"`
	To         string `json:"to"`
}

// Set is a jumper or switch that is set otherwise.
type Set struct {
	AssemblyID int64  `json:"assemblyId"`
	Card       string `json:"card" says:"text"`
	Resource   string `json:"resource"`
	From       string `json:"from" doc:"Empty where nobody noted it"`
	To         string `json:"to"`
	Ways       []Way  `json:"ways" doc:"Jumpers and switches that do it; empty where no record says how"`
}

// Rearrangement is what makes everything go together.
type Rearrangement struct {
	Moves []Move   `json:"moves" doc:"In an order in which each slot is free by then, cards of a ring taken out first"`
	Sets  []Set    `json:"sets"`
	Notes []string `json:"notes" says:"text"`
}

// Propose turns a plan into what is done. It is empty where there is none.
func (c Cage) Propose(out slotplan.Output) Rearrangement {
	p := Rearrangement{Moves: []Move{}, Sets: []Set{}, Notes: []string{}}
	for _, one := range c.In.Cards {
		place, planned := out.Assignment[one.ID]
		if !planned {
			continue
		}
		if from := c.at(one); from != place.Slot && !c.boards[one.ID] {
			p.Moves = append(p.Moves, Move{c.cards[one.ID].ID, one.ID, from, place.Slot})
		}
		p.Sets = append(p.Sets, c.sets(one, place)...)
	}
	p.Notes = append(p.Notes, c.apart(p.Sets)...)
	var ring []string
	p.Moves, ring = inOrder(p.Moves)
	if len(ring) > 0 {
		p.Notes = append(p.Notes, "take out first, as they change places: "+strings.Join(ring, ", "))
	}
	return p
}

func (c Cage) at(one slotplan.Card) string {
	if one.At == nil {
		return ""
	}
	return *one.At
}

// sets are the settings of a card that are unlike now.
func (c Cage) sets(one slotplan.Card, place slotplan.Place) []Set {
	found, nth := []Set{}, map[string]int{}
	for _, need := range one.Needs {
		var choice slotplan.Choice
		switch chosen := place.Settings[need.Resource].(type) {
		case slotplan.Choice:
			choice = chosen
		case []slotplan.Choice:
			choice = chosen[nth[need.Resource]]
		}
		nth[need.Resource]++
		if need.Now != nil && *need.Now == choice {
			continue
		}
		s := Set{AssemblyID: c.cards[one.ID].ID, Card: one.ID, Resource: need.Resource, To: choice.String(),
			Ways: []Way{}}
		s.Ways = append(s.Ways, c.how[one.ID][choice]...)
		if need.Now != nil {
			s.From = need.Now.String()
		}
		found = append(found, s)
	}
	return found
}

// apart tells of settings that one jumper or switch makes together and that are proposed with different positions of it.
func (c Cage) apart(sets []Set) []string {
	notes := []string{}
	for i, a := range sets {
		for _, b := range sets[:i] {
			if a.Card != b.Card {
				continue
			}
			for _, way := range a.Ways {
				shared := slices.ContainsFunc(b.Ways, func(w Way) bool { return w.Setting == way.Setting })
				together := slices.ContainsFunc(b.Ways, func(w Way) bool { return w == way })
				if shared && !together {
					notes = append(notes, fmt.Sprintf("%s of %s would have to stand for %s %s and %s %s at once; look for another way",
						way.Setting, a.Card, b.Resource, b.To, a.Resource, a.To))
				}
			}
		}
	}
	return notes
}

// inOrder puts moves so that each goes to a slot that is free by then; cards of a ring are told.
func inOrder(moves []Move) (ordered []Move, ring []string) {
	left := slices.Clone(moves)
	ordered = []Move{}
	for len(left) > 0 {
		at := slices.IndexFunc(left, func(m Move) bool {
			return !slices.ContainsFunc(left, func(o Move) bool { return o != m && o.From == m.To })
		})
		if at < 0 { // all wait for each other: one has to be taken out first
			at = 0
			ring = append(ring, left[0].Card)
		}
		ordered = append(ordered, left[at])
		left = slices.Delete(left, at, at+1)
	}
	return ordered, ring
}

// Written is a text of settings with what was set: by the jumper or switch that does it, or, where several do or nobody knows
// which, as the resource itself.
func (s Set) Written(text string) string {
	if len(s.Ways) == 1 {
		return configuration.With(text, []string{s.Resource}, s.Ways[0].Setting, s.Ways[0].At)
	}
	names := []string{}
	for _, way := range s.Ways {
		names = append(names, way.Setting)
	}
	return configuration.With(text, names, s.Resource, s.To)
}
