package condition

import "frugalheron/core/reckoning"

// StageInput is what the stage Judge depends on.
type StageInput struct {
	Surveys  []Survey
	Findings []Finding
	Running  bool // a survey is being made
	Failed   int  // measurements out of tolerance
}

// StageOf judges judging: untouched without a survey, in hand while one is being made or left something out,
// and in need of attention while something does not do what it should, or was measured out of tolerance.
func StageOf(in StageInput, guide []Item) reckoning.Stage {
	stage := reckoning.Stage{State: reckoning.Settled, Count: in.Failed}
	for _, f := range in.Findings {
		if s := f.Tell(); s.Open && (s.Severity == Repair || s.Severity == Hazard) {
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
