// Package statement answers: what does a line mean that somebody says about the machine on the
// bench, and where does it go? "U14 27128-25 8533" is a line of a sheet, "note hinge cracked" is a
// note. What is neither is not a statement, but something to look for.
package statement

import (
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/sheet"
)

// Statement is what was said: a note, or an entry with its line as sheets write it.
type Statement struct {
	Note  string
	Entry *sheet.Entry
	Line  string
}

// Read reads one line. It reports false when the line states nothing: then it is looked for.
func Read(text string) (Statement, bool) {
	text = strings.TrimSpace(text)
	if word, rest, found := strings.Cut(text, " "); found && strings.EqualFold(word, "note") &&
		strings.TrimSpace(rest) != "" {
		return Statement{Note: strings.TrimSpace(rest)}, true
	}
	if strings.ContainsAny(text, "\n\r") {
		return Statement{}, false
	}
	parsed, err := sheet.Parse([]byte(text), sheet.Body)
	if err != nil || len(parsed.Problems) > 0 || len(parsed.Assemblies) != 1 || len(parsed.Assemblies[0].Lines) != 1 {
		return Statement{}, false
	}
	entry := parsed.Assemblies[0].Lines[0].Entry
	if entry == nil || len(entry.Words) == 0 && !entry.Empty && len(entry.Findings) == 0 {
		return Statement{}, false // a designator alone is looked for
	}
	// Designators are written in capitals; who says them in passing need not hold the key down.
	if len(entry.Designators) > 0 {
		entry.Written = strings.ToUpper(entry.Written)
		for i := range entry.Designators {
			entry.Designators[i] = strings.ToUpper(entry.Designators[i])
		}
	}
	return Statement{Entry: entry, Line: entry.String()}, true
}

// Placement is where an entry goes on a sheet.
type Placement struct {
	Body     string // the sheet with the entry in it; as it was when Blocked
	Line     int    // where it stands then
	Replaces string // the line that it takes the place of, if any
	Blocked  string // why it cannot go there, if it cannot
}

// Place puts an entry on a sheet: in place of the line about exactly the same parts, or else at the
// end. Where one of its designators stands on a line with others, only the sheet itself can be
// changed.
func Place(body string, s Statement) (Placement, error) {
	parsed, err := sheet.Parse([]byte(body), sheet.Body)
	if err != nil {
		return Placement{}, err
	}
	lines := strings.Split(body, "\n")
	for _, assembly := range parsed.Assemblies {
		for _, line := range assembly.Lines {
			if line.Entry == nil || !overlap(line.Entry.Designators, s.Entry.Designators) {
				continue
			}
			at := line.Entry.Line
			if !slices.Equal(line.Entry.Designators, s.Entry.Designators) {
				return Placement{Body: body, Line: at,
					Blocked: fmt.Sprintf("%s stands on line %d with others; change that line in the sheet",
						common(line.Entry.Designators, s.Entry.Designators), at)}, nil
			}
			replaced := strings.TrimSuffix(lines[at-1], "\r")
			lines[at-1] = s.Line
			return Placement{Body: strings.Join(lines, "\n"), Line: at, Replaces: replaced}, nil
		}
	}
	// Behind the last line that says something, so that no gap grows.
	end := len(lines)
	for end > 0 && strings.TrimSpace(lines[end-1]) == "" {
		end--
	}
	lines = slices.Insert(lines, end, s.Line)
	return Placement{Body: strings.Join(lines, "\n"), Line: end + 1}, nil
}

func overlap(a, b []string) bool { return common(a, b) != "" }

func common(a, b []string) string {
	for _, designator := range b {
		if slices.Contains(a, designator) {
			return designator
		}
	}
	return ""
}
