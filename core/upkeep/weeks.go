package upkeep

import (
	"fmt"

	"frugalheron/core/calendar"
)

// Entry is something that stands in the diary on a day.
type Entry struct {
	On    calendar.Date
	Sort  Sort
	Hours *float64 // nil where nobody said how long it takes, or took
}

// Sort says what an entry of the diary is. What was planned and what was done are never added up.
type Sort string

// Sorts of entries.
const (
	FallsDue Sort = "due"
	IsPlan   Sort = "planned"
	WasDone  Sort = "done"
)

// Load is what entries take.
type Load struct {
	Count   int     `json:"count"`
	Hours   float64 `json:"hours" doc:"Of those of which it is known"`
	Untimed int     `json:"untimed" doc:"Of which nobody knows how long they take"`
}

func (l *Load) take(e Entry) {
	l.Count++
	if e.Hours == nil {
		l.Untimed++
		return
	}
	l.Hours += *e.Hours
}

// Week is a week of the diary, from Monday to Sunday.
type Week struct {
	Name    string        `json:"name" says:"code" doc:"As ISO 8601 names it: 2026-W49"`
	From    calendar.Date `json:"from"`
	To      calendar.Date `json:"to"`
	IsNow   bool          `json:"isNow" doc:"Today lies in it"`
	Due     Load          `json:"due" doc:"What falls due in it; what is overdue is due in the week of today"`
	Planned Load          `json:"planned"`
	Done    Load          `json:"done"`
	Entries []int         `json:"-"` // places of its entries among those given, in their order
}

// Weeks lays entries into so many weeks, from the one that holds a day. What should have been done by now is due in the
// week of now: it was not done by being late.
func Weeks(now, from calendar.Date, count int, entries []Entry) []Week {
	first := Monday(from)
	weeks := make([]Week, count)
	for i := range weeks {
		monday := first.AddDays(7 * i)
		year, n := monday.ISOWeek()
		weeks[i] = Week{Name: fmt.Sprintf("%04d-W%02d", year, n), From: monday, To: monday.AddDays(6), Entries: []int{},
			IsNow: Monday(now) == monday}
	}
	for i, e := range entries {
		on := e.On
		if e.Sort == FallsDue && on.Before(now) {
			on = now
		}
		at := on.Days() - first.Days()
		if at < 0 || at >= 7*count {
			continue
		}
		w := &weeks[at/7]
		w.Entries = append(w.Entries, i)
		switch e.Sort {
		case FallsDue:
			w.Due.take(e)
		case IsPlan:
			w.Planned.take(e)
		case WasDone:
			w.Done.take(e)
		}
	}
	return weeks
}

// Monday is the day on which the week of a day begins.
func Monday(d calendar.Date) calendar.Date { return d.AddDays(1 - d.Weekday()) }
