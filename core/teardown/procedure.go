package teardown

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
)

// Change is how a step of this machine differs from the procedure of its model.
type Change struct {
	Step int    `json:"step" doc:"Number in the log; 0 for a step of the procedure that the log does not have"`
	Off  string `json:"off" says:"text"`
	Text string `json:"text" says:"text" doc:"What differs, in words"`
}

// Compare lays a log beside the procedure that it started from.
func Compare(procedure, log []Step) []Change {
	changes := []Change{}
	known := map[string]Step{}
	for _, s := range procedure {
		known[key(s.Off)] = s
	}
	met, last := map[string]bool{}, -1
	for i, s := range log {
		name := key(s.Off)
		met[name] = true
		before, ok := known[name]
		if !ok {
			changes = append(changes, Change{i + 1, s.Off, "the procedure has no such step"})
			continue
		}
		at := slices.IndexFunc(procedure, func(p Step) bool { return key(p.Off) == name })
		if at < last && (before.Special || procedure[last].Special) {
			changes = append(changes, Change{i + 1, s.Off, "came off in another order than the procedure asks for"})
		}
		last = max(last, at)
		if was, is := fastenersIn(before), fastenersIn(s); was != is {
			changes = append(changes,
				Change{i + 1, s.Off, fmt.Sprintf("fasteners here: %s; in the procedure: %s", is, was)})
		}
		for _, v := range s.Differs {
			usual := "it does not say"
			for _, u := range before.Differs {
				if key(u.Subject) == key(v.Subject) {
					usual = u.Value
				}
			}
			if key(usual) != key(v.Value) {
				changes = append(changes,
					Change{i + 1, s.Off, fmt.Sprintf("%s here: %s; in the procedure: %s", v.Subject, v.Value, usual)})
			}
		}
	}
	for _, s := range procedure {
		if !met[key(s.Off)] {
			changes = append(changes, Change{0, s.Off, "was not taken off here"})
		}
	}
	return changes
}

func fastenersIn(s Step) string {
	words := []string{}
	for _, f := range s.Fasteners {
		words = append(words, fmt.Sprintf("%d %s", f.Count, f.name()))
	}
	if len(words) == 0 {
		return "none"
	}
	return strings.Join(words, ", ")
}

// Observed is how something is made on one machine, and when that machine was built, as days; empty when
// nobody knows.
type Observed struct {
	Variant
	Machine  string
	From, To string
}

// Span is a way in which something was made, and when the machines were built that show it.
type Span struct {
	Value    string   `json:"value" says:"text"`
	Machines []string `json:"machines"`
	From     string   `json:"from" doc:"Earliest day by which one was certainly not yet later built; empty when no machine is dated"`
	To       string   `json:"to"`
}

// Differing is something that is not made the same on all machines of a model.
type Differing struct {
	Subject string `json:"subject" says:"text"`
	Spans   []Span `json:"spans" doc:"The earliest first"`
	Dates   string `json:"dates" says:"text" doc:"What it tells of the build, in words; empty when nothing"`
}

// Variants puts together what was observed on the machines of a model, and keeps what is not the same on all. Where the
// ways follow each other in time, they date machines of which nothing else is known.
func Variants(observed []Observed) []Differing {
	subjects := map[string][]Observed{}
	names := []string{}
	for _, o := range observed {
		if subjects[key(o.Subject)] == nil {
			names = append(names, o.Subject)
		}
		subjects[key(o.Subject)] = append(subjects[key(o.Subject)], o)
	}
	all := []Differing{}
	for _, name := range names {
		d := Differing{Subject: name, Spans: spansOf(subjects[key(name)])}
		if len(d.Spans) > 1 {
			d.Dates = datesBy(d.Spans)
			all = append(all, d)
		}
	}
	return all
}

func spansOf(observed []Observed) []Span {
	spans := []Span{}
	for _, o := range observed {
		at := slices.IndexFunc(spans, func(s Span) bool { return key(s.Value) == key(o.Value) })
		if at < 0 {
			spans = append(spans, Span{Value: o.Value, Machines: []string{}, From: o.From, To: o.To})
			at = len(spans) - 1
		}
		s := &spans[at]
		if !slices.Contains(s.Machines, o.Machine) {
			s.Machines = append(s.Machines, o.Machine)
		}
		if o.From != "" && (s.From == "" || o.From < s.From) {
			s.From = o.From
		}
		if o.To != "" && o.To > s.To {
			s.To = o.To
		}
	}
	slices.SortStableFunc(spans, func(a, b Span) int { return cmp.Compare(orLast(a.From), orLast(b.From)) })
	return spans
}

func orLast(day string) string {
	if day == "" {
		return "9999"
	}
	return day
}

// datesBy says where one way gave place to the next, if the dated machines agree on that.
func datesBy(spans []Span) string {
	words := []string{}
	for i := 1; i < len(spans); i++ {
		before, after := spans[i-1], spans[i]
		if before.To == "" || after.From == "" {
			continue
		}
		if before.To >= after.From {
			words = append(words,
				fmt.Sprintf("%s and %s were made at the same time, as far as dated machines tell; that dates nothing",
					before.Value, after.Value))
			continue
		}
		words = append(words,
			fmt.Sprintf("%s gave place to %s between %s and %s: one with %s was built before that, one with %s after, as far as %d machines tell",
				before.Value, after.Value, before.To, after.From, before.Value, after.Value,
				len(before.Machines)+len(after.Machines)))
	}
	return strings.Join(words, "; ")
}

func key(text string) string { return strings.ToLower(strings.Join(strings.Fields(text), " ")) }

// Upcoming lists the steps of a procedure that a log does not have yet.
func Upcoming(procedure, log []Step) []Step {
	left := []Step{}
	for _, s := range procedure {
		if !slices.ContainsFunc(log, func(done Step) bool { return key(done.Off) == key(s.Off) }) {
			left = append(left, s)
		}
	}
	return left
}
