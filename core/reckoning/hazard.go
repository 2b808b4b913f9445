package reckoning

import "strings"

// batteryCaution is the usual caution where a battery is on the board.
const batteryCaution = "Batteries leak and eat boards. Crust and fluid are caustic: gloves and eye protection. Lithium cells must not be shorted, heated or charged. Taking one out and throwing it away follows local rules."

// findings lists what the eye met. A leak is put first in importance: it spreads.
func findings(boards []Board) Verdict {
	v := Verdict{Key: "findings", Label: "Findings", State: Attention}
	count := 0
	v.Why = reasons(boards, func(e *Entry) string {
		texts := []string{}
		for _, f := range e.Findings {
			count++
			text := f.Kind
			if f.Note != "" {
				text += ", " + f.Note
			}
			texts = append(texts, text)
			if spreads(f.Kind) {
				v.State = Stop
			}
		}
		return strings.Join(texts, "; ")
	})
	v.Value = counted(count, "finding", "findings")
	return v
}

// spreads reports whether a finding damages what is next to it.
func spreads(kind string) bool {
	switch strings.ToLower(kind) {
	case "leaking", "leaked", "leak", "burnt", "corroding":
		return true
	}
	return false
}

func batteries(boards []Board) Verdict {
	v := Verdict{Key: "batteries", Label: "Battery", State: Attention}
	fitted := 0
	v.Why = reasons(boards, func(e *Entry) string {
		if e.Kind != Battery || e.Empty {
			return ""
		}
		fitted += e.Count
		return "fitted, " + e.Marking
	})
	v.Value = counted(fitted, "fitted", "fitted")
	v.Why = append(v.Why, Reason{Text: batteryCaution})
	return v
}
