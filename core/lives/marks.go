package lives

import (
	"slices"
	"strings"

	"frugalheron/core/sheet"
)

// markKey is what makes a mark the same from one revision to the next.
type markKey struct{ parts, words, kind string }

func keyOf(parts, words, kind string) markKey {
	if parts != "" {
		words = "" // its marking may be read better meanwhile
	}
	return markKey{fold(parts), strings.ToLower(words), sheet.KindOf(kind).Same}
}

// applyMarks begins and ends marks. One whose part went ends with it, even where the same stands on the next part; where
// the part is back, so are its marks, if they are said again.
func (s *Story) applyMarks(now Revision, changed map[string]change) {
	standing := map[markKey]*Mark{}
	for i := range s.Marks {
		m := &s.Marks[i]
		if m.Until == "" || m.Until == now.On && !m.WithPart || m.WithPart && holdsAny(m.Parts, changed, back) {
			standing[keyOf(m.Parts, m.Words, m.Kind)] = m
		}
	}
	stays, begun := map[*Mark]bool{}, []Mark{}
	for _, line := range now.Lines {
		isOther := slices.ContainsFunc(line.Designators, func(d string) bool { return changed[fold(d)] == other })
		for _, said := range line.Marks {
			fresh := Mark{Line: line.Line, Parts: line.Parts, Words: line.Words, Tells: line.Tells, Kind: said.Kind,
				Note: said.Note, Since: now.On, At: now.At}
			before := standing[keyOf(line.Parts, line.Words, said.Kind)]
			if before == nil || isOther || stays[before] {
				begun = append(begun, fresh)
				continue
			}
			stays[before] = true
			fresh.Since, fresh.At = before.Since, before.At
			*before = fresh
		}
	}
	gone := []*Mark{}
	for _, m := range standing {
		if !stays[m] && m.Until == "" {
			m.Until, m.WithPart = now.On, holdsAny(m.Parts, changed, other)
			gone = append(gone, m)
		}
	}
	inheritAge(begun, gone)
	// What stood for less than a day was a slip of the pen, unless its part went.
	s.Marks = slices.DeleteFunc(s.Marks, func(m Mark) bool {
		return m.Until != "" && m.Until == m.Since && !m.WithPart
	})
	s.Marks = append(s.Marks, begun...)
}

// mostCompared bounds how many marks that went are compared with each that came.
const mostCompared = 200

// inheritAge lets marks stand on where the line of a run was cut up, or lines were put together: the same was said of
// that part before.
func inheritAge(begun []Mark, gone []*Mark) {
	if len(gone) > mostCompared {
		return
	}
	for i := range begun {
		for _, m := range gone {
			if m.Parts != "" && !m.WithPart && sheet.KindOf(m.Kind) == sheet.KindOf(begun[i].Kind) &&
				(sheet.Names(m.Parts, sheet.First(begun[i].Parts)) ||
					sheet.Names(begun[i].Parts, sheet.First(m.Parts))) {
				begun[i].Since, begun[i].At = m.Since, m.At
				m.Until = m.Since // it stands on in the other
			}
		}
	}
}

func holdsAny(parts string, changed map[string]change, what change) bool {
	for designator, c := range changed {
		if c == what && sheet.Names(parts, designator) {
			return true
		}
	}
	return false
}
