// Package evidence answers: what is true about an attribute of a thing, when several sources say
// something about it? Each statement has a kind of source; kinds differ in strength, and what was
// found on the thing itself outweighs what was written about it, which outweighs what somebody says.
// Strengths are a rule of thumb, kept as a table.
package evidence

import (
	_ "embed"
	"fmt"
	"slices"
	"strings"
)

// Kind is a kind of source.
type Kind string

// Kinds of sources.
const (
	Seen     Kind = "seen"
	Counted  Kind = "counted"
	Measured Kind = "measured"
	Tested   Kind = "tested"
	Firmware Kind = "firmware"
	Label    Kind = "label"
	Document Kind = "document"
	Seller   Kind = "seller"
	Recalled Kind = "recalled"
	Inferred Kind = "inferred"
	Hearsay  Kind = "hearsay"
)

// Strengths that the rules speak of.
const (
	onTheThing = 4
	byTheMaker = 3
)

// Statement is what one source says of an attribute.
type Statement struct {
	ID    int64  `json:"id" doc:"Of the kept statement; 0 for one that follows from a sheet or a record"`
	Kind  Kind   `json:"kind"`
	Value string `json:"value" says:"text" doc:"As it was said"`
}

// State says how well something is known.
type State string

// States of an attribute.
const (
	Settled  State = "settled"
	Open     State = "open"
	Disputed State = "disputed"
)

// Standing is how a value fares against the others.
type Standing string

// Standings of a value.
const (
	Supported    Standing = "supported"    // the best, alone at its strength
	Rival        Standing = "rival"        // as strong as another
	Contradicted Standing = "contradicted" // a stronger one says otherwise
	Claimed      Standing = "claimed"      // nothing contradicts it, and nothing strong enough says so
)

// Group is the statements that agree on a value.
type Group struct {
	Value      string      `json:"value" says:"text" doc:"In the form that values of the attribute are written in"`
	Standing   Standing    `json:"standing" enum:"supported,rival,contradicted,claimed"`
	Statements []Statement `json:"statements"`

	strength int
	read     reading
}

// Judgement is what all statements about an attribute amount to.
type Judgement struct {
	State  State    `json:"state" enum:"settled,open,disputed"`
	Value  string   `json:"value" says:"text" doc:"The best supported value; empty when nothing was said, or when rivals are equally strong"`
	Groups []Group  `json:"groups" doc:"The best supported first"`
	Why    []string `json:"why" says:"text"`
	Next   string   `json:"next" doc:"What would settle it; empty when it is settled"`
}

// Judge weighs what was said of an attribute. Values that are not written in the attribute's form are
// compared as words.
//
// It is settled when the strongest value was found on the thing or put there by its maker, and nothing
// as strong says otherwise. It is disputed when two values are equally strong. It is open when nothing
// was said, or when only documents and people say it.
func Judge(attribute Attribute, statements []Statement) Judgement {
	groups := grouped(attribute, statements)
	j := Judgement{Groups: groups, Why: []string{}, Next: attribute.SettledBy}
	if len(groups) == 0 {
		j.State, j.Why = Open, append(j.Why, "nothing is said of it")
		return j
	}
	best := groups[0].strength
	rivals := 0
	for i := range groups {
		switch {
		case groups[i].strength < best:
			groups[i].Standing = Contradicted
		default:
			groups[i].Standing = Rival
			rivals++
		}
	}
	switch {
	case rivals > 1:
		j.State = Disputed
		for _, g := range groups[:rivals] {
			j.Why = append(j.Why, fmt.Sprintf("%s says %s", g.sources(), g.Value))
		}
		j.Why = append(j.Why, "they are equally strong, and differ")
	case best >= byTheMaker:
		groups[0].Standing = Supported
		j.State, j.Value, j.Next = Settled, groups[0].Value, ""
		j.Why = append(j.Why, fmt.Sprintf("%s, by %s", groups[0].Value, groups[0].sources()))
	default:
		groups[0].Standing = Claimed
		j.State, j.Value = Open, groups[0].Value
		j.Why = append(j.Why,
			fmt.Sprintf("only %s says %s: nobody has found it on the thing itself", groups[0].sources(),
				groups[0].Value))
	}
	for _, g := range groups[rivals:] {
		j.Why = append(j.Why, fmt.Sprintf("%s says %s, which is contradicted", g.sources(), g.Value))
	}
	return j
}

// grouped puts statements that agree together, the strongest group first. A group's value is as its
// strongest statement says it.
func grouped(attribute Attribute, statements []Statement) []Group {
	ordered := slices.Clone(statements)
	slices.SortStableFunc(ordered, func(a, b Statement) int { return b.Kind.Strength() - a.Kind.Strength() })
	groups := []Group{}
	for _, s := range ordered {
		read := attribute.read(s.Value)
		at := slices.IndexFunc(groups, func(g Group) bool { return g.read.agrees(read) })
		if at < 0 {
			groups = append(groups, Group{Value: read.text, strength: s.Kind.Strength(), read: read})
			at = len(groups) - 1
		}
		groups[at].Statements = append(groups[at].Statements, s)
	}
	return groups
}

// sources names the kinds of sources of a group, each once, the strongest first.
func (g Group) sources() string {
	words := []string{}
	for _, s := range g.Statements {
		if w := s.Kind.Words(); !slices.Contains(words, w) {
			words = append(words, w)
		}
	}
	if len(words) < 2 {
		return strings.Join(words, "")
	}
	return strings.Join(words[:len(words)-1], ", ") + " and " + words[len(words)-1]
}
