package sheet

import "strings"

// Columns of a formatted entry.
const (
	markingColumn = 11
	commentGap    = 2
)

// Format writes a sheet as text with aligned columns. Order, comments and lines kept as text
// stay; parsing the result gives equal records but for line numbers.
func Format(s Sheet) string {
	var b strings.Builder
	for _, a := range s.Assemblies {
		if a.Heading != nil {
			b.WriteString(a.Heading.String())
			b.WriteByte('\n')
		}
		for _, line := range a.Lines {
			if line.Entry != nil {
				b.WriteString(line.Entry.String())
			} else {
				b.WriteString(line.Text)
			}
			b.WriteByte('\n')
		}
	}
	return b.String()
}

// String writes the heading as a line of a sheet.
func (h *Heading) String() string {
	var b strings.Builder
	b.WriteString("==" + spaced(h.Title))
	for _, a := range h.Attributes {
		separator := " "
		if a.Key == "for" {
			separator = ":"
		}
		b.WriteString(" |" + spaced(strings.TrimSpace(a.Key+separator+a.Value)))
	}
	return appendComment(strings.TrimRight(b.String(), " "), h.Comment)
}

// String writes the entry as a line of a sheet.
func (e *Entry) String() string {
	words := append([]string{}, e.Words...)
	if e.Purpose != Unsaid {
		words = append(words, "for:"+string(e.Purpose))
	}
	for _, mark := range []struct {
		set  bool
		text string
	}{{e.Socketed, "@socket"}, {e.Soldered, "@solder"}, {e.Empty, "@empty"}} {
		if mark.set {
			words = append(words, mark.text)
		}
	}
	if e.New != "" {
		words = append(words, newSince+e.New)
	}
	for _, f := range e.Findings {
		words = append(words, f.text())
	}
	line := e.Written
	if len(words) > 0 {
		line += strings.Repeat(" ", max(1, markingColumn-len(line))) + strings.Join(words, " ")
	}
	return appendComment(line, e.Comment)
}

func (f Mark) text() string {
	switch {
	case strings.HasPrefix(f.Note, "#"), strings.HasPrefix(f.Note, newSince), opensFinding(f.Note), strings.HasPrefix(f.Note, "@"):
		return "!" + f.Kind + ":" + f.Note // a blank would end the finding
	case f.Note != "":
		return "!" + f.Kind + ": " + f.Note
	case readFinding(f.Kind) != f:
		return "!" + f.Kind + ":" // of several words
	}
	return "!" + f.Kind
}

// spaced puts a space before text, except where that would turn it into a comment.
func spaced(text string) string {
	if strings.HasPrefix(text, "#") {
		return text
	}
	return " " + text
}

func appendComment(line, comment string) string {
	if comment == "" {
		return line
	}
	return line + strings.Repeat(" ", commentGap) + comment
}
