// Package exterior answers: what does the outside of a machine tell? Its sheet is written as a board's
// is, in the order the eye meets things on the way round: a heading for each side, then a line for each
// thing that is there, or that should be and is not.
//
//	== front
//	badge     model "Meridian 2"
//	door      drive door !cracked: left hinge
//	== rear
//	plate     220-240 V 50 Hz 0.6 A earth
//	label     serial "TV2-00817"
//	port      D-sub 25 female "SERIAL" use: printer
//	missing   blanking plate, slot 4
//	== underside
//	foot      3 of 4
//	weight    11.4 kg
//
// What stands in quotes is verbatim. Lines whose first word says no thing are kept as text.
package exterior

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
	"unicode/utf8"

	"frugalheron/core/facts"
	"frugalheron/core/reckoning"
	"frugalheron/core/sheet"
)

// Sheet is the outside as it was read.
type Sheet struct {
	Entries  []Entry
	Seen     []Face // in the order of the text
	Problems []sheet.Problem
	texts    []reckoning.Line
}

// Entry is one thing on the outside.
type Entry struct {
	Line     int
	Face     Face
	Thing    string // badge, port ...
	Words    string // as written, without the thing, the reading and the findings
	Reading  string // what stands in quotes: verbatim from the thing
	Use      string // what a port is for, as written behind use:
	Findings []sheet.Mark
}

// Text is what a thing is said to be, as a list shows it.
func (e Entry) Text() string {
	parts := []string{e.Words}
	if e.Reading != "" {
		parts = append(parts, `"`+e.Reading+`"`)
	}
	if e.Use != "" {
		parts = append(parts, "for "+e.Use)
	}
	return strings.TrimSpace(strings.Join(parts, " "))
}

var (
	quoted  = regexp.MustCompile(`"([^"]*)"`)
	useWord = regexp.MustCompile(`(?i)\buse:\s*(.+)$`)
)

// Parse reads the sheet of an outside.
func Parse(text string) Sheet {
	s := Sheet{Problems: []sheet.Problem{}}
	p := parser{sheet: &s}
	text = strings.ReplaceAll(strings.ReplaceAll(text, "\r\n", "\n"), "\r", "\n")
	for i, line := range strings.Split(text, "\n") {
		p.line(i+1, line)
	}
	return s
}

type parser struct {
	sheet *Sheet
	face  Face
}

func (p *parser) problem(number, column int, format string, args ...any) {
	p.sheet.Problems = append(p.sheet.Problems,
		sheet.Problem{Line: number, Column: column, Message: fmt.Sprintf(format, args...)})
}

func (p *parser) line(number int, line string) {
	content := strings.TrimSpace(withoutComment(line))
	if content == "" {
		return
	}
	column := utf8.RuneCountInString(line[:len(line)-len(strings.TrimLeft(line, " \t"))]) + 1
	if heading, found := strings.CutPrefix(content, "=="); found {
		face, known := faceOf(heading)
		if !known {
			p.problem(number, column, "no side of a machine; the sides are %s", sides())
			return
		}
		p.face = face
		p.sheet.Seen = append(p.sheet.Seen, face)
		return
	}
	first, rest, _ := strings.Cut(content, " ")
	word := strings.ToLower(strings.TrimSuffix(first, ":"))
	thing, known := things()[word]
	switch {
	case !known:
		p.sheet.texts = append(p.sheet.texts,
			reckoning.Line{Line: number, State: reckoning.TextLine,
				Text: "kept as text; start with what it is: " + examples})
		return
	case p.face == "" && !thing.anywhere:
		p.problem(number, column, "say first which side it is on, with a heading as == rear")
		return
	}
	entry := Entry{Line: number, Face: p.face, Thing: word}
	rest, entry.Findings = sheet.CutFindings(rest)
	if m := quoted.FindStringSubmatchIndex(rest); m != nil {
		entry.Reading = strings.TrimSpace(rest[m[2]:m[3]])
		rest = rest[:m[0]] + rest[m[1]:]
	} else if strings.Contains(rest, `"`) {
		p.problem(number, column, "the quote is not closed; what stands on the thing goes between two of them")
		return
	}
	if m := useWord.FindStringSubmatchIndex(rest); m != nil {
		entry.Use = strings.TrimSpace(rest[m[2]:m[3]])
		rest = rest[:m[0]]
	}
	entry.Words = strings.Join(strings.Fields(rest), " ")
	if why := thing.check(entry); why != "" {
		p.problem(number, column, "%s", why)
		return
	}
	p.sheet.Entries = append(p.sheet.Entries, entry)
}

// withoutComment cuts what follows a # at the start or after white space, outside quotes.
func withoutComment(line string) string {
	quotes := 0
	for i, r := range line {
		switch {
		case r == '"':
			quotes++
		case r == '#' && quotes%2 == 0 && (i == 0 || line[i-1] == ' ' || line[i-1] == '\t'):
			return line[:i]
		}
	}
	return line
}

// Lines tells what became of each line, in order, for the margin beside it.
func (s Sheet) Lines() []reckoning.Line {
	lines := append([]reckoning.Line{}, s.texts...)
	for _, p := range s.Problems {
		lines = append(lines, reckoning.Line{Line: p.Line, State: reckoning.ProblemAt, Text: p.Message})
	}
	for _, e := range s.Entries {
		line := reckoning.Line{Line: e.Line, State: reckoning.PartLine, Text: e.Thing}
		if e.Face != "" {
			line.Text += ", " + string(e.Face)
		}
		if said := e.statements(); len(said) > 0 {
			line.State = reckoning.Recognised
			words := []string{}
			for _, st := range said {
				words = append(words, strings.ToLower(facts.AttributeOf(st.Attribute).Label)+" "+st.Value)
			}
			line.Text = strings.Join(words, ", ")
		}
		lines = append(lines, line)
	}
	slices.SortFunc(lines, func(a, b reckoning.Line) int { return a.Line - b.Line })
	return lines
}
