package gate

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"frugalheron/core/calendar"
	"frugalheron/core/malformed"
)

// defaultMonths is for how long an inspection or a run of a supply counts. Rule of thumb: capacitors of a supply that
// stood for a year are looked at again.
const defaultMonths = 12

func (in *Input) check() error {
	if in.Now.IsZero() {
		if err := in.Now.Check("now", calendar.Date{}); err != nil {
			return err
		}
		return malformed.In("now", "now: the day for which this is asked is missing; write YYYY-MM-DD")
	}
	if in.SupplyMonths != nil && (*in.SupplyMonths < 0 || *in.SupplyMonths > 1200) {
		return malformed.Named("supplyMonths", "%d is no number of months from 0 to 1200", *in.SupplyMonths)
	}
	if err := figures("local", map[string]float64{"volts": in.Local.Volts, "hz": in.Local.Hz}); err != nil {
		return err
	}
	c := checker{now: in.Now.Date}
	c.day("changedOn", in.ChangedOn)
	ids := map[string]bool{}
	for i := range in.Supplies {
		c.supply(fmt.Sprintf("supplies[%d]", i), in.Supplies[i])
		c.once(ids, fmt.Sprintf("supplies[%d].id", i), in.Supplies[i].ID)
	}
	for i, f := range in.Findings {
		c.oneOf(fmt.Sprintf("findings[%d].severity", i), f.Severity, "cosmetic", "watch", "repair", "hazard")
		c.oneOf(fmt.Sprintf("findings[%d].subsystem", i), f.Subsystem, "supply", "mains", "tube", "battery", "board",
			"cooling", "other")
	}
	for i, b := range in.Batteries {
		c.oneOf(fmt.Sprintf("batteries[%d].state", i), b.State, "fitted", "leaking", "swollen", "out", "replaced")
	}
	for i, one := range in.Cooling {
		c.oneOf(fmt.Sprintf("cooling[%d].state", i), one.State, "turns", "dead", "missing", "unknown")
	}
	steps := map[string]bool{}
	for i, s := range in.Ladder {
		at := fmt.Sprintf("ladder[%d]", i)
		if strings.TrimSpace(s.Step) == "" {
			c.fail(at+".step", "a step needs its words")
		}
		c.once(steps, at+".step", s.Step)
		c.oneOf(at+".kind", s.Kind, "minimum", "add")
		c.oneOf(at+".result", s.Result, "", "as-expected", "not")
		c.day(at+".on", s.On)
	}
	return c.err
}

// checker keeps the first thing that is wrong.
type checker struct {
	now calendar.Date
	err error
}

func (c *checker) fail(field, format string, about ...any) {
	if c.err == nil {
		c.err = malformed.Named(field, format, about...)
	}
}

func (c *checker) day(field string, e calendar.Entered) {
	if c.err == nil {
		c.err = e.Check(field, c.now)
	}
}

func (c *checker) oneOf(field, value string, may ...string) {
	if !slices.Contains(may, value) {
		c.fail(field, "%q is none of %s", value, strings.TrimPrefix(strings.Join(may, ", "), ", "))
	}
}

func (c *checker) once(seen map[string]bool, field, value string) {
	if seen[value] {
		c.fail(field, "%q stands there twice; each needs its own words", value)
	}
	seen[value] = true
}

func (c *checker) supply(at string, s Supply) {
	c.oneOf(at+".kind", string(s.Kind), "mains", "adapter", "bench", "battery")
	c.day(at+".inspectedOn", s.InspectedOn)
	c.day(at+".movedOn", s.MovedOn)
	c.day(at+".ranOn", s.RanOn)
	if s.Plate != nil {
		c.oneOf(at+".plate.polarity", s.Plate.Polarity, "", "centre+", "centre-", "none")
	}
	if s.Source != nil {
		c.oneOf(at+".source.polarity", s.Source.Polarity, "", "centre+", "centre-", "none")
		c.figures(at+".source", map[string]float64{"volts": s.Source.Volts})
	}
	c.figures(at+".rating", s.Rating)
	c.figures(at+".draw", s.Draw)
	for i, r := range s.Rails {
		rail := fmt.Sprintf("%s.rails[%d]", at, i)
		c.oneOf(rail+".load", r.Load, "dummy", "machine", "none")
		c.day(rail+".on", r.On)
		switch {
		case strings.TrimSpace(r.Rail) == "":
			c.fail(rail+".rail", "a reading needs the name of its rail, as +5")
		case r.Volts == nil:
			c.fail(rail+".volts", "a reading needs its volts")
		case r.On.IsZero():
			c.fail(rail+".on", "a reading needs its day; write YYYY-MM-DD")
		case r.Low != nil && r.High != nil && *r.Low > *r.High:
			c.fail(rail+".low", "%g lies above the upper limit %g; with a negative rail the lower one is further from 0",
				*r.Low, *r.High)
		}
	}
}

func (c *checker) figures(at string, by map[string]float64) {
	if c.err == nil {
		c.err = figures(at, by)
	}
}

// figures refuses what is below 0 or no figure.
func figures(at string, by map[string]float64) error {
	for name, value := range by {
		if value < 0 || math.IsNaN(value) || math.IsInf(value, 0) {
			return malformed.Named(at+"."+name, "%g cannot be; write a figure from 0", value)
		}
	}
	return nil
}

// wrong names the place in the words, too: it is read on a terminal.
