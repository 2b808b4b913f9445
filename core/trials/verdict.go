package trials

import (
	"fmt"
	"strings"

	"frugalheron/core/verdict"
)

var (
	sayLeft    = verdict.NewSentence("trials-left", "{symptom}: {what}")
	sayNextOne = verdict.NewSentence("trials-next", "next, with {on} on")
)

// Case is a symptom with what its trials tell.
type Case struct {
	Symptom string
	Output  Output
}

// VerdictOf is the line of the reckoning that follows from the symptoms of a machine that nobody has explained yet.
func VerdictOf(open []Case) verdict.Verdict {
	v := verdict.Verdict{Key: "trials", Label: "Unexplained"}
	for _, c := range open {
		v.Why = append(v.Why, sayLeft.Because(c.Symptom, verdict.Word(c.Output.InShort())))
		if c.Output.Next != nil && len(c.Output.Next.On) > 0 {
			v.Why = append(v.Why, sayNextOne.Because(strings.Join(c.Output.Next.On, ", ")))
		}
	}
	if len(open) > 0 {
		v.Value, v.State = verdict.Counted(len(open), "symptom", "symptoms"), verdict.Attention
	}
	return v
}

// InShort says how far the trials are.
func (o Output) InShort() string {
	switch {
	case o.Settled:
		return "one explanation is left"
	case len(o.Explanations) > 0:
		return fmt.Sprintf("%d explanations are left", len(o.Explanations))
	case o.Next != nil || len(o.Refuted) == 0:
		return "nothing is explained yet"
	}
	return "no explanation agrees with the trials"
}
