package condition

import (
	"strings"

	"frugalheron/core/verdict"
)

// Told is a finding with where it is and how it came about.
type Told struct {
	Kind     string
	Where    string
	Story    Story
	Assembly *int64 // on whose sheet it stands; nil for none
	Line     int
}

var (
	openFinding     = verdict.NewSentence("finding-open", "{severity}: {where}, {kind}; {story}")
	leftOut         = verdict.NewSentence("not-inspected", "not inspected: {subsystems}")
	leftOutInSurvey = verdict.NewSentence("not-inspected-in-survey",
		"not inspected in the survey of {day}: {subsystems}")
)

// VerdictOf says in one line of the reckoning how a machine is: by its technical grade, with the findings that
// are open and what the last survey left out; surveyed is its day, empty where there was none. The value is empty while
// nobody looked.
func VerdictOf(technical Grade, findings []Told, notInspected []string, surveyed string) verdict.Verdict {
	v := verdict.Verdict{Key: "condition", Label: "Condition"}
	if technical == NotInspected && surveyed == "" {
		return v
	}
	v.Value = string(technical)
	switch technical {
	case Grade(Hazard):
		v.State = verdict.Stop
	case Grade(Repair), Grade(Watch):
		v.State = verdict.Attention
	}
	for _, f := range findings {
		if !f.Story.Open || f.Story.Severity == Cosmetic {
			continue
		}
		reason := openFinding.Because(verdict.Word(f.Story.Severity), f.Where, f.Kind, f.Story.Words)
		if f.Assembly != nil && f.Line > 0 {
			reason = reason.At(*f.Assembly, f.Line)
		}
		v.Why = append(v.Why, reason)
	}
	if len(notInspected) == 0 {
		return v
	}
	names := verdict.Word(strings.Join(notInspected, ", "))
	if surveyed == "" {
		v.Why = append(v.Why, leftOut.Because(names))
	} else {
		v.Why = append(v.Why, leftOutInSurvey.Because(verdict.Word(surveyed), names))
	}
	return v
}
