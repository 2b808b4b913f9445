package condition

import (
	"fmt"
	"strings"
	"time"

	"frugalheron/core/lives"
	"frugalheron/core/risk"
	"frugalheron/core/sheet"
)

// ReadOut is that a chip was read out.
type ReadOut struct {
	Assembly   int64
	Designator string
	On         string // YYYY-MM-DD
	At         time.Time
}

// ClassLook is that somebody looked, in the course of upkeep, at all parts of an ageing class on one board.
type ClassLook struct {
	Class    string // or the family of several
	Assembly int64
	On       string // YYYY-MM-DD
}

// Looks say when somebody last looked at what ages: in a survey of its subsystem, on a round of upkeep, by measuring it, by
// finding something about it, or by reading it out. What was about an earlier part at the same place is no look at the one that is there.
type Looks struct {
	byClass map[string]string // days, YYYY-MM-DD
	byPart  map[string]string // by board and designator
	onBoard map[int64][]ClassLook
	stories map[int64]lives.Story
}

// LooksOf gathers them.
func LooksOf(surveys []Survey, upkeep []ClassLook, said []Said, measured []Measured, reads []ReadOut,
	stories map[int64]lives.Story) Looks {
	l := Looks{byClass: map[string]string{}, byPart: map[string]string{}, onBoard: map[int64][]ClassLook{},
		stories: stories}
	for _, one := range upkeep {
		l.onBoard[one.Assembly] = append(l.onBoard[one.Assembly], one)
	}
	for _, survey := range surveys {
		for key, look := range survey.Coverage {
			sub, _ := SubsystemOf(key)
			for _, class := range sub.Classes {
				if look == Inspected {
					l.byClass[class] = max(l.byClass[class], survey.On)
				}
			}
		}
	}
	for _, one := range said {
		for _, o := range one.Observations {
			if o.Source != FromPart && o.Source != FromMeasurement && !o.isErasure() {
				l.see(one.Assembly, one.Parts, o.On, o.At)
			}
		}
	}
	for _, m := range measured {
		if designator := m.Designator(); designator != "" {
			l.see(m.Assembly, designator, m.On, m.At)
		}
	}
	for _, r := range reads {
		l.see(r.Assembly, r.Designator, r.On, r.At)
	}
	return l
}

// mostLooked is how many parts of a run are told apart by when somebody looked at them.
const mostLooked = 64

// see takes in that somebody looked at parts of a board, or without parts at the board itself.
func (l Looks) see(assembly int64, parts, on string, at time.Time) {
	for _, designator := range sheet.Designators(parts, mostLooked) {
		if _, end := l.stories[assembly].Occupant(designator, on, at); end == nil {
			key := partKey(assembly, designator)
			l.byPart[key] = max(l.byPart[key], on)
		}
	}
	if parts == "" && assembly != 0 {
		key := partKey(assembly, "")
		l.byPart[key] = max(l.byPart[key], on)
	}
}

func partKey(assembly int64, designator string) string {
	return fmt.Sprintf("%d %s", assembly, strings.ToUpper(designator))
}

// At is the day on which somebody last looked at a part of an ageing class; empty for never. An empty designator stands for
// a board of its own.
func (l Looks) At(class string, assembly int64, designator string) string {
	day := max(l.byClass[class], l.byPart[partKey(assembly, designator)])
	for _, one := range l.onBoard[assembly] {
		if risk.Covers(one.Class, class) {
			day = max(day, one.On)
		}
	}
	return day
}

// CameIn is when the part at a place was put where nothing was, in EDTF; empty when it was always there, or took the place
// of another.
func (l Looks) CameIn(assembly int64, designator string) string {
	if life, ok := l.stories[assembly].Now(designator); ok && life.Came == lives.Fitted {
		return life.From
	}
	return ""
}
