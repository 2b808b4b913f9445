package lives

import (
	"strings"
	"time"

	"frugalheron/core/calendar"
	"frugalheron/core/edtf"
)

// End is how the occupant of a position ended.
type End struct {
	Went Going  // Replaced, TakenOut, or Lent where another took its place
	When string // EDTF
	On   string // the first day of When, YYYY-MM-DD
}

// Text says it in words.
func (e End) Text() string {
	return "the part was " + string(e.Went) + ", " + e.When
}

// turn is a moment at which the occupant of a position changed.
type turn struct {
	first, last calendar.Date // days that can be meant
	at          time.Time     // when it was written
	end         End           // of the one before
}

// turns are the moments at which the occupants of a position changed, in their order.
func (p Position) turns() []turn {
	turns := []turn{}
	for i, life := range p.Lives {
		// A part that is new took the place of one that is not on the sheet, if there is none before it.
		if i == 0 && life.Came == CameNew {
			turns = append(turns, turnOf(life.From, life.CameAt, Replaced))
		}
		if life.Went != "" && !p.isAway(i) {
			turns = append(turns, turnOf(life.Until, life.WentAt, life.Went))
		}
	}
	return turns
}

func turnOf(when string, at time.Time, went Going) turn {
	t := turn{at: at, end: End{Went: went, When: when}}
	if date, err := edtf.Parse(when); err == nil {
		t.first, t.last = date.Earliest(), date.Latest()
	}
	t.end.On = t.first.String()
	return t
}

// isBehind reports whether something of a day, written at a moment, is about what came after the turn. Within the days
// that can be meant it is the order in which both were written that tells.
func (t turn) isBehind(on calendar.Date, at time.Time) bool {
	switch {
	case on.Before(t.first):
		return false
	case t.last.Before(on):
		return true
	}
	return !at.Before(t.at)
}

// position finds one by its designator, in any case.
func (s Story) position(designator string) (Position, bool) {
	for _, p := range s.Positions {
		if strings.EqualFold(p.Designator, designator) {
			return p, true
		}
	}
	return Position{}, false
}

// Occupant counts the parts that were at a position before the one that something is about which was written at a
// moment of a day: 0 for the first. The end is that of the part; nil while it is there.
func (s Story) Occupant(designator, on string, at time.Time) (nth int, end *End) {
	p, found := s.position(designator)
	day, err := calendar.Parse(on)
	if !found || err != nil {
		return 0, nil
	}
	turns := p.turns()
	for nth < len(turns) && turns[nth].isBehind(day, at) {
		nth++
	}
	if nth < len(turns) {
		end = &turns[nth].end
	}
	return nth, end
}

// OccupantWritten counts the parts that were at a position before the one that the sheet was about at a moment. The end
// is that of the part; nil while it is there.
func (s Story) OccupantWritten(designator string, at time.Time) (nth int, end *End) {
	p, found := s.position(designator)
	if !found {
		return 0, nil
	}
	turns := p.turns()
	for nth < len(turns) && !at.Before(turns[nth].at) {
		nth++
	}
	if nth < len(turns) {
		end = &turns[nth].end
	}
	return nth, end
}

// Now is the occupant that is at a position, where occupants of it changed.
func (s Story) Now(designator string) (Life, bool) {
	p, found := s.position(designator)
	if !found || p.Lives[len(p.Lives)-1].Went != "" {
		return Life{}, false
	}
	return p.Lives[len(p.Lives)-1], true
}

// ChangedOn is the last day on which a part came or went, by what is said of it; empty for never. A date that leaves the day
// open counts as its last day, but never as later than it was written.
func (s Story) ChangedOn() string {
	last := ""
	for _, p := range s.Positions {
		for _, l := range p.Lives {
			if l.Came != "" {
				last = max(last, dayWithin(l.From, l.CameAt))
			}
			if l.Went != "" {
				last = max(last, dayWithin(l.Until, l.WentAt))
			}
		}
	}
	return last
}

func dayWithin(said string, written time.Time) string {
	day := ""
	if !written.IsZero() {
		day = written.UTC().Format(time.DateOnly)
	}
	d, err := edtf.Parse(said)
	if err != nil {
		return day
	}
	if on := d.Latest().String(); on != "" && (day == "" || on < day) {
		return on
	}
	return day
}
