// Package custody answers: through whose hands did a thing go, and does the story hold together? It
// puts what is known in order and names what is missing in it and what cannot be: gaps between two
// holders, holders at the same time, and actions before the thing was made or after it came to the
// collection. Only what cannot be otherwise is called impossible; dates are EDTF, with their doubt.
package custody

import (
	"cmp"
	_ "embed"
	"fmt"
	"slices"
	"strings"
	"sync"

	"frugalheron/core/calendar"
	"frugalheron/core/edtf"
	"frugalheron/core/table"
)

//go:embed roles.tsv
var rolesTable string

// Moment is what a role says about having the thing.
type Moment string

// Moments.
const (
	Making  Moment = "making"  // the thing comes to be
	Passing Moment = "passing" // somebody has it from then on
	Holding Moment = "holding" // somebody has it in that time
	Leaving Moment = "leaving" // somebody has it no longer
	Visit   Moment = "visit"   // something was done with it, whoever had it
)

// Role is the part that somebody played.
type Role struct {
	Key    string `json:"key"`
	Words  string `json:"words"`
	Moment Moment `json:"moment" enum:"making,passing,holding,leaving,visit"`
}

// Roles lists them, in the order of a thing's life.
func Roles() []Role { return slices.Clone(readRoles()) }

var readRoles = sync.OnceValue(func() []Role {
	roles := []Role{}
	for _, cells := range table.Reference("roles", rolesTable, "role", "words", "moment", "source") {
		roles = append(roles, Role{cells[0], cells[1], Moment(cells[2])})
	}
	return roles
})

// RoleOf finds a role by its key.
func RoleOf(key string) (Role, bool) {
	for _, r := range readRoles() {
		if r.Key == key {
			return r, true
		}
	}
	return Role{}, false
}

// Link is one statement about the thing's past.
type Link struct {
	ID   int64
	Role Role
	Who  string     // as it may be told to whoever reads
	When *edtf.Date // nil when nobody knows
}

// Span is when something was: the days that can be meant, and those that are meant for certain.
type Span struct {
	Earliest    calendar.Date  `json:"earliest"`
	Latest      calendar.Date  `json:"latest"`
	CertainFrom *calendar.Date `json:"certainFrom" doc:"First day that is meant for certain, or null"`
	CertainTo   *calendar.Date `json:"certainTo"`
}

// ProblemKind is what is wrong with a chain.
type ProblemKind string

// Kinds of findings.
const (
	Gap        ProblemKind = "gap"
	Overlap    ProblemKind = "overlap"
	Impossible ProblemKind = "impossible"
	Undated    ProblemKind = "undated"
)

// Problem is a place where the chain does not hold.
type Problem struct {
	Kind ProblemKind    `json:"kind" enum:"gap,overlap,impossible,undated"`
	IDs  []int64        `json:"ids" doc:"The statements it is about"`
	Text string         `json:"text" says:"text"`
	From *calendar.Date `json:"from" doc:"First day of a gap or overlap, or null"`
	To   *calendar.Date `json:"to"`
}

// Chain is the past in order.
type Chain struct {
	Order    []int64        `json:"order" doc:"Statements in the order of their dates; those without one last"`
	Spans    map[int64]Span `json:"-"`
	Problems []Problem      `json:"problems"`
	From     *calendar.Date `json:"from" doc:"First day of the drawing, or null when nothing has a date"`
	To       *calendar.Date `json:"to"`
}

// Bounds of the collection's own part of the story.
type Bounds struct {
	Arrived *edtf.Date // when it came to the collection, nil when unknown
	Today   calendar.Date
}

// leastGap is how many days nobody may be known to have it before that is called a gap. A rule of
// thumb: half a year is a move, a sale or a clear-out; longer is a time of its own.
const leastGap = 183

