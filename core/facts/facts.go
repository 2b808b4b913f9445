// Package facts answers: what is true about an attribute, of what, and when, when several sources say something about
// it? Values are compared by value, not by spelling. What was found on the thing itself outweighs what its maker put on
// it, which outweighs what was written about it, which outweighs what somebody says; ranks are a rule of thumb, kept as
// a table. What holds only at a time (whether it worked, how much memory was in it) is told as now and then: an older
// statement does not contradict a newer one. Where nothing decides, the answer is that nothing does.
package facts

import (
	"fmt"
	"slices"

	"frugalheron/core/calendar"
	"frugalheron/core/edtf"
)

// Statement is what one source says of an attribute of a thing, or of a part of it.
type Statement struct {
	ID        string  `json:"id"`
	Attribute string  `json:"attribute"`
	Subject   string  `json:"subject"` // the part that it is about; empty for the thing itself
	Value     string  `json:"value"`
	Source    Source  `json:"source"`
	On        *string `json:"on"`     // when it was so, EDTF
	Nature    *Nature `json:"nature"` // nil for that of the attribute
	Form      *Form   `json:"form"`   // nil for that of the attribute
}

// Block is a stretch of memory that a count is made of.
type Block struct {
	ID         string  `json:"id"`
	Attribute  string  `json:"attribute"` // the one whose count it is in
	Bytes      int64   `json:"bytes"`
	What       string  `json:"what"`       // data, repeat, blank, other-processor ...
	AlsoReadAs *string `json:"alsoReadAs"` // another attribute that it can be counted in
}

// plain reports whether it is data of which nothing says that somebody counts it otherwise.
func (b Block) plain() bool { return b.What == "data" && b.AlsoReadAs == nil }

// Input is what is said of a thing.
type Input struct {
	Now        string      `json:"now"` // YYYY-MM-DD
	Statements []Statement `json:"statements"`
	Blocks     []Block     `json:"blocks"`
	Limits     []Limit     `json:"limits"`
}

// State says how well something is known.
type State string

// States of a fact.
const (
	Settled  State = "settled"
	Open     State = "open"
	Disputed State = "disputed"
)

// Intermittent is what a thing is of which one day tells yes and no.
const Intermittent = "intermittent"

// Value is a value, with the statements that say it.
type Value struct {
	Value string   `json:"value" says:"text"`
	IDs   []string `json:"ids"`
}

// Former is what was so before.
type Former struct {
	Value string   `json:"value" says:"text"`
	IDs   []string `json:"ids"`
	Until *string  `json:"until" doc:"When the next statement says something else, EDTF; null when that cannot be told"`
}

// Difference is two statements that differ.
type Difference struct {
	IDs []string `json:"ids" doc:"Two: what counts first, where one does"`
	Why string   `json:"why" says:"text"`
}

// Explanation is how a claim comes about.
type Explanation struct {
	ID     string   `json:"id" doc:"The claim"`
	Blocks []string `json:"blocks" doc:"Left out, or counted here although they are counted elsewhere"`
	Limit  *string  `json:"limit" doc:"What cannot show more, or null"`
	Text   string   `json:"text" says:"text"`
}

// Fact is what all statements about an attribute of a subject amount to.
type Fact struct {
	Attribute     string        `json:"attribute"`
	Subject       string        `json:"subject" says:"text" doc:"The part that it is about; empty for the thing itself"`
	State         State         `json:"state" enum:"settled,open,disputed"`
	Now           *Value        `json:"now" doc:"Null where nothing decides"`
	Then          []Former      `json:"then" doc:"What was so before, in order"`
	Agree         [][]string    `json:"agree" doc:"Statements that agree, each with each other of its group"`
	Differ        []Difference  `json:"differ"`
	Explanations  []Explanation `json:"explanations"`
	LastGood      *string       `json:"lastGood" doc:"Of whether it works: when it last did, EDTF"`
	FailedBetween []string      `json:"failedBetween" doc:"When it last worked, and when it first did not after that; null where it is not so" nullable:"true"`
	Next          string        `json:"next" says:"text" doc:"What would settle it, or show which is right; empty when nothing is left to do"`
}

