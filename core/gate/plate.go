package gate

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// tolerance is how far volts may be from a single figure of a plate, in parts of it. Source: supplies of the time are
// made for 10 % either way; a plate that says a range says it closer.
const tolerance = 0.10

// span is one voltage of a plate, as written, and what it covers.
type span struct {
	text      string
	low, high float64 // as written; equal for a single figure
}

// covers reports whether a supply for these volts may be fed with some: a single figure within 10 %, or in the range.
func (s span) covers(volts float64) bool {
	low, high := s.low, s.high
	if low == high {
		low, high = low*(1-tolerance), high*(1+tolerance)
	}
	return volts >= low-epsilon && volts <= high+epsilon
}

func (s span) names(volts float64) bool { return volts >= s.low-epsilon && volts <= s.high+epsilon }

// epsilon is below what any meter shows, in volts.
const epsilon = 1e-9

var (
	unitWords = regexp.MustCompile(`(?i)\b(volts?|vac|vdc|v\.?|ac|dc|hertz|hz)\b|[~=⎓]`)
	gluedUnit = regexp.MustCompile(`(?i)(\d)\s*(vac|vdc|volts?|v|hertz|hz)`)
	dash      = regexp.MustCompile(`\s*(-|\.\.)\s*`)
	oneFigure = regexp.MustCompile(`^(\d+(?:\.\d+)?)(?:(?:-|\.\.)(\d+(?:\.\d+)?))?$`)
)

// spansOf reads what is written on a plate, as 230, 220-240 or 115/230; ok is false when some of it cannot be read.
func spansOf(text string) (spans []span, ok bool) {
	text = gluedUnit.ReplaceAllString(strings.NewReplacer("–", "-", "—", "-", "−", "-").Replace(text), "$1 ")
	text = unitWords.ReplaceAllString(text, " ")
	for one := range strings.FieldsFuncSeq(text, func(r rune) bool { return r == '/' || r == ',' || r == ';' }) {
		one = dash.ReplaceAllString(strings.TrimSpace(one), "$1")
		m := oneFigure.FindStringSubmatch(one)
		if m == nil {
			return nil, false
		}
		low, _ := strconv.ParseFloat(m[1], 64) // figures, by the pattern
		high := low
		if m[2] != "" {
			high, _ = strconv.ParseFloat(m[2], 64)
		}
		if low <= 0 || high < low || math.IsInf(high, 0) {
			return nil, false
		}
		spans = append(spans, span{one, low, high})
	}
	return spans, len(spans) > 0
}

// uncovered says why a plate does not cover some volts; empty when it does. A selector decides between several.
func uncovered(plate string, selector *float64, volts float64, what string) string {
	if strings.TrimSpace(plate) == "" {
		return "the volts of its plate were not read"
	}
	spans, ok := spansOf(plate)
	switch {
	case !ok:
		return fmt.Sprintf("the volts of its plate, %q, cannot be read", plate)
	case volts <= 0:
		return what + " not known"
	case selector == nil && len(spans) > 1:
		return fmt.Sprintf("its plate says %s, and where its selector stands was not read", plate)
	case selector == nil && !spans[0].covers(volts):
		return fmt.Sprintf("its plate says %s V, and %s %s", plate, what, say(volts))
	case selector == nil:
		return ""
	}
	at := slices.IndexFunc(spans, func(s span) bool { return s.names(*selector) })
	switch {
	case at < 0:
		return fmt.Sprintf("its selector stands at %s, which its plate, %s V, does not name", say(*selector), plate)
	case !spans[at].covers(volts):
		return fmt.Sprintf("its selector stands at %s, and %s %s", say(*selector), what, say(volts))
	}
	return ""
}

func say(volts float64) string { return strconv.FormatFloat(volts, 'f', -1, 64) + " V" }

// Covers reports whether any of the voltages that a plate names covers some volts; isRead is false when the plate cannot be
// read.
func Covers(plate string, volts float64) (covers, isRead bool) {
	spans, isRead := spansOf(plate)
	return slices.ContainsFunc(spans, func(s span) bool { return s.covers(volts) }), isRead
}

// CoversHertz reports whether a plate names a frequency.
func CoversHertz(plate, local string) bool {
	spans, isRead := spansOf(plate)
	hertz, err := strconv.ParseFloat(local, 64)
	return isRead && err == nil && slices.ContainsFunc(spans, func(s span) bool { return s.names(hertz) })
}
