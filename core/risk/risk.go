package risk

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"time"
)

// Day counts days from 1 January 1970; NoDay is a day that nobody knows.
type Day int32

// NoDay is a day that nobody knows.
const NoDay Day = math.MinInt32

// Climate is how a place treats what stands there.
type Climate string

// Climates.
const (
	Kept     Climate = "kept"    // controlled: even and dry
	Room     Climate = "room"    // heated, as a room
	Unsaid   Climate = ""        // nobody said; counts as a room
	Damp     Climate = "damp"    // cellar, shed
	Hot      Climate = "hot"     // loft, beside heating
	Exterior Climate = "outside" // frost and sun
)

// Climates lists what can be said of a place, with how much an interval is shortened by it. Rules of thumb: a
// harsh climate halves the time.
func Climates() []struct {
	Climate Climate
	Factor  float64
	Means   string
} {
	return []struct {
		Climate Climate
		Factor  float64
		Means   string
	}{
		{Kept, 1.25, "even and dry, controlled"}, {Room, 1, "heated, as a room"}, {Damp, 0.5, "damp: cellar or shed"},
		{Hot, 0.5, "hot: loft, or beside heating"}, {Exterior, 0.4, "frost and sun"},
	}
}

// ClimateOf reads a climate as people write it, in any case; nothing said counts as a room.
func ClimateOf(text string) (Climate, bool) {
	climate := Climate(strings.ToLower(strings.TrimSpace(text)))
	return climate, climate == Unsaid || climate.IsKnown()
}

// IsKnown reports whether it is one of the climates.
func (c Climate) IsKnown() bool {
	return slices.ContainsFunc(Climates(), func(one struct {
		Climate Climate
		Factor  float64
		Means   string
	}) bool {
		return one.Climate == c
	})
}

func (c Climate) factor() float64 {
	for _, one := range Climates() {
		if one.Climate == c {
			return one.Factor
		}
	}
	return 1
}

// Part is a part, or several equal ones, that age in a machine.
type Part struct {
	Machine  int64
	Class    string
	Count    int
	Assembly int64
	Line     int
	Place    string // designators, in words
	Born     Day    // when it was made; NoDay when nobody knows
	Looked   Day    // when somebody last looked at it
	Renewed  Day    // when it was put in new, in the place of another; the zero Day when it was not
	CameIn   Day    // when it came into the machine; the zero Day when nobody knows
}

// Machine is what the ranking knows of a machine beside its parts.
type Machine struct {
	Acquired Day
	Built    Day
	Climate  Climate
}

// Ranked is a part with its rank.
type Ranked struct {
	*Part
	OverdueRatio float64 // looks missed: months since the last one by the interval
	Rank         float64 // missed, times what happens
	Months       float64 // since the last look, or since it counts from
	From         From    // what it counts from
	Every        float64 // months between looks, shortened by the climate
	Years        float64 // age; below 0 when nobody knows
}

// From says from when a part's months count.
type From string

// From what months count.
const (
	FromLook    From = "look"
	FromRenewal From = "renewal"
	FromArrival From = "arrival"
	FromBuilt   From = "built"
	FromNothing From = "nothing" // neither is known: it counts as never looked at in its life
)

const (
	daysAMonth = 30.4375
	daysAYear  = 365.25
)

// unknownYears is the age that a part counts with of which nothing at all is known. A rule of thumb: what a
// collection takes in is that old.
const unknownYears = 30

// of ranks one part.
func (c *Class) of(p *Part, m Machine, now Day) Ranked {
	r := Ranked{Part: p, Years: -1}
	renewed, cameIn := p.Renewed.orNone(), p.CameIn.orNone()
	born := firstKnown(renewed, p.Born, cameIn, m.Built)
	if born != NoDay {
		r.Years = max(0, float64(now-born)/daysAYear)
	}
	since := max(p.Looked, renewed) // NoDay is the least
	switch {
	case since != NoDay && since == p.Looked:
		r.From = FromLook
	case since != NoDay:
		r.From = FromRenewal
	case firstKnown(cameIn, m.Acquired) != NoDay:
		since, r.From = firstKnown(cameIn, m.Acquired), FromArrival
	case firstKnown(m.Built, born) != NoDay:
		since, r.From = firstKnown(m.Built, born), FromBuilt
	default:
		since, r.From = now-Day(math.Round(unknownYears*daysAYear)), FromNothing
	}
	r.Months = max(0, float64(now-since)/daysAMonth)
	r.Every = float64(c.months(r.Years)) * m.Climate.factor()
	r.OverdueRatio = r.Months / r.Every
	r.Rank = r.OverdueRatio * c.Consequence.Weight()
	return r
}

// orNone takes the zero Day for one that nobody knows.
func (d Day) orNone() Day {
	if d == 0 {
		return NoDay
	}
	return d
}

