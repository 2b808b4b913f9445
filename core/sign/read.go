package sign

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
)

// Seen is what somebody saw or heard.
type Seen struct {
	Kind  Kind
	Text  string
	State string // what the machine was doing; empty where that is not told

	screen seenText // of a screen
}

// List is the table of a model or of a card in the machine.
type List struct {
	Of    string // what the model or the card is called
	Table Table
}

// Outcome is how what was seen stands to what is listed.
type Outcome string

// Outcomes.
const (
	AsExpected  Outcome = "as expected"
	NotExpected Outcome = "not as expected"
	Listed      Outcome = "listed"    // and nothing else is expected
	Perhaps     Outcome = "perhaps"   // nothing agrees beyond doubt
	Unmatched   Outcome = "unmatched" // no line agrees
	NoList      Outcome = "no list"   // no sign of the kind is listed for what is in the machine
)

// IsOpen reports whether nobody can say what it means.
func (o Outcome) IsOpen() bool { return o == Perhaps || o == Unmatched || o == NoList }

// Comparison is what signs say of something that was seen.
type Comparison struct {
	Outcome  Outcome     `json:"outcome" enum:"as expected,not as expected,listed,perhaps,unmatched,no list"`
	Why      string      `json:"why" says:"text"`
	Matches  []Agreement `json:"matches" doc:"Lines that agree, the one that says most first"`
	Nearest  []Agreement `json:"nearest" doc:"Where none agrees: what comes nearest, and in what it differs"`
	Expected []Expect    `json:"expected" doc:"What should be shown then, with the cards that are in the machine"`
	Words    []Cut       `json:"words" doc:"A code in each radix and field by field, by each list that reads it"`
}

// Agreement is a line that agrees with what was seen, or comes near.
type Agreement struct {
	Of int `json:"of" doc:"Of the lists, from 0"`
	Sign
	At       []string `json:"at" says:"text" doc:"What stood at the wildcards"`
	Doubts   []string `json:"doubts" says:"text" doc:"What speaks against it; empty where it agrees beyond doubt"`
	Missing  []string `json:"missing" says:"text" doc:"Lamps that should be lit, or words that should be there"`
	Extra    []string `json:"extra" says:"text" doc:"Lamps that should be dark"`
	Unlisted []string `json:"unlisted" says:"text" doc:"Lamps that the row does not have"`
	Differs  []string `json:"differs" says:"text" doc:"In what else it differs"`
	wild     int
	apart    int
}

// Cut is a code as a list reads it.
type Cut struct {
	Of int `json:"of" doc:"Of the lists, from 0"`
	Word
}

// compared is how what was seen stands to what a line says is shown.
type compared struct {
	agrees, isAlike           bool // alike: near enough to be told where nothing agrees
	at, missing, extra, other []string
	unlisted, doubts          []string
	why                       string // it cannot be compared
	wild, apart               int
}

// Check says whether what was seen can be compared at all.
func (s Seen) Check() error {
	if strings.TrimSpace(s.Text) == "" {
		return fmt.Errorf("say what was seen, as %s; nothing, where there was none", examples[s.Kind])
	}
	if s.Kind == Beeps {
		_, err := beepsOf(s.Text)
		return err
	}
	return nil
}

// Read compares what was seen with the signs of what is in a machine, given the cards that are in it.
func Read(seen Seen, lists []List, cards Cards) Comparison {
	r := Comparison{Matches: []Agreement{}, Nearest: []Agreement{}, Expected: []Expect{}, Words: []Cut{}}
	seen.screen = seenTextOf(seen.Text)
	isListed, elsewhere, notCompared := false, []Agreement{}, []string{}
	for of, list := range lists {
		if w := list.Table.Cut(seen.Text); seen.Kind == Code && w != nil {
			r.Words = append(r.Words, Cut{of, *w})
		}
		for _, s := range list.Table.Signs {
			if s.Kind != seen.Kind {
				continue
			}
			isListed = true
			c := list.Table.compare(s, seen)
			if c.why != "" && !slices.Contains(notCompared, list.Of+": "+c.why) {
				notCompared = append(notCompared, list.Of+": "+c.why)
			}
			m := matchOf(of, s, c)
			isThen := seen.State == "" || s.State == "" || strings.EqualFold(seen.State, s.State)
			switch {
			case c.agrees && isThen:
				m.Doubts = append(m.Doubts, cards.against(s)...)
				r.Matches = append(r.Matches, m)
			case c.agrees:
				m.Differs = append(m.Differs, "it is listed for "+s.State)
				elsewhere = append(elsewhere, m)
			case c.isAlike && isThen:
				r.Nearest = append(r.Nearest, m)
			}
		}
	}
	for _, e := range Expected(lists, cards, seen.State) {
		if e.Kind == seen.Kind {
			r.Expected = append(r.Expected, e)
		}
	}
	slices.SortStableFunc(r.Matches, func(a, b Agreement) int {
		return cmp.Or(cmp.Compare(len(a.Doubts), len(b.Doubts)), cmp.Compare(a.wild, b.wild))
	})
	slices.SortStableFunc(r.Nearest, func(a, b Agreement) int { return cmp.Compare(a.apart, b.apart) })
	r.Nearest = append(elsewhere, r.Nearest...)
	if r.Nearest = r.Nearest[:min(len(r.Nearest), mostNear)]; len(r.Matches) > 0 {
		r.Nearest = []Agreement{}
	}
	r.judge(seen, isListed, notCompared)
	return r
}

