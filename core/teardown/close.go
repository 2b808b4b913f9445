package teardown

import (
	"fmt"
	"strings"
)

// Blocker is something that keeps a machine from counting as closed.
type Blocker struct {
	Kind string `json:"kind" enum:"step,connector,fastener,skipped" doc:"What it is about"`
	Step int    `json:"step" doc:"Number of the step, 0 for a connector that no step unplugged"`
	Text string `json:"text" says:"text" doc:"What is missing, and what to do"`
}

// Blockers lists what is missing before the machine counts as closed: steps that are not reversed, connectors
// that are open, fasteners that are left over without a word, steps skipped without a reason.
func Blockers(steps []Logged, connectors []Connector) []Blocker {
	blockers := []Blocker{}
	unpluggedIn := map[string]int{}
	for i := len(steps) - 1; i >= 0; i-- {
		s := steps[i]
		for _, name := range s.Connectors {
			unpluggedIn[strings.ToLower(name)] = s.N
		}
		switch {
		case s.State == Off:
			blockers = append(blockers,
				Blocker{"step", s.N,
					fmt.Sprintf("step %d, %s, is not back on; tick it, or skip it with a reason", s.N, s.Off)})
		case s.State == Skipped && strings.TrimSpace(s.Reason) == "":
			blockers = append(blockers,
				Blocker{"skipped", s.N, fmt.Sprintf("step %d, %s, was skipped without a reason; say why", s.N, s.Off)})
		}
		for _, l := range s.Left {
			if s.State == Back && strings.TrimSpace(l.Reason) == "" {
				blockers = append(blockers,
					Blocker{"fastener", s.N,
						fmt.Sprintf("%d %s of step %d, %s, is left over; put it back, or say what became of it",
							l.Count, s.Fasteners[l.Fastener].name(), s.N, s.Off)})
			}
		}
	}
	for _, c := range connectors {
		if c.Open {
			step := unpluggedIn[strings.ToLower(c.Name)]
			text := fmt.Sprintf("connector %s is open; plug it in as the map shows, and tick it", c.Name)
			if step > 0 {
				text = fmt.Sprintf(
					"connector %s, unplugged in step %d, is open; plug it in as the map shows, and tick it", c.Name,
					step)
			}
			blockers = append(blockers, Blocker{"connector", step, text})
		}
	}
	return blockers
}

// Outcome says how putting together ended.
type Outcome string

// Outcomes.
const (
	Closed               Outcome = "closed"
	ClosedWithExceptions Outcome = "closed with exceptions" // something was left over, or left off on purpose
	StillOff             Outcome = "open"
)

// OutcomeOf judges a log: open while anything lacks; closed when all is back.
func OutcomeOf(steps []Logged, connectors []Connector) (Outcome, string) {
	if blockers := Blockers(steps, connectors); len(blockers) > 0 {
		return StillOff, blockers[0].Text
	}
	leftOut := []string{}
	for _, s := range steps {
		if s.State == Skipped {
			leftOut = append(leftOut, fmt.Sprintf("%s is left off: %s", s.Off, s.Reason))
		}
	}
	leftOut = append(leftOut, LeftOvers(steps)...)
	if len(leftOut) > 0 {
		return ClosedWithExceptions, strings.Join(leftOut, "; ")
	}
	return Closed, fmt.Sprintf("all %d steps are reversed, every connector is plugged in, no fastener is left over",
		len(steps))
}

// LeftOvers are the findings that reversing a log leaves: fasteners that did not go back.
func LeftOvers(steps []Logged) []string {
	found := []string{}
	for _, s := range steps {
		for _, l := range s.Left {
			if s.State != Back {
				continue
			}
			text := fmt.Sprintf("%d %s left over from %s", l.Count, s.Fasteners[l.Fastener].name(), s.Off)
			if l.Reason != "" {
				text += ": " + l.Reason
			}
			found = append(found, text)
		}
	}
	return found
}

// Next is the step to be reversed now: of those that are off, the one that came off last; nil when none is.
func Next(steps []Logged) *Logged {
	for i := len(steps) - 1; i >= 0; i-- {
		if steps[i].State == Off {
			return &steps[i]
		}
	}
	return nil
}

// Sums is what a log amounts to.
type Sums struct {
	Steps     int `json:"steps"`
	Off       int `json:"off" doc:"Steps that are not reversed"`
	Fasteners int `json:"fasteners" doc:"Pieces in all steps"`
	Aside     int `json:"aside" doc:"Pieces that lie in the tray or laid out, now"`
	Unplugged int `json:"unplugged" doc:"Connectors that steps unplugged"`
	Open      int `json:"open" doc:"Connectors that are open now"`
}

// Sum adds a log up.
func Sum(steps []Logged, connectors []Connector) Sums {
	sums := Sums{Steps: len(steps)}
	for _, s := range steps {
		if s.State == Off {
			sums.Off++
		}
		sums.Unplugged += len(s.Connectors)
		for i, f := range s.Fasteners {
			sums.Fasteners += f.Count
			if f.Keeping != InHole {
				sums.Aside += s.stillOff(i)
			}
		}
	}
	for _, c := range connectors {
		if c.Open {
			sums.Open++
		}
	}
	return sums
}
