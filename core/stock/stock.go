// Package stock answers: which of the parts that jobs need are there, what is short, what could stand for it, what is to be
// ordered together, and which jobs go on once an order is here?
//
// Parts are given out in the order of the needs: the job that was put down first is served first. What is set aside for a
// job serves that job alone. Where the only part there is goes to an earlier job, the later one is told so.
package stock

import (
	"regexp"
	"strconv"
	"strings"

	"frugalheron/core/part"
)

// Need is what a job waits for.
type Need struct {
	Job  int64
	Text string
	// Count is how many pieces are asked for.
	Count int
	// Part is what the text says without its count.
	Part part.Part
}

// Line is a drawer: so many of one part in one state.
type Line struct {
	ID    int64
	Text  string
	Count int
	// Faulty ones are kept, and never proposed.
	Faulty bool
	// Unsure says why one may not do as it is told: it was not tested.
	Unsure string
	// Minimum is how many should lie there beside what jobs need; 0 where nobody said.
	Minimum int
	Part    part.Part
}

// OnOrder is what is to come of one line of an order.
type OnOrder struct {
	Order int64
	Line  int
	Text  string
	Count int
	// Due is the day on which it should be here, YYYY-MM-DD; empty where nobody said.
	Due  string
	Part part.Part
}

// Held is what somebody set aside for a need: of a drawer, or of what is on order.
type Held struct {
	Job   int64
	Text  string
	Stock int64 // 0 for one that is on order
	Order int64
	Line  int
	Count int
}

// State says how a need is met.
type State string

// States of a need, from the best.
const (
	Reserved State = "set aside" // all of it lies ready for the job
	InStock  State = "in stock"  // the rest lies in drawers, not set aside
	Ordered  State = "on order"  // the rest is to come
	Short    State = "short"     // something is missing
)

// Met is how a need is met.
type Met struct {
	Need
	State    State
	Reserved int
	// Offers are the drawers that could serve it, the best first, with what is left in each for this need.
	Offers  []Offer
	Coming  []Coming
	Missing int
	// Taken says for whom the parts are meant that would have served it.
	Taken []Taken
}

// Offer is a drawer that could serve a need.
type Offer struct {
	Stock int64
	Text  string
	Free  int
	// Count is how many of them are meant for this need.
	Count int
	part.Fit
}

// Coming is what of an order is meant for a need.
type Coming struct {
	Order int64
	Line  int
	Text  string
	Due   string
	Count int
	// Held says that somebody set it aside; else it is meant for the need as orders stand.
	Held bool
	part.Fit
}

// Taken is a drawer that would serve a need, and goes to another job first.
type Taken struct {
	Stock int64
	Text  string
	Job   int64
}

var counted = regexp.MustCompile(`^\s*(\d{1,4})\s*[x×]\s+(\S.*)$`)

// ReadCount reads how many are asked for: "4 x 100u 16V" are four. Cells in a row, as in "3x1.2V NiCd", are one part.
func ReadCount(text string) (count int, words string) {
	m := counted.FindStringSubmatch(text)
	if m == nil {
		return 1, strings.TrimSpace(text)
	}
	count, _ = strconv.Atoi(m[1])
	if count < 1 {
		return 1, strings.TrimSpace(text)
	}
	return count, strings.TrimSpace(m[2])
}
