package exterior

import (
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/reckoning"
	"frugalheron/core/verdict"
)

// What the lines of the reckoning are explained by.
var (
	thingOnSide   = verdict.NewSentence("exterior-thing", "{side}: {words}")
	findingOnSide = verdict.NewSentence("exterior-finding", "{side}: {thing} {words}, {finding}")
	hazardOutside = verdict.NewSentence("exterior-hazard", "{thing} {words}")
)

// Step is one side on the walk round the machine.
type Step struct {
	Face     Face   `json:"face" enum:"front,left,rear,right,top,underside"`
	LookedAt bool   `json:"lookedAt"`
	Entries  int    `json:"entries"`
	LookFor  string `json:"lookFor" doc:"What to look for there"`
	Example  string `json:"example" doc:"A line as it may stand there"`
}

// Walk says for each side whether it was looked at. One without anything on it counts once a line says
// nothing, or anything else.
func (s Sheet) Walk() []Step {
	steps := make([]Step, len(Faces()))
	for i, f := range Faces() {
		steps[i] = Step{Face: f.Face, LookFor: f.LookFor, Example: f.Example}
		for _, e := range s.Entries {
			if e.Face == f.Face {
				steps[i].LookedAt = true
				if e.Thing != "nothing" {
					steps[i].Entries++
				}
			}
		}
	}
	return steps
}

// wanted are what a look over has to find, beside the sides: later steps depend on them.
var wanted = []struct{ attribute, words string }{
	{"serial", "the serial number"},
	{"mains-voltage", "the mains voltage of the rating plate"},
	{"weight", "the weight"},
	{"outer-size", "the outer size"},
}

// StageOf judges looking over: untouched without a word, in hand while a side is unseen or a fact is
// missing, and settled when all of it is there. Problems and what is disputed need attention. Missing
// lists what is not there yet, in words. known tells whether an attribute is known from elsewhere.
func (s Sheet) StageOf(disputed int, known func(attribute string) bool) (reckoning.Stage, []string) {
	missing := []string{}
	unseen := []string{}
	for _, step := range s.Walk() {
		if !step.LookedAt {
			unseen = append(unseen, string(step.Face))
		}
	}
	if len(unseen) > 0 {
		missing = append(missing, "not looked at: "+strings.Join(unseen, ", "))
	}
	said := s.Statements()
	for _, f := range wanted {
		if !known(f.attribute) &&
			!slices.ContainsFunc(said, func(st Claim) bool { return st.Attribute == f.attribute }) {
			missing = append(missing, f.words+" is not written down")
		}
	}
	stage := reckoning.Stage{State: reckoning.Settled, Count: len(s.Problems) + disputed}
	switch {
	case stage.Count > 0:
		stage.State = reckoning.NeedsAttention
	case len(s.Entries) == 0 && len(s.texts) == 0:
		stage.State = reckoning.Untouched
	case len(missing) > 0:
		stage.State = reckoning.InHand
	}
	return stage, missing
}

// Verdicts say what the outside amounts to, what may hurt somebody first. The spots are lines of the assembly's sheet.
func (s Sheet) Verdicts(assembly int64) []verdict.Verdict {
	list := func(key, label, one, many string, state verdict.State, things ...string) verdict.Verdict {
		v := verdict.Verdict{Key: key, Label: label, State: state, Why: []verdict.Reason{}}
		for _, e := range s.Entries {
			if slices.Contains(things, e.Thing) {
				v.Why = append(v.Why, thingOnSide.Because(verdict.Word(e.Face), e.Text()).At(assembly, e.Line))
			}
		}
		v.Value = verdict.Counted(len(v.Why), one, many)
		return v
	}
	damage := list("exterior-damage", "Damage outside", "finding", "findings", verdict.Attention, "damage", "residue")
	for _, e := range s.Entries {
		for _, f := range e.Findings {
			found := f.Kind
			if f.Note != "" {
				found += ": " + f.Note
			}
			damage.Why = append(damage.Why, findingOnSide.Because(verdict.Word(e.Face), verdict.Word(e.Thing), e.Text(),
				found).At(assembly, e.Line))
		}
	}
	if n := len(damage.Why); n > 0 {
		damage.Value = fmt.Sprintf("%d found", n)
	}
	return append(s.hazards(assembly), verdict.Telling(
		damage,
		list("exterior-missing", "Missing or added outside", "piece", "pieces", verdict.Attention, "missing", "added",
			"hole"),
		list("ports", "Ports", "port", "ports", verdict.Plain, "port"))...)
}
