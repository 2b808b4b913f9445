// Package lives answers which part sat where, and from when until when, by what the revisions of a sheet say one after
// another; and how long each finding stood on it.
//
// A position has one occupant after another. What is written behind new: says that the part there now took the place
// of an earlier one; @empty says that it was taken out. A marking that is written otherwise is read better, not another
// part: nobody said that it was changed.
package lives

import (
	"cmp"
	"slices"
	"strings"
	"time"

	"frugalheron/core/edtf"
	"frugalheron/core/sheet"
)

// Written is a line of a sheet as far as it tells of lives.
type Written struct {
	Line        int
	Parts       string   // designators as written, as U40-U48; empty for parts that are only counted, or on an outside
	Designators []string // each of them
	Words       string   // what is said of the part, or of the thing on the outside
	Tells       string   // what sort of part it is, kept as it is given
	New         string   // since when the part is new, in EDTF; empty when it came with the board
	Empty       bool
	Marks       []sheet.Mark
}

// Revision is what a sheet says from a day on.
type Revision struct {
	Lines []Written
	On    string    // day of the collection, YYYY-MM-DD
	At    time.Time // when it was saved
}

// TellsOfOthers reports whether it may say that parts came or went, so that what was there before matters.
func (r Revision) TellsOfOthers() bool {
	return slices.ContainsFunc(r.Lines, func(w Written) bool { return w.New != "" || w.Empty })
}

// Going says how an occupant came or went.
type Going string

// Ways to come and to go.
const (
	CameNew  Going = "new"       // put in as a replacement
	Fitted   Going = "fitted"    // put in where nothing was
	Replaced Going = "replaced"  // another took its place
	TakenOut Going = "taken out" // the position was left empty
	Lent     Going = "lent"      // the position was left empty; the same part comes back
)

// Life is one occupant of a position.
type Life struct {
	Words  string    `json:"words"`
	From   string    `json:"from"` // EDTF; empty when it was there as far as anybody knows
	Came   Going     `json:"came"` // empty when it was there as far as anybody knows
	CameAt time.Time `json:"cameAt,omitzero"`
	Until  string    `json:"until"` // EDTF; empty while it is there
	Went   Going     `json:"went"`
	WentAt time.Time `json:"wentAt,omitzero"`
}

// Position is a place for parts whose occupants changed, with all of them in their order.
type Position struct {
	Designator string `json:"designator"`
	Lives      []Life `json:"lives"`
}

// Mark is a finding as it stands, or stood, on a sheet.
type Mark struct {
	Line  int       `json:"line"` // where it stood last
	Parts string    `json:"parts"`
	Words string    `json:"words"`
	Tells string    `json:"tells"`
	Kind  string    `json:"kind"`
	Note  string    `json:"note"`
	Since string    `json:"since"` // YYYY-MM-DD
	At    time.Time `json:"at"`    // when that was written
	Until string    `json:"until"` // YYYY-MM-DD; empty while it stands there
	// WithPart says that it ended because another part is there now, or none.
	WithPart bool `json:"withPart,omitempty"`
}

// Story is what the revisions of one sheet amount to. The zero Story is that of a sheet without any.
type Story struct {
	Positions []Position `json:"positions"` // whose occupants changed, in the order of their names
	Marks     []Mark     `json:"marks"`     // those that stand, and those that stood for longer than a day
}

// Apply goes on with the next revision; before is what the sheet said up to then.
func (s *Story) Apply(before []Written, now Revision) {
	changed := s.applyLives(before, now)
	s.applyMarks(now, changed)
}

// change is what became of the occupant of a position.
type change int

const (
	stayed change = iota
	other         // another part is there now, or none
	back          // the one before is there again
)

// applyLives begins and ends lives, and returns the positions where another part is now, none, or the one before again.
func (s *Story) applyLives(before []Written, now Revision) map[string]change {
	earlier, changed := wordsByDesignator(before), map[string]change{}
	at := make(map[string]int, len(s.Positions))
	for i, p := range s.Positions {
		at[fold(p.Designator)] = i
	}
	for _, line := range now.Lines {
		for _, designator := range line.Designators {
			key := fold(designator)
			i, known := at[key]
			if !known {
				was, stood := earlier[key]
				if line.New == "" && (!line.Empty || !stood) {
					continue // nothing that is worth keeping: it is there, or nothing ever was
				}
				i = len(s.Positions)
				s.Positions, at[key] = append(s.Positions, Position{Designator: designator, Lives: []Life{}}), i
				if stood {
					s.Positions[i].Lives = append(s.Positions[i].Lives, Life{Words: was})
				}
			}
			if c := s.Positions[i].next(line, now); c != stayed {
				changed[key] = c
			}
		}
	}
	s.Positions = slices.DeleteFunc(s.Positions, func(p Position) bool { return !p.tellsAnything() })
	slices.SortFunc(s.Positions, func(a, b Position) int {
		return strings.Compare(fold(a.Designator), fold(b.Designator))
	})
	return changed
}

