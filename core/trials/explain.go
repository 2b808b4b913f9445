package trials

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"
)

// state has a bit for each factor, the first one lowest.
type state uint64

func (s state) has(all state) bool { return s&all == all }

// tried is a trial as it counts.
type tried struct {
	on     state
	result Result
}

// trialCase is the trials with their factors as bits.
type trialCase struct {
	factors []Factor
	trials  []tried         // a set that had ok and fail counts as sometimes, each time
	swings  []state         // sets that had both, in the order in which they came
	saw     map[Result]bool // results as they were written down
	made    []Result        // what explanations can make
}

// candidate is an explanation with what it is weighed by.
type candidate struct {
	all     state
	makes   Result
	weight  float64
	without int // trials that came and went without all of it on
}

func (e candidate) predicts(on state) Result {
	if on.has(e.all) {
		return e.makes
	}
	return e.makes.other()
}

func newCase(in Input) trialCase {
	c := trialCase{factors: in.Factors, saw: map[Result]bool{}}
	bit := map[string]state{}
	for i, f := range in.Factors {
		bit[f.Name] = 1 << i
	}
	had := map[state]map[Result]bool{}
	for _, t := range in.Trials {
		var on state
		for _, name := range t.On {
			on |= bit[name]
		}
		c.trials = append(c.trials, tried{on, t.Result})
		c.saw[t.Result] = true
		if had[on] == nil {
			had[on] = map[Result]bool{}
		}
		had[on][t.Result] = true
	}
	for i, t := range c.trials {
		if had[t.on][OK] && had[t.on][Fail] {
			c.trials[i].result = Sometimes
			if !slices.Contains(c.swings, t.on) {
				c.swings = append(c.swings, t.on)
			}
		}
	}
	c.made = c.directions(in.Makes)
	return c
}

// directions are what explanations can make: the opposite of the trial with nothing on, else what was asked for, else
// either. A start that comes and goes tells nothing of it.
func (c trialCase) directions(asked *Result) []Result {
	for _, t := range c.trials {
		if t.on == 0 && t.result != Sometimes {
			return []Result{t.result.other()}
		}
	}
	if asked != nil {
		return []Result{*asked}
	}
	return []Result{OK, Fail}
}

// left lists the explanations that agree with all trials: single factors in their order, then pairs.
func (c trialCase) left(in Input) []candidate {
	sets, weights := []state{}, []float64{}
	for i := range c.factors {
		sets, weights = append(sets, 1<<i), append(weights, 1)
	}
	if in.MaxTogether == nil || *in.MaxTogether > 1 {
		for i := range c.factors {
			for j := i + 1; j < len(c.factors); j++ {
				sets, weights = append(sets, 1<<i|1<<j), append(weights, weightOfPair)
			}
		}
	}
	found := []candidate{}
	for _, makes := range c.made {
		for i, all := range sets {
			if e := (candidate{all: all, makes: makes, weight: weights[i]}); c.agrees(&e) {
				found = append(found, e)
			}
		}
	}
	return found
}

// agrees reports whether an explanation agrees with all trials, and counts those that came and went without it.
func (c trialCase) agrees(e *candidate) bool {
	for _, t := range c.trials {
		switch {
		case t.result == Sometimes:
			if !t.on.has(e.all) {
				e.without++
			}
		case e.predicts(t.on) != t.result:
			return false
		}
	}
	return true
}

func (c trialCase) tell(explained []candidate) []Explanation {
	fewest := len(c.trials)
	for _, e := range explained {
		fewest = min(fewest, e.without)
	}
	// All are weighed by the same trials that came and went, so only those count by which they differ: thousands of them
	// take no weight below what a figure can hold.
	sum := 0.0
	for i := range explained {
		e := &explained[i]
		e.weight *= math.Pow(withoutIt/comesAndGoes, float64(e.without-fewest))
		sum += e.weight
	}
	told := []Explanation{}
	for _, e := range explained {
		told = append(told, Explanation{c.names(e.all), e.makes, e.weight / sum})
	}
	slices.SortStableFunc(told, func(a, b Explanation) int { return cmp.Compare(b.Probability, a.Probability) })
	return told
}

func (c trialCase) names(s state) []string {
	names := []string{}
	for i, f := range c.factors {
		if s.has(1 << i) {
			names = append(names, f.Name)
		}
	}
	return names
}

func (c trialCase) refuted(left []candidate) []string {
	var named state
	for _, e := range left {
		named |= e.all
	}
	return c.names(^named)
}

// confounded are classes of factors that were on in exactly the same trials.
func (c trialCase) confounded() [][]string {
	classes, at := [][]string{}, map[string]int{}
	for i, f := range c.factors {
		var key strings.Builder
		for _, t := range c.trials {
			fmt.Fprint(&key, t.on>>i&1)
		}
		n, known := at[key.String()]
		if !known {
			n = len(classes)
			at[key.String()] = n
			classes = append(classes, nil)
		}
		classes[n] = append(classes[n], f.Name)
	}
	return slices.DeleteFunc(classes, func(class []string) bool { return len(class) < 2 })
}

func (c trialCase) notes() []string {
	notes := []string{}
	for _, on := range c.swings {
		times := 0
		for _, t := range c.trials {
			if t.on == on {
				times++
			}
		}
		notes = append(notes, fmt.Sprintf("%s: ok and fail with the same factors in %d trials; intermittent, each counts as sometimes",
			c.inWords(on), times))
	}
	if len(c.trials) > 0 && !slices.ContainsFunc(c.trials, func(t tried) bool { return t.on == 0 }) {
		notes = append(notes, "nobody tried it with nothing changed; such a trial says what there is to explain")
	}
	return notes
}

func (c trialCase) inWords(on state) string {
	if on == 0 {
		return "nothing changed"
	}
	return strings.Join(c.names(on), " + ")
}
