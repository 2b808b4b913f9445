package measure

import (
	"frugalheron/core/fit"
	"frugalheron/core/quantity"
)

// JudgeFit lays a part beside the opening that it must go into, both in millimetres and measured with a caliper.
// What is expected is the play that it needs to slide, as its lower limit; null for none. A part that goes in
// whatever the measurements are off passes, one that nobody can tell of is marginal.
func JudgeFit(part []float64, opening float64, expected *Expected) (Judged, fit.Result) {
	j := Judged{Stats: StatsOf(part), Why: []string{}}
	play := 0.0
	if expected != nil && expected.Low != nil {
		play = max(0, *expected.Low)
	}
	result := fit.Judge(fit.Measured(j.Stats.Average), fit.Measured(opening), play)
	j.InWords = quantity.Millimetres.Say(j.Stats.Average) + " into " + quantity.Millimetres.Say(opening)
	j.Verdict = map[fit.Verdict]Verdict{fit.Clearance: Pass, fit.Tight: Marginal,
		fit.Interference: Fail}[result.Verdict]
	j.Why = result.Why
	return j, result
}
