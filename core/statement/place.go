package statement

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/edtf"
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
	if s.Happened == nil {
		return s.writtenAnew(e), ""
	}
	h := *s.Happened
	h.New = h.When(today)
	if h.New != "" {
		if _, err := edtf.Parse(h.New); err != nil {
			return e, err.Error()
		}
	}
	e.Findings = slices.Clone(e.Findings)
	switch h.Deed {
	case TakenOut:
		if e.Empty {
			return e, fmt.Sprintf("%s is empty already", s.Entry.Written)
		}
		return sheet.Entry{Written: e.Written, Designators: e.Designators, Count: e.Count, Empty: true, New: h.New,
			Socketed: e.Socketed, Soldered: e.Soldered, Comment: remarked(e.Comment, h.Note)}, ""
	case Lent:
		if e.Empty {
			return e, fmt.Sprintf("%s is empty already", s.Entry.Written)
		}
		// What it is, and what was found on it, stays on the line: it comes back.
		e.Empty, e.Findings = true, append(e.Findings, sheet.Mark{Kind: sheet.Lent, Note: h.lentTo(today)})
		return e, ""
	case Returned:
		if !e.Empty || !sheet.IsLent(e.Findings) {
			return e, fmt.Sprintf("the sheet does not say that %s is lent", s.Entry.Written)
		}
		e.Empty, e.Findings = false, slices.DeleteFunc(e.Findings, isLent)
		return e, ""
	case Replaced:
		e.New, e.Empty, e.Findings = cmp.Or(h.New, today), false, []sheet.Mark{}
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
		return found(e, h.Found)
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

// writtenAnew is a line with another marking. It is read better, so that all else that is known of the part stays, but for
// what is said anew.
func (s Statement) writtenAnew(e sheet.Entry) sheet.Entry {
	changed := *s.Entry
	if !changed.Socketed && !changed.Soldered {
		changed.Socketed, changed.Soldered = e.Socketed, e.Soldered
	}
	changed.Purpose, changed.Comment = cmp.Or(changed.Purpose, e.Purpose), cmp.Or(changed.Comment, e.Comment)
	if e.Empty {
		return changed // what was there before is another part
	}
	changed.New = cmp.Or(changed.New, e.New)
	if len(changed.Findings) == 0 {
		changed.Findings = e.Findings
	}
	return changed
}

// found marks what was found on a line; or says that the sheet has it already.
func found(e sheet.Entry, marks []sheet.Mark) (changed sheet.Entry, blocked string) {
	isNew := false
	for _, mark := range marks {
		i := slices.IndexFunc(e.Findings, func(m sheet.Mark) bool {
			return sheet.KindOf(m.Kind).Same == sheet.KindOf(mark.Kind).Same
		})
		switch {
		case i < 0:
			e.Findings, isNew = append(e.Findings, mark), true
		case mark.Note != "" && e.Findings[i] != mark:
			e.Findings[i], isNew = mark, true
		}
	}
	if !isNew {
		return e, fmt.Sprintf("the sheet says so already of %s: %s", e.Written, marks[0].Kind)
	}
	return e, ""
}

// lentTo says in the note of a mark who has it, since when and until when.
func (h Happened) lentTo(today string) string {
	note := ""
	if h.Words != "" {
		note = "to " + h.Words + ", "
	}
	note += "since " + cmp.Or(h.New, today)
	if h.Due != "" {
		note += ", until " + h.Due
	}
	return note
}

func isLent(m sheet.Mark) bool { return sheet.IsLent([]sheet.Mark{m}) }

// remarked is a comment with something behind it.
func remarked(comment, note string) string {
	switch {
	case note == "":
		return comment
	case comment == "":
		return "# " + note
	}
	return comment + "; " + note
}

// NothingToChange is why a sheet stays as it is: what happened is kept as a note.
const NothingToChange = "the sheet says nothing of it that this would change"

// asNew is the line of parts that stand on no line yet.
func (s Statement) asNew(today string) (text, blocked string) {
	if s.Happened == nil {
		return s.Line, ""
	}
	if h := s.Happened; h.Deed != Found && (h.Deed != Replaced || h.Words == "") {
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
