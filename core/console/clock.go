package console

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"

	"frugalheron/core/calendar"
	"frugalheron/core/facts"
)

var (
	ofClock    = regexp.MustCompile(`(?i)\b(clock|rtc|time of day|time-of-day|tod|date|time|today|calendar)\b`)
	clockLost  = regexp.MustCompile(`(?i)\b(not set|unset|invalid|lost|stopped|bad|not running|must be set)\b`)
	isRequest  = regexp.MustCompile(`(?i)\b(enter|type|please|new)\b`)
	cellLow    = regexp.MustCompile(`(?i)\bbattery\b.*\b(low|dead|discharged|failed|flat|bad)\b|\b(low|dead|flat) battery\b`)
	dayISO     = regexp.MustCompile(`\b((?:19|20)\d\d)[-/.](\d{1,2})[-/.](\d{1,2})\b`)
	dayNamed   = regexp.MustCompile(`(?i)\b(\d{1,2})[-/. ](jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*[-/., ]+(\d{2,4})\b`)
	namedDay   = regexp.MustCompile(`(?i)\b(jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]* +(\d{1,2}),? +((?:19|20)\d\d)\b`)
	dayFigures = regexp.MustCompile(`\b(\d{1,2})[-/.](\d{1,2})[-/.](\d{2}|(?:19|20)\d\d)\b`)
	ofSoftware = regexp.MustCompile(`(?i)\b(version|ver|rev|release|copyright|\(c\)|built|compiled)\b`)
)

// clockHints are pieces of which a line has one that speaks of the clock.
var clockHints = []string{"clock", "rtc", "time", "tod", "date", "calendar", "batter"}

const months = "janfebmaraprmayjunjulaugsepoctnovdec"

// clockIn is what a line says of the clock, heard on a day, and what that says of how it kept its time; nil where it says
// nothing.
func clockIn(line TextLine, on calendar.Date) (*Clock, *Claim) {
	text := strings.TrimSpace(line.Text)
	if !hasHint(strings.ToLower(text), clockHints) {
		return nil, nil
	}
	lost := func(why string) (*Clock, *Claim) {
		return &Clock{line.Number, text, why}, &Claim{Line: line.Number, Attribute: "clock-kept", Value: "no",
			Source: facts.Firmware, Why: why}
	}
	switch isClock := ofClock.MatchString(text) && !ofSoftware.MatchString(text); {
	case cellLow.MatchString(text):
		clock, claim := lost("it says that its battery is low")
		claim.Doubt = "which battery it means, and whether the clock stopped, is not told"
		return clock, claim
	case isClock && clockLost.MatchString(text) && !isRequest.MatchString(text):
		return lost("it says itself that it is not set")
	case !isClock:
		return nil, nil
	}
	days := daysIn(text)
	if len(days) == 0 {
		return nil, nil
	}
	for _, day := range days {
		if day == on {
			why := fmt.Sprintf("it shows %s, the day on which it was heard", day)
			return &Clock{line.Number, text, why}, &Claim{Line: line.Number, Attribute: "clock-kept", Value: "yes",
				Source: facts.Firmware, Why: why, Doubt: "somebody may have set it since it was switched on"}
		}
		if day.Month == on.Month && day.Day == on.Day {
			return &Clock{line.Number, text, fmt.Sprintf("it shows the day and month of %s, with another year: set to a year "+
				"that it knows, or one hundred years off", on)}, nil
		}
	}
	if len(days) > 1 {
		return &Clock{line.Number, text, fmt.Sprintf("%s or %s, by whether the day or the month goes first; neither is %s",
			days[0], days[1], on)}, lateClaim(line, days[0], on)
	}
	why := fmt.Sprintf("it shows %s, and was heard on %s", days[0], on)
	return &Clock{line.Number, text, why}, lateClaim(line, days[0], on)
}

func lateClaim(line TextLine, shown, on calendar.Date) *Claim {
	claim := Claim{Line: line.Number, Attribute: "clock-kept", Value: "no", Source: facts.Firmware,
		Why: fmt.Sprintf("it shows %s, and was heard on %s", shown, on)}
	if apart := on.Days() - shown.Days(); apart >= -2 && apart <= 2 {
		claim.Doubt = "a day or two may be where it was set by another time zone, or ran fast or slow"
	} else {
		claim.Doubt = "it may be the day of something else that the line tells of"
	}
	return &claim
}

// daysIn are the days that a line may mean: two where day and month can change places.
func daysIn(text string) []calendar.Date {
	number := func(s string) int { n, _ := strconv.Atoi(s); return n }
	days := []calendar.Date{}
	add := func(year, month, day int) {
		if year < 70 {
			year += 2000
		} else if year < 100 {
			year += 1900
		}
		d, err := calendar.Parse(fmt.Sprintf("%04d-%02d-%02d", year, month, day))
		if err == nil {
			days = append(days, d)
		}
	}
	monthOf := func(name string) int { return strings.Index(months, strings.ToLower(name))/3 + 1 }
	if m := dayISO.FindStringSubmatch(text); m != nil {
		add(number(m[1]), number(m[2]), number(m[3]))
	} else if m := dayNamed.FindStringSubmatch(text); m != nil {
		add(number(m[3]), monthOf(m[2]), number(m[1]))
	} else if m := namedDay.FindStringSubmatch(text); m != nil {
		add(number(m[3]), monthOf(m[1]), number(m[2]))
	} else if m := dayFigures.FindStringSubmatch(text); m != nil {
		add(number(m[3]), number(m[1]), number(m[2]))
		if m[1] != m[2] {
			add(number(m[3]), number(m[2]), number(m[1]))
		}
	}
	return days
}

// settleClock keeps one claim about the clock: where the machine says itself that it is not set, what it shows is no more
// than that.
func (r *TextReading) settleClock() {
	said := -1
	for i, c := range r.Claims {
		if c.Attribute == "clock-kept" && (said < 0 || c.Doubt == "" && r.Claims[said].Doubt != "") {
			said = i
		}
	}
	if said < 0 {
		return
	}
	kept := r.Claims[said]
	claims := []Claim{}
	for _, c := range r.Claims {
		if c.Attribute == "clock-kept" && c.Value != kept.Value && kept.Doubt != "" {
			kept.Doubt = "line " + strconv.Itoa(c.Line) + " says otherwise"
		}
	}
	for i, c := range r.Claims {
		switch {
		case i == said:
			claims = append(claims, kept)
		case c.Attribute != "clock-kept":
			claims = append(claims, c)
		}
	}
	r.Claims = claims
}