// Examine puts the statements in order and names what does not hold.
func Examine(links []Link, bounds Bounds) Chain {
	c := Chain{Order: []int64{}, Problems: []Problem{}, Spans: map[int64]Span{}}
	dated, undated := []Link{}, []Link{}
	for _, l := range links {
		if l.When == nil {
			undated = append(undated, l)
			continue
		}
		dated = append(dated, l)
		c.Spans[l.ID] = spanOf(*l.When)
	}
	slices.SortStableFunc(dated, func(a, b Link) int {
		return cmp.Or(cmp.Compare(a.begins().Days(), b.begins().Days()), cmp.Compare(a.rank(), b.rank()),
			edtf.Compare(*a.When, *b.When))
	})
	for _, l := range append(slices.Clone(dated), undated...) {
		c.Order = append(c.Order, l.ID)
	}
	c.impossible(dated, bounds)
	c.gaps(dated, bounds)
	c.overlaps(dated)
	for _, l := range undated {
		c.add(Undated, fmt.Sprintf("%s has no date; write at least a range, as 1980/1989", l.words()), l.ID)
	}
	c.stretch(dated, bounds)
	return c
}

func (c *Chain) add(kind ProblemKind, text string, ids ...int64) *Problem {
	c.Problems = append(c.Problems, Problem{Kind: kind, Text: text, IDs: ids})
	return &c.Problems[len(c.Problems)-1]
}

func (c *Chain) impossible(dated []Link, bounds Bounds) {
	for _, made := range dated {
		if made.Role.Moment != Making {
			continue
		}
		for _, l := range dated {
			if l.Role.Moment != Making && edtf.Relate(*l.When, *made.When) == edtf.Before {
				c.add(Impossible,
					fmt.Sprintf("%s in %s lies before it was made (%s, %s)", l.words(), l.When, made.words(),
						made.When), l.ID, made.ID)
			}
		}
	}
	for _, l := range dated {
		if bounds.Today.Before(l.When.Earliest()) {
			c.add(Impossible, fmt.Sprintf("%s in %s lies in the future", l.words(), l.When), l.ID)
			continue
		}
		hadBefore := l.Role.Moment == Holding || l.Role.Moment == Leaving || l.Role.Moment == Making
		if bounds.Arrived != nil && hadBefore && edtf.Relate(*l.When, *bounds.Arrived) == edtf.After {
			c.add(Impossible,
				fmt.Sprintf("%s in %s lies after it came to the collection in %s", l.words(), l.When, bounds.Arrived),
				l.ID)
		}
	}
}

// gaps looks at who had it until when. After it passed to somebody, they have it until the next is
// known to, unless it is said how long they had it; after somebody used or stored it, nobody does.
func (c *Chain) gaps(dated []Link, bounds Bounds) {
	var last *Link
	var until calendar.Date // last day of which somebody can have had it
	open := false           // passed to somebody, until the next
	for i := range dated {
		l := &dated[i]
		if l.Role.Moment == Visit {
			continue
		}
		from := l.When.Earliest()
		if last != nil && !open && l.Role.Moment != Making {
			c.gap(until, from, last, l)
		}
		open = l.Role.Moment == Passing && !hasUntil(dated, *l)
		if last == nil || open || until.Before(l.When.Latest()) {
			last = l
		}
		if until.Before(l.When.Latest()) {
			until = l.When.Latest()
		}
	}
	if last != nil && bounds.Arrived != nil && !open {
		c.gap(until, bounds.Arrived.Earliest(), last, nil)
	}
}

// hasUntil reports whether it is known until when somebody had it to whom it passed.
func hasUntil(dated []Link, passed Link) bool {
	return slices.ContainsFunc(dated, func(l Link) bool {
		return l.Role.Moment == Holding && l.Who == passed.Who && edtf.Relate(*l.When, *passed.When) != edtf.Before
	})
}

