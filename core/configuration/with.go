package configuration

import (
	"fmt"
	"slices"
	"strings"
)

// With is a text of settings with one that stands otherwise: what it said of those it replaces is left out, the rest of a row of
// switches stays. Comments stay where they are.
func With(text string, replaces []string, name, at string) string {
	kept := []string{}
	for _, line := range strings.Split(text, "\n") {
		read, _ := ParseSettings(line)
		if len(read) == 0 {
			if strings.TrimSpace(line) != "" {
				kept = append(kept, line)
			}
			continue
		}
		kept = append(kept, without(line, read[0], append(slices.Clone(replaces), name))...)
	}
	return strings.Join(append(kept, name+" "+at), "\n")
}

// without is what is left of a line.
func without(line string, s Setting, names []string) []string {
	row, isRow := elementsOf(s.At)
	mine := spanOf(s.Name)
	if !isRow {
		for _, name := range names {
			if strings.EqualFold(name, s.Name) {
				return nil
			}
		}
		return []string{line}
	}
	first, left := max(mine.from, 1), []string{}
	block := s.Name
	if mine.from > 0 {
		block = s.Name[:len(mine.block)]
	}
	for i, e := range row {
		isReplaced := slices.ContainsFunc(names, func(name string) bool {
			other := spanOf(name)
			return other.block == mine.block && (other.from == 0 || other.from <= first+i && first+i <= other.to)
		})
		if !isReplaced {
			left = append(left, fmt.Sprintf("%s.%d %s", block, first+i, sayElement(e)))
		}
	}
	if len(left) == len(row) {
		return []string{line}
	}
	return left
}
