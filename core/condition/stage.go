package condition

import "frugalheron/core/reckoning"

// StageInput is what the stage Judge depends on.
type StageInput struct {
	Surveys  []Survey
	Findings []Finding
	Running  bool // a survey is being made
}

// StageOf judges judging: untouched without a survey, in hand while one is being made or left something out,
// and in need of attention while something does not do what it should, or was measured out of tolerance.
func StageOf(in StageInput, guide []Item) reckoning.Stage {
	stage := reckoning.Stage{State: reckoning.Settled}
	for _, f := range in.Findings {
		if s := f.Tell(); s.Open && (s.Severity == Repair || s.Severity == Hazard || f.isMeasured()) {
			stage.Count++
		}
	}
	switch {
	case stage.Count > 0:
		stage.State = reckoning.NeedsAttention
	case len(in.Surveys) == 0 && !in.Running:
		stage.State = reckoning.Untouched
	case in.Running || len(Missing(guide, in.Surveys)) > 0:
		stage.State = reckoning.InHand
	}
	return stage
}

// isMeasured reports whether it was a measurement by which it was seen last.
func (f Finding) isMeasured() bool {
	last := len(f.Observations) - 1
	return last >= 0 && f.Observations[last].Source == FromMeasurement
}
