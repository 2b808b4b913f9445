// Package dating answers when a machine was built, from the dates of its parts, its plate, its papers and
// the time in which its model was made; and which of its parts are not from then.
package dating

import (
	"cmp"
	"fmt"
	"slices"

	"frugalheron/core/calendar"
	"frugalheron/core/malformed"
)

// Kind is what a date was read from.
type Kind string

// Kinds of evidence.
const (
	DateCode  Kind = "date-code" // on a part
	Label     Kind = "label"     // a plate or sticker on the machine
	Copyright Kind = "copyright" // in the text of a read-only memory
	Document  Kind = "document"  // of delivery or sale
	Window    Kind = "production-window"
)

// Mounting is how a part is held.
type Mounting string

// Fits.
const (
	Soldered Mounting = "soldered"
	Socketed Mounting = "socketed"
	Card     Mounting = "card"
)

// Evidence is one date. Either end may be missing for a production window.
type Evidence struct {
	ID       string        `json:"id"`
	Kind     Kind          `json:"kind" enum:"date-code,label,copyright,document,production-window"`
	From     calendar.Date `json:"from"`
	To       calendar.Date `json:"to"`
	Mounting Mounting      `json:"fit" enum:",soldered,socketed,card"`
	Assembly string        `json:"assembly" says:"text" doc:"What the part is on, or empty"`
	// Decided is what somebody decided about the assembly that the part is on; it counts before what is reckoned.
	Decided Originality `json:"decided,omitempty" enum:",factory,period,later,modern,unknown"`
	New     bool        `json:"new,omitempty" doc:"The part was put in later as a replacement"`
}

// NeverDates reports whether a part says nothing about when the machine was built.
func (e Evidence) NeverDates() bool { return e.New || e.Decided == Later || e.Decided == Modern }

// isAdded reports whether a part is on what is usually added to a machine, or was by what somebody decided.
func (e Evidence) isAdded() bool {
	return e.Decided != Factory && (e.Mounting == Card || e.Decided == Period)
}

// Span is a time from the first to the last day.
type Span struct {
	From calendar.Date `json:"from"`
	To   calendar.Date `json:"to"`
}

// Outlier is a part that is not from the time of the others.
type Outlier struct {
	ID      string `json:"id"`
	Verdict string `json:"verdict" enum:"later,earlier,possibly-later"`
	Weeks   int    `json:"weeks"` // later: past the newest of the cluster; earlier: before its middle
	Why     string `json:"why" says:"text"`
}

// Conflict is what cannot all be so.
type Conflict struct {
	IDs []string `json:"ids"`
	Why string   `json:"why" says:"text"`
}

// Result is when a machine was built, with its reasons.
type Result struct {
	NotBefore *calendar.Date `json:"notBefore"` // null when no part tells
	NotAfter  *calendar.Date `json:"notAfter"`  // null when no plate or paper tells
	Estimate  *Span          `json:"estimate"`  // null when nothing tells
	Estimates []Span         `json:"estimates"` // all that it can be: two where one newer part can be original or not
	Outliers  []Outlier      `json:"outliers"`
	Conflicts []Conflict     `json:"conflicts"`
	Basis     []string       `json:"basis"`
	// Cluster are the ids of the parts that the estimate rests on, the oldest first.
	Cluster []string `json:"cluster"`
}

// Rules of thumb, in weeks; a collection may change them.
type Rules struct {
	Gap       int `json:"gap"`       // between two parts of one cluster at most; and past it, for a later part
	OldStock  int `json:"oldStock"`  // before the middle of the cluster: older parts lay in store
	Soonest   int `json:"soonest"`   // assembly follows the newest part by so many at least
	Latest    int `json:"latest"`    // and by so many at most
	FewerThan int `json:"fewerThan"` // later parts are fewer than one in so many
	Few       int `json:"few"`       // parts, below which one newer part can as well be original
	Idle      int `json:"idle"`      // between the newest part and a plate, from which on it is said
}

// DefaultRules are what stands in reference works on date codes as experience: parts were used within half
// a year, old stock is two years old.
func DefaultRules() Rules {
	return Rules{Gap: 26, OldStock: 104, Soonest: 2, Latest: 26, FewerThan: 6, Few: 7, Idle: 104}
}

// Date dates a machine. Evidence without a usable date is an error that names it.
func Date(evidence []Evidence, rules Rules) (Result, error) {
	d := dater{rules: rules,
		r: Result{Outliers: []Outlier{}, Conflicts: []Conflict{}, Basis: []string{}, Cluster: []string{},
			Estimates: []Span{}}}
	for i, e := range evidence {
		if err := e.check(i); err != nil {
			return d.r, err
		}
	}
	d.byParts(ofKind(evidence, DateCode))
	d.byFirmware(ofKind(evidence, Copyright))
	d.byPlate(ofKind(evidence, Label), ofKind(evidence, Document))
	d.settlePossible(len(ofKind(evidence, Label)) > 0)
	d.againstWindow(ofKind(evidence, Window))
	return d.r, nil
}

func (e Evidence) check(index int) error {
	why := ""
	switch {
	case !slices.Contains([]Kind{DateCode, Label, Copyright, Document, Window}, e.Kind):
		why = fmt.Sprintf("the kind %q is not known; use date-code, label, copyright, document or production-window",
			e.Kind)
	case !slices.Contains([]Mounting{"", Soldered, Socketed, Card}, e.Mounting):
		why = fmt.Sprintf("the fit %q is not known; use soldered, socketed or card", e.Mounting)
	case !slices.Contains([]Originality{"", Factory, Period, Later, Modern, Unknown}, e.Decided):
		why = fmt.Sprintf("what was decided, %q, is not known; use factory, period, later or modern", e.Decided)
	case e.Kind == Window && e.From.IsZero() && e.To.IsZero():
		why = "has neither a first nor a last day"
	case e.Kind != Window && (e.From.IsZero() || e.To.IsZero()):
		why = "needs a first and a last day, YYYY-MM-DD; they may be the same"
	case !e.From.IsZero() && !e.To.IsZero() && order(e.To, e.From) < 0:
		why = "ends before it begins"
	default:
		return nil
	}
	return &malformed.Error{Item: index + 1, Err: fmt.Errorf("evidence %d (%s): %s", index+1, e.ID, why)}
}

func ofKind(evidence []Evidence, kind Kind) []Evidence {
	found := []Evidence{}
	for _, e := range evidence {
		if e.Kind == kind {
			found = append(found, e)
		}
	}
	sortByDate(found)
	return found
}

func sortByDate(evidence []Evidence) {
	slices.SortFunc(evidence, func(a, b Evidence) int {
		if c := order(a.From, b.From); c != 0 {
			return c
		}
		return cmp.Or(order(a.To, b.To), cmp.Compare(a.ID, b.ID))
	})
}

// order compares two days without counting them.
func order(a, b calendar.Date) int {
	return (a.Year-b.Year)*10_000 + (a.Month-b.Month)*100 + a.Day - b.Day
}

func weeks(from, to calendar.Date) int { return (to.Days() - from.Days()) / 7 }
