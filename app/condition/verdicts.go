package condition

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/core/condition"
	"frugalheron/core/measure"
	"frugalheron/core/risk"
	"frugalheron/core/verdict"
)

// verdict says how the machine is.
func (c Condition) verdict() verdict.Verdict {
	findings, surveyed := make([]condition.Told, len(c.Findings)), ""
	for i, f := range c.Findings {
		findings[i] = condition.Told{Kind: f.Kind, Where: f.Where, Story: f.Story, Assembly: f.AssemblyID, Line: f.Line}
	}
	if n := len(c.Surveys); n > 0 {
		surveyed = c.Surveys[n-1].On
	}
	return condition.VerdictOf(c.Technical, findings, c.NotInspected, surveyed)
}

func failedVerdict(failed []Measurement) verdict.Verdict {
	failures := make([]measure.Failure, len(failed))
	for i, m := range failed {
		failures[i] = measure.Failure{Point: m.Point, Judged: m.Judged}
	}
	return measure.FailedVerdict(failures)
}

func overdueVerdict(risks RiskPage) verdict.Verdict {
	overdue := []risk.Overdue{}
	for _, r := range risks.Risks {
		if r.IsDue {
			overdue = append(overdue,
				risk.Overdue{Board: r.Board, Place: r.Place, Why: r.Why, Assembly: r.AssemblyID, Line: r.Line})
		}
	}
	return risk.OverdueVerdict(risks.Due, overdue)
}

// Verdicts are the lines of the reckoning that follow from surveys, measurements and what ages, by what is kept.
func (s *Service) Verdicts(ctx context.Context, actor action.Actor, machineID int64) ([]verdict.Verdict, error) {
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
	return verdict.Telling(found.verdict(), failedVerdict(failed), overdueVerdict(risks)), nil
}