// next lets a line be said of a position, and tells what became of its occupant.
func (p *Position) next(line Written, now Revision) change {
	last := len(p.Lives) - 1
	isThere := last >= 0 && p.Lives[last].Went == ""
	switch {
	case line.Empty && isThere:
		p.Lives[last].Until, p.Lives[last].Went, p.Lives[last].WentAt = cmp.Or(line.New, now.On), line.left(), now.At
		if p.Lives[last].Went == Lent {
			return stayed // what is known of it goes on
		}
		return other
	case line.Empty:
		if last < 0 {
			return stayed
		}
		wasLent := p.Lives[last].Went == Lent
		p.Lives[last].Until = cmp.Or(line.New, p.Lives[last].Until) // since when it is empty, said better
		p.Lives[last].Went = line.left()
		if wasLent && p.Lives[last].Went != Lent {
			return other // it does not come back
		}
		return stayed
	case isThere:
		return p.stays(line, now)
	case last >= 0 && p.Lives[last].isSaidBy(line):
		// The same part is back: it was out or lent for a while, or the @empty was a slip.
		p.Lives[last].Until, p.Lives[last].Went, p.Lives[last].WentAt = "", "", time.Time{}
		return back
	}
	p.begin(line, now, last >= 0)
	if last < 0 {
		return stayed
	}
	return other
}

// stays lets a line be said of a position that holds a part already.
func (p *Position) stays(line Written, now Revision) change {
	last := &p.Lives[len(p.Lives)-1]
	switch {
	case line.New == last.From, last.Came == Fitted && line.New == "":
		last.Words = line.Words
		return stayed
	case line.New == "": // that it is new was a slip, and so was that the one before went
		p.Lives = p.Lives[:len(p.Lives)-1]
		if len(p.Lives) == 0 {
			p.Lives = []Life{{}}
		}
		before := &p.Lives[len(p.Lives)-1]
		before.Words, before.Until, before.Went, before.WentAt = line.Words, "", "", time.Time{}
		return back
	case last.From != "" && !isLater(line.New, last.From): // the same replacement, dated better
		last.Words, last.From = line.Words, line.New
		if n := len(p.Lives); n > 1 && p.Lives[n-2].Went == Replaced {
			p.Lives[n-2].Until = line.New
		}
		return stayed
	}
	last.Until, last.Went, last.WentAt = line.New, Replaced, now.At
	p.begin(line, now, true)
	return other
}

// isSaidBy reports whether a line says the part of a life.
func (l Life) isSaidBy(line Written) bool {
	return l.Words == line.Words && (l.From == line.New || l.Came == Fitted && line.New == "")
}

// left is how the part went from a position that a line says is empty.
func (w Written) left() Going {
	if sheet.IsLent(w.Marks) {
		return Lent
	}
	return TakenOut
}

// isAway reports whether the part of a life is lent and has not come back: what is known of it is true of it still.
func (p Position) isAway(nth int) bool { return nth == len(p.Lives)-1 && p.Lives[nth].Went == Lent }

func (p *Position) begin(line Written, now Revision, afterAnother bool) {
	life := Life{Words: line.Words}
	switch {
	case line.New != "":
		life.From, life.Came, life.CameAt = line.New, CameNew, now.At
	case afterAnother:
		life.From, life.Came, life.CameAt = now.On, Fitted, now.At
	}
	p.Lives = append(p.Lives, life)
}

// tellsAnything reports whether a position has more than one part that was there as far as anybody knows.
func (p Position) tellsAnything() bool {
	return len(p.Lives) > 1 || len(p.Lives) == 1 && (p.Lives[0].Came != "" || p.Lives[0].Went != "")
}

// isLater reports whether one date is wholly behind another.
func isLater(one, other string) bool {
	a, errA := edtf.Parse(one)
	b, errB := edtf.Parse(other)
	return errA == nil && errB == nil && b.Latest().Before(a.Earliest())
}

func fold(designator string) string { return strings.ToUpper(designator) }

// wordsByDesignator is what was said of each part that was there.
func wordsByDesignator(lines []Written) map[string]string {
	said := map[string]string{}
	for _, line := range lines {
		if line.Empty {
			continue
		}
		for _, designator := range line.Designators {
			said[fold(designator)] = line.Words
		}
	}
	return said
}
