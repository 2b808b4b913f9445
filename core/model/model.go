// Package model answers what a machine of a model is expected to hold, and how far the one at hand does.
//
// What is expected is written a line each, the parts of a line with strokes between:
//
//	Main board | part 4410-2
//	Memory card | part 4424-1 | option | from 1986-03
//	Video card | part 4422-1 | option
package model

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/edtf"
	"frugalheron/core/known"
)

// Expected is an assembly that machines of a model hold, or could be had with.
type Expected struct {
	Line   int    `json:"line"`
	Title  string `json:"title" says:"text"`
	Part   string `json:"part"`
	Option bool   `json:"option"`
	From   string `json:"from"` // EDTF, since when it could be had; empty for from the beginning
}

// Problem is a line that cannot be read.
type Problem struct {
	Line    int    `json:"line"`
	Message string `json:"message"`
}

// Parse reads what is expected. Empty lines and comments behind # are skipped.
func Parse(text string) ([]Expected, []Problem) {
	expected, problems := []Expected{}, []Problem{}
	for i, line := range strings.Split(text, "\n") {
		line, _, _ = strings.Cut(line, "#")
		if strings.TrimSpace(line) == "" {
			continue
		}
		one, err := readLine(i+1, line)
		if err != nil {
			problems = append(problems, Problem{i + 1, err.Error()})
			continue
		}
		expected = append(expected, one)
	}
	return expected, problems
}

func readLine(number int, line string) (Expected, error) {
	one := Expected{Line: number}
	for i, cell := range strings.Split(line, "|") {
		cell = strings.Join(strings.Fields(cell), " ")
		word, rest, _ := strings.Cut(cell, " ")
		switch {
		case i == 0 && cell == "":
			return one, errors.New("starts without a name; write what it is first, as Main board")
		case i == 0:
			one.Title = cell
		case strings.EqualFold(word, "part") && rest != "":
			one.Part = rest
		case strings.EqualFold(cell, "option"):
			one.Option = true
		case strings.EqualFold(word, "from") && rest != "":
			d, err := edtf.Parse(rest)
			if err != nil {
				return one, fmt.Errorf("since when: %w", err)
			}
			one.From = d.String()
		default:
			return one, fmt.Errorf("%q is not known; after the name come part and its number, option, from and a date",
				cell)
		}
	}
	return one, nil
}

// Fitted is an assembly of the machine at hand.
type Fitted struct {
	ID    int64
	Title string
	Part  string
	Fit   string // factory, period, later, modern or unknown

	KnownAs []string // part numbers of what it is recognised as
}

// has reports whether a part number is that of a fitted one, however it is written, or of what that is known as.
func (f Fitted) has(part string) bool {
	return known.SameNumber(part, f.Part) ||
		slices.ContainsFunc(f.KnownAs, func(number string) bool { return known.SameNumber(part, number) })
}

// State says how an assembly stands to what is expected.
type State string

// States.
const (
	AsExpected   State = "fitted"
	Missing      State = "missing"
	WithOption   State = "option fitted"
	Available    State = "option not fitted"
	Extra        State = "extra"
	NotOriginal  State = "not original"
	OtherVersion State = "other part number"
)

// Row is one assembly, expected or fitted.
type Row struct {
	State    State     `json:"state" enum:"fitted,missing,option fitted,option not fitted,extra,not original,other part number"`
	Expected *Expected `json:"expected"` // null for an extra one
	FittedID int64     `json:"fittedId"` // 0 for a missing one
	Title    string    `json:"title" says:"text"`
	Part     string    `json:"part"`
	Why      string    `json:"why" says:"text"`
}

// Compare lays what is fitted beside what is expected: by the part number, and where no number fits by the
// name.
func Compare(expected []Expected, fitted []Fitted) []Row {
	taken := make([]int, len(expected)) // index of the fitted one and 1; 0 for none
	used := make([]bool, len(fitted))
	for _, fits := range []func(Expected, Fitted) bool{
		func(e Expected, f Fitted) bool {
			return e.Part != "" && f.has(e.Part) && key(e.Title) == key(f.Title)
		},
		func(e Expected, f Fitted) bool { return e.Part != "" && f.has(e.Part) },
		func(e Expected, f Fitted) bool { return key(e.Title) == key(f.Title) },
	} {
		for i, e := range expected {
			for j, f := range fitted {
				if taken[i] == 0 && !used[j] && fits(e, f) {
					taken[i], used[j] = j+1, true
				}
			}
		}
	}
	rows := []Row{}
	for i := range expected {
		if taken[i] == 0 {
			rows = append(rows, absent(expected[i]))
		} else {
			rows = append(rows, present(expected[i], fitted[taken[i]-1]))
		}
	}
	for j, f := range fitted {
		if !used[j] {
			rows = append(rows,
				Row{State: Extra, FittedID: f.ID, Title: f.Title, Part: f.Part,
					Why: "nothing of the kind is known for the model"})
		}
	}
	return rows
}

func absent(e Expected) Row {
	row := Row{State: Missing, Expected: &e, Title: e.Title, Part: e.Part,
		Why: "every machine of the model was sold with one"}
	if e.Option {
		row.State, row.Why = Available, "could be had for the model"
		if e.From != "" {
			row.Why += " from " + e.From + " on"
		}
	}
	return row
}

func present(e Expected, f Fitted) Row {
	row := Row{State: AsExpected, Expected: &e, FittedID: f.ID, Title: f.Title, Part: f.Part}
	if e.Option {
		row.State = WithOption
	}
	switch {
	case f.Fit == "later" || f.Fit == "modern":
		row.State, row.Why = NotOriginal, "it is of the expected kind, but came into the machine "+f.Fit
	case e.Part != "" && f.Part != "" && !f.has(e.Part):
		row.State, row.Why = OtherVersion, fmt.Sprintf("the model has %s, this is %s", e.Part, f.Part)
	}
	return row
}

func key(text string) string { return strings.ToLower(strings.Join(strings.Fields(text), " ")) }
