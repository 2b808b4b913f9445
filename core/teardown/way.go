package teardown

import (
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/sheet"
)

// Way is how one gets at a part: the fewest steps of a procedure that free it.
type Way struct {
	To      string    `json:"to" says:"text"`
	State   string    `json:"state" enum:"known,nobody,circle" doc:"nobody: no step frees it; circle: steps need each other"`
	Words   string    `json:"words" says:"text" doc:"All of it in a line"`
	First   []string  `json:"first" doc:"What comes before the first step of anything"`
	Steps   []WayStep `json:"steps" doc:"In their order"`
	Of      int       `json:"of" doc:"Steps of the whole procedure"`
	Tools   []string  `json:"tools"`
	Tabs    []string  `json:"tabs" says:"text"`
	Plugs   []string  `json:"plugs"`
	Minutes int       `json:"minutes" doc:"Of the steps that somebody timed"`
	Untimed int       `json:"untimed" doc:"Steps that nobody timed"`
	Look    []string  `json:"look" says:"text" doc:"What to look at on the way"`
	Unsaid  []string  `json:"unsaid" says:"text" doc:"What steps of it need, and no step takes off"`
}

// WayStep is a step of the way.
type WayStep struct {
	N       int  `json:"n" doc:"Number in the procedure, from 1"`
	Step    Step `json:"step"`
	Assumed bool `json:"assumed" doc:"Nobody said what it needs, so all steps before it are counted"`
}

// States of a way.
const (
	WayKnown  = "known"
	WayNobody = "nobody"
	WayCircle = "circle"
)

// BeforeAnything is what comes before the first step of any procedure, in this order.
func BeforeAnything() []string {
	return []string{
		"Mains lead out, at the wall and at the machine; wait until what holds a charge has lost it.",
		"Read the settings out, or note that they are lost: they go with the cells.",
		"Then the cells out, or their lead off.",
	}
}

// nothing is what a step needs that needs nothing.
const nothing = "nothing"

// WayTo finds the fewest steps that free a part, as BT1, each with all that it needs. Where no step frees it, the
// nearest
// is the one that frees the board that it is on, else the last one.
func WayTo(target, board string, procedure []Step) Way {
	w := Way{To: target, State: WayKnown, First: BeforeAnything(), Steps: []WayStep{}, Of: len(procedure),
		Tools: []string{},
		Tabs:  []string{}, Plugs: []string{}, Look: []string{}, Unsaid: []string{}}
	goals := freeing(target, procedure)
	if len(goals) == 0 {
		return w.nearest(board, procedure)
	}
	var best []int
	var circle []string
	for _, goal := range goals {
		steps, round := closed(goal, procedure)
		if round != nil {
			circle = round
		} else if best == nil || len(steps) < len(best) {
			best = steps
		}
	}
	if best == nil {
		w.State = WayCircle
		w.Words = "These steps need each other, so none can be the first: " + strings.Join(circle, ", ") + "."
		return w
	}
	w.take(best, procedure)
	w.Words = w.inWords()
	return w
}

// freeing lists the steps that free a part, or take it off.
func freeing(target string, procedure []Step) []int {
	goals := []int{}
	for i, s := range procedure {
		if s.gives(target) {
			goals = append(goals, i)
		}
	}
	return goals
}

// gives reports whether something can be got at, or is off, after a step.
func (s Step) gives(what string) bool {
	names := func(name string) bool { return key(name) == key(what) || sheet.Names(name, what) }
	return names(s.Off) || slices.ContainsFunc(s.Frees, names) ||
		slices.ContainsFunc(strings.FieldsFunc(s.Off, func(r rune) bool { return r == ' ' || r == ',' }),
			func(word string) bool {
				return sheet.IsDesignator(what) && key(word) == key(what)
			})
}

// neededBy lists the steps that a step needs itself, whether that is assumed, and what it needs that no step takes off.
func neededBy(i int, procedure []Step) (needed []int, assumed bool, unsaid []string) {
	s := procedure[i]
	switch {
	case len(s.Needs) == 0:
		for before := range i {
			needed = append(needed, before)
		}
		return needed, i > 0, nil
	case len(s.Needs) == 1 && key(s.Needs[0]) == nothing:
		return nil, false, nil
	}
	for _, need := range s.Needs {
		at := slices.IndexFunc(procedure, func(other Step) bool { return other.gives(need) })
		if at < 0 {
			unsaid = append(unsaid, need)
		} else if at != i {
			needed = append(needed, at)
		}
	}
	return needed, false, unsaid
}

