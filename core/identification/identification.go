// Package identification weighs what an unknown thing could be: explanations against evidence, and which piece of
// evidence would tell most.
package identification

import (
	"cmp"
	"fmt"
	"math"
	"slices"
)

// Presence says whether a piece of evidence was looked for, and found.
type Presence string

// States of a piece of evidence.
const (
	Found  Presence = "found"
	Absent Presence = "absent" // looked for and not there
	Open   Presence = "open"   // not looked for yet
)

// Weights run from -3, speaks strongly against, to 3, speaks strongly for.
const heaviest = 3

// Hypothesis is what the thing could be.
type Hypothesis struct {
	ID   int64  `json:"id"`
	Text string `json:"text" says:"text"`
}

// Evidence is what one can see of the thing, and what it would mean. An absent piece speaks the other way,
// half as strongly: what is not there may have been taken off.
type Evidence struct {
	ID       int64         `json:"id"`
	Text     string        `json:"text" says:"text"`
	Presence Presence      `json:"presence"`
	HowTo    string        `json:"howTo" says:"text"` // how one looks for it
	Weights  map[int64]int `json:"weights"`           // by hypothesis; one that is missing is 0
}

// Ranked is a hypothesis with what speaks for and against it.
type Ranked struct {
	Hypothesis
	Score   float64  `json:"score"`
	Share   float64  `json:"share"` // of all explanations, 0 to 1; a rule of thumb, no probability
	For     []Reason `json:"for"`
	Against []Reason `json:"against"`
}

// Reason is a piece of evidence that speaks for or against something, the strongest first.
type Reason struct {
	EvidenceID int64   `json:"evidenceId"`
	Text       string  `json:"text" says:"text"`
	Weight     float64 `json:"weight"`
}

// Next is evidence that is still to be looked for.
type Next struct {
	EvidenceID int64   `json:"evidenceId"`
	Text       string  `json:"text" says:"text"`
	HowTo      string  `json:"howTo" says:"text"`
	Tells      float64 `json:"tells"` // how far apart the explanations are about it, by their shares; 0 tells nothing
	Why        string  `json:"why" says:"text"`
}

// Weighing is how the explanations stand.
type Weighing struct {
	Ranking []Ranked `json:"ranking"`         // the best supported first
	Next    []Next   `json:"next"`            // the most telling first
	Why     string   `json:"why" says:"text"` // in a sentence
}

// doubled is the score by which an explanation counts twice as much beside the others: a rule of thumb.
const doubled = 1.0

// Weigh ranks the explanations.
func Weigh(hypotheses []Hypothesis, evidence []Evidence) Weighing {
	w := Weighing{Ranking: make([]Ranked, len(hypotheses)), Next: []Next{}}
	for i, h := range hypotheses {
		w.Ranking[i] = Ranked{Hypothesis: h, For: []Reason{}, Against: []Reason{}}
		for _, e := range evidence {
			w.Ranking[i].take(e)
		}
	}
	shares := sharesOf(w.Ranking)
	for i := range w.Ranking {
		w.Ranking[i].Share = shares[i]
	}
	for _, e := range evidence {
		if e.Presence == Open {
			if next := telling(e, hypotheses, w.Ranking); next.Tells > 0 {
				w.Next = append(w.Next, next)
			}
		}
	}
	slices.SortStableFunc(w.Ranking, func(a, b Ranked) int { return cmp.Compare(b.Score, a.Score) })
	slices.SortStableFunc(w.Next, func(a, b Next) int { return cmp.Compare(b.Tells, a.Tells) })
	w.Why = w.words()
	return w
}

// counts is what a piece of evidence adds to a score.
func (e Evidence) counts(hypothesis int64) float64 {
	weight := float64(max(-heaviest, min(heaviest, e.Weights[hypothesis])))
	switch e.Presence {
	case Found:
		return weight
	case Absent:
		return -weight / 2
	}
	return 0
}

func (r *Ranked) take(e Evidence) {
	weight := e.counts(r.ID)
	r.Score += weight
	text := e.Text
	if e.Presence == Absent {
		text = "not there: " + text
	}
	by := func(a, b Reason) int { return cmp.Compare(math.Abs(b.Weight), math.Abs(a.Weight)) }
	switch {
	case weight > 0:
		r.For = append(r.For, Reason{e.ID, text, weight})
		slices.SortStableFunc(r.For, by)
	case weight < 0:
		r.Against = append(r.Against, Reason{e.ID, text, weight})
		slices.SortStableFunc(r.Against, by)
	}
}

// sharesOf divides one over explanations by their scores.
func sharesOf(ranked []Ranked) []float64 {
	shares, sum := make([]float64, len(ranked)), 0.0
	for i, r := range ranked {
		shares[i] = math.Exp2(r.Score / doubled)
		sum += shares[i]
	}
	for i := range shares {
		shares[i] /= sum
	}
	return shares
}

// telling says how far apart the explanations are about a piece of evidence: the spread of its weights, each
// explanation taken by its share. What all of them expect alike tells nothing, found or not.
func telling(e Evidence, hypotheses []Hypothesis, ranked []Ranked) Next {
	mean, spread := 0.0, 0.0
	for i, h := range hypotheses {
		mean += ranked[i].Share * float64(e.Weights[h.ID])
	}
	for i, h := range hypotheses {
		off := float64(e.Weights[h.ID]) - mean
		spread += ranked[i].Share * off * off
	}
	return Next{e.ID, e.Text, e.HowTo, math.Round(math.Sqrt(spread)*100) / 100, apart(e, hypotheses)}
}

// apart names the explanations that a piece of evidence tells from each other.
func apart(e Evidence, hypotheses []Hypothesis) string {
	pro, against := []string{}, []string{}
	for _, h := range hypotheses {
		switch weight := e.Weights[h.ID]; {
		case weight > 0:
			pro = append(pro, h.Text)
		case weight < 0:
			against = append(against, h.Text)
		}
	}
	switch {
	case len(pro) > 0 && len(against) > 0:
		return fmt.Sprintf("speaks for %s, against %s", list(pro), list(against))
	case len(pro) > 0:
		return "speaks for " + list(pro)
	case len(against) > 0:
		return "speaks against " + list(against)
	}
	return "says nothing of any explanation yet"
}

func list(words []string) string {
	if len(words) == 1 {
		return words[0]
	}
	text := words[0]
	for i, word := range words[1:] {
		if i == len(words)-2 {
			text += " and "
		} else {
			text += ", "
		}
		text += word
	}
	return text
}

// clear is the share from which an explanation leads clearly. A rule of thumb.
const clear = 0.75

func (w Weighing) words() string {
	switch {
	case len(w.Ranking) == 0:
		return "Nobody has said yet what it could be."
	case len(w.Ranking) == 1:
		return "There is one explanation only; look for a second before it is believed."
	}
	first, second := w.Ranking[0], w.Ranking[1]
	switch {
	case first.Score == second.Score:
		return fmt.Sprintf("%s and %s stand equal.", first.Text, second.Text)
	case first.Share >= clear:
		return fmt.Sprintf("%s leads clearly.", first.Text)
	}
	return fmt.Sprintf("%s is ahead of %s, but not clearly.", first.Text, second.Text)
}
