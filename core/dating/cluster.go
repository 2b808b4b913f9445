package dating

import (
	"fmt"
	"slices"

	"frugalheron/core/calendar"
)

// dater collects what is found, step by step.
type dater struct {
	rules   Rules
	r       Result
	cluster []Evidence // without old stock
	later   []Evidence
	// possible is the one newer part of few that can be original as well as added, or nil.
	possible *Evidence
}

func (d *dater) say(format string, args ...any) {
	d.r.Basis = append(d.r.Basis, fmt.Sprintf(format, args...))
}

func (d *dater) conflict(ids []string, format string, args ...any) {
	d.r.Conflicts = append(d.r.Conflicts, Conflict{ids, fmt.Sprintf(format, args...)})
}

// byParts finds the cluster of the parts, what is older and newer than it, and when assembly can have
// followed.
func (d *dater) byParts(all []Evidence) {
	parts := slices.DeleteFunc(slices.Clone(all), Evidence.NeverDates)
	if left := len(all) - len(parts); left > 0 {
		d.say("Left out: %d of %d dated parts, which were put in later by what somebody wrote or decided.", left, len(all))
	}
	if len(parts) == 0 {
		return
	}
	group, rest := d.mainGroup(parts)
	middle := group[(len(group)-1)/2].From
	old := 0
	for _, e := range slices.Concat(rest, group) {
		before := weeks(e.From, middle)
		if before <= d.rules.OldStock {
			continue
		}
		old++
		d.r.Outliers = append(d.r.Outliers, Outlier{e.ID, "earlier", before,
			fmt.Sprintf("%d weeks before the middle of the others, %s: old stock, or a part that was used again",
				before, middle)})
	}
	for _, e := range group {
		if weeks(e.From, middle) <= d.rules.OldStock {
			d.cluster = append(d.cluster, e)
			d.r.Cluster = append(d.r.Cluster, e.ID)
		}
	}
	oldest, newest := d.cluster[0], newestOf(d.cluster)
	notBefore := newest.From
	d.r.NotBefore = &notBefore
	estimate := d.followed(newest)
	d.r.Estimate = &estimate
	if len(d.cluster) == 1 {
		d.say("One part is dated, %s.", newest.ID)
	} else {
		d.say("%d of %d dated parts lie close together, from %s to %s.", len(d.cluster), len(parts), oldest.From,
			newest.To)
	}
	d.say("The newest of them, %s, was made not before %s; assembly followed %d to %d weeks later (rule of thumb).",
		newest.ID, newest.From, d.rules.Soonest, d.rules.Latest)
	if old*d.rules.FewerThan >= len(parts) {
		d.say("%d of %d parts are much older than the others: a board of an older machine may have been used.", old,
			len(parts))
	}
	for _, e := range rest {
		if e.From.Days()-newest.From.Days() > 7*d.rules.Gap {
			d.later = append(d.later, e)
		}
	}
	d.judgeLater(newest, len(parts))
}

// followed is when assembly can have followed the newest part.
func (d *dater) followed(newest Evidence) Span {
	return Span{newest.From.AddDays(7 * d.rules.Soonest), newest.To.AddDays(7 * d.rules.Latest)}
}

// mainGroup finds the parts that date the machine: of its factory boards, if somebody decided which these are, else of
// all. Rest are the others, in order.
func (d *dater) mainGroup(parts []Evidence) (group, rest []Evidence) {
	from := []Evidence{}
	for _, e := range parts {
		if e.Decided == Factory {
			from = append(from, e)
		} else {
			rest = append(rest, e)
		}
	}
	if len(from) > 0 {
		d.say("Only parts of what was decided to be from the factory date the machine.")
	} else {
		from, rest = parts, nil
	}
	groups := groupsOf(from, d.rules.Gap)
	main := largest(groups)
	if last := groups[len(groups)-1]; len(last) == 1 && len(groups) > 1 && len(from) < d.rules.Few {
		main = largest(groups[:len(groups)-1]) // one newer part of few does not outweigh the others
	}
	for i, others := range groups {
		if i != main {
			rest = append(rest, others...)
		}
	}
	sortByDate(rest)
	return groups[main], rest
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

// largest finds the group with most parts that are not on cards, which are easily added; of equal ones the group with
// most parts, and then the newer: a machine is not older than its parts.
func largest(groups [][]Evidence) int {
	best, bestOwn := 0, 0
	for i, group := range groups {
		own := 0
		for _, e := range group {
			if !e.isAdded() {
				own++
			}
		}
		if own > bestOwn || own == bestOwn && len(group) >= len(groups[best]) {
			best, bestOwn = i, own
		}
	}
	return best
}

func newestOf(parts []Evidence) Evidence {
	return slices.MaxFunc(parts, func(a, b Evidence) int { return order(a.From, b.From) })
}

// judgeLater tells a few parts that were replaced or added from many that are newer than the largest group.
func (d *dater) judgeLater(newest Evidence, all int) {
	areAdded := !slices.ContainsFunc(d.later, func(e Evidence) bool { return !e.isAdded() })
	switch {
	case len(d.later) == 0:
		return
	case len(d.later) == 1 && all < d.rules.Few:
		only := d.later[0]
		past := weeks(newest.From, only.From)
		d.possible = &only
		d.r.Outliers = append(d.r.Outliers, Outlier{only.ID, "possibly-later", past,
			fmt.Sprintf("%d weeks past the newest of the others, %s: added later, or original and the others lay in store; %d parts are too few to tell",
				past, newest.From, all)})
		return
	case len(d.later)*d.rules.FewerThan >= all && !areAdded:
		ids, board := make([]string, len(d.later)), d.later[0].Assembly
		for i, e := range d.later {
			ids[i] = e.ID
			if e.Assembly != board {
				board = ""
			}
		}
		what := "a whole board"
		if board != "" {
			what = board
		}
		d.conflict(ids, "%d of %d parts are newer than the largest group by %d weeks and more: too many for repairs. Either %s is later, or the machine was put together from two.",
			len(d.later), all, weeks(newest.From, d.later[0].From), what)
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

// settlePossible tells both dates where one newer part of few can be original, unless a plate or a paper tells.
func (d *dater) settlePossible(hasPlate bool) {
	if d.r.Estimate != nil {
		d.r.Estimates = append(d.r.Estimates, *d.r.Estimate)
	}
	if d.possible == nil {
		return
	}
	if d.r.NotAfter != nil && d.possible.From.Days() > d.r.NotAfter.Days() {
		for i := range d.r.Outliers {
			if o := &d.r.Outliers[i]; o.ID == d.possible.ID && o.Verdict == "possibly-later" {
				o.Verdict = "later"
				o.Why = fmt.Sprintf("%d weeks past the newest of the others, and made after the machine was there, %s",
					o.Weeks, *d.r.NotAfter)
			}
		}
		return
	}
	if hasPlate {
		return
	}
	other := d.followed(*d.possible)
	if d.r.NotAfter != nil && d.r.NotAfter.Days() >= other.From.Days() {
		other.To = calendar.FromDays(min(other.To.Days(), d.r.NotAfter.Days()))
	}
	d.r.Estimates = append(d.r.Estimates, other)
	d.say("If %s is original, the machine was built %s to %s instead.", d.possible.ID, other.From, other.To)
}
