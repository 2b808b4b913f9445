package reckoning

import (
	"fmt"
	"slices"
)

// Board is a reckoned sheet and the assembly it belongs to.
type Board struct {
	Assembly int64 // the id under which the assembly is kept
	Title    string
	Result   Result
}

// Verdict is one line of the reckoning: what something amounts to, and why.
type Verdict struct {
	Key   string `json:"key" doc:"Stable name of the line"`
	Label string `json:"label"`
	Value string `json:"value"`
	State State  `json:"state" enum:"plain,attention,stop"`
	// Caution is what to take care of where work on this may hurt somebody; else empty.
	Caution string   `json:"caution" doc:"What to take care of, shown without being asked for; else empty"`
	Why     []Reason `json:"why"`
}

// State says how much a verdict matters.
type State string

// States of a verdict.
const (
	Plain     State = "plain"
	Attention State = "attention"
	Stop      State = "stop" // something that can hurt people or eat the machine
)

// Reason is a piece of evidence or a rule, with the line it comes from where there is one.
type Reason struct {
	Text string `json:"text" says:"text"`
	Spot *Spot  `json:"spot" doc:"The line this comes from, or null"`
}

// Spot is a line of an assembly's sheet.
type Spot struct {
	Assembly int64 `json:"assembly"`
	Line     int   `json:"line"`
}

// mostReasons bounds a why: a list of thousands explains nothing.
const mostReasons = 60

// Verdicts reckons all boards of a machine together, the largest consequence first. Lines that
// would say nothing are left out.
func Verdicts(boards []Board) []Verdict {
	t := Combine(boards)
	verdicts := []Verdict{
		findings(boards), batteries(boards), problems(boards), ram(boards, t), rom(boards, t),
		dates(boards, t), unidentified(boards, t), parts(boards, t), emptySockets(boards, t), draw(boards, t),
		notes(boards),
	}
	kept := []Verdict{}
	for _, v := range verdicts {
		if v.Value == "" {
			continue
		}
		if v.State == "" {
			v.State = Plain
		}
		if len(v.Why) > mostReasons {
			rest := len(v.Why) - mostReasons
			v.Why = append(v.Why[:mostReasons:mostReasons], Reason{Text: fmt.Sprintf("and %d more", rest)})
		}
		kept = append(kept, v)
	}
	return kept
}

// Telling leaves out lines that say nothing.
func Telling(verdicts ...Verdict) []Verdict {
	return slices.DeleteFunc(verdicts, func(v Verdict) bool { return v.Value == "" })
}

// Together puts more lines to those of the boards, the largest consequence first: what must stop, then what
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

// reasons collects what say has to tell of each entry; nothing is left out.
func reasons(boards []Board, say func(e *Entry) string) []Reason {
	why := []Reason{}
	for _, b := range boards {
		for _, a := range b.Result.Assemblies {
			for i := range a.Entries {
				if text := say(&a.Entries[i]); text != "" {
					why = append(why, at(b, a.Entries[i].Line, a.Entries[i].names()+": "+text))
				}
			}
		}
	}
	return why
}

func at(b Board, line int, text string) Reason {
	return Reason{Text: text, Spot: &Spot{Assembly: b.Assembly, Line: line}}
}

func counted(n int, one, many string) string {
	switch n {
	case 0:
		return ""
	case 1:
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

func number(n int) string {
	if n == 0 {
		return ""
	}
	return fmt.Sprint(n)
}
