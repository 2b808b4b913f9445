package gate

import (
	"slices"

	"frugalheron/core/verdict"
)

var (
	isMissing = verdict.NewSentence("gate-missing", "{state}: {what}; {do}")
	isWarned  = verdict.NewSentence("gate-warning", "worth knowing: {what}")
)

// VerdictOf says in one line of the reckoning how the gate stands. What is grave in it is danger that was found, not
// records that are missing: of most machines nobody said anything yet.
func VerdictOf(out Output) verdict.Verdict {
	v := verdict.Verdict{Key: "gate", Label: "Power gate", Value: string(out.State), Why: []verdict.Reason{}}
	if n := len(out.Missing); n > 0 {
		v.Value += ", " + verdict.Counted(n, "point missing", "points missing")
	}
	for _, m := range out.Missing {
		v.Why = append(v.Why, isMissing.Because(verdict.Word(m.Blocks), m.What, m.Do))
	}
	for _, warning := range out.Warnings {
		v.Why = append(v.Why, isWarned.Because(warning))
	}
	if out.IsDangerous() {
		v.State = verdict.Stop
	}
	return v
}

// IsDangerous reports whether power is kept away by danger that somebody found, not only by what nobody wrote down.
func (o Output) IsDangerous() bool {
	return slices.ContainsFunc(o.Missing, func(m Missing) bool { return m.danger })
}
