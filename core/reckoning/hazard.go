package reckoning

import (
	"slices"
	"strings"

	"frugalheron/core/verdict"
)

// The usual cautions, shown where the part is met.
const (
	batteryCaution = "Crust and fluid are caustic: gloves, eye protection. Never short, heat or charge a lithium cell. Removal and disposal follow local rules."
	mainsCaution   = "Safety capacitor, on the mains side. Unplug, let the supply discharge, leave work on it to somebody competent; local rules go first."
)

// findings lists what the eye met. A leak is put first in importance: it spreads.
func findings(boards []Board) verdict.Verdict {
	v := verdict.Verdict{Key: "findings", Label: "Findings on the sheets", State: verdict.Attention}
	count := 0
	v.Why = reasons(boards, func(e *Entry) (verdict.Reason, bool) {
		texts := []string{}
		for _, f := range e.Findings {
			count++
			text := f.Kind
			if f.Note != "" {
				text += ", " + f.Note
			}
			texts = append(texts, text)
			if spreads(f.Kind) {
				v.State = verdict.Stop
			}
			if isSafetyCapacitor(e) {
				v.Caution, v.Grave = mainsCaution, true
			}
		}
		return findingOfPart.Because(e.names(), strings.Join(texts, "; ")), len(texts) > 0
	})
	v.Value = verdict.Counted(count, "finding", "findings")
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

// isSafetyCapacitor reports whether a part is marked with a safety class of IEC 60384-14.
func isSafetyCapacitor(e *Entry) bool {
	return e.Kind == Capacitor && slices.ContainsFunc(strings.Fields(e.Marking), func(word string) bool {
		switch strings.ToUpper(word) {
		case "X1", "X2", "X3", "Y1", "Y2", "Y3", "Y4":
			return true
		}
		return false
	})
}

func batteries(boards []Board) verdict.Verdict {
	v := verdict.Verdict{Key: "batteries", Label: "Battery", State: verdict.Attention}
	fitted := 0
	v.Why = reasons(boards, func(e *Entry) (verdict.Reason, bool) {
		if e.Kind != Battery || e.Empty {
			return verdict.Reason{}, false
		}
		fitted += e.Count
		return batteryOfBoard.Because(e.names(), e.Marking), true
	})
	v.Value = verdict.Counted(fitted, "fitted", "fitted")
	v.Caution, v.Grave = batteryCaution, true
	return v
}
