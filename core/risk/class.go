// Package risk answers what to look at first: which parts of a collection age, how long ago somebody looked,
// and what happens when they fail. It is an order, not a probability.
//
// How often a part of an age should be looked at is a table that ships in classes.tsv, each row with its
// source, and that a collection may change.
package risk

import (
	_ "embed"
	"fmt"
	"maps"
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
	Key         string      `json:"key" maxLength:"40" doc:"In small letters with dashes between; empty for a class to add, which is then called by its name"`
	Name        string      `json:"name" maxLength:"100"`
	Consequence Consequence `json:"consequence" enum:"looks,data,stops,spreads,hurts"`
	Intervals   []Interval  `json:"intervals" minItems:"1" maxItems:"8" doc:"By age, the first from 0 years on"`
	Minutes     int         `json:"minutes" minimum:"1" maximum:"480" doc:"To look at one once the machine is open"`
	Happens     string      `json:"happens" says:"text" maxLength:"300" doc:"What happens to it"`
	Source      string      `json:"source" says:"text" maxLength:"300" doc:"How one knows"`
	// Words tell parts of a class that a collection added; those that ship have a pattern.
	Words string `json:"words" maxLength:"300" required:"false" doc:"Of a class that the collection added: words by which its parts are told, with commas between; one of them is enough"`
	parts *regexp.Regexp
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

// ClassOf finds the class of a part by its words: one that the collection added, one of those that ship, or one that is
// named by its key.
func (t Table) ClassOf(words string) string {
	lower := strings.ToLower(strings.Join(strings.Fields(words), " "))
	for _, key := range slices.Sorted(maps.Keys(t)) {
		if t[key].isToldBy(lower) {
			return key
		}
	}
	if key := ClassOf(words); key != "" {
		return key
	}
	if _, own := t[words]; own {
		return words
	}
	return ""
}

// isToldBy reports whether one of the words of an added class stands in what is said of a part, in lower case.
func (c Class) isToldBy(lower string) bool {
	for said := range strings.SplitSeq(strings.ToLower(c.Words), ",") {
		said = strings.Join(strings.Fields(said), " ")
		for at := 0; said != ""; {
			found := strings.Index(lower[at:], said)
			if found < 0 {
				break
			}
			from, to := at+found, at+found+len(said)
			if isEdge(lower, from-1) && isEdge(lower, to) {
				return true
			}
			at = to
		}
	}
	return false
}

// isEdge reports whether no letter or digit stands at a place of a text.
func isEdge(text string, at int) bool {
	if at < 0 || at >= len(text) {
		return true
	}
	b := text[at]
	return (b < 'a' || b > 'z') && (b < '0' || b > '9') && b < 128
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

// List lists the classes of a table in the order in which they ship, and behind them those that the collection added.
func (t Table) List() []Class {
	all := []Class{}
	for _, c := range shippedClasses() {
		all = append(all, t[c.Key])
	}
	for _, key := range slices.Sorted(maps.Keys(t)) {
		if !IsShipped(key) {
			all = append(all, t[key])
		}
	}
	return all
}

// IsShipped reports whether a class is one of those that ship.
func IsShipped(key string) bool {
	return slices.ContainsFunc(shippedClasses(), func(s Class) bool { return s.Key == key })
}

// KeyOf is the key of a class that is called by a name.
func KeyOf(name string) string {
	return strings.Join(strings.FieldsFunc(strings.ToLower(name), func(r rune) bool {
		return (r < 'a' || r > 'z') && (r < '0' || r > '9')
	}), "-")
}

var keyForm = regexp.MustCompile(`^[a-z0-9]+(-[a-z0-9]+)*$`)

// Check refuses a class that cannot be ranked by. One that does not ship is told by its words, or by its key alone.
func (c Class) Check() error {
	switch {
	case !keyForm.MatchString(c.Key):
		return fmt.Errorf("%q is no name of a class; write it in small letters with dashes between, as air-filter", c.Key)
	case c.Key == "machine" || slices.ContainsFunc(Families(), func(f Class) bool { return f.Key == c.Key }):
		return fmt.Errorf("%s stands for all of them; call the class by what its parts are", c.Key)
	case strings.TrimSpace(c.Name) == "":
		return fmt.Errorf("%s: say what the class is called", c.Key)
	case IsShipped(c.Key) && strings.TrimSpace(c.Words) != "":
		return fmt.Errorf("%s: the parts of a class that ships are told by its pattern; leave the words out", c.Key)
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
