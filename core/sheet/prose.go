package sheet

import "strings"

// RewriteProse rewrites what people say in a sheet in their own words: comments, the notes of findings, and lines that
// are no entry. Designators and markings stay as they are. Lines that follow each other without an entry are rewritten
// together, as one text may go on from line to line.
func RewriteProse(text string, rewrite func(prose string) string) string {
	parsed, err := Parse([]byte(text), Whole)
	if err != nil {
		return rewrite(text)
	}
	entries := map[int]bool{}
	for _, a := range parsed.Assemblies {
		for _, line := range a.Lines {
			entries[line.Number] = line.Entry != nil
		}
	}
	var out, prose strings.Builder
	flush := func() {
		if prose.Len() > 0 {
			out.WriteString(rewrite(prose.String()))
			prose.Reset()
		}
	}
	number := 0
	for line := range linesWithEnds(text) {
		number++
		if !entries[number] {
			prose.WriteString(line)
			continue
		}
		flush()
		start := proseStart(line)
		out.WriteString(line[:start])
		prose.WriteString(line[start:])
		flush()
	}
	flush()
	return out.String()
}

// linesWithEnds cuts a text as splitLines does, and leaves each line its end.
func linesWithEnds(text string) func(yield func(string) bool) {
	return func(yield func(string) bool) {
		for text != "" {
			end := strings.IndexAny(text, "\r\n")
			switch {
			case end < 0:
				end = len(text)
			case strings.HasPrefix(text[end:], "\r\n"):
				end += 2
			default:
				end++
			}
			if !yield(text[:end]) {
				return
			}
			text = text[end:]
		}
	}
}

// proseStart is where the words of the writer start in a line that is an entry.
func proseStart(line string) int {
	content, _ := cutComment(line)
	for _, word := range tokens(content, nil) {
		if strings.HasPrefix(word.text, "!") && findingHasNote(word.text) {
			return word.offset + strings.Index(word.text, ":") + 1
		}
	}
	return len(content)
}
