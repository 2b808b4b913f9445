// Package edtf answers: which days can somebody mean who writes a date the way records do? It reads
// and writes the Extended Date/Time Format (ISO 8601-2:2019, levels 0 and 1) as far as a collection
// needs it: years, months and days, uncertain and approximate ones, decades and centuries with
// figures left open, seasons, and intervals that may be open at either end.
//
//	1984          the year
//	1984-06       the month
//	1984-06-02    the day
//	198X          some year of the eighties
//	1984~ 1984? 1984%   about then, perhaps then, both
//	1984-21       spring (22 summer, 23 autumn, 24 winter)
//	1983/1985     from some time in 1983 to some time in 1985
//	../1990 1985/..     open: no beginning, no end
//	/1990 1985/         an end that nobody knows
package edtf

import (
	"cmp"
	"fmt"
	"strings"

	"frugalheron/core/calendar"
)

// Date is what was written: one date, or an interval.
type Date struct {
	From, To Part // the same for a single date
	Interval bool
}

// Part is one date, or one end of an interval.
type Part struct {
	Year, Month, Day int // Month and Day are 0 where they are not written; Month 21 to 24 are seasons
	OpenDigits       int // last figures of the year that are X
	Uncertain        bool
	Approximate      bool
	Open             bool // ".." as an end
	Unknown          bool // nothing as an end
}

// Bounds of what can be meant.
var (
	earliest = calendar.Date{Year: 1, Month: 1, Day: 1}
	latest   = calendar.Date{Year: 9999, Month: 12, Day: 31}
)

// Earliest is the first day that can be meant; the beginning of all days for an open or unknown one.
func (d Date) Earliest() calendar.Date { return d.From.first() }

// Latest is the last day that can be meant; the end of all days for an open or unknown one.
func (d Date) Latest() calendar.Date { return d.To.last() }

// Certain is the stretch of days that is meant whatever the open ends of what was written stand for:
// of 1983/1985 from the last day of 1983 to the first of 1985. It returns false where there is none, as
// for a single year: that is some day in it.
func (d Date) Certain() (from, to calendar.Date, ok bool) {
	if !d.Interval || d.From.isNowhere() && d.To.isNowhere() {
		return from, to, false
	}
	from, to = d.From.last(), d.To.first()
	if d.From.isNowhere() {
		from = to
	}
	if d.To.isNowhere() {
		to = from
	}
	return from, to, !to.Before(from)
}

// Compare orders dates for lists: by the first day that can be meant, then by the last, then the more
// certain before the less certain. 1984 comes before 1984-06, which comes before 1984-06-02 only if
// its first day does; of equal first days, the longer comes first, as a heading before what is under it.
func Compare(a, b Date) int {
	return cmp.Or(
		cmp.Compare(a.Earliest().Days(), b.Earliest().Days()),
		cmp.Compare(b.Latest().Days(), a.Latest().Days()),
		cmp.Compare(a.doubt(), b.doubt()),
	)
}

// Relation says how two dates lie to each other, as far as what is written tells.
type Relation string

// Relations.
const (
	Before   Relation = "before"   // the first ends before the second can begin
	After    Relation = "after"    // the other way round
	Overlaps Relation = "overlaps" // they may be the same time, in part at least
)

// Relate compares with uncertainty: only what cannot be otherwise is before or after.
func Relate(a, b Date) Relation {
	switch {
	case a.Latest().Before(b.Earliest()):
		return Before
	case b.Latest().Before(a.Earliest()):
		return After
	}
	return Overlaps
}

func (d Date) doubt() int {
	n := 0
	for _, p := range []Part{d.From, d.To} {
		if p.Uncertain {
			n++
		}
		if p.Approximate {
			n++
		}
	}
	return n
}

// String writes the date in its shortest form.
func (d Date) String() string {
	if !d.Interval {
		return d.From.String()
	}
	return d.From.String() + "/" + d.To.String()
}

// String writes the part.
func (p Part) String() string {
	switch {
	case p.Open:
		return ".."
	case p.Unknown:
		return ""
	}
	text := fmt.Sprintf("%04d", p.Year)
	text = text[:4-p.OpenDigits] + strings.Repeat("X", p.OpenDigits)
	if p.Month > 0 {
		text += fmt.Sprintf("-%02d", p.Month)
	}
	if p.Day > 0 {
		text += fmt.Sprintf("-%02d", p.Day)
	}
	switch {
	case p.Uncertain && p.Approximate:
		return text + "%"
	case p.Uncertain:
		return text + "?"
	case p.Approximate:
		return text + "~"
	}
	return text
}

func (p Part) first() calendar.Date {
	switch {
	case p.Open || p.Unknown:
		return earliest
	case p.Day > 0:
		return calendar.Date{Year: p.Year, Month: p.Month, Day: p.Day}
	case p.Month > 20:
		return seasonFirst(p.Year, p.Month)
	case p.Month > 0:
		first, _ := calendar.MonthDays(p.Year, p.Month)
		return first
	}
	return calendar.Date{Year: max(p.Year, 1), Month: 1, Day: 1}
}

func (p Part) last() calendar.Date {
	switch {
	case p.Open || p.Unknown:
		return latest
	case p.Day > 0:
		return calendar.Date{Year: p.Year, Month: p.Month, Day: p.Day}
	case p.Month > 20:
		return seasonLast(p.Year, p.Month)
	case p.Month > 0:
		_, last := calendar.MonthDays(p.Year, p.Month)
		return last
	}
	span := 1
	for range p.OpenDigits {
		span *= 10
	}
	return calendar.Date{Year: p.Year + span - 1, Month: 12, Day: 31}
}

// Seasons are the quarters that begin with March, June, September and December, as people of the
// northern half say them; winter runs into the next year.
func seasonFirst(year, season int) calendar.Date {
	return calendar.Date{Year: year, Month: (season - 20) * 3 % 13, Day: 1}
}

func seasonLast(year, season int) calendar.Date {
	if season == 24 {
		_, last := calendar.MonthDays(year+1, 2)
		return last
	}
	_, last := calendar.MonthDays(year, (season-20)*3+2)
	return last
}
