// Package upkeep answers: what falls due when, why, and which things does one visit in one round?
//
// A day follows from the last evidence, never from the last plan: what was only planned counts for nothing.
package upkeep

import (
	"cmp"
	"fmt"
	"slices"

	"frugalheron/core/calendar"
	"frugalheron/core/malformed"
)

// Input is what falls due is worked out from.
type Input struct {
	Now    calendar.Entered   `json:"now"`
	Rules  []Rule             `json:"rules"`
	Things []Thing            `json:"things"`
	Done   []Deed             `json:"done"`
	Hours  map[string]float64 `json:"hours"` // that a task takes for one thing
}

// Rule says how often a task is due.
type Rule struct {
	Task        string `json:"task"`
	EveryMonths int    `json:"everyMonths"`
	Of          string `json:"of"`    // the kind of thing: machine, or a class of parts
	Looks       bool   `json:"looks"` // a look is enough: to see it at other work counts, too
}

// Thing is something that is looked after.
type Thing struct {
	ID    string           `json:"id"`
	Kind  string           `json:"kind"`
	Since calendar.Entered `json:"since"` // from when on it is counted
	Place []string         `json:"place"` // from the outermost
}

// How says how a task was dealt with.
type How string

// Ways to deal with a task.
const (
	Did     How = "did"
	Seen    How = "seen"    // at other work; counts where a look is enough
	Planned How = "planned" // counts for nothing
)

// Deed is something that was done, seen or planned.
type Deed struct {
	Thing string           `json:"thing"`
	Task  string           `json:"task"`
	On    calendar.Entered `json:"on"`
	How   How              `json:"how"`
}

// Output is what falls due, and in which rounds.
type Output struct {
	Due    []Due   `json:"due" doc:"By day"`
	Rounds []Round `json:"rounds" doc:"Of what is due by the day"`
}

// Due is a task of a thing with its day.
type Due struct {
	Thing       string        `json:"thing"`
	Task        string        `json:"task"`
	On          calendar.Date `json:"on"`
	OverdueDays int           `json:"overdueDays" doc:"Below 0 before the day"`
	Because     string        `json:"because"`
}

// Round is one task over all things for which it is due, in walking order.
type Round struct {
	Task   string   `json:"task"`
	Things []string `json:"things"`
	Hours  *float64 `json:"hours" doc:"null where nobody said how long the task takes"`
}

// Months between two deeds of a rule that can be.
const mostMonths = 1200

// Plan works out what falls due. A *malformed.Error names what cannot be taken.
func Plan(in Input) (Output, error) {
	last, err := in.check()
	if err != nil {
		return Output{}, err
	}
	byKind := map[string][]Rule{}
	for _, rule := range in.Rules {
		byKind[rule.Of] = append(byKind[rule.Of], rule)
	}
	now, entries := in.Now.Date, []entry{}
	byID := in.places(func(a, b Thing) int { return ByFigures(a.ID, b.ID) })
	for i, thing := range in.Things {
		for _, rule := range byKind[thing.Kind] {
			due := rule.due(thing, last[key{thing.ID, rule.Task}], now)
			due.OverdueDays = now.Days() - due.On.Days()
			entries = append(entries, entry{&due, i, byID[i]})
		}
	}
	slices.SortFunc(entries, func(a, b entry) int {
		return cmp.Or(cmp.Compare(b.OverdueDays, a.OverdueDays), cmp.Compare(a.byID, b.byID), cmp.Compare(a.Task,
			b.Task))
	})
	out := Output{Due: make([]Due, len(entries)), Rounds: []Round{}}
	dueNow := map[string][]int{}
	for i, e := range entries {
		out.Due[i] = *e.Due
		if e.OverdueDays >= 0 {
			dueNow[e.Task] = append(dueNow[e.Task], e.thing)
		}
	}
	walk := in.places(InWalkingOrder)
	for _, rule := range in.Rules {
		if of := dueNow[rule.Task]; len(of) > 0 {
			slices.SortFunc(of, func(a, b int) int { return cmp.Compare(walk[a], walk[b]) })
			out.Rounds = append(out.Rounds, in.round(rule.Task, of))
			delete(dueNow, rule.Task)
		}
	}
	return out, nil
}

// entry is a task that falls due, with its thing in the input, and the place of that among all by their ids.
type entry struct {
	*Due
	thing, byID int
}

