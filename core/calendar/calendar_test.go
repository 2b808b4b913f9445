package calendar_test

import (
	"fmt"
	"testing"
	"time"

	"frugalheron/core/calendar"
)

// The standard library judges our arithmetic: day by day over the years that parts come from.
func TestDaysAndWeekdaysAgreeWithTimePackage(t *testing.T) {
	day := time.Date(1899, 12, 25, 0, 0, 0, 0, time.UTC)
	for ; day.Year() < 2101; day = day.AddDate(0, 0, 1) {
		date := calendar.Date{Year: day.Year(), Month: int(day.Month()), Day: day.Day()}
		if got, want := date.Days(), int(day.Unix()/86400); got != want && day.Unix()%86400 == 0 {
			t.Fatalf("%v.Days() = %d, want %d", date, got, want)
		}
		if back := calendar.FromDays(date.Days()); back != date {
			t.Fatalf("FromDays(%v.Days()) = %v", date, back)
		}
		if got, want := date.Weekday(), (int(day.Weekday())+6)%7+1; got != want {
			t.Fatalf("%v.Weekday() = %d, want %d", date, got, want)
		}
		year, week := day.ISOWeek()
		monday, sunday := calendar.Week(year, week)
		if date.Before(monday) || sunday.Before(date) {
			t.Fatalf("%v is outside its week %d-W%02d, %v to %v", date, year, week, monday, sunday)
		}
	}
}

func TestParseRefusesWhatIsNoDay(t *testing.T) {
	for _, text := range []string{"", "1985", "1985-02-29", "1985-13-01", "1985-00-10", "85-01-01", "1985-1-1",
		"1985-01-01x", "1985-01-3a"} {
		if d, err := calendar.Parse(text); err == nil {
			t.Errorf("Parse(%q) = %v, want an error", text, d)
		}
	}
	if d, err := calendar.Parse("1984-02-29"); err != nil || d.String() != "1984-02-29" {
		t.Errorf("Parse(1984-02-29) = %v, %v", d, err)
	}
}

func ExampleWeek() {
	fmt.Println(calendar.Week(1985, 33))
	fmt.Println(calendar.Week(1985, 53)) // 1985 has 52 weeks
	// Output:
	// 1985-08-12 1985-08-18
	// 1985-12-30 1985-12-31
}
