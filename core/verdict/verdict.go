// Package verdict answers: how is something said that follows from records, so that everybody sees how much it matters,
// why it is so, and where that stands? All engines give their verdicts in its terms.
package verdict

import (
	"fmt"
	"slices"
)

// Verdict is one line of a reckoning: what something amounts to, and why.
type Verdict struct {
	Key   string `json:"key" doc:"Stable name of the line"`
	Label string `json:"label"`
	Value string `json:"value"`
	State State  `json:"state" enum:"plain,attention,stop"`
	// Caution is what to take care of where work on this may hurt somebody; else empty.
	Caution string `json:"caution" doc:"What to take care of, shown without being asked for; else empty"`
	// Grave marks a caution of mains, charge, tubes or cells: it is never folded where it belongs.
	Grave bool     `json:"grave" doc:"The caution is of mains, charge, tubes or cells, and stays open where it belongs"`
	Why   []Reason `json:"why"`
	// Stage is where it is worked on; empty where only a board is reckoned.
	Stage string `json:"stage" doc:"Where it is worked on, as the address of the stage; empty where only a board is reckoned"`
}

// State says how much a verdict matters.
type State string

// States of a verdict.
const (
	Plain     State = "plain"
	Attention State = "attention"
	Stop      State = "stop" // something that can hurt people or eat the machine
)

// Spot is a line of an assembly's sheet.
type Spot struct {
	Assembly int64 `json:"assembly"`
	Line     int   `json:"line"`
}

// mostReasons bounds a why: a list of thousands explains nothing.
const mostReasons = 60

var andMore = NewSentence("and-more", "and {count} more")

// Telling leaves out verdicts that say nothing, and shortens what explains too much; a verdict is plain unless it says
// otherwise.
func Telling(verdicts ...Verdict) []Verdict {
	kept := []Verdict{}
	for _, v := range verdicts {
		if v.Value == "" {
			continue
		}
		if v.State == "" {
			v.State = Plain
		}
		if v.Why == nil {
			v.Why = []Reason{}
		}
		if rest := len(v.Why) - mostReasons; rest > 0 {
			v.Why = append(v.Why[:mostReasons:mostReasons], andMore.Because(rest))
		}
		kept = append(kept, v)
	}
	return kept
}

// Together puts more verdicts to those that there are, the largest consequence first: what must stop, then what
// needs attention, then the rest in its own order.
func Together(verdicts, more []Verdict) []Verdict {
	isPlain := func(v Verdict) bool { return v.State == Plain }
	plain := slices.IndexFunc(verdicts, isPlain)
	if plain < 0 {
		plain = len(verdicts)
	}
	urgent, rest := slices.Clone(verdicts[:plain]), slices.Clone(verdicts[plain:])
	for _, v := range more {
		if isPlain(v) {
			rest = append(rest, v)
		} else {
			urgent = append(urgent, v)
		}
	}
	slices.SortStableFunc(urgent, func(a, b Verdict) int {
		switch {
		case a.State == Stop && b.State != Stop:
			return -1
		case a.State != Stop && b.State == Stop:
			return 1
		}
		return 0
	})
	return append(urgent, rest...)
}

// Counted says how many there are, empty for none.
func Counted(n int, one, many string) string {
	switch n {
	case 0:
		return ""
	case 1:
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}
