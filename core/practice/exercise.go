package practice

import (
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/calendar"
	"frugalheron/core/console"
	"frugalheron/core/gate"
	"frugalheron/core/ladder"
	"frugalheron/core/verdict"
)

// What the supply feeds.
const (
	Dummy   = "dummy"
	Machine = "machine"
)

// ActKind is something that can be done.
type ActKind string

// Kinds of deeds.
const (
	Inspect   ActKind = "inspect"    // look at the supply, its plate and its lead
	Connect   ActKind = "connect"    // the supply to the dummy load, or to the machine
	Fit       ActKind = "fit"        // a unit
	TakeOut   ActKind = "take out"   // a unit
	SwitchOn  ActKind = "switch on"  // apply power
	SwitchOff ActKind = "switch off" // lead out, lamps dark
	Measure   ActKind = "measure"    // a point
	Listen    ActKind = "listen"     // to the console
	Look      ActKind = "look"       // at the lamps
	Judge     ActKind = "judge"      // a rung: as expected, or not
)

// Act is one of them.
type Act struct {
	Kind ActKind `json:"kind" enum:"inspect,connect,fit,take out,switch on,switch off,measure,listen,look,judge"`
	What string  `json:"what" maxLength:"200" required:"false" doc:"dummy or machine, the unit, the point; as-expected or not for a rung"`
}

// Observed is what was to be seen at a deed.
type Observed struct {
	Volts *float64 `json:"volts"` // of what was measured
	Text  string   `json:"text"`  // of the console, or the lamps that are lit
}

// LoggedAct is a deed with what was seen, and what was wrong with doing it so.
type LoggedAct struct {
	Act
	Seen string `json:"seen"`
	Slip string `json:"slip" doc:"What would have been wrong on a machine that is one; empty for nothing"`
}

// MeterReading is a point as it was measured.
type MeterReading struct {
	Point string  `json:"point"`
	Volts float64 `json:"volts"`
	Load  string  `json:"load" enum:",dummy,machine,none"`
	Out   bool    `json:"out" doc:"It is a rail under load, outside its limits"`
}

// TriedRung is a rung of the ladder with what was made of it.
type TriedRung struct {
	ladder.Rung
	Result string `json:"result" enum:",as-expected,not"`
}

// Exercise is how far somebody has come.
type Exercise struct {
	Seed      int            `json:"seed"`
	Inspected bool           `json:"inspected"`
	On        bool           `json:"on"`
	Load      string         `json:"load" enum:"dummy,machine"`
	Fitted    []string       `json:"fitted"`
	Readings  []MeterReading `json:"readings" doc:"In the order in which they were taken"`
	Since     int            `json:"since" doc:"How many readings there were when it was switched on last"`
	Ladder    []TriedRung    `json:"ladder"`
	Console   *string        `json:"console" doc:"What it said since it was switched on or off last; null while nobody listened"`
	Lamps     *string        `json:"lamps" doc:"Those that are lit; null while nobody looked since then"`
	Log       []LoggedAct    `json:"log"`
	Said      *NamedFault    `json:"said" doc:"What it is thought to be, once somebody said so; else null"`
	Is        *NamedFault    `json:"is" doc:"What it is, once somebody said so; else null"`
}

// mostDeeds bounds a exercise.
const mostDeeds = 500

// Begin is the exercise of a seed: everything off, the minimum alone in the machine.
func Begin(seed int) Exercise {
	s := Exercise{Seed: seed, Load: Dummy, Fitted: []string{Minimum}, Readings: []MeterReading{}, Ladder: []TriedRung{},
		Log: []LoggedAct{}}
	units := []ladder.Unit{}
	for _, unit := range Units() {
		slot := "card cage"
		if unit == Minimum {
			slot = ""
		}
		units = append(units, ladder.Unit{Title: unit, Kind: "board", Slot: slot})
	}
	for _, rung := range ladder.Propose(units) {
		s.Ladder = append(s.Ladder, TriedRung{Rung: rung})
	}
	return s
}

// Needs reports what has to be observed for a deed: whether a point, the console or the lamps.
func (d Act) Needs() bool { return slices.Contains([]ActKind{Measure, Listen, Look}, d.Kind) }

// Check says why a deed cannot be done now, and what to do instead.
func (s *Exercise) Check(d Act) error {
	known := map[ActKind][]string{Connect: {Dummy, Machine}, Fit: Units(), TakeOut: Units(), Measure: Points(),
		Judge: {"as-expected", "not"}}
	kinds := []ActKind{Inspect, Connect, Fit, TakeOut, SwitchOn, SwitchOff, Measure, Listen, Look, Judge}
	switch words, isNamed := known[d.Kind]; {
	case !slices.Contains(kinds, d.Kind):
		return fmt.Errorf("%q is nothing that is done here", d.Kind)
	case s.Said != nil:
		return fmt.Errorf("this exercise is over; begin another")
	case len(s.Log) >= mostDeeds:
		return fmt.Errorf("%d deeds are enough; say what it is, or begin anew", mostDeeds)
	case isNamed && !slices.Contains(words, d.What):
		return fmt.Errorf("%s needs one of: %s", d.Kind, strings.Join(words, ", "))
	case d.Kind == Fit && slices.Contains(s.Fitted, d.What):
		return fmt.Errorf("%s is in already", d.What)
	case d.Kind == TakeOut && !slices.Contains(s.Fitted, d.What):
		return fmt.Errorf("%s is out already", d.What)
	case d.Kind == SwitchOn && s.On:
		return fmt.Errorf("it is on already")
	case d.Kind == SwitchOff && !s.On:
		return fmt.Errorf("it is off already")
	case d.Kind == Judge && s.rung() < 0:
		return fmt.Errorf("no rung of the ladder is what is in the machine now; %s", s.next())
	}
	return nil
}

