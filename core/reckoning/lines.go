package reckoning

import (
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/device"
	"frugalheron/core/memory"
	"frugalheron/core/sheet"
	"frugalheron/core/verdict"
)

// LineState says in one word how far a line of the sheet was understood.
type LineState string

// States of a line.
const (
	Recognised LineState = "recognised" // a chip of a known type, or a module of known capacity
	Unknown    LineState = "unknown"    // a chip that nobody has named, or read with certainty
	PartLine   LineState = "part"       // any other part
	ProblemAt  LineState = "problem"    // something is wrong; the line is kept as text
	TextLine   LineState = "text"       // no designator; kept as text
)

// Line is what was made of one line of the sheet. Comments and empty lines have none.
type Line struct {
	Line  int       `json:"line"`
	State LineState `json:"state" enum:"recognised,unknown,part,problem,text"`
	Text  string    `json:"text" doc:"In words, for the margin"`
	// Nameable is the number under which an unknown chip could be named.
	Nameable string `json:"nameable" doc:"The number under which an unknown chip could be named; empty for all else"`
}

// Lines lists the state of each line, in order. A problem on a line goes before all else.
func (r Result) Lines() []Line {
	lines := []Line{}
	hasProblem := map[int]bool{}
	for _, p := range r.Problems {
		lines = append(lines, Line{Line: p.Line, State: ProblemAt, Text: p.Message})
		hasProblem[p.Line] = true
	}
	for _, a := range r.Assemblies {
		for i := range a.Entries {
			lines = append(lines, a.Entries[i].line())
		}
		for _, text := range a.Texts {
			if !hasProblem[text.Line] {
				lines = append(lines,
					Line{Line: text.Line, State: TextLine, Text: "kept as text: no designator at the start"})
			}
		}
	}
	slices.SortStableFunc(lines, func(a, b Line) int { return a.Line - b.Line })
	return lines
}

func (e *Entry) line() Line {
	l := Line{Line: e.Line, State: PartLine, Text: string(e.Kind)}
	switch {
	case e.Empty:
		l.Text = "empty socket"
		if sheet.IsLent(e.Findings) {
			l.Text = "empty socket, its part is lent"
		}
	case e.IsUnidentified():
		l.State, l.Text, l.Nameable = Unknown, string(e.Kind)+", type not known", e.nameable
		if e.Doubtful {
			l.Text = string(e.Kind) + ", reading doubtful"
		}
	case e.Type != nil:
		l.State, l.Text = Recognised, Describe(e.Type)
		if e.Doubtful {
			l.State, l.Text = Unknown, l.Text+", a character is doubtful"
		}
	case e.Kind == Module:
		l.State, l.Text = Unknown, "module, capacity not written"
	}
	if e.SpeedNs > 0 {
		l.Text += fmt.Sprintf(", %d ns", e.SpeedNs)
	}
	if e.ClockMHz > 0 {
		l.Text += fmt.Sprintf(", %g MHz", e.ClockMHz)
	}
	switch {
	case e.Date != nil:
		l.Text += ", " + e.Date.Text
	case len(e.DateReadings) > 1:
		readings := []string{}
		for _, c := range e.DateReadings {
			readings = append(readings, c.Text)
		}
		l.Text += ", date open: " + strings.Join(readings, " or ")
	}
	if e.New != nil {
		l.Text += ", new since " + *e.New
	}
	return l
}

// Describe says what a type is in a few words: function and, for memory, organisation.
func Describe(t *device.Type) string {
	text := t.Number + " " + t.Function
	if t.Words > 0 {
		text += fmt.Sprintf(", %s x %d", words(t.Words), t.Bits)
	}
	return text
}

// words writes a number of words the way data sheets do: 16384 is 16K.
func words(n int) string {
	switch {
	case n%(1<<20) == 0:
		return fmt.Sprintf("%dM", n>>20)
	case n%(1<<10) == 0:
		return fmt.Sprintf("%dK", n>>10)
	}
	return fmt.Sprint(n)
}

// names lists the designators of an entry shortly: the first and last of a run, or the count.
func (e *Entry) names() verdict.Word {
	switch n := len(e.Designators); {
	case n == 0:
		return verdict.Word(fmt.Sprintf("%d without designator", e.Count))
	case n <= 3:
		return verdict.Word(strings.Join(e.Designators, ", "))
	default:
		return verdict.Word(fmt.Sprintf("%s to %s (%d)", e.Designators[0], e.Designators[n-1], n))
	}
}

// capacity says what an entry adds to memory, in words.
func (e *Entry) capacity() string {
	c := memory.Of(e.bank())
	text := fmt.Sprintf("%d x %s x %d bits: %s", e.Count, words(e.Type.Words), e.Type.Bits, memory.Format(c.DataBits/8))
	if c.ParityBits > 0 {
		text += fmt.Sprintf(" and %s of parity", memory.Format(c.ParityBits/8))
	}
	return text
}
