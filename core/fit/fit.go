// Package fit answers whether two measured parts slide or plug into each other, and what to take off when
// they do not.
package fit

import (
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"
)

// Size is a measured size in millimetres, and by how much the measurement may be off either way.
type Size struct {
	Value float64 `json:"value"`
	Off   float64 `json:"off"`
}

var written = regexp.MustCompile(`^(\d+(?:\.\d+)?)\s*(?:mm)?\s*(?:(?:\+/-|±)\s*(\d+(?:\.\d+)?)\s*(?:mm)?)?$`)

// caliper is by how much a caliper of the workshop is off; a rule of thumb for sizes written without it.
const caliper = 0.05

// ParseSize reads a size as "31.4 mm" or "31.4 +/- 0.1". Without a tolerance that of a caliper is taken.
func ParseSize(text string) (Size, error) {
	match := written.FindStringSubmatch(strings.TrimSpace(text))
	if match == nil {
		return Size{}, fmt.Errorf("%q is no size; write millimetres, as 31.4 or 31.4 +/- 0.1", text)
	}
	s := Size{Off: caliper}
	s.Value, _ = strconv.ParseFloat(match[1], 64) // the pattern lets only figures through
	if match[2] != "" {
		s.Off, _ = strconv.ParseFloat(match[2], 64)
	}
	if s.Value <= 0 || s.Value > 10_000 {
		return Size{}, fmt.Errorf("%g mm is no size that can be", s.Value)
	}
	return s, nil
}

// Measured is a size that was measured with a caliper of the workshop.
func Measured(mm float64) Size { return Size{Value: mm, Off: caliper} }

// Verdict says how two parts stand to each other.
type Verdict string

// Verdicts.
const (
	Clearance    Verdict = "clearance"    // the inner part is smaller, whatever the measurement is off
	Tight        Verdict = "uncertain"    // by the measurement alone it cannot be told
	Interference Verdict = "interference" // the inner part is larger, whatever the measurement is off
)

// Result is the verdict with its figures, in millimetres.
type Result struct {
	Verdict Verdict  `json:"verdict" enum:"clearance,uncertain,interference"`
	Gap     float64  `json:"gap"`     // hole less inner part; below 0 they overlap
	Least   float64  `json:"least"`   // gap if both are off the wrong way
	Most    float64  `json:"most"`    // and the right way
	TakeOff float64  `json:"takeOff"` // to be sure of the play; 0 when nothing
	Why     []string `json:"why"`
}

// Judge lays the inner part beside the hole that it must go into. play is the gap that it needs to slide, 0
// for parts that only have to go in.
func Judge(inner, hole Size, play float64) Result {
	round := func(mm float64) float64 { return math.Round(mm*1000) / 1000 }
	off := inner.Off + hole.Off
	r := Result{Gap: round(hole.Value - inner.Value), Why: []string{}}
	r.Least, r.Most = round(r.Gap-off), round(r.Gap+off)
	r.Why = append(r.Why,
		fmt.Sprintf("the hole measures %g mm, the part %g mm; together the measurements may be off by %g mm",
			hole.Value, inner.Value, round(off)))
	switch {
	case r.Least >= play:
		r.Verdict = Clearance
		r.Why = append(r.Why, fmt.Sprintf("at least %g mm are left", r.Least))
	case r.Most < play:
		r.Verdict = Interference
	default:
		r.Verdict = Tight
		r.Why = append(r.Why, "measure both again, at several places, before anything is taken off")
	}
	if r.Verdict != Clearance {
		r.TakeOff = round(play - r.Least)
		r.Why = append(r.Why,
			fmt.Sprintf(
				"taking %g mm off the part, or making a new one, is sure to fit; what is taken off does not come back",
				r.TakeOff))
	}
	return r
}
