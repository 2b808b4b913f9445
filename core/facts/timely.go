package facts

import (
	"cmp"
	"slices"

	"frugalheron/core/edtf"
)

// timely judges what is so at a time: the newest that somebody found, or that the thing itself told, is now; what was
// before was so then, and contradicts nothing.
func (j *judging) timely(of []int) {
	dated, undated := []int{}, []int{}
	for _, i := range of {
		if j.said[i].on != nil {
			dated = append(dated, i)
		} else {
			undated = append(undated, i)
		}
	}
	if len(dated) == 0 {
		j.neverDated(undated)
		return
	}
	j.inOrder(dated)
	strong := j.deciding(dated)
	newest := strong[len(strong)-1]
	together := []int{} // what was found at the same time
	for _, i := range strong {
		if j.sameTime(i, newest) {
			together = append(together, i)
		}
	}
	if j.dispute(together) {
		if j.said[newest].value.form == YesNo {
			j.out.State, j.out.Now = Open, &Value{Intermittent, j.ids(together)}
		}
		j.former(dated, newest)
		return
	}
	newest = j.strongest(together)
	j.out.State = Settled
	if j.said[newest].rank == 0 {
		j.out.State = Open
	}
	j.out.Now = &Value{j.said[newest].value.text, []string{j.said[newest].ID}}
	first := j.former(dated, newest)
	for _, i := range dated {
		isAfter := edtf.Relate(*j.said[i].on, *j.said[newest].on) == edtf.After
		switch {
		case i == newest:
		case j.agree.has(newest, i) && (j.sameTime(i, newest) || isAfter || slices.Index(dated, i) >= first):
			if j.said[newest].value.agrees(j.said[i].value) {
				j.out.Now.IDs = append(j.out.Now.IDs, j.said[i].ID)
			}
		case isAfter || j.sameTime(i, newest):
			j.differs(newest, i) // too weak to be now
		}
	}
	for _, i := range undated {
		if j.agree.has(newest, i) {
			j.out.Now.IDs = append(j.out.Now.IDs, j.said[i].ID)
			continue
		}
		j.out.State = Open
		j.differs(newest, i)
	}
}

// inOrder sorts statements by when they were so; of equal days the order is that in which they came.
func (j *judging) inOrder(of []int) {
	slices.SortStableFunc(of, func(a, b int) int {
		x, y := *j.said[a].on, *j.said[b].on
		return cmp.Or(cmp.Compare(x.Latest().Days(), y.Latest().Days()),
			cmp.Compare(x.Earliest().Days(), y.Earliest().Days()))
	})
}

// deciding are the dated statements of which the newest is now: those of who found it or of the thing itself, else those
// of the best rank. A claim that a count explains is no news.
func (j *judging) deciding(dated []int) []int {
	least := found
	if !slices.ContainsFunc(dated, func(i int) bool { return j.said[i].rank >= found }) {
		least = 0
		for _, i := range dated {
			least = max(least, j.said[i].rank)
		}
	}
	strong := []int{}
	for _, i := range dated {
		if j.said[i].rank >= least && !j.isExplained(i) {
			strong = append(strong, i)
		}
	}
	if len(strong) == 0 {
		return dated
	}
	return strong
}

func (j *judging) sameTime(a, b int) bool {
	return edtf.Relate(*j.said[a].on, *j.said[b].on) == edtf.Overlaps
}

// former tells what was so before the newest, run by run, and returns from which of the dated on it has been as now.
func (j *judging) former(dated []int, newest int) (first int) {
	before := []int{}
	for _, i := range dated {
		if edtf.Relate(*j.said[i].on, *j.said[newest].on) == edtf.Before && !j.isExplained(i) {
			before = append(before, i)
		}
	}
	// What says the same as now, with nothing else in between, is now.
	end := len(before)
	if j.out.Now != nil && j.out.Now.Value != Intermittent {
		for end > 0 && j.agree.has(before[end-1], newest) {
			end--
		}
	}
	for at := 0; at < end; {
		run := []int{before[at]}
		for at++; at < end && j.agree.has(before[at], run[0]); at++ {
			run = append(run, before[at])
		}
		j.out.Then = append(j.out.Then, Former{Value: j.said[run[0]].value.text, IDs: j.ids(run),
			Until: j.until(run[len(run)-1], dated)})
	}
	if end == len(before) {
		return len(dated)
	}
	return slices.Index(dated, before[end])
}

// until is when a statement is followed by one of another value; nil where that cannot be told.
func (j *judging) until(last int, dated []int) *string {
	for _, i := range dated {
		if edtf.Relate(*j.said[i].on, *j.said[last].on) == edtf.After && !j.agree.has(i, last) {
			return j.said[i].On
		}
	}
	return nil
}

// neverDated judges statements of which nobody says when they were so.
func (j *judging) neverDated(of []int) {
	best := j.strongest(of)
	for _, i := range of {
		if !j.agree.has(best, i) {
			j.differs(best, i)
		}
	}
	if len(j.out.Differ) == 0 {
		j.out.Now = j.sayNow(best, of)
	}
}