// firstKnown is the first of some days that is known.
func firstKnown(days ...Day) Day {
	for _, day := range days {
		if day != NoDay {
			return day
		}
	}
	return NoDay
}

// Order is parts in the order in which to look at them.
type Order struct {
	now      Day
	classes  map[string]*Class
	machines map[int64]Machine
	parts    []Part
	keys     []sortKey
	due      []bool // by part
	Due      int    // parts that should have been looked at by now
}

// Rank orders parts, what to look at first at the top. Parts of classes that the table does not have are left
// out. Equal ranks stay in the order in which they come.
func Rank(t Table, machines map[int64]Machine, parts []Part, now Day) *Order {
	o := &Order{now: now, classes: map[string]*Class{}, machines: machines, parts: parts,
		keys: make([]sortKey, 0, len(parts)), due: make([]bool, len(parts))}
	for key, c := range t {
		if len(c.Intervals) > 0 {
			o.classes[key] = &c
		}
	}
	machine, last := o.machine(-1), int64(-1)
	for i := range parts {
		p := &parts[i]
		if p.Machine != last {
			machine, last = o.machine(p.Machine), p.Machine
		}
		c := o.classes[p.Class]
		if c == nil {
			continue
		}
		r := c.of(p, machine, now)
		if r.IsDue() {
			o.due[i] = true
			o.Due++
		}
		// Ranks are not below 0, so that their bits are in their order; the highest comes first.
		o.keys = append(o.keys,
			sortKey{^math.Float64bits(r.Rank), int32(i)}) //nolint:gosec // no collection has two thousand million parts
	}
	o.keys = sorted(o.keys)
	return o
}

// machine is what is known of a machine; of one that is not known nothing is.
func (o *Order) machine(id int64) Machine {
	if m, ok := o.machines[id]; ok {
		return m
	}
	return Machine{Acquired: NoDay, Built: NoDay}
}

// Len is how many parts are ranked.
func (o *Order) Len() int { return len(o.keys) }

// At is the part at a place, 0 for the one to look at first.
func (o *Order) At(i int) Ranked {
	p := &o.parts[o.keys[i].at]
	return o.classes[p.Class].of(p, o.machine(p.Machine), o.now)
}

// isDue reports whether the part at a place is due, without ranking it anew.
func (o *Order) isDue(i int) bool { return o.due[o.keys[i].at] }

// From is the parts from one place up to another, as far as there are so many.
func (o *Order) From(from, to int) []Ranked {
	some := []Ranked{}
	for i := from; i < min(to, o.Len()); i++ {
		some = append(some, o.At(i))
	}
	return some
}

// Sentence says a row in words: what it is, how long nobody looked, how often one should, what happens.
func (o *Order) Sentence(r Ranked) string {
	c, m := o.classes[r.Class], o.machine(r.Machine)
	age := "of unknown age"
	if r.Years >= 0 {
		age = fmt.Sprintf("%d years old", int(r.Years))
	}
	since := map[From]string{
		FromLook: "last looked at %s ago", FromRenewal: "not looked at since it was put in new, %s ago",
		FromArrival: "never looked at since it came, %s ago",
		FromBuilt:   "never looked at since it was made, %s ago",
		FromNothing: "never looked at, and nobody knows how old it is",
	}[r.From]
	if strings.Contains(since, "%s") {
		since = fmt.Sprintf(since, span(r.Months))
	}
	often := fmt.Sprintf("should be every %s", span(r.Every))
	for _, one := range Climates() {
		if one.Climate == m.Climate && one.Factor < 1 {
			often += " where it stands (" + one.Means + ")"
		}
	}
	name := c.Name
	if r.Count > 1 {
		name = fmt.Sprintf("%d x %s", r.Count, c.Name)
	}
	return fmt.Sprintf("%s, %s: %s, %s. It %s: %s.", name, age, since, often, c.Happens, c.Consequence.means())
}

// span says months in words.
func span(months float64) string {
	n := int(math.Round(months))
	switch {
	case n < 1:
		return "less than a month"
	case n == 1:
		return "1 month"
	case n < 24:
		return fmt.Sprintf("%d months", n)
	}
	return fmt.Sprintf("%d years", n/12)
}

// IsDue reports whether it should have been looked at by now.
func (r Ranked) IsDue() bool { return r.OverdueRatio >= 1 }

// ParseDay reads YYYY-MM-DD; nothing is NoDay. It reports false for what is no day.
func ParseDay(text string) (Day, bool) {
	if text == "" {
		return NoDay, true
	}
	at, err := time.Parse(time.DateOnly, text)
	if err != nil {
		return NoDay, false
	}
	return Day(at.Unix() / 86400), true //nolint:gosec // days of four-digit years fit
}
