package risk

import (
	"cmp"
	"slices"
)

// Opening is a machine that is proposed to be opened, and what to look at in it.
type Opening struct {
	Machine int64
	Minutes int      // to open it, look, and put it together again
	Rank    float64  // of all its parts that are due
	Look    []Ranked // what is due in it, the first to look at first
}

// OpeningMinutes is how long opening and closing a machine takes that nobody has timed: a rule of thumb.
const OpeningMinutes = 45

// Plan chooses the machines to open in so many minutes: the machine of the highest rank that still fits, until
// none does. What is due in a machine is looked at together, as it is open only once. minutes says how long
// opening a machine takes; 0 for OpeningMinutes. waiting is how many machines have something due that are not
// chosen.
func (o *Order) Plan(available int, minutes func(machine int64) int) (chosen []Opening, left, waiting int) {
	openings, at := []Opening{}, map[int64]int{}
	for place := range o.Len() {
		if !o.isDue(place) {
			continue
		}
		r := o.At(place)
		i, ok := at[r.Machine]
		if !ok {
			i = len(openings)
			at[r.Machine] = i
			opening := minutes(r.Machine)
			if opening == 0 {
				opening = OpeningMinutes
			}
			openings = append(openings, Opening{Machine: r.Machine, Minutes: opening})
		}
		// Parts of one class are looked at in one go.
		if !slices.ContainsFunc(openings[i].Look, func(l Ranked) bool { return l.Class == r.Class }) {
			openings[i].Minutes += o.classes[r.Class].Minutes
		}
		openings[i].Rank += r.Rank
		openings[i].Look = append(openings[i].Look, r)
	}
	// By what a machine's worst part asks for; many small ones do not outweigh it.
	slices.SortStableFunc(openings, func(a, b Opening) int {
		return cmp.Or(cmp.Compare(b.Look[0].Rank, a.Look[0].Rank), cmp.Compare(a.Machine, b.Machine))
	})
	chosen, left = []Opening{}, available
	for _, one := range openings {
		if one.Minutes <= left {
			chosen = append(chosen, one)
			left -= one.Minutes
		}
	}
	return chosen, left, len(openings) - len(chosen)
}
