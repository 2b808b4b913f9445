package gate

import "fmt"

func (j *judgement) batteries() {
	for _, b := range j.in.Batteries {
		m := Missing{ID: b.ID, Blocks: Hold, next: Remove}
		switch {
		case b.State == "leaking" || b.State == "swollen":
			m.why, m.danger = "it is "+b.State, true
			m.Do = "take it out, clean what it touched, and give it where cells are taken by local rules"
		case b.State == "out":
			if !b.NeededToStart {
				continue
			}
			m.Blocks, m.next, m.why = Staged, Add, "it is out, and the machine needs it to start"
			m.Do = "put in a good one, or what stands for it"
		case b.Unknown && (b.Charged == nil || *b.Charged):
			m.next = Inspect
			m.why = "nobody said which cell it is: a primary one on a charge path may burst"
			m.Do = "say on its sheet which cell it is, and follow its charge path, or take it out"
		case b.Primary && b.Charged == nil:
			m.next = Inspect
			m.why = "it is a primary cell, and nobody looked whether the machine charges it"
			m.Do = "follow its charge path, or take it out"
		case b.Primary && *b.Charged:
			m.why, m.danger = "it is a primary cell on a charge path: charged, it may burst", true
			m.Do = "take it out, or part it from the charge path"
		default:
			continue
		}
		m.What = b.ID + ": " + m.why
		j.miss(m)
	}
}

// holding are the subsystems whose open repairs keep power away.
var holding = map[string]bool{"supply": true, "mains": true, "tube": true}

func (j *judgement) findings() {
	for _, f := range j.in.Findings {
		m := Missing{ID: f.ID, next: Inspect, danger: true, Do: "put it right, or find out that it is gone"}
		switch {
		case holding[f.Subsystem] && (f.Severity == "repair" || f.Severity == "hazard"):
			m.Blocks = Hold
		case f.Severity == "hazard":
			m.Blocks = SupplyOnly
		default:
			continue
		}
		m.why = fmt.Sprintf("an open finding, %s, of %s", f.Severity, f.Subsystem)
		m.What = fmt.Sprintf("%s: %s", f.ID, m.why)
		j.miss(m)
	}
}

func (j *judgement) connectors() {
	for _, c := range j.in.Connectors {
		m := Missing{ID: c.ID, Blocks: SupplyOnly, next: Inspect}
		switch {
		case c.Open && !c.MustStayFree:
			m.why, m.Do = "it is open", "plug it as it sat, or say that it must stay free"
		case !c.Open && c.MustStayFree:
			m.why, m.Do = "it is plugged, and must stay free", "unplug it"
		default:
			continue
		}
		m.What = c.ID + ": " + m.why
		j.miss(m)
	}
}

func (j *judgement) cooling() {
	for _, c := range j.in.Cooling {
		if !c.Needed || c.State == "turns" {
			continue
		}
		said := map[string]string{"dead": "it does not turn", "missing": "it is missing",
			"unknown": "nobody saw it turn"}[c.State]
		j.miss(Missing{ID: c.ID, Blocks: Staged, next: Inspect, why: said, What: c.ID + ": " + said,
			Do: "see that it turns, or cool by other means before the machine runs for long"})
	}
}

// ladder looks at each rung: what was seen on the day of a change counts as seen after it.
func (j *judgement) ladder() {
	changed := j.in.ChangedOn.Date
	hasMinimum := false
	for _, s := range j.in.Ladder {
		hasMinimum = hasMinimum || s.Kind == string(Minimum)
		since := changed.IsZero() || !s.On.IsZero() && !s.On.Before(changed)
		m := Missing{ID: s.Step, Blocks: Staged, next: NextKind(s.Kind)}
		switch {
		case s.Result == "not" && (since || s.On.IsZero()):
			m.Blocks, m.next, m.danger = SupplyOnly, Inspect, true
			m.why = "it was not as expected, and nothing was changed since"
			m.Do = "find out why and change something before it is tried again"
		case s.Result == "" && s.Kind == string(Minimum):
			m.why, m.Do = "it was not tried", "try the minimum alone, and look for its expected sign"
		case s.Result == "":
			m.why = "it was not tried"
			m.Do = "off, lead out, lamps dark; then add this one thing, and look for its expected sign"
		case !since:
			m.why = fmt.Sprintf("something was changed on %s, and it was not tried since", changed)
			m.Do = "try it again"
		default:
			continue
		}
		m.What = s.Step + ": " + m.why
		j.miss(m)
	}
	if !hasMinimum {
		j.miss(Missing{ID: "ladder", Blocks: Staged, next: Minimum, why: "no step with the minimum",
			What: "no step with the minimum has been tried", Do: "list the minimum and its expected sign"})
	}
}