// Do does a deed on a day, with what was observed at it.
func (s *Exercise) Do(d Act, saw Observed, now calendar.Date) error {
	if err := s.Check(d); err != nil {
		return err
	}
	entry := LoggedAct{Act: d, Slip: s.slip(d, now)}
	switch d.Kind {
	case Inspect:
		s.Inspected = true
		entry.Seen = "plate 220-240 V, 50 Hz; lead, plug, fuse and case as they should be"
	case Connect:
		s.Load = d.What
	case Fit:
		s.Fitted = append(s.Fitted, d.What)
	case TakeOut:
		s.Fitted = slices.DeleteFunc(s.Fitted, func(u string) bool { return u == d.What })
	case SwitchOn:
		s.On, s.Console, s.Lamps, s.Since = true, nil, nil, len(s.Readings)
	case SwitchOff:
		s.On, s.Console, s.Lamps = false, nil, nil
		entry.Seen = "off, lead out, lamps dark"
	case Measure:
		if saw.Volts == nil {
			return fmt.Errorf("nothing was read at %s", d.What)
		}
		load := s.Load
		if !s.On {
			load = "none"
		}
		s.Readings = append(s.Readings, MeterReading{d.What, *saw.Volts, load, load != "none" && isOutside(d.What,
			*saw.Volts)})
		entry.Seen = fmt.Sprintf("%.2f V", *saw.Volts)
	case Listen:
		s.Console = &saw.Text
		entry.Seen = verdict.Counted(len(console.Read([]byte(saw.Text), now).Lines), "line", "lines")
		if entry.Seen == "" {
			entry.Seen = "nothing"
		}
	case Look:
		s.Lamps = &saw.Text
		entry.Seen = "lit: " + saw.Text
	case Judge:
		at := s.rung()
		s.Ladder[at].Result = d.What
		entry.Seen = s.Ladder[at].Step
	}
	s.Log = append(s.Log, entry)
	return nil
}

// rung is the step of the ladder that is in the machine now: the highest of which all below are in, and nothing above.
// It is -1 where the machine is off, on the dummy load, or has something else in it.
func (s *Exercise) rung() int {
	if !s.On || s.Load != Machine {
		return -1
	}
	in := 0
	for i, step := range s.Ladder {
		unit := step.Step
		if i == 0 {
			unit = Minimum
		}
		if slices.Contains(s.Fitted, unit) {
			in++
		}
		if in == len(s.Fitted) {
			if in != i+1 {
				return -1
			}
			return i
		}
	}
	return -1
}

func (s *Exercise) next() string {
	if !s.On || s.Load != Machine {
		return "a rung is tried with the supply on the machine, and on"
	}
	return "take out what the ladder adds later"
}

// supply is the one of the machine, with what is known of it on a day.
func (s *Exercise) supply(now calendar.Date) gate.Supply {
	supply := gate.Supply{ID: "Supply", Kind: gate.Mains, Plate: &gate.Plate{Volts: "220-240", Hz: "50"},
		Needs: []string{"+5", "+12", "-12"}}
	if s.Inspected {
		supply.InspectedOn = calendar.On(now)
	}
	for _, r := range s.Readings {
		if slices.Contains(supply.Needs, r.Point) {
			volts := r.Volts
			supply.Rails = append(supply.Rails, gate.Reading{Rail: r.Point, Volts: &volts, On: calendar.On(now),
				Load: r.Load})
		}
	}
	return supply
}

// Rails are those of its supply, as they were measured last.
func (s *Exercise) Rails(now calendar.Date) []gate.Rail { return gate.RailsOf(s.supply(now)) }

// Gate is how the gate stands on a day.
func (s *Exercise) Gate(now calendar.Date) gate.Output {
	supply := s.supply(now)
	in := gate.Input{Now: calendar.On(now), Local: gate.Local{Volts: 230, Hz: 50}, Supplies: []gate.Supply{supply}}
	for _, step := range s.Ladder {
		one := gate.Step{Step: step.Step, Kind: string(step.Kind), Result: step.Result}
		if step.Result != "" {
			one.On = calendar.On(now)
		}
		in.Ladder = append(in.Ladder, one)
	}
	out, err := gate.Judge(in)
	if err != nil { // of what is made here, nothing can be refused
		return gate.Output{State: gate.Hold, Missing: []gate.Missing{}, Warnings: []string{err.Error()}}
	}
	return out
}
