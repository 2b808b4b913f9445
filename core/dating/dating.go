// Package dating answers when a machine was built, from the dates of its parts, its plate, its papers and
// the time in which its model was made; and which of its parts are not from then.
package dating

import (
	"cmp"
	"fmt"
	"slices"

	"frugalheron/core/calendar"
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

// Fit is how a part is held.
type Fit string

// Fits.
const (
	Soldered Fit = "soldered"
	Socketed Fit = "socketed"
	Card     Fit = "card"
)

// Evidence is one date. Either end may be missing for a production window.
type Evidence struct {
	ID   string        `json:"id"`
	Kind Kind          `json:"kind" enum:"date-code,label,copyright,document,production-window"`
	From calendar.Date `json:"from"`
	To   calendar.Date `json:"to"`
	Fit  Fit           `json:"fit" enum:",soldered,socketed,card"`
}

// Span is a time from the first to the last day.
type Span struct {
	From calendar.Date `json:"from"`
	To   calendar.Date `json:"to"`
}

// Outlier is a part that is not from the time of the others.
type Outlier struct {
	ID      string `json:"id"`
	Verdict string `json:"verdict" enum:"later,earlier"`
	Weeks   int    `json:"weeks"` // later: past the newest of the cluster; earlier: before its middle
	Why     string `json:"why"`
}

// Conflict is what cannot all be so.
type Conflict struct {
	IDs []string `json:"ids"`
	Why string   `json:"why"`
}

// Result is when a machine was built, with its reasons.
type Result struct {
	NotBefore *calendar.Date `json:"notBefore"` // null when no part tells
	NotAfter  *calendar.Date `json:"notAfter"`  // null when no plate or paper tells
	Estimate  *Span          `json:"estimate"`  // null when nothing tells
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
}

// DefaultRules are what stands in reference works on date codes as experience: parts were used within half
// a year, old stock is two years old.
var DefaultRules = Rules{Gap: 26, OldStock: 104, Soonest: 2, Latest: 26, FewerThan: 6}

// Date dates a machine. Evidence without a usable date is an error that names it.
func Date(evidence []Evidence, rules Rules) (Result, error) {
	d := dater{rules: rules, r: Result{Outliers: []Outlier{}, Conflicts: []Conflict{}, Basis: []string{}, Cluster: []string{}}}
	for i, e := range evidence {
		if err := e.check(i); err != nil {
			return d.r, err
		}
	}
	d.byParts(ofKind(evidence, DateCode))
	d.byFirmware(ofKind(evidence, Copyright))
	d.byPlate(ofKind(evidence, Label), ofKind(evidence, Document))
	d.againstWindow(ofKind(evidence, Window))
	return d.r, nil
}

// WrongError says which evidence cannot be used, and why.
type WrongError struct {
	Index int // from 0
	ID    string
	Why   string
}

// Error names the evidence.
func (e *WrongError) Error() string {
	return fmt.Sprintf("evidence %d (%s): %s", e.Index+1, e.ID, e.Why)
}

func (e Evidence) check(index int) error {
	why := ""
	switch {
	case !slices.Contains([]Kind{DateCode, Label, Copyright, Document, Window}, e.Kind):
		why = fmt.Sprintf("the kind %q is not known; use date-code, label, copyright, document or production-window", e.Kind)
	case !slices.Contains([]Fit{"", Soldered, Socketed, Card}, e.Fit):
		why = fmt.Sprintf("the fit %q is not known; use soldered, socketed or card", e.Fit)
	case e.Kind == Window && e.From.IsZero() && e.To.IsZero():
		why = "has neither a first nor a last day"
	case e.Kind != Window && (e.From.IsZero() || e.To.IsZero()):
		why = "needs a first and a last day, YYYY-MM-DD; they may be the same"
	case !e.From.IsZero() && !e.To.IsZero() && order(e.To, e.From) < 0:
		why = "ends before it begins"
	default:
		return nil
	}
	return &WrongError{index, e.ID, why}
}

func ofKind(evidence []Evidence, kind Kind) []Evidence {
	found := []Evidence{}
	for _, e := range evidence {
		if e.Kind == kind {
			found = append(found, e)
		}
	}
	slices.SortFunc(found, func(a, b Evidence) int {
		if c := order(a.From, b.From); c != 0 {
			return c
		}
		return cmp.Or(order(a.To, b.To), cmp.Compare(a.ID, b.ID))
	})
	return found
}

// order compares two days without counting them.
func order(a, b calendar.Date) int {
	return (a.Year-b.Year)*10_000 + (a.Month-b.Month)*100 + a.Day - b.Day
}

func weeks(from, to calendar.Date) int { return (to.Days() - from.Days()) / 7 }

func plus(d calendar.Date, weeks int) calendar.Date { return calendar.FromDays(d.Days() + 7*weeks) }

type dater struct {
	rules   Rules
	r       Result
	cluster []Evidence // without old stock
	later   []Evidence
}

func (d *dater) say(format string, args ...any) {
	d.r.Basis = append(d.r.Basis, fmt.Sprintf(format, args...))
}

func (d *dater) conflict(ids []string, format string, args ...any) {
	d.r.Conflicts = append(d.r.Conflicts, Conflict{ids, fmt.Sprintf(format, args...)})
}

// byParts finds the cluster of the parts, what is older and newer than it, and when assembly can have
// followed.
func (d *dater) byParts(parts []Evidence) {
	if len(parts) == 0 {
		return
	}
	groups := groupsOf(parts, d.rules.Gap)
	main := largest(groups)
	for _, group := range groups[main+1:] {
		d.later = append(d.later, group...)
	}
	middle := groups[main][(len(groups[main])-1)/2].From
	for _, e := range slices.Concat(groups[:main+1]...) {
		if before := weeks(e.From, middle); before > d.rules.OldStock {
			d.r.Outliers = append(d.r.Outliers, Outlier{e.ID, "earlier", before,
				fmt.Sprintf("%d weeks before the middle of the others, %s: old stock, or a part that was used again", before, middle)})
		}
	}
	for _, e := range groups[main] {
		if weeks(e.From, middle) <= d.rules.OldStock {
			d.cluster = append(d.cluster, e)
			d.r.Cluster = append(d.r.Cluster, e.ID)
		}
	}
	oldest, newest := d.cluster[0], newestOf(d.cluster)
	notBefore := newest.From
	d.r.NotBefore = &notBefore
	d.r.Estimate = &Span{plus(newest.From, d.rules.Soonest), plus(newest.To, d.rules.Latest)}
	if len(d.cluster) == 1 {
		d.say("One part is dated, %s.", newest.ID)
	} else {
		d.say("%d of %d dated parts lie close together, from %s to %s.", len(d.cluster), len(parts), oldest.From, newest.To)
	}
	d.say("The newest of them, %s, was made not before %s; assembly followed %d to %d weeks later (rule of thumb).", newest.ID, newest.From, d.rules.Soonest, d.rules.Latest)
	d.judgeLater(newest, len(parts))
}

// groupsOf cuts sorted parts where the next comes more than gap weeks later.
func groupsOf(parts []Evidence, gap int) [][]Evidence {
	groups := [][]Evidence{{parts[0]}}
	reach := parts[0].From.Days()
	for _, e := range parts[1:] {
		if e.From.Days()-reach > 7*gap {
			groups = append(groups, nil)
		}
		reach = e.From.Days()
		groups[len(groups)-1] = append(groups[len(groups)-1], e)
	}
	return groups
}

// largest finds the group with most parts; of equal ones the newer: a machine is not older than its parts.
func largest(groups [][]Evidence) int {
	best := 0
	for i, group := range groups {
		if len(group) >= len(groups[best]) {
			best = i
		}
	}
	return best
}

func newestOf(parts []Evidence) Evidence {
	return slices.MaxFunc(parts, func(a, b Evidence) int { return order(a.From, b.From) })
}

// judgeLater tells a few parts that were replaced or added from many that are newer than the largest group.
func (d *dater) judgeLater(newest Evidence, all int) {
	if len(d.later) == 0 {
		return
	}
	if len(d.later)*d.rules.FewerThan >= all {
		ids := make([]string, len(d.later))
		for i, e := range d.later {
			ids[i] = e.ID
		}
		d.conflict(ids, "%d of %d parts are newer than the largest group by %d weeks and more: too many for repairs. Either a whole board is later, or the machine was put together from two.",
			len(d.later), all, weeks(newest.From, d.later[0].From))
		return
	}
	for _, e := range d.later {
		past := weeks(newest.From, e.From)
		what := "replaced or added later"
		if e.Fit == Card {
			what = "a card that was added later"
		}
		d.r.Outliers = append(d.r.Outliers, Outlier{e.ID, "later", past, fmt.Sprintf("%d weeks past the newest of the others, %s: %s", past, newest.From, what)})
	}
}

// byFirmware takes in the years in read-only memories: the machine is not older than the text in it, unless
// the memory was changed.
func (d *dater) byFirmware(claims []Evidence) {
	for _, e := range claims {
		switch {
		case d.r.NotBefore == nil:
			from := e.From
			d.r.NotBefore = &from
			d.say("The firmware claims %s: it was not written before.", e.From)
		case d.r.Estimate != nil && e.From.Days() > d.r.Estimate.To.Days():
			past := weeks(*d.r.NotBefore, e.From)
			d.r.Outliers = append(d.r.Outliers, Outlier{e.ID, "later", past, fmt.Sprintf("the firmware claims %s, %d weeks past the newest part: it was changed later", e.From, past)})
		case e.From.Days() > d.r.NotBefore.Days():
			from := e.From
			d.r.NotBefore = &from
			d.r.Estimate.From = calendar.FromDays(max(d.r.Estimate.From.Days(), from.Days()))
			d.say("The firmware claims %s, after the newest part.", e.From)
		}
	}
}

// byPlate takes in plates, which tell when the machine was put together, and papers, by which it was there.
func (d *dater) byPlate(plates, papers []Evidence) {
	for _, e := range slices.Concat(plates, papers) {
		if d.r.NotAfter == nil || e.To.Days() < d.r.NotAfter.Days() {
			to := e.To
			d.r.NotAfter = &to
		}
	}
	for _, plate := range plates {
		d.say("The plate %s says %s.", plate.ID, words(plate))
		for _, part := range d.cluster {
			if part.Fit == Soldered && part.From.Days() > plate.To.Days() {
				d.conflict([]string{plate.ID, part.ID}, "%s is soldered in and was made %d weeks after the date of the plate: the board was exchanged, or the plate is of another machine",
					part.ID, weeks(plate.To, part.From))
				break
			}
		}
	}
	for _, paper := range papers {
		d.say("By the paper %s the machine was there by %s.", paper.ID, paper.To)
		if len(d.cluster) > 0 && paper.To.Days() < d.r.NotBefore.Days() {
			d.conflict([]string{paper.ID, newestOf(d.cluster).ID}, "the paper is %d weeks older than the newest part of the machine", weeks(paper.To, *d.r.NotBefore))
		}
	}
	if len(plates) > 1 && plates[0].To.Days() < plates[len(plates)-1].From.Days() {
		d.conflict([]string{plates[0].ID, plates[len(plates)-1].ID}, "the plates name different times, %s and %s", words(plates[0]), words(plates[len(plates)-1]))
	}
	switch {
	case len(plates) > 0:
		plate := plates[0]
		estimate := Span{plate.From, plate.To}
		if d.r.NotBefore != nil && d.r.NotBefore.Days() <= plate.To.Days() {
			estimate.From = calendar.FromDays(max(plate.From.Days(), d.r.NotBefore.Days()))
		}
		d.r.Estimate = &estimate
	case d.r.NotAfter != nil && d.r.Estimate != nil && d.r.NotAfter.Days() >= d.r.Estimate.From.Days():
		d.r.Estimate.To = calendar.FromDays(min(d.r.Estimate.To.Days(), d.r.NotAfter.Days()))
	}
}

func words(e Evidence) string {
	if e.From == e.To {
		return e.From.String()
	}
	return fmt.Sprintf("%s to %s", e.From, e.To)
}

// againstWindow lays estimate and parts beside the time in which the model was made. Nothing is cut to fit.
func (d *dater) againstWindow(windows []Evidence) {
	for _, w := range windows {
		if e := d.r.Estimate; e != nil {
			switch {
			case !w.To.IsZero() && e.From.Days() > w.To.Days():
				d.conflict([]string{w.ID}, "built after %s by the evidence, but the model was made until %s only", e.From, w.To)
			case !w.From.IsZero() && e.To.Days() < w.From.Days():
				d.conflict([]string{w.ID}, "built before %s by the evidence, but the model was made from %s on", e.To, w.From)
			default:
				d.say("That lies in the time in which the model was made, %s to %s.", orOpen(w.From), orOpen(w.To))
			}
		}
		if len(d.cluster) == 0 || w.To.IsZero() {
			continue
		}
		if newest := newestOf(d.cluster); newest.From.Days() > w.To.Days() {
			d.conflict([]string{newest.ID, w.ID}, "%s was made %d weeks after the model was given up, though it is of one time with the others", newest.ID, weeks(w.To, newest.From))
		}
	}
}

func orOpen(d calendar.Date) string {
	if d.IsZero() {
		return "an unknown day"
	}
	return d.String()
}
