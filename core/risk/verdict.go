package risk

import (
	"fmt"

	"frugalheron/core/verdict"
)

// Overdue is a part that should have been looked at by now.
type Overdue struct {
	Board    string
	Place    string // designators, or what it is called
	Why      string
	Assembly int64
	Line     int // of the board's sheet; 0 for the board itself
}

var lookOverdue = verdict.NewSentence("look-overdue", "{board}, {place}: {why}")

// OverdueVerdict says in one line of the reckoning how many parts should have been looked at by now, and names some of
// them. Its value is empty when none should.
func OverdueVerdict(count int, some []Overdue) verdict.Verdict {
	v := verdict.Verdict{Key: "looks-due", Label: "To be looked at", State: verdict.Attention}
	if count > 0 {
		v.Value = fmt.Sprintf("%d overdue", count)
	}
	for _, o := range some {
		reason := lookOverdue.Because(o.Board, o.Place, o.Why)
		if o.Line > 0 {
			reason = reason.At(o.Assembly, o.Line)
		}
		v.Why = append(v.Why, reason)
	}
	return v
}
