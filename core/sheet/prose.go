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
		content, _ := cutComment(line)
		for at := 0; at < len(line); {
			from, to := proseOf(line, content, at)
			out.WriteString(line[at:from])
			prose.WriteString(line[from:to])
			flush()
			at = to
		}
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

// proseOf is the next stretch of an entry from a place on that the writer said in own words: a finding, but for its kind
// if that is a known one, or the comment.
func proseOf(line, content string, at int) (from, to int) {
	for _, word := range tokens(content[min(at, len(content)):], nil) {
		start := at + word.offset
		if !opensFinding(word.text) {
			continue
		}
		end := endOfFinding(content, start)
		_, kind := knownKind(content[start+1 : end])
		return start + 1 + kind, end
	}
	return max(at, len(content)), len(line)
}