// mostNear bounds what is told where nothing agrees.
const mostNear = 3

func (t *Table) compare(s Sign, seen Seen) compared {
	switch seen.Kind {
	case Lamps:
		return t.compareLamps(s.Shown, seen.Text)
	case Beeps:
		return compareBeeps(s.Shown, seen.Text)
	case Code:
		return t.compareCode(s, seen.Text)
	}
	return compareScreen(s, seen.screen)
}

func matchOf(of int, s Sign, c compared) Agreement {
	all := func(of []string) []string { return append([]string{}, of...) }
	return Agreement{of, s, all(c.at), all(c.doubts), all(c.missing), all(c.extra), all(c.unlisted), all(c.other),
		c.wild, c.apart}
}

// judge says how what was seen stands to what is listed, and why. The line that says most exactly what was seen decides.
func (r *Comparison) judge(seen Seen, isListed bool, notCompared []string) {
	sure := slices.DeleteFunc(slices.Clone(r.Matches), func(m Agreement) bool { return len(m.Doubts) > 0 })
	exact := slices.DeleteFunc(slices.Clone(sure), func(m Agreement) bool { return m.wild > sure[0].wild })
	isExpected := slices.ContainsFunc(exact, func(m Agreement) bool { return m.Sign.Expected })
	state := seen.State
	if states := statesOf(exact); state == "" && len(states) == 1 {
		state = states[0]
	} else if state == "" && len(states) > 1 {
		// It may be any of them: only where a sound machine shows it in each is it as expected.
		isExpected = !slices.ContainsFunc(exact, func(m Agreement) bool { return !m.Sign.Expected })
	}
	wanted, _ := r.wanted(state, Met)
	switch {
	case isExpected:
		r.Outcome, r.Why = AsExpected, "a sound machine shows it"+during(state)
	case len(sure) > 0 && wanted != "":
		r.Outcome, r.Why = NotExpected, "expected"+during(state)+" is "+wanted
	case len(sure) > 0:
		r.Outcome, r.Why = Listed, "what a sound machine shows"+during(state)+" is not told"
		if perhaps, why := r.wanted(state, Unsure); perhaps != "" {
			r.Why = "perhaps " + perhaps + " is expected" + during(state) + "; " + why
		}
	case len(r.Matches) > 0:
		r.Outcome, r.Why = Perhaps, strings.Join(r.Matches[0].Doubts, "; ")
	case !isListed:
		r.Outcome, r.Why = NoList, "no "+string(seen.Kind)+" are listed for the model or its cards"
		if seen.Kind == Screen || seen.Kind == Code {
			r.Why = "no " + string(seen.Kind) + " is listed for the model or its cards"
		}
	default:
		r.Outcome, r.Why = Unmatched, "no line agrees with it"+during(seen.State)
	}
	if len(notCompared) > 0 && len(r.Matches) == 0 {
		r.Why += "; " + strings.Join(notCompared, "; ")
	}
	if meanings := meaningsOf(sure); len(meanings) > 1 {
		r.Why += fmt.Sprintf("; %d meanings are listed", len(meanings))
		if seen.State == "" && len(statesOf(sure)) > 1 {
			r.Why += ": say what the machine was doing"
		}
	}
}

func during(state string) string {
	if state == "" {
		return ""
	}
	return " during " + state
}

// wanted tells what a sound machine with these cards shows in a state, or what it may, and why that is not known; nothing
// where the state is not known.
func (r *Comparison) wanted(state string, holds Holds) (shown, why string) {
	told := []string{}
	for _, e := range r.Expected {
		isThen := e.State == "" || strings.EqualFold(e.State, state)
		if e.Holds == holds && isThen && !slices.Contains(told, e.Shown) {
			told, why = append(told, e.Shown), e.Why
		}
	}
	return strings.Join(told, " or "), why
}

func meaningsOf(matches []Agreement) []string {
	told := []string{}
	for _, m := range matches {
		if !slices.Contains(told, m.Meaning) {
			told = append(told, m.Meaning)
		}
	}
	return told
}

func statesOf(matches []Agreement) []string {
	told := []string{}
	for _, m := range matches {
		if !slices.Contains(told, m.State) {
			told = append(told, m.State)
		}
	}
	return told
}
