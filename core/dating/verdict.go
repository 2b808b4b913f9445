package dating

import (
	"fmt"

	"frugalheron/core/verdict"
)

var (
	contradiction = verdict.NewSentence("date-conflict", "that does not go together: {why}")
	basis         = verdict.NewSentence("date-basis", "{basis}")
)

// Verdict says in one line of the reckoning when a machine was built. Its value is empty when nothing tells.
func (r Result) Verdict() verdict.Verdict {
	v := verdict.Verdict{Key: "built", Label: "Built"}
	if r.Estimate == nil {
		return v
	}
	v.Value = fmt.Sprintf("%s to %s", r.Estimate.From, r.Estimate.To)
	for _, other := range r.Estimates[min(1, len(r.Estimates)):] {
		v.State = verdict.Attention
		v.Value += fmt.Sprintf(", or %s to %s", other.From, other.To)
	}
	for _, c := range r.Conflicts {
		v.State = verdict.Attention
		v.Why = append(v.Why, contradiction.Because(c.Why))
	}
	for _, because := range r.Basis {
		v.Why = append(v.Why, basis.Because(because))
	}
	return v
}