// closed lists a step with all that it needs, in order; or the steps that need each other.
func closed(goal int, procedure []Step) (steps []int, circle []string) {
	const under, done = 1, 2
	state := map[int]int{}
	path := []int{}
	var visit func(i int)
	visit = func(i int) {
		if circle != nil || state[i] == done {
			return
		}
		if state[i] == under {
			for _, at := range path[slices.Index(path, i):] {
				circle = append(circle, procedure[at].Off)
			}
			return
		}
		state[i] = under
		path = append(path, i)
		needed, _, _ := neededBy(i, procedure)
		for _, at := range needed {
			visit(at)
		}
		path = path[:len(path)-1]
		state[i] = done
		steps = append(steps, i)
	}
	visit(goal)
	return steps, circle
}

// take gathers what the steps of a way ask for.
func (w *Way) take(steps []int, procedure []Step) {
	add := func(list *[]string, names ...string) {
		for _, name := range names {
			if name != "" && !slices.ContainsFunc(*list, func(there string) bool { return key(there) == key(name) }) {
				*list = append(*list, name)
			}
		}
	}
	for _, i := range steps {
		s := procedure[i].Whole()
		_, assumed, unsaid := neededBy(i, procedure)
		add(&w.Unsaid, unsaid...)
		w.Steps = append(w.Steps, WayStep{i + 1, s, assumed})
		for _, f := range s.Fasteners {
			add(&w.Tools, f.Tool)
		}
		w.Tabs = append(w.Tabs, s.Tabs...)
		add(&w.Plugs, s.Connectors...)
		add(&w.Look, s.Look...)
		if w.Minutes += s.Minutes; s.Minutes == 0 {
			w.Untimed++
		}
	}
}

func (w *Way) inWords() string {
	words := []string{fmt.Sprintf("%d of %d steps", len(w.Steps), w.Of)}
	if len(w.Tools) > 0 {
		words = append(words, strings.Join(w.Tools, " and "))
	}
	counted := func(n int, one, several string) {
		if n == 1 {
			words = append(words, "1 "+one)
		} else if n > 1 {
			words = append(words, fmt.Sprintf("%d %s", n, several))
		}
	}
	counted(len(w.Tabs), "tab to mind", "tabs to mind")
	counted(len(w.Plugs), "plug", "plugs")
	if counted(w.Minutes, "minute", "minutes"); w.Minutes > 0 {
		counted(w.Untimed, "step that nobody timed", "steps that nobody timed")
	}
	told := "To " + w.To + ": " + strings.Join(words, ", ") + "."
	if len(w.Unsaid) > 0 {
		told += " No step says how these come off: " + strings.Join(w.Unsaid, ", ") + "."
	}
	return told
}

// nearest says how far anybody got.
func (w Way) nearest(board string, procedure []Step) Way {
	w.State = WayNobody
	w.Words = "Nobody got to " + w.To + " yet"
	if len(procedure) == 0 {
		w.Words += "."
		return w
	}
	goal := len(procedure) - 1
	if on := freeing(board, procedure); board != "" && len(on) > 0 {
		goal = on[0]
	}
	w.Words += "; nearest is " + procedure[goal].Off + "."
	if steps, circle := closed(goal, procedure); circle == nil {
		w.take(steps, procedure)
	}
	return w
}

// TooEarly tells which steps must be back before one goes back, as they need it off; empty where it may go back now.
func TooEarly(steps []Logged, n int) []string {
	procedure := make([]Step, len(steps))
	at := -1
	for i, s := range steps {
		procedure[i] = s.Step
		if s.N == n {
			at = i
		}
	}
	first := []string{}
	for i, s := range steps {
		if i == at || s.Reversal.State != Off {
			continue
		}
		if needed, _, _ := neededBy(i, procedure); slices.Contains(needed, at) {
			first = append(first, s.Off)
		}
	}
	return first
}
