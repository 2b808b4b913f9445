// Package job answers: which work mends what was found, in which order is it done, and what do people forget?
package job

import (
	_ "embed"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"

	"frugalheron/core/table"
)

//go:embed templates.tsv
var templateTable string

// Reversible says whether a job can be taken back.
type Reversible string

// How far a job can be taken back.
const (
	Fully  Reversible = "yes"
	Partly Reversible = "partly"
	Never  Reversible = "no"
)

// Template is a job as it is usually done.
type Template struct {
	Key        string     `json:"key"`
	Title      string     `json:"title"`
	Minutes    int        `json:"minutes" doc:"That it usually takes"`
	Reversible Reversible `json:"reversible" enum:"yes,partly,no"`
	Tools      []string   `json:"tools"`
	Needs      []string   `json:"needs" doc:"What is used up or fitted"`
	Steps      []string   `json:"steps" doc:"In working order"`
	Forget     string     `json:"forget" doc:"The step that people forget"`
	Undo       string     `json:"undo" doc:"What would undo it"`
	Proof      string     `json:"proof" doc:"The test that proves it"`
	subsystems []string
	words      *regexp.Regexp
}

// Templates lists all, in the order in which they are offered.
func Templates() []Template { return slices.Clone(templates()) }

var templates = sync.OnceValue(func() []Template {
	all := []Template{}
	list := func(cell string) []string {
		return strings.FieldsFunc(strings.ReplaceAll(cell, "; ", ";"), func(r rune) bool { return r == ';' })
	}
	for _, c := range table.Reference("templates of jobs", templateTable, "key", "title", "subsystems", "words",
		"minutes",
		"reversible", "tools", "needs", "steps", "forget", "undo", "proof", "source") {
		t := Template{Key: c[0], Title: c[1], subsystems: strings.Fields(c[2]),
			words:      regexp.MustCompile(`(?i)` + c[3]),
			Reversible: Reversible(c[5]), Tools: list(c[6]), Needs: list(c[7]), Steps: list(c[8]), Forget: c[9],
			Undo:  c[10],
			Proof: c[11]}
		t.Minutes, _ = strconv.Atoi(c[4])
		all = append(all, t)
	}
	return all
})

// Of finds a template by its key.
func Of(key string) (Template, bool) {
	at := slices.IndexFunc(templates(), func(t Template) bool { return t.Key == key })
	if at < 0 {
		return Template{}, false
	}
	return templates()[at], true
}

// For lists the templates that fit a finding, by its subsystem and by what is said of it; first those that fit both.
func For(subsystem, words string) []Template {
	both, one := []Template{}, []Template{}
	for _, t := range templates() {
		fits := slices.Contains(t.subsystems, subsystem)
		switch said := t.words.MatchString(words); {
		case said && fits:
			both = append(both, t)
		case said && slices.Contains(t.subsystems, "*"):
			one = append(one, t)
		}
	}
	return append(both, one...)
}

// State is how a job stands.
type State string

// States of a job, in the order of work.
const (
	WaitsForPart  State = "waiting for part"
	WaitsForHands State = "waiting for hands"
	InHand        State = "in hand"
	Done          State = "done"
	Declined      State = "declined"
)

// IsOpen reports whether something is left to do.
func (s State) IsOpen() bool { return s != Done && s != Declined }
