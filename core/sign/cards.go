package sign

import (
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/known"
)

// Card is an assembly that is in the machine.
type Card struct {
	Title string
	Part  string
	Known []string // numbers and names of the records that it is known by beyond doubt
	Doubt string   // why it may not have been in the machine; empty where it was
}

// Cards are all of them.
type Cards []Card

// Holds says whether something is so.
type Holds string

// What is known of a condition.
const (
	Met    Holds = "met"
	NotMet Holds = "not met"
	Unsure Holds = "unknown"
)

// fitted tells whether a card is in the machine: by its number, its title, or the records that know it. One that nobody
// can name may be it.
func (cards Cards) fitted(name string) (holds Holds, why string) {
	nameless, doubt := "", ""
	for _, c := range cards {
		switch {
		case c.is(name) && c.Doubt == "":
			return Met, c.Title + " is fitted"
		case c.is(name):
			doubt = c.Doubt
		case c.Part == "" && len(c.Known) == 0 && nameless == "":
			nameless = c.Title
		}
	}
	switch {
	case doubt != "":
		return Unsure, fmt.Sprintf("whether %s was fitted is not known: %s", name, doubt)
	case nameless != "":
		return Unsure, fmt.Sprintf("whether %s is fitted is not known: %s has no part number", name, nameless)
	}
	return NotMet, name + " is not fitted"
}

func (c Card) is(name string) bool {
	if strings.EqualFold(c.Title, name) || c.Part != "" && known.SameNumber(name, c.Part) {
		return true
	}
	for _, by := range c.Known {
		if strings.EqualFold(by, name) || known.SameNumber(by, name) {
			return true
		}
	}
	return false
}

// holds tells whether the cards are those that a sign takes, and why not.
func (cards Cards) holds(s Sign) (holds Holds, why string) {
	holds = Met
	weigh := func(h Holds, w string) {
		if h == NotMet && holds != NotMet || h == Unsure && holds == Met {
			holds, why = h, w
		}
	}
	for _, name := range s.With {
		weigh(cards.fitted(name))
	}
	for _, name := range s.Without {
		switch h, w := cards.fitted(name); h {
		case Met:
			weigh(NotMet, w)
		case Unsure:
			weigh(Unsure, w)
		}
	}
	return holds, why
}

// against tells what of the cards speaks against a sign that was seen.
func (cards Cards) against(s Sign) []string {
	switch holds, why := cards.holds(s); holds {
	case NotMet:
		return []string{"by the record it cannot be shown: " + why}
	case Unsure:
		return []string{why}
	}
	return nil
}

// Expect is a sign that a sound machine shows in a state.
type Expect struct {
	Of int `json:"of" doc:"Of the lists, from 0"`
	Sign
	Holds Holds  `json:"holds" enum:"met,not met,unknown" doc:"Whether it is that of a machine with these cards"`
	Why   string `json:"why" says:"text" doc:"Why not, or why that is not known"`
}

// Expected tells what a machine should show with the cards that it has, in a state, or with none in each. What belongs to
// other cards is left out; where that is not known, it is told with why.
func Expected(lists []List, cards Cards, state string) []Expect {
	told := []Expect{}
	for of, list := range lists {
		for _, s := range list.Table.Signs {
			if !s.Expected || state != "" && s.State != "" && !strings.EqualFold(state, s.State) {
				continue
			}
			if holds, why := cards.holds(s); holds != NotMet {
				told = append(told, Expect{of, s, holds, why})
			}
		}
	}
	return told
}

// States lists what machines may be doing, as the tables name it, in their order.
func States(lists []List) []string {
	told, met := []string{}, map[string]bool{}
	for _, list := range lists {
		for _, s := range list.Table.Signs {
			if key := strings.ToLower(s.State); key != "" && !met[key] {
				met[key] = true
				told = append(told, s.State)
			}
		}
	}
	return told
}

// Without are the cards but for those of some titles, as while they are out.
func (cards Cards) Without(titles []string) Cards {
	return slices.DeleteFunc(slices.Clone(cards), func(c Card) bool {
		return slices.ContainsFunc(titles, func(title string) bool { return strings.EqualFold(title, c.Title) })
	})
}

// InWords says what is shown, when, and that it may be so where that is not known.
func (e Expect) InWords() string {
	words := string(e.Kind) + " " + e.Shown
	if e.State != "" {
		words += " (" + e.State + ")"
	}
	if e.Meaning != "" {
		words += ": " + e.Meaning
	}
	if e.Holds == Unsure {
		words = "perhaps " + words
	}
	return words
}
