// Package sharing answers: which machines depend on a peripheral, and what stops while it is not there?
package sharing

import (
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/verdict"
)

// Thing is a peripheral, where it is and how it is.
type Thing struct {
	Title   string
	Machine string // accession number of the machine that it is in; empty for none
	Place   string // where it lies
	LentTo  string
	Due     string // day by which a loan is to be back; empty where none is told
	Broken  string // an open finding that keeps it from working; empty for none
	IsGone  bool   // it was struck out
}

// Service is that a peripheral serves a machine.
type Service struct {
	ThingID int64
	Thing   Thing
	Machine string // accession number
	As      string // keyboard, monitor, supply ...
	Without string // what the machine does not do without one
}

// State is whether a peripheral can serve.
type State string

// States.
const (
	There State = "there"
	InUse State = "in use" // it is in another machine
	Lent  State = "lent"
	Bad   State = "broken"
	Gone  State = "gone"
)

// Standing is how a service stands.
type Standing struct {
	State    State    `json:"state" enum:"there,in use,lent,broken,gone"`
	Why      string   `json:"why" says:"text"`
	Others   []string `json:"others" doc:"Accession numbers of the other machines that it serves"`
	Instead  []string `json:"instead" says:"text" doc:"What else serves the machine as the same, and is there"`
	Stops    string   `json:"stops" says:"text" doc:"What the machine does not do now; empty while something serves it"`
	IsNeeded bool     `json:"isNeeded" doc:"Nothing else could serve the machine, were it taken away"`
}

// stateOf tells whether a peripheral can serve a machine, and where it is.
func (t Thing) stateOf(machine string) (State, string) {
	switch {
	case t.IsGone:
		return Gone, "it was struck out"
	case t.LentTo != "":
		why := "it is lent to " + t.LentTo
		if t.Due != "" {
			why += " until " + t.Due
		}
		return Lent, why
	case t.Broken != "":
		return Bad, "it is not sound: " + t.Broken
	case t.Machine != "" && t.Machine != machine:
		return InUse, "it is in " + t.Machine
	case t.Machine != "":
		return There, "it is in the machine"
	case t.Place != "":
		return There, "it lies at " + t.Place
	}
	return There, "it is in the house"
}

// Judge tells of each service how it stands. All services of a machine as the same must be among them, and all services of
// each peripheral.
func Judge(services []Service) []Standing {
	told := make([]Standing, len(services))
	for i, s := range services {
		one := Standing{Others: []string{}, Instead: []string{}}
		one.State, one.Why = s.Thing.stateOf(s.Machine)
		for _, other := range services {
			if other.ThingID == s.ThingID && other.Machine != s.Machine && !slices.Contains(one.Others, other.Machine) {
				one.Others = append(one.Others, other.Machine)
			}
			if other.ThingID != s.ThingID && other.Machine == s.Machine && strings.EqualFold(other.As, s.As) {
				if state, _ := other.Thing.stateOf(s.Machine); state == There {
					one.Instead = append(one.Instead, other.Thing.Title)
				}
			}
		}
		slices.Sort(one.Others)
		one.IsNeeded = len(one.Instead) == 0
		if one.State != There && one.IsNeeded {
			one.Stops = s.Without
			if one.Stops == "" {
				one.Stops = "it has no " + s.As
			}
		}
		told[i] = one
	}
	return told
}

var stops = verdict.NewSentence("stops-without", "{stops}: {thing} serves it as {as}; {why}")

// VerdictOf says what a machine does not do because a peripheral is not there.
func VerdictOf(services []Service, standings []Standing) verdict.Verdict {
	v := verdict.Verdict{Key: "shared", Label: "Peripherals", State: verdict.Attention}
	missing := []string{}
	for i, one := range standings {
		s := services[i]
		if one.Stops == "" {
			continue
		}
		if !slices.Contains(missing, s.As) {
			missing = append(missing, s.As)
		}
		v.Why = append(v.Why, stops.Because(one.Stops, s.Thing.Title, s.As, one.Why))
	}
	if len(missing) > 0 {
		v.Value = fmt.Sprintf("no %s", strings.Join(missing, ", no "))
	}
	return v
}
