// Package part answers: may this part stand where that one is asked for, and why or why not?
//
// Both are told in words, as they stand in a list of needs or on a drawer: "470u/16V radial 105C". What the words do not
// say is never taken for granted.
package part

import (
	"fmt"
	"strings"

	"frugalheron/core/device"
	"frugalheron/core/malformed"
)

// Kind is what sort of part it is.
type Kind string

// Kinds whose properties are compared. All else is compared by its words.
const (
	Capacitor Kind = "capacitor"
	Resistor  Kind = "resistor"
	Battery   Kind = "battery"
	Memory    Kind = "memory"
	Chip      Kind = "chip"
	Other     Kind = ""
)

// Part is what the words of a part say; what they do not say is zero.
type Part struct {
	Text       string
	Kind       Kind
	Value      Value
	Volts      float64 // direct
	VoltsAC    float64
	Safety     []string // X1 to X3, Y1 to Y4
	Dielectric string   // electrolytic, tantalum, ceramic, film
	Unpolar    bool     // may be put in either way round
	Celsius    float64  // up to which it may be used
	Watts      float64
	Diameter   float64 // mm, or width
	Height     float64 // mm, or length
	Pitch      float64 // mm between the leads
	Package    string
	Chemistry  string
	Charge     charge
	MAh        float64
	Number     string // of its type; empty for one that the library does not know
	Function   string
	Family     string // how logic is made
	Class      device.Class
	device.Organisation
	Nanoseconds int
	MHz         float64
	Words       []string // that nobody could read, in lower case
	lower       string   // the text in lower case
	beside      bool     // it holds or serves a part, and is none itself
}

// charge says whether a cell is charged where it sits, or may be.
type charge int

const (
	unsaid charge = iota
	charged
	primary
)

// Grade is how well a part stands for another.
type Grade string

// Grades, from the best.
const (
	Exact      Grade = "exact"
	Better     Grade = "better"
	Acceptable Grade = "acceptable" // usable with a note
	No         Grade = "no"
)

// Grades lists them from the best.
func Grades() []Grade { return []Grade{Exact, Better, Acceptable, No} }

// Fit is how a part stands for a need, and why.
type Fit struct {
	Grade Grade    `json:"grade" enum:"exact,better,acceptable,no"`
	Why   []string `json:"why"`
}

// longest is how long the words of a part may be, in bytes.
const longest = 1000

// Match reads both in words and compares them.
func Match(library *device.Library, need, have string) (Fit, error) {
	for _, one := range []struct{ field, text string }{{"need", need}, {"have", have}} {
		switch {
		case strings.TrimSpace(one.text) == "":
			return Fit{}, malformed.In(one.field, "%s: write what part it is, as 470u/16V", one.field)
		case len(one.text) > longest:
			return Fit{}, malformed.In(one.field, "%s: longer than %d bytes", one.field, longest)
		}
	}
	return Compare(Read(library, need), Read(library, have)), nil
}

// finding is how one property compares.
type finding int

const (
	equal finding = iota
	better
	noted
	broken
)

// comparison collects how the properties compare.
type comparison struct {
	quiet    bool // asked for the grade only
	worst    finding
	improved bool
	why      []string
}

func (c *comparison) is(f finding, format string, about ...any) {
	if f == better {
		c.improved = true
	} else {
		c.worst = max(c.worst, f)
	}
	if c.quiet {
		return
	}
	c.why = append(c.why, fmt.Sprintf(format, about...))
}

func (c *comparison) fit() Fit {
	f := Fit{Grade: Exact, Why: append([]string{}, c.why...)}
	switch {
	case c.worst == broken:
		f.Grade = No
	case c.worst == noted:
		f.Grade = Acceptable
	case c.improved:
		f.Grade = Better
	}
	return f
}
