package facts

import (
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/verdict"
)

// Asked adds to what is known, as open, that nothing is said of attributes that every thing has.
func Asked(known []Fact, always ...string) []Fact {
	all := slices.Clone(known)
	for _, key := range always {
		if !slices.ContainsFunc(known, func(f Fact) bool { return f.Attribute == key && f.Subject == "" }) {
			j := judging{topic: topic{key, ""}, attribute: AttributeOf(key)}
			all = append(all, j.fact(nil))
		}
	}
	return all
}

// InOrder sorts facts by how much they ask for somebody: what is disputed comes first, then what is open, then the
// rest, each in the order in which people look at attributes, with names of the collection's own last.
func InOrder(known []Fact) []Fact {
	sorted := slices.Clone(known)
	place := func(f Fact) int {
		at := slices.IndexFunc(readAttributes(), func(a Attribute) bool { return a.Key == f.Attribute })
		if at < 0 {
			return len(readAttributes())
		}
		return at
	}
	states := []State{Disputed, Open, Settled}
	slices.SortStableFunc(sorted, func(a, b Fact) int {
		if byState := slices.Index(states, a.State) - slices.Index(states, b.State); byState != 0 {
			return byState
		}
		if byPlace := place(a) - place(b); byPlace != 0 {
			return byPlace
		}
		return strings.Compare(a.Attribute+a.Subject, b.Attribute+b.Subject)
	})
	return sorted
}

// CountOf counts the facts in a state.
func CountOf(known []Fact, state State) (n int) {
	for _, f := range known {
		if f.State == state {
			n++
		}
	}
	return n
}

// IsSilent reports whether nothing is said of it that can be taken.
func (f Fact) IsSilent() bool { return f.Now == nil && len(f.Differ) == 0 }

// Why says in words what the state of a fact rests on.
func (f Fact) Why() string {
	switch {
	case f.IsSilent():
		return "nothing is said of it"
	case len(f.Differ) > 0:
		words := []string{}
		for _, d := range f.Differ {
			words = append(words, d.Why)
		}
		return strings.Join(words, "; ")
	case f.State == Open:
		return f.Now.Value + " is no more than a hint, or has no day"
	}
	return f.Now.Value
}

var (
	unsettled   = verdict.NewSentence("attribute-unsettled", "{attribute} is {state}: {why}. To settle it: {next}")
	disputedToo = verdict.NewSentence("disputed", "disputed: {why}")
)

// Doubt marks the counted memory where other sources, as strong, say otherwise.
func Doubt(verdicts []verdict.Verdict, known []Fact) {
	for _, f := range known {
		if f.Attribute != "memory" || f.Subject != "" || f.State != Disputed {
			continue
		}
		for i := range verdicts {
			if verdicts[i].Key == "ram" {
				verdicts[i].State = verdict.Attention
				verdicts[i].Value += "; disputed"
				verdicts[i].Why = append(verdicts[i].Why, disputedToo.Because(f.Why()))
			}
		}
	}
}

// Verdict says in one line of the reckoning what is disputed and what is open, with what would settle it. Its value is
// empty when all is settled.
func Verdict(known []Fact) verdict.Verdict {
	v := verdict.Verdict{Key: "evidence", Label: "Statements", Why: []verdict.Reason{}, State: verdict.Plain}
	parts := []string{}
	for _, state := range []State{Disputed, Open} {
		n := 0
		for _, f := range known {
			if f.State != state || f.IsSilent() {
				continue
			}
			n++
			name := strings.TrimSpace(AttributeOf(f.Attribute).Label + " " + f.Subject)
			v.Why = append(v.Why, unsettled.Because(name, verdict.Word(state), f.Why(), verdict.Word(f.Next)))
		}
		if n == 0 {
			continue
		}
		parts = append(parts, fmt.Sprintf("%d %s", n, state))
		if state == Disputed {
			v.State = verdict.Attention
		}
	}
	v.Value = strings.Join(parts, ", ")
	return v
}
