package dating

import (
	"fmt"
	"slices"
)

// dater collects what is found, step by step.
type dater struct {
	rules   Rules
	r       Result
	cluster []Evidence // without old stock
	later   []Evidence
}

func (d *dater) say(format string, args ...any) {
	d.r.Basis = append(d.r.Basis, fmt.Sprintf(format, args...))
}

func (d *dater) conflict(ids []string, format string, args ...any) {
	d.r.Conflicts = append(d.r.Conflicts, Conflict{ids, fmt.Sprintf(format, args...)})
}

// byParts finds the cluster of the parts, what is older and newer than it, and when assembly can have
// followed.
func (d *dater) byParts(parts []Evidence) {
	if len(parts) == 0 {
		return
	}
	groups := groupsOf(parts, d.rules.Gap)
	main := largest(groups)
	for _, group := range groups[main+1:] {
		d.later = append(d.later, group...)
	}
	middle := groups[main][(len(groups[main])-1)/2].From
	for _, e := range slices.Concat(groups[:main+1]...) {
		if before := weeks(e.From, middle); before > d.rules.OldStock {
			d.r.Outliers = append(d.r.Outliers, Outlier{e.ID, "earlier", before,
				fmt.Sprintf("%d weeks before the middle of the others, %s: old stock, or a part that was used again",
					before, middle)})
		}
	}
	for _, e := range groups[main] {
		if weeks(e.From, middle) <= d.rules.OldStock {
			d.cluster = append(d.cluster, e)
			d.r.Cluster = append(d.r.Cluster, e.ID)
		}
	}
	oldest, newest := d.cluster[0], newestOf(d.cluster)
	notBefore := newest.From
	d.r.NotBefore = &notBefore
	d.r.Estimate = &Span{newest.From.AddDays(7 * d.rules.Soonest), newest.To.AddDays(7 * d.rules.Latest)}
	if len(d.cluster) == 1 {
		d.say("One part is dated, %s.", newest.ID)
	} else {
		d.say("%d of %d dated parts lie close together, from %s to %s.", len(d.cluster), len(parts), oldest.From,
			newest.To)
	}
	d.say("The newest of them, %s, was made not before %s; assembly followed %d to %d weeks later (rule of thumb).",
		newest.ID, newest.From, d.rules.Soonest, d.rules.Latest)
	d.judgeLater(newest, len(parts))
}

// groupsOf cuts sorted parts where the next comes more than gap weeks later.
func groupsOf(parts []Evidence, gap int) [][]Evidence {
	groups := [][]Evidence{{parts[0]}}
	reach := parts[0].From.Days()
	for _, e := range parts[1:] {
		if e.From.Days()-reach > 7*gap {
			groups = append(groups, nil)
		}
		reach = e.From.Days()
		groups[len(groups)-1] = append(groups[len(groups)-1], e)
	}
	return groups
}

// largest finds the group with most parts; of equal ones the newer: a machine is not older than its parts.
func largest(groups [][]Evidence) int {
	best := 0
	for i, group := range groups {
		if len(group) >= len(groups[best]) {
			best = i
		}
	}
	return best
}

func newestOf(parts []Evidence) Evidence {
	return slices.MaxFunc(parts, func(a, b Evidence) int { return order(a.From, b.From) })
}

// judgeLater tells a few parts that were replaced or added from many that are newer than the largest group.
func (d *dater) judgeLater(newest Evidence, all int) {
	if len(d.later) == 0 {
		return
	}
	if len(d.later)*d.rules.FewerThan >= all {
		ids := make([]string, len(d.later))
		for i, e := range d.later {
			ids[i] = e.ID
		}
		d.conflict(ids, "%d of %d parts are newer than the largest group by %d weeks and more: too many for repairs. Either a whole board is later, or the machine was put together from two.",
			len(d.later), all, weeks(newest.From, d.later[0].From))
		return
	}
	for _, e := range d.later {
		past := weeks(newest.From, e.From)
		what := "replaced or added later"
		if e.Mounting == Card {
			what = "a card that was added later"
		}
		d.r.Outliers = append(d.r.Outliers,
			Outlier{e.ID, "later", past,
				fmt.Sprintf("%d weeks past the newest of the others, %s: %s", past, newest.From, what)})
	}
}
