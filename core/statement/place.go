package statement

import (
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/sheet"
)

// Placement is where an entry goes on a sheet.
type Placement struct {
	Body     string // the sheet with the entry in it; as it was when Blocked
	Line     int    // where it stands then
	Text     string // the line as it stands then; empty where none does
	Replaces string // the line that it takes the place of, if any
	Leaves   string // what of that line stays a line of its own, as it is about other parts
	Blocked  string // why it cannot go there, if it cannot
}

// Place puts what was said on a sheet: in place of the line about the same parts, or else at the end. Where its parts stand
// on a line with others, that line is cut up. What happened changes what the line says; today is its day, YYYY-MM-DD.
func Place(body string, s Statement, today string) (Placement, error) {
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
			return onLine(body, lines, line.Entry, s, today), nil
		}
	}
	text, blocked := s.asNew(today)
	if blocked != "" {
		return Placement{Body: body, Blocked: blocked}, nil
	}
	// Behind the last line that says something, so that no gap grows.
	end := len(lines)
	for end > 0 && strings.TrimSpace(lines[end-1]) == "" {
		end--
	}
	lines = slices.Insert(lines, end, text)
	return Placement{Body: strings.Join(lines, "\n"), Line: end + 1, Text: text}, nil
}

// onLine puts what was said in the place of the line that names some of its parts.
func onLine(body string, lines []string, entry *sheet.Entry, s Statement, today string) Placement {
	at := entry.Line
	here, rest := []string{}, []string{}
	for _, d := range entry.Designators {
		if slices.ContainsFunc(s.Entry.Designators, func(said string) bool { return strings.EqualFold(said, d) }) {
			here = append(here, d)
		} else {
			rest = append(rest, d)
		}
	}
	if len(here) < len(s.Entry.Designators) {
		return Placement{Body: body, Line: at, Blocked: fmt.Sprintf(
			"%s stands on line %d, but not all of %s; say it of each line by itself", here[0], at, s.Entry.Written)}
	}
	changed, blocked := s.change(*entry, today)
	if blocked != "" {
		return Placement{Body: body, Line: at, Blocked: blocked}
	}
	p := Placement{Line: at, Replaces: strings.TrimSuffix(lines[at-1], "\r")}
	if len(rest) > 0 {
		changed.Written, changed.Comment = sheet.Compact(here), ""
		left := *entry
		left.Written, left.Designators, left.Count = sheet.Compact(rest), rest, len(rest)
		p.Leaves = left.String()
	} else {
		changed.Written = entry.Written
	}
	p.Text = changed.String()
	lines[at-1] = p.Text
	if p.Leaves != "" {
		lines[at-1] = p.Leaves
		lines = slices.Insert(lines, at, p.Text)
		p.Line = at + 1
	}
	p.Body = strings.Join(lines, "\n")
	return p
}

// change is what a line says after what happened; or why that cannot be.
func (s Statement) change(e sheet.Entry, today string) (changed sheet.Entry, blocked string) {
	h := s.Happened
	if h == nil {
		// A line that is written anew loses nothing that is not said again, but what was remarked on it.
		changed = *s.Entry
		if changed.Comment == "" {
			changed.Comment = e.Comment
		}
		return changed, ""
	}
	e.Findings = slices.Clone(e.Findings)
	switch h.Deed {
	case TakenOut:
		if e.Empty {
			return e, fmt.Sprintf("%s is empty already", s.Entry.Written)
		}
		return sheet.Entry{Written: e.Written, Designators: e.Designators, Count: e.Count, Empty: true,
			Socketed: e.Socketed, Soldered: e.Soldered, Comment: e.Comment}, ""
	case Replaced:
		e.New, e.Empty, e.Findings = h.New, false, []sheet.Mark{}
		if e.New == "" {
			e.New = today
		}
		if h.Words != "" {
			fresh, ok := wordsOf(s.Entry.Designators[0], h.Words)
			if !ok {
				return e, fmt.Sprintf("%q cannot be read as a marking; write the line in the sheet", h.Words)
			}
			e.Words, e.Unknown, e.Doubtful = fresh.Words, fresh.Unknown, fresh.Doubtful
			e.Socketed, e.Soldered = e.Socketed || fresh.Socketed, e.Soldered || fresh.Soldered
		}
		return e, ""
	case Found:
		mark := sheet.Mark{Kind: h.Kind, Note: h.Note}
		i := slices.IndexFunc(e.Findings, func(m sheet.Mark) bool {
			return sheet.KindOf(m.Kind).Same == sheet.KindOf(h.Kind).Same
		})
		switch {
		case i < 0:
			e.Findings = append(e.Findings, mark)
		case h.Note == "" || e.Findings[i] == mark:
			return e, fmt.Sprintf("the sheet says already that %s is %s", s.Entry.Written, e.Findings[i].Kind)
		default:
			e.Findings[i] = mark
		}
		return e, ""
	case Treated:
		left := slices.DeleteFunc(slices.Clone(e.Findings), func(m sheet.Mark) bool {
			return slices.Contains(h.Ends, sheet.KindOf(m.Kind).Same)
		})
		if len(left) == len(e.Findings) {
			return e, NothingToChange
		}
		e.Findings = left
		return e, ""
	}
	return e, NothingToChange
}

// NothingToChange is why a sheet stays as it is: what happened is kept as a note.
const NothingToChange = "the sheet says nothing of it that this would change"

// asNew is the line of parts that stand on no line yet.
func (s Statement) asNew(today string) (text, blocked string) {
	if s.Happened == nil {
		return s.Line, ""
	}
	if d := s.Happened.Deed; d != Replaced && d != Found {
		return "", fmt.Sprintf("%s does not stand on this sheet", s.Entry.Written)
	}
	changed, blocked := s.change(sheet.Entry{Written: s.Entry.Written, Designators: s.Entry.Designators,
		Count: s.Entry.Count}, today)
	return changed.String(), blocked
}

// wordsOf reads a marking as it would stand on a line.
func wordsOf(designator, words string) (*sheet.Entry, bool) {
	entry := lineOf(designator + " " + words)
	return entry, entry != nil && len(entry.Words) > 0
}

func overlap(a, b []string) bool {
	return slices.ContainsFunc(b, func(said string) bool {
		return slices.ContainsFunc(a, func(d string) bool { return strings.EqualFold(d, said) })
	})
}
