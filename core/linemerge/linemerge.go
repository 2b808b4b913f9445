// Package linemerge answers: two people changed one text, each without seeing the other's changes;
// what do both amount to together? Changes of different lines are taken together. Where both changed
// the same line, or put different lines at the same spot, both versions are shown and neither is
// chosen.
package linemerge

import (
	"slices"

	"frugalheron/core/linediff"
)

// Kind says who changed a stretch of lines.
type Kind string

// Kinds of stretches.
const (
	Same     Kind = "same"     // nobody
	Mine     Kind = "mine"     // one side
	Theirs   Kind = "theirs"   // the other
	Alike    Kind = "alike"    // both, in the same way
	Conflict Kind = "conflict" // both, differently
)

// Stretch is some lines as each of the three texts has them. The stretches of a merge, one after
// the other, give back each of the texts in full.
type Stretch struct {
	Kind   Kind     `json:"kind" enum:"same,mine,theirs,alike,conflict"`
	Base   []string `json:"base" says:"sheet" doc:"Lines as both started from"`
	Mine   []string `json:"mine" says:"sheet"`
	Theirs []string `json:"theirs" says:"sheet"`
}

// Of merges two texts that started from base.
func Of(base, mine, theirs []string) []Stretch {
	ours, others := changes(base, mine), changes(base, theirs)
	stretches := []Stretch{}
	at := 0
	same := func(until int) {
		if lines := base[at:until]; len(lines) > 0 {
			stretches = append(stretches, Stretch{Same, lines, lines, lines})
		}
		at = until
	}
	for len(ours) > 0 || len(others) > 0 {
		var together group
		together, ours, others = nextGroup(ours, others)
		same(together.from)
		stretches = append(stretches, together.stretch(base))
		at = together.to
	}
	same(len(base))
	return stretches
}

// change puts lines in place of lines from up to, without, to of the base.
type change struct {
	from, to int
	lines    []string
}

// changes lists how a text differs from the base, in order. As many lines in place of as many
// count line by line, so that neighbours changed by different people do not meet.
func changes(base, text []string) []change {
	found := []change{}
	at := 0 // line of the base that comes next
	open := false
	for _, line := range linediff.Of(base, text) {
		if line.Kind == linediff.Same {
			at, open = at+1, false
			continue
		}
		if !open {
			found = append(found, change{from: at, to: at, lines: []string{}})
			open = true
		}
		last := &found[len(found)-1]
		if line.Kind == linediff.Removed {
			at++
			last.to = at
		} else {
			last.lines = append(last.lines, line.Text)
		}
	}
	single := []change{}
	for _, c := range found {
		if c.to-c.from != len(c.lines) {
			single = append(single, c)
			continue
		}
		for i, line := range c.lines {
			single = append(single, change{c.from + i, c.from + i + 1, []string{line}})
		}
	}
	return single
}

// meets reports whether two changes are about the same lines or the same spot between lines.
func (c change) meets(other change) bool {
	if c.from == c.to && other.from == other.to {
		return c.from == other.from
	}
	return c.from < other.to && other.from < c.to
}

// group is changes of both sides that meet each other.
type group struct {
	from, to     int
	mine, theirs []change
}

func nextGroup(mine, theirs []change) (group, []change, []change) {
	var g group
	if len(theirs) == 0 || len(mine) > 0 && before(mine[0], theirs[0]) {
		g = group{mine[0].from, mine[0].to, mine[:1], nil}
		mine = mine[1:]
	} else {
		g = group{theirs[0].from, theirs[0].to, nil, theirs[:1]}
		theirs = theirs[1:]
	}
	for {
		whole := change{from: g.from, to: g.to}
		switch {
		case len(mine) > 0 && (whole.meets(mine[0]) || anyMeets(g.theirs, mine[0])):
			g.mine = append(slices.Clip(g.mine), mine[0])
			g.to = max(g.to, mine[0].to)
			mine = mine[1:]
		case len(theirs) > 0 && (whole.meets(theirs[0]) || anyMeets(g.mine, theirs[0])):
			g.theirs = append(slices.Clip(g.theirs), theirs[0])
			g.to = max(g.to, theirs[0].to)
			theirs = theirs[1:]
		default:
			return g, mine, theirs
		}
	}
}

// before orders changes: lines put in before a line come before a change of that line.
func before(c, other change) bool {
	if c.from != other.from {
		return c.from < other.from
	}
	return c.to < other.to
}

func anyMeets(changes []change, other change) bool {
	return slices.ContainsFunc(changes, other.meets)
}

// stretch writes the group's lines as each side has them.
func (g group) stretch(base []string) Stretch {
	s := Stretch{Base: base[g.from:g.to], Mine: g.applied(base, g.mine), Theirs: g.applied(base, g.theirs)}
	switch {
	case len(g.theirs) == 0:
		s.Kind = Mine
	case len(g.mine) == 0:
		s.Kind = Theirs
	case slices.Equal(s.Mine, s.Theirs):
		s.Kind = Alike
	default:
		s.Kind = Conflict
	}
	return s
}

func (g group) applied(base []string, changes []change) []string {
	lines := []string{}
	at := g.from
	for _, c := range changes {
		lines = append(append(lines, base[at:c.from]...), c.lines...)
		at = c.to
	}
	return append(lines, base[at:g.to]...)
}

// Conflicts counts the stretches where somebody has to choose.
func Conflicts(stretches []Stretch) int {
	n := 0
	for _, s := range stretches {
		if s.Kind == Conflict {
			n++
		}
	}
	return n
}

// Lines is the merged text; of a conflict it holds both versions, mine first, so that no line is
// lost even if nobody chooses.
func Lines(stretches []Stretch) []string {
	lines := []string{}
	for _, s := range stretches {
		switch s.Kind {
		case Theirs:
			lines = append(lines, s.Theirs...)
		case Conflict:
			lines = append(append(lines, s.Mine...), s.Theirs...)
		default:
			lines = append(lines, s.Mine...)
		}
	}
	return lines
}
