package practice

import (
	"fmt"
	"slices"

	"frugalheron/core/calendar"
	"frugalheron/core/console"
	"frugalheron/core/gate"
	"frugalheron/core/measure"
)

// slip says what would have been wrong with a deed on a machine that is one; empty for nothing.
func (s *Exercise) slip(d Act, now calendar.Date) string {
	switch d.Kind {
	case Fit, TakeOut, Connect:
		return s.slipOfChange(d)
	case SwitchOn:
		return s.slipOfPower(now)
	case Judge:
		if d.What == "as-expected" {
			return s.slipOfJudging(now)
		}
	}
	return ""
}

func (s *Exercise) slipOfChange(d Act) string {
	at := slices.IndexFunc(s.Ladder, func(step TriedRung) bool { return step.Step == d.What })
	switch {
	case s.On:
		return "it was on: off, lead out, lamps dark comes first. What is plugged or pulled while it runs may die of it, and so " +
			"may its neighbours"
	case d.Kind != Fit || at < 1:
		return ""
	case s.Ladder[at-1].Result == "not":
		return fmt.Sprintf("%s was not as expected: what is wrong there is found before anything is added", s.Ladder[at-1].Step)
	case s.Ladder[at-1].Result == "":
		return fmt.Sprintf("%s was not tried yet: with two things new at once nobody can tell which of them it is",
			s.Ladder[at-1].Step)
	}
	return ""
}

func (s *Exercise) slipOfPower(now calendar.Date) string {
	out := s.Gate(now)
	switch {
	case out.State == gate.Hold:
		return "the gate stood at hold: " + out.Missing[0].What + ". " + out.Missing[0].Do
	case s.Load == Machine && out.State == gate.SupplyOnly:
		return "the gate stood at supply-only: the supply is tried alone, on a dummy load, before the machine is put on it. " +
			out.Missing[0].What
	}
	return ""
}

// slipOfJudging says what speaks against a rung that is called as expected.
func (s *Exercise) slipOfJudging(now calendar.Date) string {
	measured := map[string]bool{}
	for _, r := range slices.Backward(s.Readings[s.Since:]) {
		if _, isRail := measure.Rail(r.Point); r.Load != Machine || !isRail || measured[r.Point] {
			continue
		}
		measured[r.Point] = true
		if r.Out {
			return fmt.Sprintf("%s was read as %.2f V with the machine on it, outside its limits", r.Point, r.Volts)
		}
	}
	if read := s.Heard(now); read != nil && len(read.Troubles) > 0 {
		return fmt.Sprintf("the console says: %s", read.Troubles[0].Text)
	}
	if len(measured) == 0 {
		return "no rail was measured with the machine on it: a rail that sags shows in nothing else at first"
	}
	return ""
}

// isOutside reports whether a point is a rail, and volts are outside its limits.
func isOutside(point string, volts float64) bool {
	rail, isRail := measure.Rail(point)
	return isRail && (rail.Low != nil && volts < *rail.Low || rail.High != nil && volts > *rail.High)
}

// Heard is what its console amounts to; nil while nobody listened since it was switched.
func (s *Exercise) Heard(now calendar.Date) *console.TextReading {
	if s.Console == nil {
		return nil
	}
	read := console.Read([]byte(*s.Console), now)
	return &read
}

// Debrief is what a exercise amounts to once somebody said what it is.
type Debrief struct {
	Right bool        `json:"right"`
	Is    NamedFault  `json:"is" doc:"What it is"`
	Words FaultWords  `json:"words"`
	Why   string      `json:"why"`
	Slips []LoggedAct `json:"slips" doc:"What would have been wrong on a machine that is one"`
	Deeds int         `json:"deeds"`
}

// Say says what it is thought to be, and ends the exercise with what it is. It is refused where no fault or no place is
// called so.
func (s *Exercise) Say(d, is NamedFault) error {
	switch words := FaultOf(d.Fault); {
	case s.Said != nil:
		return fmt.Errorf("this exercise is over; begin another")
	case words == nil:
		return fmt.Errorf("no fault is called %q", d.Fault)
	case !slices.Contains(words.Places, d.Place):
		return fmt.Errorf("%q is no place where that can be", d.Place)
	}
	s.Said, s.Is = &d, &is
	return nil
}

// Debrief compares what was said with what is; nil while nothing was said.
func (s *Exercise) Debrief() *Debrief {
	if s.Said == nil || s.Is == nil {
		return nil
	}
	is := *s.Is
	words := FaultOf(is.Fault)
	if words == nil {
		return nil
	}
	d := Debrief{Right: *s.Said == is, Is: is, Words: *words, Slips: []LoggedAct{}, Deeds: len(s.Log)}
	for _, entry := range s.Log {
		if entry.Slip != "" {
			d.Slips = append(d.Slips, entry)
		}
	}
	switch {
	case d.Right:
		d.Why = "so it is: " + words.Shows
	case s.Said.Fault == is.Fault:
		d.Why = "the fault is that, but elsewhere: " + words.Shows
	default:
		d.Why = "it shows by this: " + words.Shows
	}
	return &d
}
