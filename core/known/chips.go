package known

import (
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// Chips are how many of each identified type stand on a board.
type Chips map[string]int

// LeastTypes is how many different types a board must have before it is known by them, and EnoughAlike the share of its
// chips that must be those of a record. Both rules of thumb.
const (
	LeastTypes  = 4
	EnoughAlike = 0.8
	tooUnlike   = 0.5 // below it, chips speak against a number
)

// Count is how many chips there are.
func (c Chips) Count() (n int) {
	for _, count := range c {
		n += count
	}
	return n
}

// Overlap is the share of chips that two boards have in common, of those of the one that has more.
func (c Chips) Overlap(other Chips) float64 {
	common := 0
	for number, count := range c {
		common += min(count, other[number])
	}
	return share(common, c.Count(), other.Count())
}

func share(common, own, other int) float64 { return float64(common) / float64(max(own, other, 1)) }

// Tell reports whether they are enough to know a board by.
func (c Chips) Tell() bool { return len(c) >= LeastTypes }

// Numbers lists the types.
func (c Chips) Numbers() []string { return slices.Sorted(maps.Keys(c)) }

// Telling are the first of the types, in an order such as the rarest first, of which a board that is alike enough
// has at
// least so many chips: who looks among all boards need not look at those that have fewer.
func (c Chips) Telling(order []string) (numbers []string, least int) {
	taken, allowed := 0, int((1-EnoughAlike)*float64(c.Count())+1e-9)
	for _, number := range order {
		numbers = append(numbers, number)
		if taken += c[number]; taken > allowed {
			break
		}
	}
	return numbers, max(taken-allowed, 1)
}

// ParseChips reads chips a line each: a count where there are several, and the number of the type, as "8x 41256".
func ParseChips(text string) (Chips, []Problem) {
	chips, problems := Chips{}, []Problem{}
	for i, line := range strings.Split(text, "\n") {
		line, _, _ = strings.Cut(line, "#")
		words := strings.Fields(line)
		if len(words) == 0 {
			continue
		}
		count := 1
		if m := counted.FindStringSubmatch(words[0]); m != nil && len(words) > 1 {
			count, words = figureOf(m[1]), words[1:]
		}
		if len(words) != 1 || count < 1 || count > 4096 {
			problems = append(problems, Problem{i + 1,
				"is no chip; write the number of its type, and before it how many " +
					"there are, as 8x 41256"})
			continue
		}
		chips[strings.ToUpper(words[0])] += count
	}
	return chips, problems
}

// String writes them as they are read, by number.
func (c Chips) String() string {
	lines := []string{}
	for number, count := range c {
		if count == 1 {
			lines = append(lines, number)
		} else {
			lines = append(lines, fmt.Sprintf("%dx %s", count, number))
		}
	}
	slices.SortFunc(lines, func(a, b string) int {
		return strings.Compare(a[strings.LastIndex(a, " ")+1:], b[strings.LastIndex(b, " ")+1:])
	})
	return strings.Join(lines, "\n")
}

var counted = regexp.MustCompile(`^([1-9]\d{0,3})[x×]$`)

// figureOf is a figure of a line; 0 where there is none.
func figureOf(text string) int {
	n, _ := strconv.Atoi(text) //nolint:errcheck // it was matched as digits
	return n
}
