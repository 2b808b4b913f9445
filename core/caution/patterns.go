package caution

import (
	"regexp"
	"strings"

	"frugalheron/core/table"
)

// patterns are the words of a table with a pattern a line, by what they belong to and what they are for it.
type patterns map[[2]string][]string

// readPatterns reads a table whose first column is called so. A line that is a word stands for its pattern in those below it.
func readPatterns(name, text, first string) patterns {
	read, words := patterns{}, []string{}
	for _, cells := range table.Reference(name, text, first, "is", "words", "source") {
		if cells[1] == "word" {
			words = append(words, cells[0], cells[2])
			continue
		}
		at := [2]string{cells[0], cells[1]}
		read[at] = append(read[at], strings.NewReplacer(words...).Replace(cells[2]))
	}
	return read
}

// of puts the patterns together, of whole words in any case; nil where there are none.
func (p patterns) of(what, is string) *regexp.Regexp {
	all := p[[2]string{what, is}]
	if len(all) == 0 {
		return nil
	}
	return regexp.MustCompile(`(?i)(?:^|\b)(?:` + strings.Join(all, "|") + `)\b`)
}
