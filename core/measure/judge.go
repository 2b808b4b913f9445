// Package measure answers what was measured, whether that is as it should be, and why.
package measure

import (
	"fmt"
	"math"

	"frugalheron/core/quantity"
)

// Verdict says how a measurement stands to what was expected.
type Verdict string

// Verdicts.
const (
	Pass     Verdict = "pass"
	Marginal Verdict = "marginal" // inside, but close to a limit, or not every time
	Fail     Verdict = "fail"
	Noted    Verdict = "noted" // nothing was expected
)

// Stats are what several readings of one point amount to, in their unit.
type Stats struct {
	Count   int     `json:"count"`
	Average float64 `json:"average"`
	Lowest  float64 `json:"lowest"`
	Highest float64 `json:"highest"`
	Spread  float64 `json:"spread" doc:"Highest less lowest"`
}

// StatsOf adds readings up; of none all is 0.
func StatsOf(readings []float64) Stats {
	s := Stats{Count: len(readings)}
	for i, v := range readings {
		if i == 0 {
			s.Lowest, s.Highest = v, v
		}
		s.Lowest, s.Highest = min(s.Lowest, v), max(s.Highest, v)
		s.Average += v / float64(len(readings))
	}
	// A sum of rounded figures may leave their range by a hair.
	s.Average = min(max(quantity.Round(s.Average, 9), s.Lowest), s.Highest)
	s.Spread = quantity.Round(s.Highest-s.Lowest, 9)
	return s
}

// closeBy is the part of the way from the expected value to a limit beyond which a value is marginal. A rule
// of thumb: what drifts is told before it fails.
const closeBy = 0.8

// Judged is a measurement and what it amounts to.
type Judged struct {
	Verdict Verdict  `json:"verdict" enum:"pass,marginal,fail,noted"`
	Stats   Stats    `json:"stats"`
	InWords string   `json:"inWords" doc:"The value in words, with its unit"`
	Why     []string `json:"why" says:"text"`
}

// Judge lays readings beside what is expected. An average outside fails; one close to a limit, or a single
// reading outside, is marginal.
func Judge(of quantity.Quantity, readings []float64, expected *Expected) Judged {
	j := Judged{Verdict: Noted, Stats: StatsOf(readings), Why: []string{}}
	if len(readings) == 0 {
		j.InWords = "no reading yet"
		return j
	}
	j.InWords = of.Say(j.Stats.Average)
	if j.Stats.Count > 1 {
		j.Why = append(j.Why,
			fmt.Sprintf("average of %d readings, %s to %s", j.Stats.Count, of.Say(j.Stats.Lowest),
				of.Say(j.Stats.Highest)))
	}
	if expected == nil || expected.Low == nil && expected.High == nil {
		j.Why = append(j.Why, "nothing is known of what it should be")
		return j
	}
	j.Verdict = Pass
	because := fmt.Sprintf("%s (%s)", expected.limits(of), expected.From)
	switch outside := expected.outside; {
	case outside(j.Stats.Average):
		j.Verdict = Fail
		j.Why = append(j.Why, fmt.Sprintf("%s is %s the limit: %s", j.InWords, expected.side(j.Stats.Average), because))
	case outside(j.Stats.Lowest) || outside(j.Stats.Highest):
		j.Verdict = Marginal
		j.Why = append(j.Why, "the average is inside, but not every reading: "+because)
	case expected.isClose(j.Stats.Average):
		j.Verdict = Marginal
		j.Why = append(j.Why,
			fmt.Sprintf("%s is inside, but within a fifth of the way to the limit: %s", j.InWords, because))
	default:
		j.Why = append(j.Why, "inside: "+because)
	}
	return j
}

func (e Expected) outside(v float64) bool {
	return e.Low != nil && v < *e.Low || e.High != nil && v > *e.High
}

func (e Expected) side(v float64) string {
	if e.Low != nil && v < *e.Low {
		return "below"
	}
	return "above"
}

// IsLow reports whether a value is less than it should be: of a negative rail what is nearer to 0.
func (e Expected) IsLow(v float64) bool {
	low := e.Low != nil && v < *e.Low
	if e.High != nil && *e.High < 0 || e.Nominal != nil && *e.Nominal < 0 {
		return e.High != nil && v > *e.High
	}
	return low
}

func (e Expected) isClose(v float64) bool {
	if e.Nominal == nil {
		return false
	}
	for _, limit := range []*float64{e.Low, e.High} {
		if limit == nil || *limit == *e.Nominal {
			continue
		}
		// A deviation of exactly the fifth is close; figures of a meter have an end.
		if part := (v - *e.Nominal) / (*limit - *e.Nominal); part > closeBy && !math.IsInf(part, 0) {
			return true
		}
	}
	return false
}

func (e Expected) limits(of quantity.Quantity) string {
	switch {
	case e.Low == nil:
		return "at most " + of.Say(*e.High)
	case e.High == nil:
		return "at least " + of.Say(*e.Low)
	}
	return of.Say(*e.Low) + " to " + of.Say(*e.High)
}

// Check refuses limits that exclude each other.
func (e Expected) Check() error {
	if e.Low != nil && e.High != nil && *e.Low > *e.High {
		return fmt.Errorf("the lower limit, %g, lies above the upper, %g", *e.Low, *e.High)
	}
	return nil
}
