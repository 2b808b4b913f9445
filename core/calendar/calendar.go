// Package calendar answers: which day is that, and which days does an ISO week cover?
//
// It holds plain civil dates without clock or time zone, as date codes, rating plates and
// documents give them. Weeks follow ISO 8601: they start on Monday and belong to the year
// that holds their Thursday.
package calendar

import (
	"errors"
	"fmt"
)

// Date is a day of the proleptic Gregorian calendar. The zero value is no date.
type Date struct {
	Year, Month, Day int
}

// ErrNotADate is returned for text that does not name an existing day.
var ErrNotADate = errors.New("not a date of the form YYYY-MM-DD")

// Parse reads a date of the form YYYY-MM-DD and refuses days that do not exist.
func Parse(text string) (Date, error) {
	var d Date
	if len(text) != 10 {
		return Date{}, fmt.Errorf("%q: %w", text, ErrNotADate)
	}
	if _, err := fmt.Sscanf(text, "%04d-%02d-%02d", &d.Year, &d.Month, &d.Day); err != nil {
		return Date{}, fmt.Errorf("%q: %w", text, ErrNotADate)
	}
	if d.String() != text || FromDays(d.Days()) != d {
		return Date{}, fmt.Errorf("%q: %w", text, ErrNotADate)
	}
	return d, nil
}

// IsZero reports whether d is no date at all.
func (d Date) IsZero() bool { return d == Date{} }

// String gives the form YYYY-MM-DD, or nothing for the zero value.
func (d Date) String() string {
	if d.IsZero() {
		return ""
	}
	if d.Year < 0 || d.Year > 9999 {
		return fmt.Sprintf("%04d-%02d-%02d", d.Year, d.Month, d.Day)
	}
	text := []byte("0000-00-00")
	for _, part := range [...]struct{ value, end int }{{d.Year, 3}, {d.Month, 6}, {d.Day, 9}} {
		for value, at := part.value, part.end; value > 0 && at >= 0; value, at = value/10, at-1 {
			text[at] += byte(value % 10)
		}
	}
	return string(text)
}

// MarshalText writes the date as YYYY-MM-DD.
func (d Date) MarshalText() ([]byte, error) { return []byte(d.String()), nil }

// UnmarshalText reads what MarshalText wrote.
func (d *Date) UnmarshalText(text []byte) error {
	if len(text) == 0 {
		*d = Date{}
		return nil
	}
	parsed, err := Parse(string(text))
	if err == nil {
		*d = parsed
	}
	return err
}

// Days counts days since 1970-01-01; earlier days are negative.
func (d Date) Days() int {
	// Years are taken to start in March, so that the leap day comes last and month
	// lengths follow one formula.
	year, month := d.Year, d.Month-3
	if month < 0 {
		year, month = year-1, month+12
	}
	era := floorDiv(year, 400)
	yearOfEra := year - era*400
	dayOfYear := (153*month+2)/5 + d.Day - 1
	dayOfEra := yearOfEra*365 + yearOfEra/4 - yearOfEra/100 + dayOfYear
	return era*146097 + dayOfEra - 719468
}

// FromDays is the inverse of Date.Days.
func FromDays(days int) Date {
	days += 719468
	era := floorDiv(days, 146097)
	dayOfEra := days - era*146097
	yearOfEra := (dayOfEra - dayOfEra/1460 + dayOfEra/36524 - dayOfEra/146096) / 365
	dayOfYear := dayOfEra - (365*yearOfEra + yearOfEra/4 - yearOfEra/100)
	month := (5*dayOfYear + 2) / 153
	d := Date{Year: yearOfEra + era*400, Month: month + 3, Day: dayOfYear - (153*month+2)/5 + 1}
	if d.Month > 12 {
		d.Year, d.Month = d.Year+1, d.Month-12
	}
	return d
}

// Before reports whether d lies before other.
func (d Date) Before(other Date) bool { return d.Days() < other.Days() }

// AddDays returns the day n days later.
func (d Date) AddDays(n int) Date { return FromDays(d.Days() + n) }

// Weekday counts from Monday, 1, to Sunday, 7.
func (d Date) Weekday() int {
	// 1970-01-01 was a Thursday.
	sinceMonday := d.Days() + 3
	return sinceMonday - 7*floorDiv(sinceMonday, 7) + 1
}

// MonthDays returns the first and the last day of a month.
func MonthDays(year, month int) (first, last Date) {
	first = Date{year, month, 1}
	next := Date{year, month + 1, 1}
	if month == 12 {
		next = Date{year + 1, 1, 1}
	}
	return first, next.AddDays(-1)
}

// WeeksIn tells whether an ISO year has 52 or 53 weeks.
func WeeksIn(year int) int {
	return (mondayOfWeekOne(year+1).Days() - mondayOfWeekOne(year).Days()) / 7
}

// Week returns Monday and Sunday of an ISO week. Date codes sometimes name week 53 in a year
// of 52 weeks: that stands for the days left after week 52 and ends with the year.
func Week(year, week int) (monday, sunday Date) {
	monday = mondayOfWeekOne(year).AddDays(7 * (week - 1))
	if week <= WeeksIn(year) {
		return monday, monday.AddDays(6)
	}
	yearEnd := Date{year, 12, 31}
	if yearEnd.Before(monday) {
		monday = yearEnd
	}
	return monday, yearEnd
}

// ISOWeek returns the ISO week that a day lies in, and the year that the week belongs to.
func (d Date) ISOWeek() (year, week int) {
	thursday := d.AddDays(4 - d.Weekday())
	return thursday.Year, (thursday.Days()-Date{thursday.Year, 1, 1}.Days())/7 + 1
}

func mondayOfWeekOne(year int) Date {
	fourth := Date{year, 1, 4} // always in week 1
	return fourth.AddDays(1 - fourth.Weekday())
}

func floorDiv(a, b int) int {
	q := a / b
	if a%b < 0 {
		q--
	}
	return q
}

// AddMonths returns the same day n months later, or the last day of that month where it is shorter.
func (d Date) AddMonths(n int) Date {
	month := d.Year*12 + d.Month - 1 + n
	year := floorDiv(month, 12)
	_, last := MonthDays(year, month-12*year+1)
	return Date{year, last.Month, min(d.Day, last.Day)}
}
