// Package datecode answers: when was this part made, going by the few figures printed on it?
//
// Chips carry a year and a week (8533 or 3385), a last digit of the year and a week (533), or
// such a code between plant letters. Capacitors and resistors carry two signs for year and
// month (IEC 60062). A code can often be read in more than one way: every reading is returned
// with how sure it is and why, and none is chosen unless it clearly leads.
package datecode

import (
	"fmt"
	"iter"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"frugalheron/core/calendar"
)

// DateCode is one reading of a code: what it says and which days that covers, both included.
type DateCode struct {
	Text string        `json:"text" doc:"Year and week or month, as 1985-W33 or 1986-06"`
	From calendar.Date `json:"from" doc:"First day covered, YYYY-MM-DD"`
	To   calendar.Date `json:"to" doc:"Last day covered, YYYY-MM-DD"`
}

// Candidate is a possible reading.
type Candidate struct {
	DateCode
	// Confidence lies between 0 and 1. It orders readings; it is no probability.
	Confidence float64 `json:"confidence" doc:"From 0 to 1: orders the readings, not a probability"`
	Why        string  `json:"why" doc:"How the code was read"`
}

// Era is the span of years in which a machine's parts are expected. The zero value is unknown.
type Era struct {
	From, To int
	// Latest is the last year that a code can mean, for a part that was put in later; 0 for the usual one.
	Latest int
}

// The years that two-digit codes are taken to lie in when nothing is known of the machine:
// from the first dated integrated circuits to the end of through-hole home and office machines.
const (
	firstYear = 1965
	lastYear  = 2010
)

func (e Era) known() bool          { return e.From != 0 || e.To != 0 }
func (e Era) holds(year int) bool  { return e.known() && e.From <= year && year <= e.To }
func (e Era) allows(year int) bool { return firstYear <= year && year <= e.latest() || e.holds(year) }

func (e Era) latest() int {
	if e.Latest > 0 {
		return e.Latest
	}
	return lastYear
}

// yearsEndingIn yields the possible years whose remainder by the cycle is given.
func (e Era) yearsEndingIn(remainder, cycle int) iter.Seq[int] {
	return func(yield func(int) bool) {
		from, to := e.span()
		for year := from + ((remainder-from)%cycle+cycle)%cycle; year <= to; year += cycle {
			if e.allows(year) && !yield(year) {
				return
			}
		}
	}
}

func (e Era) span() (from, to int) {
	if !e.known() {
		return firstYear, e.latest()
	}
	return min(firstYear, e.From), max(e.latest(), e.To)
}

// Confidences of the ways to read a code; rules of thumb.
const (
	onlyReading   = 0.9
	yearFirst     = 0.5
	weekFirst     = 0.4
	openDecade    = 0.2
	decadeFromEra = 0.7
	outsideEra    = 0.1
	mostOutside   = 0.3 // at most, for a reading outside the machine's era
	written       = 0.95
	plantLetters  = 0.6 // factor
	monthLetter   = 0.3
	monthInEra    = 0.7
	clearLead     = 2.0 // the best must be this many times as sure as the next
)

// Read returns all readings of a code that stands by itself, the surest first; none when it cannot be a date. It is three
// or four digits, in brackets or not, or year and week with a stroke between (85-12), or written out (1985-W12).
func Read(code string, era Era) []Candidate {
	code = strings.Trim(code, "()[]")
	if m := writtenOut.FindStringSubmatch(code); m != nil {
		return writtenWeek(number(m[1]), number(m[2]), era)
	}
	if m := divided.FindStringSubmatch(code); m != nil {
		code = m[1] + m[2]
	}
	found := []Candidate{}
	switch {
	case !allDigits(code):
	case len(code) == 4:
		found = fourDigits(code, era)
	case len(code) == 3:
		found = threeDigits(code, era)
	}
	return inEra(found, era)
}

var (
	writtenOut = regexp.MustCompile(`^(19\d\d|20\d\d)-?W(\d\d)$`)
	divided    = regexp.MustCompile(`^(\d\d)[-/](\d\d)$`)
)

func writtenWeek(year, week int, era Era) []Candidate {
	if week < 1 || week > 53 || !era.allows(year) {
		return []Candidate{}
	}
	one := weekCandidate(year, week, "written as year and week")
	one.Confidence = written
	return inEra([]Candidate{one}, era)
}

// ReadLettered is Read for a code behind a device number, which may stand between letters of the plant or lot: at most
// two before it, and two behind it, of which the last may be a figure (8714K5).
func ReadLettered(code string, era Era) []Candidate {
	if found := Read(code, era); len(found) > 0 {
		return found
	}
	m := lettered.FindStringSubmatch(code)
	if m == nil || m[1]+m[3] == "" {
		return []Candidate{}
	}
	found := Read(m[2], era)
	for i := range found {
		found[i].Confidence *= plantLetters
		found[i].Why += ", between letters that may stand for the plant or the lot"
	}
	return found
}

