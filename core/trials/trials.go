// Package trials answers: which change made the difference, as far as the trials tell, and which trial would tell most?
//
// A factor is a change: a part swapped, a setting, a cleaning, the room. An explanation is one factor, or two that must
// be together, and the result that it makes. It agrees with a trial when all of it on goes with that result, and not all
// of it on with the other.
package trials

import (
	"bytes"
	"encoding/json"
	"slices"
)

// Result is how a trial went.
type Result string

// How a trial can go.
const (
	OK        Result = "ok"
	Fail      Result = "fail"
	Sometimes Result = "sometimes" // now one, now the other, with everything as it was
)

func (r Result) other() Result {
	if r == OK {
		return Fail
	}
	return OK
}

// Factor is something that is changed between trials.
type Factor struct {
	Name   string  `json:"name"`
	Effort float64 `json:"effort"` // of changing it, in any unit
	Danger bool    `json:"danger"` // having it on may hurt somebody or something
}

// UnmarshalJSON takes a name alone, or all of it; the effort is 1 where nobody said.
func (f *Factor) UnmarshalJSON(data []byte) error {
	*f = Factor{Effort: 1}
	if data = bytes.TrimSpace(data); len(data) > 0 && data[0] == '"' {
		return json.Unmarshal(data, &f.Name)
	}
	type plain Factor
	return json.Unmarshal(data, (*plain)(f))
}

// Trial is what was tried, with the state of all factors: those that are not on were off.
type Trial struct {
	On     []string `json:"on"`
	Result Result   `json:"result"`
}

// Input is what is judged.
type Input struct {
	Factors     []Factor `json:"factors"`
	Trials      []Trial  `json:"trials"`
	Makes       *Result  `json:"makes"`       // what is to be explained, where nobody tried with nothing on; null for either
	MaxTogether *int     `json:"maxTogether"` // 1 or 2; 2 where it is left out
}

// Explanation is what could have made the difference.
type Explanation struct {
	Factors     []string `json:"factors" says:"text"`
	Makes       Result   `json:"makes" enum:"ok,fail"`
	Probability float64  `json:"probability" doc:"Beside the other explanations that are left"`
}

// NextTrial is the trial that tells most.
type NextTrial struct {
	On  []string `json:"on" says:"text"`
	Why string   `json:"why" says:"text"`
}

// Output is what the trials tell.
type Output struct {
	Explanations []Explanation `json:"explanations"` // the likeliest first
	Refuted      []string      `json:"refuted"`      // factors in no explanation that is left
	Confounded   [][]string    `json:"confounded"`   // factors that were on in the very same trials
	Next         *NextTrial    `json:"next"`
	Settled      bool          `json:"settled"` // exactly one explanation is left
	Notes        []string      `json:"notes"`
}

// Weights of explanations beside each other. Rules of thumb: one cause is likelier than two that must meet; what came and
// went with everything on is half as likely, and what came and went without it far less.
const (
	weightOfPair = 0.1
	comesAndGoes = 0.5
	withoutIt    = 0.1
)

// Judge tells what is left to explain the results, and what to try next. An input that cannot be is refused by its place.
func Judge(in Input) (Output, error) {
	if err := in.check(); err != nil {
		return Output{}, err
	}
	c, left, explained := explain(in)
	out := Output{Confounded: c.confounded(), Notes: c.notes()}
	pool := explained
	if len(explained) == 0 {
		pool = left
	}
	out.Explanations = c.tell(explained)
	out.Settled = len(explained) == 1
	out.Refuted = c.refuted(pool)
	out.Next = c.next(pool, len(explained) > 0)
	return out, nil
}

// explain lists what agrees with all trials, and what of it makes a result that was seen.
func explain(in Input) (c trialCase, left, explained []candidate) {
	c = newCase(in)
	left = c.left(in)
	return c, left, slices.DeleteFunc(slices.Clone(left), func(e candidate) bool { return !c.saw[e.makes] })
}
