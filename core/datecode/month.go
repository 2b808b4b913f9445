package datecode

import (
	"fmt"
	"strings"

	"frugalheron/core/calendar"
)

// The letters of IEC 60062, clause 5: the year letter repeats every 20 years (A is 1970, 1990
// and 2010), with I, O, Q, Y and Z and G left out; months run 1 to 9, then O, N, D.
const (
	yearLetters  = "ABCDEFHJKLMNPRSTUVWX"
	monthSigns   = "123456789OND"
	letterAYear  = 1970
	letterCycle  = 20
	signsInMonth = 2
)

// ReadMonth returns all readings of the two-sign year and month code that capacitors and
// resistors carry (IEC 60062), the surest first. Safety classes look alike: X1 and X2 on a
// capacitor are never read as a date.
func ReadMonth(code string, era Era) []Candidate {
	found := []Candidate{}
	if len(code) != signsInMonth || code == "X1" || code == "X2" {
		return found
	}
	letter := strings.IndexByte(yearLetters, code[0])
	month := strings.IndexByte(monthSigns, code[1]) + 1
	if letter < 0 || month < 1 {
		return found
	}
	_, to := era.span()
	inEra := 0
	for year := letterAYear + letter; year <= to; year += letterCycle {
		if !era.allows(year) {
			continue
		}
		first, last := calendar.MonthDays(year, month)
		c := Candidate{
			DateCode:   DateCode{Text: fmt.Sprintf("%04d-%02d", year, month), From: first, To: last},
			Confidence: monthLetter,
			Why:        code + " read as year and month letters of IEC 60062, which repeat every 20 years",
		}
		if era.holds(year) {
			inEra++
			c.Confidence = monthInEra
			c.Why += "; in the machine's era"
		}
		found = append(found, c)
	}
	if inEra > 1 {
		for i := range found {
			found[i].Confidence = monthLetter
		}
	}
	Sort(found)
	return found
}
