package census

import (
	"fmt"
	"regexp"

	"frugalheron/core/identification"
)

// Weights that are proposed. A rule of thumb; who weighs changes them.
const (
	speaksFor     = 3
	speaksAgainst = -1 // what it can do beside what is explained
)

// Proposal is evidence that follows from what the chips of a board are for. Nobody has accepted it yet.
type Proposal struct {
	Key      string                  `json:"key" doc:"The capability from which it follows"`
	Text     string                  `json:"text"`
	Presence identification.Presence `json:"presence" enum:"found,absent,open"`
	HowTo    string                  `json:"howTo"`
	Weights  []Weight                `json:"weights"`
}

// Weight is how strongly a proposal speaks for or against an explanation.
type Weight struct {
	HypothesisID int64 `json:"hypothesisId"`
	Weight       int   `json:"weight"`
}

// lacking is what an explanation says that the board has not: a terminal without its picture part.
var lacking = regexp.MustCompile(`(?i)\bwithout\b.*`)

// isNamedBy reports whether an explanation says that the board has a capability.
func (r capabilityRow) isNamedBy(text string) bool {
	has := lacking.ReplaceAllString(text, "")
	return r.tells.MatchString(has) && !r.tells.MatchString(text[len(has):])
}

// Settled is what became of proposals, by their keys: how what was accepted was found, or Dropped.
type Settled map[string]identification.Presence

// Dropped is a proposal that somebody does not want, whatever its chips say.
const Dropped identification.Presence = "dropped"

// Propose says what the chips of a board tell of its explanations: each capability that one of them names speaks
// for that
// one, and against those that name another. Explanations that name none are left alone. What was accepted is
// proposed anew
// when its chips tell otherwise now.
func (c Census) Propose(hypotheses []identification.Hypothesis, settled Settled) []Proposal {
	proposals := []Proposal{}
	namesAny := map[int64]bool{}
	for _, h := range hypotheses {
		for _, row := range tables().capabilities {
			namesAny[h.ID] = namesAny[h.ID] || row.isNamedBy(h.Text)
		}
	}
	for i, row := range tables().capabilities {
		p := Proposal{Key: row.key, Weights: []Weight{}}
		isNamed := false
		for _, h := range hypotheses {
			switch {
			case row.isNamedBy(h.Text):
				isNamed = true
				p.Weights = append(p.Weights, Weight{h.ID, speaksFor})
			case namesAny[h.ID]:
				p.Weights = append(p.Weights, Weight{h.ID, speaksAgainst})
			}
		}
		if !isNamed {
			continue
		}
		can := c.Capabilities[i]
		p.Text = fmt.Sprintf("%s (%s)", can.Words, can.Why)
		switch can.State {
		case Present:
			p.Presence = identification.Found
		case Missing:
			p.Presence = identification.Absent
		default:
			p.Presence, p.HowTo = identification.Open, "identify its chips: "+joined(c.Unidentified)
		}
		if was := settled[row.key]; was != Dropped && was != p.Presence {
			proposals = append(proposals, p)
		}
	}
	return proposals
}

// mostNamed bounds the chips that a proposal names.
const mostNamed = 4

func joined(names []string) string {
	text := ""
	for i, name := range names {
		switch {
		case i == mostNamed:
			return text + fmt.Sprintf(" and %d more", len(names)-i)
		case i > 0:
			text += ", "
		}
		text += name
	}
	return text
}

// Named is what the library says that a board is.
type Named struct {
	Key  string // of the proposal that follows from it
	Name string
	Why  string // by what it is recognised
	Sure bool
}

// ProposeNamed says what the names that the library has for a board tell of its explanations: each speaks for
// those that
// say the same of it, and against those that say something else.
func ProposeNamed(names []Named, hypotheses []identification.Hypothesis, settled Settled) []Proposal {
	proposals := []Proposal{}
	for _, named := range names {
		p := Proposal{Key: named.Key, Text: fmt.Sprintf("the library knows it as %s (%s)", named.Name, named.Why),
			Presence: identification.Found, Weights: []Weight{}}
		if !named.Sure {
			p.Text, p.Presence = "the library may know it as "+named.Name, identification.Open
			p.HowTo = "look whether it is that: " + named.Why
		}
		isNamed := false
		for _, h := range hypotheses {
			same, other := false, false
			for _, row := range tables().capabilities {
				if row.isNamedBy(h.Text) {
					same, other = same || row.isNamedBy(named.Name), true
				}
			}
			switch {
			case same:
				isNamed = true
				p.Weights = append(p.Weights, Weight{h.ID, speaksFor})
			case other:
				p.Weights = append(p.Weights, Weight{h.ID, speaksAgainst})
			}
		}
		if was := settled[named.Key]; isNamed && was != Dropped && was != p.Presence {
			proposals = append(proposals, p)
		}
	}
	return proposals
}