func (c *Chain) gap(until, from calendar.Date, before, after *Link) {
	if from.Days()-until.Days()-1 < leastGap {
		return
	}
	first, end := until.AddDays(1), from.AddDays(-1)
	text := fmt.Sprintf("nothing is known from %s to %s, %s: after %s (%s)", first, end,
		lasting(end.Days()-first.Days()+1), before.words(), before.When)
	ids := []int64{before.ID}
	if after != nil {
		text += fmt.Sprintf(" and before %s (%s)", after.words(), after.When)
		ids = append(ids, after.ID)
	} else {
		text += " and before it came to the collection"
	}
	f := c.add(Gap, text, ids...)
	f.From, f.To = &first, &end
}

// overlaps finds two different holders at the same time, where that is certain.
func (c *Chain) overlaps(dated []Link) {
	for i, a := range dated {
		for _, b := range dated[i+1:] {
			if a.Role.Key != b.Role.Key || a.Role.Moment != Holding || a.Who == b.Who {
				continue
			}
			aFrom, aTo, aCertain := a.When.Certain()
			bFrom, bTo, bCertain := b.When.Certain()
			if !aCertain || !bCertain {
				continue
			}
			from, to := later(aFrom, bFrom), earlier(aTo, bTo)
			if from.Before(to) {
				f := c.add(Overlap,
					fmt.Sprintf("%s (%s) and %s (%s) at the same time: from %s to %s at least", a.words(), a.When,
						b.words(), b.When, from, to), a.ID, b.ID)
				f.From, f.To = &from, &to
			}
		}
	}
}

// stretch finds the days that a drawing has to show. Open ends are not drawn to the end of all days.
func (c *Chain) stretch(dated []Link, bounds Bounds) {
	show := func(d edtf.Date) {
		for _, end := range []edtf.Part{d.From, d.To} {
			if end.Open || end.Unknown {
				continue
			}
			one := edtf.Date{From: end, To: end}
			first, last := one.Earliest(), one.Latest()
			if c.From == nil || first.Before(*c.From) {
				c.From = &first
			}
			if c.To == nil || c.To.Before(last) {
				c.To = &last
			}
		}
	}
	for _, l := range dated {
		show(*l.When)
	}
	if bounds.Arrived != nil {
		show(*bounds.Arrived)
	}
}

func spanOf(d edtf.Date) Span {
	s := Span{Earliest: d.Earliest(), Latest: d.Latest()}
	if from, to, ok := d.Certain(); ok {
		s.CertainFrom, s.CertainTo = &from, &to
	}
	return s
}

// begins is the day by which a statement is put in order. What began nobody knows when stands where it
// ended, not at the beginning of all days.
func (l Link) begins() calendar.Date {
	if l.When.From.Open || l.When.From.Unknown {
		return edtf.Date{From: l.When.To, To: l.When.To}.Earliest()
	}
	return l.When.Earliest()
}

func (l Link) words() string {
	if l.Who == "" {
		return strings.TrimSuffix(strings.TrimSuffix(l.Role.Words, " by"), " to") + " by or to somebody unknown"
	}
	return l.Role.Words + " " + l.Who
}

// rank orders what has the same date by the order of a thing's life.
func (l Link) rank() int {
	return slices.IndexFunc(readRoles(), func(r Role) bool { return r.Key == l.Role.Key })
}

// lasting says days in years and months, rounded down to months.
func lasting(days int) string {
	months := days * 12 / 365
	years, months := months/12, months%12
	words := []string{}
	for _, part := range []struct {
		n    int
		word string
	}{{years, "year"}, {months, "month"}} {
		switch part.n {
		case 0:
		case 1:
			words = append(words, "1 "+part.word)
		default:
			words = append(words, fmt.Sprintf("%d %ss", part.n, part.word))
		}
	}
	return strings.Join(words, " and ")
}

func later(a, b calendar.Date) calendar.Date {
	if a.Before(b) {
		return b
	}
	return a
}

func earlier(a, b calendar.Date) calendar.Date {
	if a.Before(b) {
		return a
	}
	return b
}
