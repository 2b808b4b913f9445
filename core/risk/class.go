// Package risk answers what to look at first: which parts of a collection age, how long ago somebody looked,
// and what happens when they fail. It is an order, not a probability.
//
// How often a part of an age should be looked at is a table that ships in classes.tsv, each row with its
// source, and that a collection may change.
package risk

import (
	_ "embed"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"

	"frugalheron/core/table"
)

//go:embed classes.tsv
var classTable string

// Consequence is what happens when a part fails.
type Consequence string

// Consequences, from the lightest.
const (
	Looks   Consequence = "looks"   // cosmetic
	Data    Consequence = "data"    // loses data
	Stops   Consequence = "stops"   // stops the machine
	Spreads Consequence = "spreads" // eats its neighbours
	Hurts   Consequence = "hurts"   // may hurt somebody
)

// Consequences lists them from the lightest, with how much each counts.
func Consequences() []struct {
	Consequence Consequence
	Weight      float64
	Means       string
} {
	return []struct {
		Consequence Consequence
		Weight      float64
		Means       string
	}{
		{Looks, 1, "changes only how it looks"}, {Data, 2, "loses data"}, {Stops, 2, "stops the machine"},
		{Spreads, 4, "spreads to its neighbours"}, {Hurts, 6, "may hurt somebody"},
	}
}

// Weight is how much a consequence counts; 0 for one that is not known.
func (c Consequence) Weight() float64 {
	for _, one := range Consequences() {
		if one.Consequence == c {
			return one.Weight
		}
	}
	return 0
}

func (c Consequence) means() string {
	for _, one := range Consequences() {
		if one.Consequence == c {
			return one.Means
		}
	}
	return string(c)
}

// Interval says how often a part from an age on should be looked at.
type Interval struct {
	FromYears int `json:"fromYears" minimum:"0" maximum:"100"`
	Months    int `json:"months" minimum:"1" maximum:"600" doc:"Between two looks"`
}

// Class is a kind of part that ages.
type Class struct {
	Key         string      `json:"key" maxLength:"40"`
	Name        string      `json:"name" maxLength:"100"`
	Consequence Consequence `json:"consequence" enum:"looks,data,stops,spreads,hurts"`
	Intervals   []Interval  `json:"intervals" minItems:"1" maxItems:"8" doc:"By age, the first from 0 years on"`
	Minutes     int         `json:"minutes" minimum:"1" maximum:"480" doc:"To look at one once the machine is open"`
	Happens     string      `json:"happens" says:"text" maxLength:"300" doc:"What happens to it"`
	Source      string      `json:"source" says:"text" maxLength:"300" doc:"How one knows"`
	parts       *regexp.Regexp
}

// Shipped lists the classes as they ship, in the order in which a part is looked up in them.
func Shipped() []Class { return slices.Clone(shippedClasses()) }

var shippedClasses = sync.OnceValue(func() []Class {
	all := []Class{}
	for _, cells := range table.Reference("classes", classTable, "key", "name", "consequence", "intervals", "minutes",
		"parts", "happens", "source") {
		c := Class{Key: cells[0], Name: cells[1], Consequence: Consequence(cells[2]),
			parts: regexp.MustCompile(`(?i)` + cells[5]), Happens: cells[6], Source: cells[7]}
		for _, one := range strings.Fields(cells[3]) {
			from, months, _ := strings.Cut(one, ">")
			years, _ := strconv.Atoi(from)
			n, _ := strconv.Atoi(months)
			c.Intervals = append(c.Intervals, Interval{years, n})
		}
		c.Minutes, _ = strconv.Atoi(cells[4])
		all = append(all, c)
	}
	return all
})

// ClassOf finds the class of a part by its kind and words, as "battery NiCd 3.6V"; empty when it does not age.
func ClassOf(words string) string {
	for _, c := range shippedClasses() {
		if c.parts.MatchString(words) {
			return c.Key
		}
	}
	return ""
}

// ClassOf finds the class of a part by its words: one of those that ship, or one that is named by its key.
func (t Table) ClassOf(words string) string {
	if key := ClassOf(words); key != "" {
		return key
	}
	if _, own := t[words]; own {
		return words
	}
	return ""
}

// Table is the classes by which a collection is ranked.
type Table map[string]Class

// TableOf puts a collection's own classes in the place of those that ship.
func TableOf(own []Class) Table {
	t := Table{}
	for _, c := range shippedClasses() {
		t[c.Key] = c
	}
	for _, c := range own {
		t[c.Key] = c
	}
	return t
}

// List lists the classes of a table in the order in which they ship.
func (t Table) List() []Class {
	all := []Class{}
	for _, c := range shippedClasses() {
		all = append(all, t[c.Key])
	}
	return all
}

// Check refuses a class that cannot be ranked by.
func (c Class) Check() error {
	switch {
	case !slices.ContainsFunc(shippedClasses(), func(s Class) bool { return s.Key == c.Key }):
		return fmt.Errorf("%q is no ageing class", c.Key)
	case c.Consequence.Weight() == 0:
		return fmt.Errorf("%s: %q is no consequence", c.Key, c.Consequence)
	case len(c.Intervals) == 0 || c.Intervals[0].FromYears != 0:
		return fmt.Errorf("%s: the first interval is the one from 0 years on", c.Key)
	case strings.TrimSpace(c.Source) == "":
		return fmt.Errorf("%s: say how one knows, or that it is a rule of thumb", c.Key)
	}
	for i, one := range c.Intervals {
		if one.Months < 1 || i > 0 && one.FromYears <= c.Intervals[i-1].FromYears {
			return fmt.Errorf("%s: intervals go up by age, each of a month at least", c.Key)
		}
	}
	return nil
}

// months is how often a part of an age should be looked at; an age that nobody knows counts as the oldest.
func (c *Class) months(years float64) int {
	n := c.Intervals[0].Months
	for _, one := range c.Intervals[1:] {
		if years < 0 || years >= float64(one.FromYears) {
			n = one.Months
		}
	}
	return n
}
