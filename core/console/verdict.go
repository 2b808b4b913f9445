package console

import (
	"fmt"
	"strings"

	"frugalheron/core/verdict"
)

var (
	sayFailed  = verdict.NewSentence("console-memory-failed", "line {line} of {on}: memory failed {where}")
	sayTrouble = verdict.NewSentence("console-complains", "line {line} of {on}: {text}")
	sayNoText  = verdict.NewSentence("console-no-text", "{on}: {why}")
)

// mostTold bounds how many lines of a console the reckoning names.
const mostTold = 3

// VerdictOf is the line of the reckoning that follows from what the console of a machine said last, on a day.
func VerdictOf(r TextReading, on string) verdict.Verdict {
	v := verdict.Verdict{Key: "console", Label: "Console"}
	failing := map[int]bool{}
	for _, f := range r.Failures {
		failing[f.Line] = true
		if len(v.Why) < mostTold {
			v.Why = append(v.Why, sayFailed.Because(f.Line, verdict.Word(on), f.InWords()))
		}
	}
	others := 0
	for _, t := range r.Troubles {
		if failing[t.Line] {
			continue
		}
		if others++; len(v.Why) < 2*mostTold {
			v.Why = append(v.Why, sayTrouble.Because(t.Line, verdict.Word(on), t.Text))
		}
	}
	parts := []string{}
	if n := len(r.Failures); n > 0 {
		parts = append(parts, verdict.Counted(n, "place of memory failed", "places of memory failed"))
	}
	if others > 0 {
		parts = append(parts, verdict.Counted(others, "line complains", "lines complain"))
	}
	if r.Outcome == Garbage || r.Outcome == Stuck {
		parts = append(parts, "no text")
		v.Why = append(v.Why, sayNoText.Because(verdict.Word(on), r.Why))
	}
	if len(parts) > 0 {
		v.Value, v.State = strings.Join(parts, ", "), verdict.Attention
	}
	return v
}

// InWords says where it failed, and in what.
func (f Failure) InWords() string {
	words := "at " + f.Address
	if f.Expected != "" && f.Actual != "" {
		words += fmt.Sprintf(": %s expected, %s read", f.Expected, f.Actual)
	}
	if f.Bits != nil {
		if len(f.Bits) == 1 {
			return words + fmt.Sprintf(" (bit %d)", f.Bits[0])
		}
		bits := make([]string, len(f.Bits))
		for i, b := range f.Bits {
			bits[i] = fmt.Sprint(b)
		}
		return words + " (bits " + strings.Join(bits, ", ") + ")"
	}
	return words
}
