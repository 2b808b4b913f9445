package evidence

import (
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/verdict"
)

// Judged is an attribute of a thing with what its statements amount to.
type Judged struct {
	Attribute Attribute `json:"attribute"`
	Judgement Judgement `json:"judgement"`
}

// JudgeAll judges each attribute that something is said of, and those of always even if nothing is. What is
// disputed comes first, then what is open, then the rest: each in the order of the table, with names of
// the collection's own last.
func JudgeAll(statements map[string][]Statement, always ...string) []Judged {
	judged := []Judged{}
	add := func(a Attribute) { judged = append(judged, Judged{a, Judge(a, statements[a.Key])}) }
	known := map[string]bool{}
	for _, a := range readAttributes() {
		known[a.Key] = true
		if len(statements[a.Key]) > 0 || slices.Contains(always, a.Key) {
			add(a)
		}
	}
	own := []string{}
	for key := range statements {
		if !known[key] {
			own = append(own, key)
		}
	}
	slices.Sort(own)
	for _, key := range own {
		add(AttributeOf(key))
	}
	slices.SortStableFunc(judged, func(a, b Judged) int { return a.Judgement.State.rank() - b.Judgement.State.rank() })
	return judged
}

// rank orders states by how much they ask for somebody.
func (s State) rank() int { return slices.Index([]State{Disputed, Open, Settled}, s) }

// CountOf counts the attributes in a state.
func CountOf(judged []Judged, state State) int {
	n := 0
	for _, j := range judged {
		if j.Judgement.State == state {
			n++
		}
	}
	return n
}

var (
	unsettled   = verdict.NewSentence("attribute-unsettled", "{attribute} is {state}: {why}. To settle it: {next}")
	disputedToo = verdict.NewSentence("disputed", "disputed: {why}")
)

// Doubt marks the counted memory where other sources, as strong, say otherwise.
func Doubt(verdicts []verdict.Verdict, judged []Judged) {
	for _, j := range judged {
		if j.Attribute.Key != "memory" || j.Judgement.State != Disputed {
			continue
		}
		for i := range verdicts {
			if verdicts[i].Key != "ram" {
				continue
			}
			verdicts[i].State = verdict.Attention
			verdicts[i].Value += "; disputed"
			for _, why := range j.Judgement.Why {
				verdicts[i].Why = append(verdicts[i].Why, disputedToo.Because(why))
			}
		}
	}
}

// Verdict says in one line of the reckoning what is disputed and what is open, with what would settle
// it. Its value is empty when all is settled.
func Verdict(judged []Judged) verdict.Verdict {
	v := verdict.Verdict{Key: "evidence", Label: "Statements", Why: []verdict.Reason{}}
	parts := []string{}
	for _, state := range []State{Disputed, Open} {
		n := 0
		for _, j := range judged {
			if j.Judgement.State != state || state == Open && len(j.Judgement.Groups) == 0 {
				continue
			}
			n++
			v.Why = append(v.Why, unsettled.Because(verdict.Word(j.Attribute.Label), verdict.Word(state),
				strings.Join(j.Judgement.Why, "; "), verdict.Word(j.Judgement.Next)))
		}
		if n > 0 {
			parts = append(parts, fmt.Sprintf("%d %s", n, state))
			if state == Disputed {
				v.State = verdict.Attention
			}
		}
	}
	v.Value = strings.Join(parts, ", ")
	if v.State == "" {
		v.State = verdict.Plain
	}
	return v
}