// Three figures between letters are more often a type number than a date.
var lettered = regexp.MustCompile(`^([A-Z]{0,2})(\d{4})([A-Z]{0,2}|[A-Z]\d)$`)

// inEra keeps readings outside the machine's era from being sure, and sorts.
func inEra(found []Candidate, era Era) []Candidate {
	for i := range found {
		if era.known() && !era.holds(yearOf(found[i])) {
			found[i].Confidence = min(found[i].Confidence, mostOutside)
		}
	}
	Sort(found)
	return found
}

// Sort puts the surest reading first and keeps the order of equals.
func Sort(candidates []Candidate) {
	slices.SortStableFunc(candidates, func(a, b Candidate) int {
		switch {
		case a.Confidence > b.Confidence:
			return -1
		case a.Confidence < b.Confidence:
			return 1
		}
		return 0
	})
}

// Best returns the reading that stands alone or clearly leads a sorted list, else nil.
func Best(candidates []Candidate) *DateCode {
	if len(candidates) == 0 {
		return nil
	}
	if len(candidates) > 1 && candidates[0].Confidence < clearLead*candidates[1].Confidence {
		return nil
	}
	best := candidates[0].DateCode
	return &best
}

func fourDigits(digits string, era Era) []Candidate {
	first, second := number(digits[:2]), number(digits[2:])
	found := []Candidate{}
	add := func(yearDigits, week int, order string) {
		if week < 1 || week > 53 {
			return
		}
		for year := range era.yearsEndingIn(yearDigits, 100) {
			found = append(found, weekCandidate(year, week, digits+" read as "+order))
		}
	}
	add(first, second, "year and week")
	split := len(found)
	if first != second {
		add(second, first, "week and year")
	}
	weigh(found, split, era)
	return found
}

// weigh sets confidences: found[:split] reads the year first, found[split:] the week.
func weigh(found []Candidate, split int, era Era) {
	within := 0
	for _, c := range found {
		if era.holds(yearOf(c)) {
			within++
		}
	}
	for i := range found {
		c := &found[i]
		switch {
		case len(found) == 1:
			c.Confidence = onlyReading
			c.Why += "; no other reading has a possible week and year"
		case within == 1 && era.holds(yearOf(*c)):
			c.Confidence = onlyReading
			c.Why += "; the only reading in the machine's era"
		case within > 0 && !era.holds(yearOf(*c)):
			c.Confidence = outsideEra
			c.Why += "; outside the machine's era"
		case i < split:
			c.Confidence = yearFirst
		default:
			c.Confidence = weekFirst
		}
	}
}

func threeDigits(digits string, era Era) []Candidate {
	yearDigit, week := number(digits[:1]), number(digits[1:])
	found := []Candidate{}
	if week < 1 || week > 53 {
		return found
	}
	within := 0
	for year := range era.yearsEndingIn(yearDigit, 10) {
		found = append(found, weekCandidate(year, week, digits+" read as last digit of the year and week"))
		if era.holds(year) {
			within++
		}
	}
	for i := range found {
		c := &found[i]
		switch {
		case within == 1 && era.holds(yearOf(*c)):
			c.Confidence = decadeFromEra
			c.Why += "; the decade follows from the machine's era"
		case within > 0 && !era.holds(yearOf(*c)):
			c.Confidence = outsideEra
			c.Why += "; outside the machine's era"
		default:
			c.Confidence = openDecade
			c.Why += "; the decade is open"
		}
	}
	return found
}

func weekCandidate(year, week int, how string) Candidate {
	from, to := calendar.Week(year, week)
	if week > calendar.WeeksIn(year) {
		how += fmt.Sprintf("; %d has only 52 weeks, so week 53 is taken to end with the year", year)
	}
	return Candidate{DateCode: DateCode{Text: weekText(year, week), From: from, To: to}, Why: how}
}

// weekText writes 1985-W33.
func weekText(year, week int) string {
	text := strconv.AppendInt(make([]byte, 0, len("1985-W33")), int64(year), 10)
	return string(append(text, '-', 'W', byte('0'+week/10), byte('0'+week%10)))
}

func yearOf(c Candidate) int { return number(c.Text[:4]) }

func allDigits(s string) bool {
	for i := range len(s) {
		if s[i] < '0' || s[i] > '9' {
			return false
		}
	}
	return s != ""
}

func number(digits string) int {
	n, _ := strconv.Atoi(digits) // callers pass digits only
	return n
}
