package facts

import "slices"

// mostGroups bounds how many groups of agreeing statements are told: ranges that overlap in all ways make more than
// anybody reads.
const mostGroups = 50

// agreement is who agrees with whom.
type agreement struct {
	n     int
	edges []bool
}

func newAgreement(all []said) agreement {
	a := agreement{len(all), make([]bool, len(all)*len(all))}
	for i := range all {
		for j := i; j < len(all); j++ {
			same := i == j || all[i].value.key == all[j].value.key && all[i].value.form == all[j].value.form ||
				all[i].value.agrees(all[j].value)
			a.put(i, j, same)
		}
	}
	return a
}

func (a agreement) put(i, j int, agree bool) { a.edges[i*a.n+j], a.edges[j*a.n+i] = agree, agree }

func (a agreement) has(i, j int) bool { return a.edges[i*a.n+j] }

// groups lists the largest groups in which each agrees with each other, of two or more; one may be in several.
func (a agreement) groups() [][]int {
	all := make([]int, a.n)
	for i := range all {
		all[i] = i
	}
	found := [][]int{}
	a.grow(nil, all, nil, &found)
	slices.SortFunc(found, slices.Compare[[]int])
	return found
}

// grow extends a group by each of those that agree with all of it, and keeps it when none is left; done are those that
// were tried before. This is the way of Bron and Kerbosch, with a pivot.
func (a agreement) grow(group, open, done []int, found *[][]int) {
	if len(*found) >= mostGroups {
		return
	}
	if len(open) == 0 && len(done) == 0 {
		if len(group) > 1 {
			*found = append(*found, slices.Sorted(slices.Values(group)))
		}
		return
	}
	pivot, best := -1, -1
	for _, candidates := range [][]int{open, done} {
		for _, p := range candidates {
			if n := a.agreeing(p, open); n > best {
				pivot, best = p, n
			}
		}
	}
	for _, one := range slices.Clone(open) {
		if one != pivot && a.has(pivot, one) {
			continue
		}
		with := func(list []int) (kept []int) {
			for _, other := range list {
				if other != one && a.has(one, other) {
					kept = append(kept, other)
				}
			}
			return kept
		}
		a.grow(append(slices.Clone(group), one), with(open), with(done), found)
		open = slices.DeleteFunc(open, func(other int) bool { return other == one })
		done = append(done, one)
	}
}

func (a agreement) agreeing(one int, open []int) (n int) {
	for _, other := range open {
		if other != one && a.has(one, other) {
			n++
		}
	}
	return n
}
