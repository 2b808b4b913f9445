// Package arrival answers: is it written down how a thing came to the collection? Registrars ask of
// every thing how it came, when, from whom, for how much, in which state, and through whose hands it
// went before; what is not asked at arrival is seldom found out later.
package arrival

import (
	"fmt"

	"frugalheron/core/custody"
	"frugalheron/core/reckoning"
	"frugalheron/core/verdict"
)

// Facts is what is written down about how a machine came.
type Facts struct {
	HasAcquisition bool
	Method         string // as purchase, gift
	HasDate        bool
	HasSource      bool
	HasPrice       bool
	HasCondition   bool
	HasPowered     bool // when it last ran, and whether anybody powered it since
	Links          int  // statements about its past
	Chain          []custody.Problem
	OpenData       int    // personal data without a decision, or with one that is not carried out
	SpreadProblem  string // why the cost of its lot cannot be spread, or empty
}

// paidFor are the methods that have a price.
var paidFor = map[string]bool{"purchase": true, "auction": true}

// StageOf judges the arrival: untouched when nothing is written, in hand while something is missing, and
// settled when all is there. What cannot be, and personal data that nobody has decided about, needs
// attention. Missing says what is not written down, in words.
func StageOf(f Facts) (reckoning.Stage, []string) {
	missing := []string{}
	ask := func(has bool, words string) {
		if !has {
			missing = append(missing, words)
		}
	}
	if !f.HasAcquisition {
		missing = append(missing, "how it came is not written down")
	} else {
		ask(f.HasDate, "when it came is not written down")
		ask(f.HasSource || f.Method == "found", "from whom it came is not written down")
		ask(f.HasPrice || !paidFor[f.Method], "its price is not written down")
		ask(f.HasCondition, "its condition as received is not written down")
		ask(f.HasPowered, "when it last ran, and whether anybody powered it since, is not written down")
	}
	ask(f.Links > 0, "nothing is written down of its past")
	stage := reckoning.Stage{State: reckoning.Settled, Count: f.OpenData}
	if f.SpreadProblem != "" {
		missing = append(missing, "the cost of its lot is not spread: "+f.SpreadProblem)
	}
	gaps, undated := 0, 0
	for _, found := range f.Chain {
		switch found.Kind {
		case custody.Impossible, custody.Overlap:
			stage.Count++
		case custody.Gap:
			gaps++
		case custody.Undated:
			undated++
		}
	}
	ask(gaps == 0, verdict.Counted(gaps, "gap", "gaps")+" in its past")
	ask(undated == 0, verdict.Counted(undated, "statement", "statements")+" about its past without a date")
	switch {
	case stage.Count > 0:
		stage.State = reckoning.NeedsAttention
	case !f.HasAcquisition && f.Links == 0:
		stage.State = reckoning.Untouched
	case len(missing) > 0:
		stage.State = reckoning.InHand
	}
	return stage, missing
}

var (
	brokenChain  = verdict.NewSentence("custody-problem", "{problem}")
	decideOnData = verdict.NewSentence("personal-data-rule",
		"kept sealed, returned, wiped or archived by decision of a curator; the decision and the day it was carried out "+
			"stand under Arrive")
)

// Verdicts say in lines of the reckoning what does not hold in the past, and what has to be decided.
func Verdicts(f Facts) []verdict.Verdict {
	verdicts := []verdict.Verdict{}
	chain := verdict.Verdict{Key: "custody", Label: "Provenance", State: verdict.Plain, Why: []verdict.Reason{}}
	counts := map[custody.ProblemKind]int{}
	for _, found := range f.Chain {
		counts[found.Kind]++
		chain.Why = append(chain.Why, brokenChain.Because(found.Text))
	}
	for _, kind := range []struct {
		kind      custody.ProblemKind
		one, many string
	}{
		{custody.Impossible, "impossible statement", "impossible statements"}, {custody.Overlap, "overlap", "overlaps"},
		{custody.Gap, "gap", "gaps"}, {custody.Undated, "statement without a date", "statements without a date"},
	} {
		if n := counts[kind.kind]; n > 0 && chain.Value != "" {
			chain.Value += ", "
		}
		chain.Value += verdict.Counted(counts[kind.kind], kind.one, kind.many)
	}
	if counts[custody.Impossible]+counts[custody.Overlap] > 0 {
		chain.State = verdict.Attention
	}
	if chain.Value != "" {
		verdicts = append(verdicts, chain)
	}
	if f.OpenData > 0 {
		verdicts = append(verdicts, verdict.Verdict{
			Key: "personal-data", Label: "Personal data of former owners", State: verdict.Attention,
			Value:   fmt.Sprintf("%d to decide or to carry out", f.OpenData),
			Caution: "Image a medium before anything on it is deleted; keep the content sealed, and ask whoever is responsible for privacy with you.",
			Why: []verdict.Reason{
				decideOnData.Because(),
			},
		})
	}
	return verdicts
}
