package measure

import (
	"fmt"

	"frugalheron/core/verdict"
)

// Failure is a measurement that is not as it should be.
type Failure struct {
	Point  string
	Judged Judged
}

var (
	outOfTolerance    = verdict.NewSentence("measured-failed", "{point} {value}")
	outOfToleranceWhy = verdict.NewSentence("measured-failed-why", "{point} {value}: {why}")
)

// FailedVerdict says in one line of the reckoning what is out of tolerance. Its value is empty when nothing is.
func FailedVerdict(failed []Failure) verdict.Verdict {
	v := verdict.Verdict{Key: "measured", Label: "Measured", State: verdict.Attention}
	if n := len(failed); n > 0 {
		v.Value = fmt.Sprintf("%d out of tolerance", n)
	}
	for _, f := range failed {
		value := verdict.Word(f.Judged.InWords)
		if n := len(f.Judged.Why); n > 0 {
			v.Why = append(v.Why, outOfToleranceWhy.Because(f.Point, value, f.Judged.Why[n-1]))
		} else {
			v.Why = append(v.Why, outOfTolerance.Because(f.Point, value))
		}
	}
	return v
}
