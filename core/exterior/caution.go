package exterior

import (
	"fmt"
	"regexp"

	"frugalheron/core/facts"
	"frugalheron/core/verdict"
)

// heavy is the weight in kilograms from which one person should not lift alone. A rule of thumb, below
// what rules for work places allow: cases have no handles, and stand where one cannot stand well.
const heavy = 18

var (
	mainsLead = regexp.MustCompile(`(?i)mains|inlet|fixed|plug`)
	tube      = regexp.MustCompile(`(?i)picture tube|\bCRT\b`)
	kilograms = regexp.MustCompile(`^[\d.]+`)
)

// hazards are the lines that tell of what may hurt somebody, each with what to take care of.
func (s Sheet) hazards(assembly int64) []verdict.Verdict {
	verdicts := []verdict.Verdict{}
	add := func(e Entry, key, label, value, caution string, state verdict.State) {
		why := []verdict.Reason{hazardOutside.Because(verdict.Word(e.Thing), e.Text()).At(assembly, e.Line)}
		verdicts = append(verdicts,
			verdict.Verdict{Key: key, Label: label, Value: value, State: state, Caution: caution,
				Grave: key != "heavy", Why: why})
	}
	for _, e := range s.Entries {
		switch {
		case e.Thing == "lead" && len(e.Findings) > 0 && mainsLead.MatchString(e.Words):
			add(e, fmt.Sprintf("mains-lead-%d", e.Line), "Mains lead", e.Findings[0].Kind,
				"Leave it unplugged, and cut nothing: a damaged mains lead is for somebody competent; local rules go first.", verdict.Stop)
		case tube.MatchString(e.Words):
			add(e, fmt.Sprintf("tube-%d", e.Line), "Picture tube", "inside",
				"A tube holds charge long after it was switched off, and bursts when struck. Opening it is for somebody competent.", verdict.Attention)
		case e.Thing == "weight":
			text, err := facts.AttributeOf("weight").Normal(e.Words)
			if err != nil {
				continue
			}
			var kg float64
			if fmt.Sscan(kilograms.FindString(text),
				&kg); kg >= heavy { //nolint:errcheck // a figure in its normal form
				add(e, "heavy", "Weight", text,
					"Lift it with somebody else, or with a trolley; look first where the weight sits.",
					verdict.Attention)
			}
		}
	}
	return verdicts
}