// places returns the place of each thing in an order.
func (in Input) places(order func(a, b Thing) int) []int {
	ordered, places := make([]int, len(in.Things)), make([]int, len(in.Things))
	for i := range ordered {
		ordered[i] = i
	}
	slices.SortFunc(ordered, func(a, b int) int { return order(in.Things[a], in.Things[b]) })
	for place, i := range ordered {
		places[i] = place
	}
	return places
}

// due counts from the later of since and the last deed that counts.
func (r Rule) due(thing Thing, last [2]calendar.Date, now calendar.Date) Due {
	from, how := thing.Since.Date, "nothing was done since "
	seen, did := last[0], last[1]
	if r.Looks && !seen.IsZero() && !seen.Before(from) {
		from, how = seen, "seen on "
	}
	if !did.IsZero() && !did.Before(from) {
		from, how = did, "done on "
	}
	if from.IsZero() {
		return Due{Thing: thing.ID, Task: r.Task, On: now, Because: "nobody knows since when, and nothing was done"}
	}
	return Due{Thing: thing.ID, Task: r.Task, On: from.AddMonths(r.EveryMonths), Because: how + from.String()}
}

func (in Input) round(task string, of []int) Round {
	r := Round{Task: task, Things: make([]string, len(of))}
	for i, thing := range of {
		r.Things[i] = in.Things[thing].ID
	}
	if hours, known := in.Hours[task]; known {
		hours *= float64(len(of))
		r.Hours = &hours
	}
	return r
}

type key struct{ thing, task string }

// check refuses what cannot be taken, and returns the last day on which each task was seen, and done.
func (in Input) check() (map[key][2]calendar.Date, error) {
	now := in.Now.Date
	if err := in.Now.Check("now", calendar.Date{}); err != nil {
		return nil, err
	}
	if now.IsZero() {
		return nil, malformed.In("now", "now: the day for which this is asked is missing; write YYYY-MM-DD")
	}
	rules := map[key]bool{}
	for i, r := range in.Rules {
		at := fmt.Sprintf("rules[%d]", i)
		switch {
		case r.Task == "" || r.Of == "":
			return nil, malformed.In(at, "%s: a rule needs its task and of what it is", at)
		case r.EveryMonths < 1 || r.EveryMonths > mostMonths:
			return nil, malformed.In(at+".everyMonths", "%s.everyMonths: %d is no number of months from 1 to %d", at,
				r.EveryMonths, mostMonths)
		case rules[key{r.Of, r.Task}]:
			return nil, malformed.In(at, "%s: %q of %q has a rule already", at, r.Task, r.Of)
		}
		rules[key{r.Of, r.Task}] = true
	}
	ids := make(map[string]bool, len(in.Things))
	for i, t := range in.Things {
		if t.ID == "" || ids[t.ID] {
			return nil, malformed.In(fmt.Sprintf("things[%d].id", i), "things[%d].id: %q is missing, or stands there twice", i,
				t.ID)
		}
		ids[t.ID] = true
		if t.Since.IsZero() && t.Since.Text != "" {
			return nil, t.Since.Check(fmt.Sprintf("things[%d].since", i), calendar.Date{})
		}
	}
	for task, hours := range in.Hours {
		if hours < 0 {
			return nil, malformed.In("hours", "hours.%s: %g cannot be; write a figure from 0", task, hours)
		}
	}
	return in.lastDeeds()
}

func (in Input) lastDeeds() (map[key][2]calendar.Date, error) {
	last := make(map[key][2]calendar.Date, len(in.Done))
	for i, d := range in.Done {
		if d.How == Planned && (d.On.Text == "" || !d.On.IsZero()) {
			continue // a plan may lie ahead
		}
		if !d.isDone(in.Now.Date) {
			return nil, d.refuse(fmt.Sprintf("done[%d]", i), in.Now.Date)
		}
		k := key{d.Thing, d.Task}
		was, which := last[k], 0
		if d.How == Did {
			which = 1
		}
		if was[which].Before(d.On.Date) || was[which].IsZero() {
			was[which] = d.On.Date
		}
		last[k] = was
	}
	return last, nil
}

// isDone reports whether a deed counts: done or seen, on a day that is over.
func (d Deed) isDone(now calendar.Date) bool {
	return (d.How == Did || d.How == Seen) && !d.On.IsZero() && !now.Before(d.On.Date)
}

func (d Deed) refuse(at string, now calendar.Date) error {
	if err := d.On.Check(at+".on", now); err != nil {
		return err
	}
	if d.How != Did && d.How != Seen {
		return malformed.In(at+".how", "%s.how: %q is none of did, seen, planned", at, d.How)
	}
	return malformed.In(at+".on", "%s.on: a deed needs its day; write YYYY-MM-DD", at)
}