// Problem is a statement that cannot be taken, and why; the rest is judged all the same.
type Problem struct {
	ID  string `json:"id"`
	Why string `json:"why" says:"text"`
}

// Result is all facts, in the order in which something was first said of each.
type Result struct {
	Facts    []Fact    `json:"facts"`
	Problems []Problem `json:"problems"`
}

// said is a statement that was read.
type said struct {
	Statement
	value  value
	nature Nature
	rank   int
	on     *edtf.Date
}

// topic is what a fact is about.
type topic struct{ attribute, subject string }

// Judge weighs all that is said. It returns an error where the day of today is none: nothing could be judged by it.
func Judge(in Input) (Result, error) {
	today, err := calendar.Parse(in.Now)
	if err != nil {
		return Result{}, fmt.Errorf("now: %w", err)
	}
	r := Result{Facts: []Fact{}, Problems: []Problem{}}
	topics, about := []topic{}, map[topic][]said{}
	known := map[string]bool{}
	for _, s := range in.Statements {
		t := topic{s.Attribute, s.Subject}
		if s.Attribute != "" && about[t] == nil {
			topics, about[t] = append(topics, t), []said{}
		}
		one, err := read(s, today)
		if err == nil && known[s.ID] {
			err = fmt.Errorf("another statement has this id; it is left out")
		}
		known[s.ID] = true
		if err != nil {
			r.Problems = append(r.Problems, Problem{s.ID, err.Error()})
			continue
		}
		about[t] = append(about[t], one)
	}
	for _, t := range topics {
		j := judging{topic: t, attribute: AttributeOf(t.attribute), said: about[t]}
		if t.subject == "" {
			j.sums = newSums(t.attribute, in.Blocks)
		}
		r.Facts = append(r.Facts, j.fact(in.Limits))
		r.Problems = append(r.Problems, j.problems...)
	}
	for _, b := range in.Blocks {
		if b.Bytes < 0 {
			r.Problems = append(r.Problems, Problem{b.ID, "a block holds no less than nothing; it is left out"})
		}
	}
	return r, nil
}

// read reads a statement, or says what is wrong with it.
func read(s Statement, today calendar.Date) (said, error) {
	if s.Attribute == "" {
		return said{}, fmt.Errorf("it is about no attribute")
	}
	rank, known := s.Source.rank()
	if !known {
		return said{}, fmt.Errorf("%q is no source that is known; it is one of %s", string(s.Source), sourceNames())
	}
	attribute := AttributeOf(s.Attribute)
	one := said{Statement: s, nature: attribute.Nature, rank: rank}
	if s.Nature != nil {
		if one.nature = *s.Nature; !slices.Contains(natures, one.nature) {
			return said{}, fmt.Errorf("%q is no nature; it is one of constant, state, part, seen-by", string(one.nature))
		}
	}
	if s.Form != nil {
		if attribute.Form = *s.Form; !slices.Contains(forms, attribute.Form) {
			return said{}, fmt.Errorf("%q is no form of values", string(attribute.Form))
		}
	}
	if s.On != nil && *s.On != "" {
		on, err := edtf.Parse(*s.On)
		if err != nil {
			return said{}, fmt.Errorf("on: %w", err)
		}
		if today.Before(on.Earliest()) {
			return said{}, fmt.Errorf("%s lies after today, %s", *s.On, today)
		}
		one.on = &on
	}
	var err error
	if one.value, err = attribute.parse(s.Value); err != nil {
		return said{}, err
	}
	if one.value.day != nil && AttributeOf(s.Attribute).Form == Moment && today.Before(one.value.day.Earliest()) {
		return said{}, fmt.Errorf("%s lies after today, %s", s.Value, today)
	}
	return one, nil
}
