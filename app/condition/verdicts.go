package condition

import (
	"context"
	"fmt"

	"frugalheron/app/action"
	"frugalheron/core/condition"
	"frugalheron/core/reckoning"
)

// verdict says the technical grade; while nobody looked there is none.
func (c Condition) verdict() reckoning.Verdict {
	v := reckoning.Verdict{Key: "condition", Label: "Condition", State: reckoning.Plain, Why: []reckoning.Reason{}}
	if c.Technical == condition.NotInspected && len(c.Surveys) == 0 {
		return v
	}
	v.Value = string(c.Technical)
	switch c.Technical {
	case condition.Grade(condition.Hazard):
		v.State = reckoning.Stop
	case condition.Grade(condition.Repair), condition.Grade(condition.Watch):
		v.State = reckoning.Attention
	}
	for _, f := range c.Findings {
		if !f.Story.Open || f.Story.Severity == condition.Cosmetic {
			continue
		}
		reason := reckoning.Reason{
			Text: fmt.Sprintf("%s: %s, %s; %s", f.Story.Severity, f.Where, f.Kind, f.Story.Words),
		}
		if f.AssemblyID != nil && f.Line > 0 {
			reason.Spot = &reckoning.Spot{Assembly: *f.AssemblyID, Line: f.Line}
		}
		v.Why = append(v.Why, reason)
	}
	if len(c.NotInspected) > 0 {
		v.Why = append(v.Why, reckoning.Reason{Text: c.notInspected()})
	}
	return v
}

func (c Condition) notInspected() string {
	text := "not inspected"
	if n := len(c.Surveys); n > 0 {
		text += " in the survey of " + c.Surveys[n-1].On
	}
	for i, name := range c.NotInspected {
		if i == 0 {
			text += ": " + name
		} else {
			text += ", " + name
		}
	}
	return text
}

func failedVerdict(failed []Measurement) reckoning.Verdict {
	v := reckoning.Verdict{Key: "measured", Label: "Measured", State: reckoning.Attention, Why: []reckoning.Reason{}}
	if n := len(failed); n > 0 {
		v.Value = fmt.Sprintf("%d out of tolerance", n)
	}
	for _, m := range failed {
		text := m.Point + " " + m.Judged.InWords
		if n := len(m.Judged.Why); n > 0 {
			text += ": " + m.Judged.Why[n-1]
		}
		v.Why = append(v.Why, reckoning.Reason{Text: text})
	}
	return v
}

func dueVerdict(risks RiskPage) reckoning.Verdict {
	v := reckoning.Verdict{Key: "looks-due", Label: "To be looked at", State: reckoning.Attention,
		Why: []reckoning.Reason{}}
	if risks.Due > 0 {
		v.Value = fmt.Sprintf("%d overdue", risks.Due)
	}
	for _, r := range risks.Risks {
		if !r.IsDue {
			continue
		}
		reason := reckoning.Reason{Text: fmt.Sprintf("%s, %s: %s", r.Board, r.Place, r.Why)}
		if r.Line > 0 {
			reason.Spot = &reckoning.Spot{Assembly: r.AssemblyID, Line: r.Line}
		}
		v.Why = append(v.Why, reason)
	}
	return v
}

// Verdicts are the lines of the reckoning that follow from surveys, measurements and what ages, by what is kept.
func (s *Service) Verdicts(ctx context.Context, actor action.Actor, machineID int64) ([]reckoning.Verdict, error) {
	found, err := conditionOf(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return nil, err
	}
	failed, err := failedMeasurements(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return nil, err
	}
	risks, err := s.Risks(ctx, actor, machineID, 0, 20)
	if err != nil {
		return nil, err
	}
	return reckoning.Telling(found.verdict(), failedVerdict(failed), dueVerdict(risks)), nil
}
