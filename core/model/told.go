package model

import (
	"fmt"
	"strconv"
	"strings"

	"frugalheron/core/calendar"
	"frugalheron/core/edtf"
	"frugalheron/core/facts"
)

// Told is a fact as it is told of a model.
type Told struct {
	facts.Statement
	Said string // how one knows, in the words of the line
}

// ParseFacts reads what is told of a model, a fact a line:
//
//	processor = HX8810 | service handbook of 1985
//	memory = 64/256/640 KB | price list | 1986-03
//	since of main board rev C = 1985-03 | letter of the maker
//
// An attribute stands before the =, behind of the part that it is about; strokes divide value, source and date. A source
// begins with how it is known where that is no document, as label: rating plate. One without a source counts as recalled.
// Each statement has the number of its line as its id.
func ParseFacts(text string) ([]Told, []Problem) {
	told, problems := []Told{}, []Problem{}
	for i, line := range strings.Split(text, "\n") {
		if before, _, isNoted := strings.Cut(" "+line, " #"); isNoted {
			line = before
		}
		if line = strings.TrimSpace(line); line == "" {
			continue
		}
		one, why := readFact(line)
		if why != "" {
			problems = append(problems, Problem{i + 1, why})
			continue
		}
		one.ID = strconv.Itoa(i + 1)
		told = append(told, one)
	}
	return told, problems
}

func readFact(line string) (Told, string) {
	one := Told{facts.Statement{Source: facts.Recalled}, facts.Recalled.Words()}
	name, rest, isFact := strings.Cut(line, "=")
	cells := strings.Split(rest, "|")
	for i := range cells {
		cells[i] = strings.Join(strings.Fields(cells[i]), " ")
	}
	name, subject, _ := strings.Cut(strings.Join(strings.Fields(name), " "), " of ")
	if !isFact || name == "" || cells[0] == "" {
		return one, "is no fact; write it as processor = HX8810 | service handbook of 1985"
	}
	if len(cells) > 3 {
		return one, "has more than a value, a source and a date"
	}
	one.Attribute, one.Subject, one.Value = strings.ReplaceAll(strings.ToLower(name), " ", "-"), subject, cells[0]
	// What is told of a model is so for all of its time.
	constant := facts.Constant
	one.Nature = &constant
	if a := facts.AttributeOf(one.Attribute); a.Form == facts.Quantity && strings.Contains(one.Value, "/") {
		list := facts.List
		one.Form = &list
	}
	if len(cells) > 1 && cells[1] != "" {
		one.Source, one.Said = facts.Document, cells[1]
		if word, _, said := strings.Cut(cells[1], ":"); said {
			word = strings.ToLower(strings.TrimSpace(word))
			if source, called := facts.SourceCalled(word); called {
				one.Source = source
			} else if source := facts.Source(word); source.IsKnown() {
				one.Source = source
			}
		}
	}
	if len(cells) > 2 && cells[2] != "" {
		one.On = &cells[2]
	}
	return one, ""
}

// CheckFacts says what cannot be judged of the facts of a model: values that their attributes cannot have, dates that are
// none. Today is written YYYY-MM-DD.
func CheckFacts(told []Told, today string) ([]facts.Fact, []Problem, error) {
	statements := make([]facts.Statement, len(told))
	for i, one := range told {
		statements[i] = one.Statement
	}
	judged, err := facts.Judge(facts.Input{Now: today, Statements: statements})
	problems := []Problem{}
	for _, p := range judged.Problems {
		line, _ := strconv.Atoi(p.ID) //nolint:errcheck // ids are numbers of lines
		problems = append(problems, Problem{line, fmt.Sprintf("cannot be: %s", p.Why)})
	}
	return judged.Facts, problems, err
}

// Placed says how the time in which a machine was built lies to that in which its model was made.
type Placed string

// Ways of lying.
const (
	Within  Placed = "within"
	Before  Placed = "before"
	After   Placed = "after"
	Partly  Placed = "partly" // it may be, and may not
	Nowhere Placed = "unknown"
)

// Place lays the time in which a machine was built into that in which its model was made.
func Place(made edtf.Date, from, to calendar.Date) Placed {
	first, last := made.Earliest(), made.Latest()
	switch {
	case to.Before(first):
		return Before
	case last.Before(from):
		return After
	case from.Before(first) || last.Before(to):
		return Partly
	}
	return Within
}
