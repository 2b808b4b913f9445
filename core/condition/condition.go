// Package condition answers how a machine is, part by part, and how that changed from survey to survey.
//
// Severities, grades and what to look for are this house's own rules of thumb, in subsystems.tsv and below.
package condition

import (
	"slices"
	"time"
)

// Severity is how grave an open finding is.
type Severity string

// Severities, from the lightest.
const (
	Cosmetic Severity = "cosmetic" // seen, but changes nothing
	Watch    Severity = "watch"    // works, and may get worse
	Repair   Severity = "repair"   // does not do what it should
	Hazard   Severity = "hazard"   // hurts people, or its neighbours
)

// Severities lists them from the lightest, each with what it means.
func Severities() []GradeMeans {
	return []GradeMeans{
		{string(Cosmetic), "seen, but changes nothing of what it does"},
		{string(Watch), "works, and may get worse: look again"},
		{string(Repair), "does not do what it should, or soon will not"},
		{string(Hazard), "may hurt somebody, or eats what is next to it"},
	}
}

// Graver returns the graver of two severities; what is none is the lightest.
func Graver(a, b Severity) Severity {
	if rank(b) > rank(a) {
		return b
	}
	return a
}

// rank orders severities from the lightest, at 0; -1 for what is none.
func rank(s Severity) int {
	return slices.IndexFunc(Severities(), func(one GradeMeans) bool { return one.Grade == string(s) })
}

// IsKnown reports whether it is one of Severities.
func (s Severity) IsKnown() bool { return rank(s) >= 0 }

// Observation is a finding as it was seen on a day.
type Observation struct {
	ID       int64     // 0 where it follows from something else than a survey or a note
	SurveyID int64     // 0 when it was seen outside a survey
	On       string    // YYYY-MM-DD
	At       time.Time // when it was written down, which orders what is of one day
	Severity Severity  // while it is there; empty where nobody said it
	Trend    string    // worse, better or same, where the severity does not tell
	Gone     bool      // it is not there any more
	Note     string
	By       string
	Source   Source
}

// Source says how a finding is known.
type Source string

// Sources of findings.
const (
	FromSurvey      Source = "survey"
	FromNote        Source = "note"        // said beside a survey, or left by a log
	FromSheet       Source = "sheet"       // marked on the sheet of a board
	FromOutside     Source = "outside"     // marked on the sheet of the outside
	FromMeasurement Source = "measurement" // out of its limits
	FromPart        Source = "part"        // it went with the part
)

// Finding is something found, with all its observations in the order of their days.
type Finding struct {
	ID           int64  // 0 while it is known from elsewhere than surveys and notes alone
	Key          string // tells it from all others of the machine
	Subsystem    string
	Kind         string
	Place        string // in words
	Assembly     int64  // the board it is on; 0 for none
	Parts        string // designators, as written
	Line         int    // of the sheet on which it is marked today; 0 for none
	Standing     bool   // it stands on a sheet today
	Observations []Observation
}

// State says how a finding stands at a survey.
type State string

// States of a finding at a survey.
const (
	Unseen State = ""        // it was not there yet
	New    State = "new"     // first seen
	Worse  State = "worse"   // graver than before
	Same   State = "same"    // as before
	Better State = "better"  // lighter than before
	Gone   State = "gone"    // mended, or not to be found any more
	Back   State = "back"    // it was gone, and is there again
	NotAt  State = "no look" // nobody looked there at this survey
)

// Coverage says whether a subsystem was looked at in a survey.
type Coverage string

// Looks.
const (
	Inspected Coverage = "inspected"
	NotLooked Coverage = "not inspected"
	Absent    Coverage = "absent" // the machine has none
)

// Survey is one inspection of a machine.
type Survey struct {
	ID       int64
	On       string              // YYYY-MM-DD
	Coverage map[string]Coverage // by subsystem; what is left out was not looked at
}

func (s Survey) look(subsystem string) Coverage {
	if l, ok := s.Coverage[subsystem]; ok {
		return l
	}
	return NotLooked
}

// seen is the place of the observation that counts at a survey: its own, or -1.
func (f Finding) seen(survey Survey) int {
	return slices.IndexFunc(f.Observations, func(s Observation) bool { return s.SurveyID == survey.ID })
}

// At says how a finding stands at a survey.
func (f Finding) At(survey Survey) State {
	at := f.seen(survey)
	if at < 0 {
		if len(f.Observations) == 0 || f.Observations[0].On > survey.On {
			return Unseen
		}
		if last := f.lastUntil(survey.On); last >= 0 && f.Observations[last].Gone {
			return Unseen
		}
		return NotAt
	}
	return f.step(at)
}

// step says how an observation stands to the one before it.
func (f Finding) step(at int) State {
	now := f.Observations[at]
	switch {
	case now.Gone:
		return Gone
	case at == 0:
		return New
	}
	before := f.Observations[at-1]
	switch {
	case before.Gone:
		return Back
	case rank(now.Severity) > rank(before.Severity):
		return Worse
	case rank(now.Severity) < rank(before.Severity):
		return Better
	case now.Trend == "worse":
		return Worse
	case now.Trend == "better":
		return Better
	}
	return Same
}

// lastUntil is the place of the last observation up to a day, or -1.
func (f Finding) lastUntil(day string) int {
	last := -1
	for i, s := range f.Observations {
		if s.On <= day {
			last = i
		}
	}
	return last
}

// Story is how a finding stands today, and what became of it.
type Story struct {
	Open     bool     `json:"open"`
	Severity Severity `json:"severity" enum:"cosmetic,watch,repair,hazard" doc:"The last one; of a gone finding the one that it had"`
	State    State    `json:"state" enum:",new,worse,same,better,gone,back,no look"`
	FirstOn  string   `json:"firstOn" doc:"First seen, YYYY-MM-DD"`
	LastOn   string   `json:"lastOn" doc:"Last seen or said to be gone"`
	GoneOn   string   `json:"goneOn" doc:"When it was last said to be gone; empty for never"`
	BackOn   string   `json:"backOn" doc:"When it came back after that; empty for not"`
	Words    string   `json:"words" says:"text" doc:"All of that in a sentence"`
}

// Tell tells a finding's story so far.
func (f Finding) Tell() Story {
	s := Story{}
	for i, one := range f.Observations {
		if i == 0 {
			s.FirstOn = one.On
		}
		s.LastOn, s.State, s.Open = one.On, f.step(i), !one.Gone
		switch {
		case one.Gone:
			s.GoneOn, s.BackOn = one.On, ""
		case s.State == Back:
			s.BackOn = one.On
		}
		if !one.Gone {
			s.Severity = one.Severity
		}
	}
	switch {
	case len(f.Observations) == 0:
		s.Words = "not seen yet"
	case s.BackOn != "":
		s.Words = "first seen " + s.FirstOn + ", gone " + s.GoneOn + ", back " + s.BackOn
		if s.LastOn > s.BackOn {
			s.Words += ", " + string(s.State) + " " + s.LastOn
		}
	case !s.Open:
		s.Words = "first seen " + s.FirstOn + ", gone " + s.GoneOn
	case s.State == New:
		s.Words = "new " + s.FirstOn
	default:
		s.Words = "first seen " + s.FirstOn + ", " + string(s.State) + " " + s.LastOn
	}
	if f.Standing && !s.Open {
		s.Words += ", though the sheet still says it"
	}
	return s
}
