// Package linediff answers: in which lines do two texts differ? It gives a shortest list of lines
// taken out and put in that turns one text into the other.
package linediff

import (
	"maps"
	"slices"
)

// Kind says what became of a line.
type Kind string

// Kinds of lines.
const (
	Same    Kind = "same"
	Removed Kind = "removed"
	Added   Kind = "added"
)

// Line is a line of either text. Old and New count from 1; 0 where the text does not have the line.
type Line struct {
	Kind Kind   `json:"kind" enum:"same,removed,added"`
	Old  int    `json:"old" doc:"Line in the older text, 0 where it is added"`
	New  int    `json:"new" doc:"Line in the newer text, 0 where it is removed"`
	Text string `json:"text" says:"sheet"`
}

// mostEdits bounds the search. Texts that differ in more lines are told apart as wholes: all old
// lines out, all new lines in, between the lines they start and end with in common.
const mostEdits = 500

// Of compares two texts line by line (E. W. Myers, An O(ND) Difference Algorithm and Its
// Variations, 1986).
func Of(older, newer []string) []Line {
	start := 0
	for start < len(older) && start < len(newer) && older[start] == newer[start] {
		start++
	}
	end := 0
	for end < len(older)-start && end < len(newer)-start && older[len(older)-1-end] == newer[len(newer)-1-end] {
		end++
	}
	lines := make([]Line, 0, max(len(older), len(newer)))
	for i := range start {
		lines = append(lines, Line{Same, i + 1, i + 1, older[i]})
	}
	lines = append(lines, middle(older[start:len(older)-end], newer[start:len(newer)-end], start)...)
	for i := range end {
		o, n := len(older)-end+i, len(newer)-end+i
		lines = append(lines, Line{Same, o + 1, n + 1, older[o]})
	}
	return lines
}

// middle compares what is left between common start and end; offset lines come before it.
func middle(older, newer []string, offset int) []Line {
	trace := search(older, newer)
	if trace == nil {
		return wholes(older, newer, offset)
	}
	// Walked backwards from the end: each step of the trace is one edit and the same lines before.
	lines := []Line{}
	x, y := len(older), len(newer)
	for edits := len(trace) - 1; edits >= 0; edits-- {
		reached := trace[edits]
		diagonal := x - y
		from := diagonal - 1
		if diagonal == -edits || diagonal != edits && reached[from] < reached[diagonal+1] {
			from = diagonal + 1
		}
		fromX := reached[from]
		fromY := fromX - from
		for x > fromX && y > fromY {
			x, y = x-1, y-1
			lines = append(lines, Line{Same, offset + x + 1, offset + y + 1, older[x]})
		}
		if edits == 0 {
			break
		}
		if x == fromX {
			y--
			lines = append(lines, Line{Added, 0, offset + y + 1, newer[y]})
		} else {
			x--
			lines = append(lines, Line{Removed, offset + x + 1, 0, older[x]})
		}
	}
	slices.Reverse(lines)
	return lines
}

// search finds how far each diagonal is reached with so many edits; one map for each number of
// edits, before that edit was made. It returns nil when there are too many.
func search(older, newer []string) []map[int]int {
	reached := map[int]int{1: 0}
	trace := []map[int]int{}
	for edits := 0; edits <= min(len(older)+len(newer), mostEdits); edits++ {
		trace = append(trace, maps.Clone(reached))
		for diagonal := -edits; diagonal <= edits; diagonal += 2 {
			x := reached[diagonal-1] + 1
			if diagonal == -edits || diagonal != edits && reached[diagonal-1] < reached[diagonal+1] {
				x = reached[diagonal+1]
			}
			y := x - diagonal
			for x < len(older) && y < len(newer) && older[x] == newer[y] {
				x, y = x+1, y+1
			}
			reached[diagonal] = x
			if x >= len(older) && y >= len(newer) {
				return trace
			}
		}
	}
	return nil
}

func wholes(older, newer []string, offset int) []Line {
	lines := make([]Line, 0, len(older)+len(newer))
	for i, text := range older {
		lines = append(lines, Line{Removed, offset + i + 1, 0, text})
	}
	for i, text := range newer {
		lines = append(lines, Line{Added, 0, offset + i + 1, text})
	}
	return lines
}
