// Package teardown answers how a machine was taken apart, where its fasteners lie, and what is still missing
// before it counts as put together again.
//
// A step is written as a line, the parts of it with strokes between; ParseStep and Step.String turn one into
// the other:
//
//	Lid, upper half | 4x M3x8 pan washer PH1 @A1 | 2x rivet @hole | tab: front left, brittle
//	Disk drive | 4x M3x5 PH1 @laid | unplug J5, J6 | differs rails: riveted, not screwed | note: tip it first
//	Main board | 6x M3x6 PH1 @A3 | needs: Lid, Disk drive | frees: BT1 | look: at the tracks below BT1 | 10 min
//
// Putting together is the log reversed: what came off last goes on first.
package teardown

import (
	"strings"

	"frugalheron/core/caution"
	"frugalheron/core/malformed"
)

// Step is something that came off.
type Step struct {
	Off        string     `json:"off" says:"text" maxLength:"200" doc:"What comes off"`
	Fasteners  []Fastener `json:"fasteners" maxItems:"40"`
	Tabs       []string   `json:"tabs" says:"text" maxItems:"20" doc:"What may snap, stick or hurt, and where"`
	Connectors []string   `json:"connectors" maxItems:"60" doc:"Names of connectors of the machine's map that are unplugged"`
	Differs    []Variant  `json:"differs" maxItems:"20" doc:"How it is made on this machine, where that tells machines apart"`
	Needs      []string   `json:"needs" says:"text" maxItems:"60" required:"false" doc:"What must be off before, by what comes off there; nothing for none. Where nobody said it, all steps before it are needed"`
	Frees      []string   `json:"frees" says:"text" maxItems:"60" required:"false" doc:"What can be got at then, as BT1"`
	Look       []string   `json:"look" says:"text" maxItems:"20" required:"false" doc:"What to look at on the way"`
	Minutes    int        `json:"minutes" minimum:"0" maximum:"999" required:"false" doc:"How long it takes; 0 while nobody timed it"`
	Note       string     `json:"note" says:"text" maxLength:"2000"`
	Special    bool       `json:"special" required:"false" doc:"The order matters: nothing before it, nothing after it"`
}

// Variant is how something is made on one machine: the battery soldered, or in a holder.
type Variant struct {
	Subject string `json:"subject" says:"text" maxLength:"100"`
	Value   string `json:"value" says:"text" maxLength:"200"`
}

// Whole is the step with empty lists where there are none, and with what is laid out in a shape drawn point by
// point.
func (s Step) Whole() Step {
	fasteners := make([]Fastener, len(s.Fasteners))
	for i, f := range s.Fasteners {
		f.Pattern = append([]Point{}, f.Pattern...)
		if f.Keeping == Laid && len(f.Pattern) == 0 {
			f.Pattern = Lay(f.Shape, f.Count)
		}
		f.Shape = ""
		fasteners[i] = f
	}
	s.Fasteners = fasteners
	s.Tabs, s.Connectors, s.Differs = append([]string{}, s.Tabs...), append([]string{}, s.Connectors...),
		append([]Variant{}, s.Differs...)
	s.Needs, s.Frees, s.Look = append([]string{}, s.Needs...), append([]string{}, s.Frees...),
		append([]string{}, s.Look...)
	return s
}

// Cautions are due where somebody works on what comes off, in a machine that holds some things. Whoever unplugs
// something
// from a board is beside it.
func (s Step) Cautions(held []caution.Holding) []caution.Key {
	return caution.DueIn(strings.Join(append([]string{s.Off, s.Note}, s.Tabs...), "; "), held)
}

// Check refuses steps that name nothing, fasteners without a place, and what the tray does not hold.
func (s Step) Check(tray Tray) error {
	if strings.TrimSpace(s.Off) == "" {
		return malformed.In("off", "say what comes off, as Lid or Memory card")
	}
	for i, f := range s.Fasteners {
		if err := f.check(tray); err != nil {
			return malformed.In("fasteners", "fastener %d: %s", i+1, err)
		}
	}
	seen := map[string]bool{}
	for _, name := range s.Connectors {
		key := strings.ToLower(strings.TrimSpace(name))
		if key == "" || seen[key] {
			return malformed.In("connectors", "%q is named twice, or is no name of a connector", name)
		}
		seen[key] = true
	}
	for _, v := range s.Differs {
		if strings.TrimSpace(v.Subject) == "" || strings.TrimSpace(v.Value) == "" {
			return malformed.In("differs", "say what differs, and how it is here: battery: soldered")
		}
	}
	return nil
}

// State says where a step stands.
type State string

// States of a step.
const (
	Off     State = "off"     // what came off lies aside
	Back    State = "back"    // it is on the machine again
	Skipped State = "skipped" // it is left off, or came off for good
)

// LeftOver are fasteners of a step that did not go back.
type LeftOver struct {
	Fastener int    `json:"fastener" minimum:"0" doc:"Place of the fastener in the step's list, from 0"`
	Count    int    `json:"count" minimum:"1" maximum:"500"`
	Reason   string `json:"reason" says:"text" maxLength:"400" required:"false" doc:"What became of it; empty while nobody knows"`
}

// Reversal is what was said when a step was reversed.
type Reversal struct {
	State  State      `json:"state" enum:"off,back,skipped"`
	Reason string     `json:"reason" says:"text" maxLength:"400" required:"false" doc:"Why the step is skipped"`
	Left   []LeftOver `json:"left" maxItems:"40" doc:"Fasteners that did not go back"`
}

// Fits refuses a reversal that does not fit its step.
func (r Reversal) Fits(s Step) error {
	if r.State == Skipped && strings.TrimSpace(r.Reason) == "" {
		return malformed.In("reason", "say why the step is skipped: somebody else will look for what is missing")
	}
	seen := map[int]bool{}
	for _, l := range r.Left {
		if l.Fastener < 0 || l.Fastener >= len(s.Fasteners) || seen[l.Fastener] {
			return malformed.In("left", "names a fastener that the step does not have, or names it twice")
		}
		seen[l.Fastener] = true
		if f := s.Fasteners[l.Fastener]; l.Count < 1 || l.Count > f.Count {
			return malformed.In("left", "%d of %s are left over, the step has %d", l.Count, f.name(), f.Count)
		}
	}
	return nil
}

// Logged is a step of a log, the first that came off numbered 1.
type Logged struct {
	N int
	Step
	Reversal
}

// Connector is where a plug of the machine's map stands now.
type Connector struct {
	Name string
	Open bool
}
