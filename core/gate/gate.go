// Package gate answers: what is missing before power may be thought of, and what comes next?
//
// It never permits anything. It says what is missing by what was recorded, and keeps the machine in the strictest state
// that some missing point demands. Local rules and competent people decide.
package gate

import "frugalheron/core/calendar"

// State is how far a machine has come.
type State string

// States, from the strictest.
const (
	Hold       State = "hold"        // no power is applied
	SupplyOnly State = "supply-only" // the supply alone, on a dummy load
	Staged     State = "staged"      // the minimum first, then one addition at a time
	Cleared    State = "cleared"     // nothing is missing by what was recorded
)

// States lists them from the strictest.
func States() []State { return []State{Hold, SupplyOnly, Staged, Cleared} }

// Input is what the gate is worked out from. Days are YYYY-MM-DD, and none after Now.
type Input struct {
	Now          calendar.Entered `json:"now"`
	SupplyMonths *int             `json:"supplyMonths"` // for how long an inspection or a run counts; 12 where it is not given
	Local        Local            `json:"local"`
	Supplies     []Supply         `json:"supplies"`
	Findings     []Finding        `json:"findings"`
	Batteries    []Battery        `json:"batteries"`
	Connectors   []Connector      `json:"connectors"`
	Cooling      []Cooling        `json:"cooling"`
	ChangedOn    calendar.Entered `json:"changedOn"` // when something in the machine was changed last
	Ladder       []Step           `json:"ladder"`
}

// Local is what comes out of the wall; 0 is not known.
type Local struct {
	Volts float64 `json:"volts"`
	Hz    float64 `json:"hz"`
}

// Supply is one that feeds the machine.
type Supply struct {
	ID              string             `json:"id"`
	Kind            SupplyKind         `json:"kind"`
	Plate           *Plate             `json:"plate"`
	Selector        *float64           `json:"selector"` // the voltage at which the selector stands
	Source          *Source            `json:"source"`   // what feeds the machine in the place of mains
	InspectedOn     calendar.Entered   `json:"inspectedOn"`
	MovedOn         calendar.Entered   `json:"movedOn"` // carried by vehicle, dropped or tipped
	RanOn           calendar.Entered   `json:"ranOn"`
	Rails           []Reading          `json:"rails"`
	Needs           []string           `json:"needs"`
	Rating          map[string]float64 `json:"rating"` // amperes by rail
	Draw            map[string]float64 `json:"draw"`
	StartsWithMains bool               `json:"startsWithMains"`
}

// SupplyKind says what feeds a machine.
type SupplyKind string

// Kinds of supplies.
const (
	Mains   SupplyKind = "mains"
	Adapter SupplyKind = "adapter"
	Bench   SupplyKind = "bench"
	Cells   SupplyKind = "battery"
)

// Plate is what is written on a supply, or at the socket of the machine: volts as 230, 220-240 or 115/230.
type Plate struct {
	Volts    string `json:"volts"`
	Hz       string `json:"hz"`
	Polarity string `json:"polarity"` // centre+, centre-, none; empty when it was not read
}

// Source is an adapter or a bench supply as it was measured or is set.
type Source struct {
	Volts    float64 `json:"volts"`
	Polarity string  `json:"polarity"`
}

// Reading is a rail as it was measured.
type Reading struct {
	Rail      string           `json:"rail"`
	Volts     *float64         `json:"volts"`
	On        calendar.Entered `json:"on"`
	Load      string           `json:"load"` // dummy, machine, none
	Low       *float64         `json:"low"`
	High      *float64         `json:"high"`
	Regulated bool             `json:"regulated"`
}

// Finding is an open one of a condition check.
type Finding struct {
	ID        string `json:"id"`
	Severity  string `json:"severity"`
	Subsystem string `json:"subsystem"`
}

// Battery is a cell or a pack of the machine.
type Battery struct {
	ID            string `json:"id"`
	State         string `json:"state"`
	NeededToStart bool   `json:"neededToStart"`
	Primary       bool   `json:"primary"` // not to be charged
	Unknown       bool   `json:"unknown"` // nobody said which cell it is: it may be a primary one
	Charged       *bool  `json:"charged"` // whether the machine charges it; null where nobody looked
}

// Connector is one that is open, or plugged.
type Connector struct {
	ID           string `json:"id"`
	Open         bool   `json:"open"`
	MustStayFree bool   `json:"mustStayFree"`
}

// Cooling is a fan or what else carries heat away.
type Cooling struct {
	ID     string `json:"id"`
	State  string `json:"state"`
	Needed bool   `json:"needed"`
}

// Step is one rung of the ladder.
type Step struct {
	Step   string           `json:"step"`
	Kind   string           `json:"kind"`   // minimum, add
	Result string           `json:"result"` // as-expected, not; empty while it was not tried
	On     calendar.Entered `json:"on"`
}

// Output is what the gate amounts to.
type Output struct {
	State    State     `json:"state" enum:"hold,supply-only,staged,cleared"`
	Missing  []Missing `json:"missing" doc:"Of all states, the strictest first"`
	Next     Next      `json:"next"`
	Warnings []string  `json:"warnings"`
}

// Missing is a point that keeps the machine in a state.
type Missing struct {
	ID     string `json:"id"`
	Blocks State  `json:"blocks" enum:"hold,supply-only,staged"`
	What   string `json:"what"`
	Do     string `json:"do"`
	Supply string `json:"supply,omitempty" doc:"The supply that it is about, where it is about one"`
	// next is the kind of step that it asks for, why the short reason.
	next NextKind
	why  string
	// danger is what somebody found, in the place of what nobody wrote down.
	danger bool
}

// NextKind says what sort of work comes next.
type NextKind string

// Kinds of next steps.
const (
	Inspect NextKind = "inspect"
	Measure NextKind = "measure"
	Remove  NextKind = "remove"
	Minimum NextKind = "minimum"
	Add     NextKind = "add"
	Nothing NextKind = "none"
)

// Next is what to do next: always at the strictest point.
type Next struct {
	Kind NextKind `json:"kind" enum:"inspect,measure,remove,minimum,add,none"`
	Step string   `json:"step"`
	Why  string   `json:"why"`
}

// Judge works out what is missing. A *malformed.Error names the field that cannot be taken.
func Judge(in Input) (Output, error) {
	if err := in.check(); err != nil {
		return Output{}, err
	}
	j := &judgement{in: in, now: in.Now.Date}
	j.batteries()
	j.findings()
	j.supplies()
	j.connectors()
	j.cooling()
	j.ladder()
	return j.output(), nil
}

// judgement collects what is missing.
type judgement struct {
	in       Input
	now      calendar.Date
	missing  []Missing
	warnings []string
}

func (j *judgement) output() Output {
	out := Output{State: Cleared, Missing: []Missing{}, Warnings: append([]string{}, j.warnings...),
		Next: Next{Nothing, "", "by what was recorded, nothing is missing"}}
	for _, state := range States() {
		for _, one := range j.missing {
			if one.Blocks != state {
				continue
			}
			if len(out.Missing) == 0 {
				out.State, out.Next = state, Next{one.next, one.ID, one.why}
			}
			out.Missing = append(out.Missing, one)
		}
	}
	return out
}
