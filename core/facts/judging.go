package facts

import (
	"fmt"
	"slices"

	"frugalheron/core/edtf"
)

// judging is the work on one fact.
type judging struct {
	topic     topic
	attribute Attribute
	said      []said
	sums      *sums // what its count is made of; nil where nothing is known of that
	problems  []Problem

	agree agreement
	out   Fact
}

// topic names and the lists of a fact are never null.
func (j *judging) fact(limits []Limit) Fact {
	j.out = Fact{Attribute: j.topic.attribute, Subject: j.topic.subject, State: Open, Then: []Former{},
		Agree: [][]string{}, Differ: []Difference{}, Explanations: []Explanation{}}
	j.agree = newAgreement(j.said)
	j.explain()
	ranked, seen := []int{}, []int{}
	for i, s := range j.said {
		if s.nature == SeenBy {
			seen = append(seen, i)
		} else {
			ranked = append(ranked, i)
		}
	}
	switch {
	case len(j.said) == 0:
		j.out.Next = j.attribute.SettledBy
	case len(ranked) == 0:
		j.onlySeen(seen)
	case slices.ContainsFunc(ranked, func(i int) bool { return j.said[i].nature == Timely }):
		j.timely(ranked)
	default:
		j.constant(ranked)
	}
	if len(ranked) > 0 {
		j.besides(ranked, seen, limits)
	}
	for _, group := range j.agree.groups() {
		j.out.Agree = append(j.out.Agree, j.ids(group))
	}
	if j.topic.attribute == "worked" {
		j.failing(ranked)
	}
	j.suggest()
	return j.out
}

func (j *judging) ids(group []int) []string {
	ids := make([]string, len(group))
	for i, one := range group {
		ids[i] = j.said[one].ID
	}
	return ids
}

// differs notes that two statements differ; the first is the one that counts, where one does.
func (j *judging) differs(a, b int) {
	first, second := j.said[a], j.said[b]
	why := fmt.Sprintf("%s says %s, %s %s", first.Source.Words(), first.Value, second.Source.Words(), second.Value)
	j.out.Differ = append(j.out.Differ, Difference{[]string{first.ID, second.ID}, why})
}

// strongest is the statement that says most: of the highest rank, then the most exact, then the first.
func (j *judging) strongest(of []int) int {
	return slices.MinFunc(of, func(a, b int) int {
		x, y := j.said[a], j.said[b]
		if x.rank != y.rank {
			return y.rank - x.rank
		}
		switch {
		case x.value.spread() < y.value.spread():
			return -1
		case x.value.spread() > y.value.spread():
			return 1
		}
		return a - b
	})
}

// clear is by how many ranks a source is stronger so that it decides. A rule of thumb.
const clear = 2

// constant judges what is so or is not. Values that differ are disputed unless the source of one is clearly stronger.
func (j *judging) constant(of []int) {
	best := j.strongest(of)
	near, far := []int{}, []int{} // by how near they come to the strongest
	for _, i := range of {
		if j.said[best].rank-j.said[i].rank < clear {
			near = append(near, i)
		} else {
			far = append(far, i)
		}
	}
	if j.dispute(near) {
		return
	}
	j.out.State = Settled
	if j.said[best].rank == 0 {
		j.out.State = Open // what somebody says that others say is no more than a hint
	}
	j.out.Now = j.sayNow(best, of)
	for _, i := range far {
		if !j.agree.has(best, i) {
			j.differs(best, i)
		}
	}
}

// sayNow is a value with all statements that say it.
func (j *judging) sayNow(best int, of []int) *Value {
	ids := []string{j.said[best].ID}
	for _, i := range of {
		if i != best && j.said[best].value.agrees(j.said[i].value) {
			ids = append(ids, j.said[i].ID)
		}
	}
	return &Value{j.said[best].value.text, ids}
}

// dispute says that a fact is disputed where some of the statements differ, each pair of values once.
func (j *judging) dispute(of []int) bool {
	told := map[[2]string]bool{}
	for n, a := range of {
		for _, b := range of[n+1:] {
			pair := [2]string{j.said[a].value.key, j.said[b].value.key}
			if j.agree.has(a, b) || told[pair] || len(told) >= mostGroups {
				continue
			}
			told[pair], told[[2]string{pair[1], pair[0]}] = true, true
			j.out.State = Disputed
			j.differs(a, b)
		}
	}
	return j.out.State == Disputed
}

// onlySeen judges what firmware or programs show when nothing is there to compare it with: none of it ranks above
// another.
func (j *judging) onlySeen(seen []int) {
	if !j.dispute(seen) {
		j.out.State = Settled
		if j.said[j.strongest(seen)].rank == 0 {
			j.out.State = Open
		}
		j.out.Now = j.sayNow(seen[0], seen)
	}
}

// besides compares what firmware or programs show with what is so. A limit that equals it explains it.
func (j *judging) besides(ranked, seen []int, limits []Limit) {
	against := ranked[0]
	if j.out.Now != nil {
		against = slices.IndexFunc(j.said, func(s said) bool { return s.ID == j.out.Now.IDs[0] })
	}
	for _, i := range seen {
		if j.agree.has(against, i) {
			continue
		}
		if limit, ok := j.limitOf(j.said[i], j.said[against], limits); ok {
			j.out.Explanations = append(j.out.Explanations, Explanation{ID: j.said[i].ID, Blocks: []string{},
				Limit: &limit.Name, Text: fmt.Sprintf("%s is as much as %s can show", j.said[i].Value, limit.Name)})
			continue
		}
		j.differs(against, i)
	}
}

// failing tells when it last worked, and between which days it failed.
func (j *judging) failing(of []int) {
	var good *said
	for _, i := range of {
		if s := j.said[i]; s.on != nil && s.value.key == "yes" && (good == nil || later(*s.on, *good.on)) {
			good = &j.said[i]
		}
	}
	if good == nil {
		return
	}
	j.out.LastGood = good.On
	var failed *said
	for _, i := range of {
		if s := j.said[i]; s.on != nil && s.value.key == "no" && edtf.Relate(*s.on, *good.on) == edtf.After &&
			(failed == nil || later(*failed.on, *s.on)) {
			failed = &j.said[i]
		}
	}
	if failed != nil {
		j.out.FailedBetween = []string{*good.On, *failed.On}
	}
}

// later reports whether a date ends later than another, or of equal ends begins later.
func later(a, b edtf.Date) bool {
	if a.Latest() != b.Latest() {
		return b.Latest().Before(a.Latest())
	}
	return b.Earliest().Before(a.Earliest())
}
