package model

import (
	"strings"

	"frugalheron/core/facts"
	"frugalheron/core/measure"
	"frugalheron/core/quantity"
)

// Figures are what machines of a model measure and show: what a rail or another point should have, and the most that
// firmware shows of something. They are written a line each:
//
//	+5 = 4.9 .. 5.2 V
//	disk size <= 504 MiB
type Figures struct {
	Points []Point
	Limits []facts.Limit
}

// Point is what should be measured at a point, as a rail or the pin of a chip.
type Point struct {
	Name     string
	Quantity quantity.Quantity
	Expected measure.Expected
}

// ParseFigures reads the figures of a model, by the name of which they are told. Empty lines and comments behind # are
// skipped.
func ParseFigures(model, text string) (Figures, []Problem) {
	var figures Figures
	problems := []Problem{}
	for i, line := range strings.Split(text, "\n") {
		line, _, _ = strings.Cut(line, "#")
		if line = strings.TrimSpace(line); line == "" {
			continue
		}
		if why := figures.read(model, line); why != "" {
			problems = append(problems, Problem{i + 1, why})
		}
	}
	return figures, problems
}

// read takes a line, or says why it cannot be read.
func (f *Figures) read(model, line string) (why string) {
	if name, amount, isLimit := strings.Cut(line, "<="); isLimit {
		attribute := strings.Join(strings.Fields(strings.ToLower(name)), "-")
		limit, err := facts.ReadLimit("the firmware of "+model, attribute, strings.TrimSpace(amount))
		if err != nil {
			return err.Error()
		}
		f.Limits = append(f.Limits, limit)
		return ""
	}
	name, wanted, isPoint := strings.Cut(line, "=")
	if !isPoint || strings.TrimSpace(name) == "" {
		return "is no figure; write a point and what it should have, as +5 = 4.9 .. 5.2 V, or the most that is shown, " +
			"as disk size <= 504 MiB"
	}
	point := Point{Name: strings.Join(strings.Fields(name), " ")}
	var err error
	if point.Quantity, point.Expected, err = measure.Expect(point.Name, strings.TrimSpace(wanted)); err != nil {
		return err.Error()
	}
	point.Expected.From = "so says the record of " + model
	f.Points = append(f.Points, point)
	return ""
}

// At is what should be measured at a point, where the model says so.
func (f Figures) At(point string, of quantity.Quantity) (measure.Expected, bool) {
	for _, p := range f.Points {
		if p.Quantity == of && key(p.Name) == key(point) {
			return p.Expected, true
		}
	}
	return measure.Expected{}, false
}
