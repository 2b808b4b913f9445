package facts

import (
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/memory"
)

// Bounds of what is tried to explain a claim.
const (
	mostBlocks       = 40
	mostLeftOut      = 4
	mostExplanations = 5
)

// sums is what a count is made of.
type sums struct {
	attribute string
	blocks    []Block // those that can be left out of it, or counted in it
	total     int64   // of those that are in it
	isMade    bool    // some are
}

// newSums are the blocks that matter to a count; nil where there are none.
func newSums(attribute string, blocks []Block) *sums {
	s := sums{attribute: attribute}
	for _, b := range blocks {
		if b.Bytes < 0 {
			continue
		}
		if b.Attribute == attribute {
			s.total += b.Bytes
			s.isMade = true
		}
		if b.Attribute == attribute || b.AlsoReadAs != nil && *b.AlsoReadAs == attribute {
			s.blocks = append(s.blocks, b)
		}
	}
	if len(s.blocks) == 0 {
		return nil
	}
	return &s
}

// net is what a block changes when somebody counts it otherwise.
func (s sums) net(b Block) int64 {
	if b.Attribute == s.attribute {
		return -b.Bytes
	}
	return b.Bytes
}

// explaining finds the sets of blocks whose counting otherwise makes up a difference, the smallest first: of what is no
// plain data, and only where none of that fits, of all.
func (s sums) explaining(difference int64) [][]Block {
	odd := slices.DeleteFunc(slices.Clone(s.blocks), Block.plain)
	if sets := s.setsOf(odd, difference); len(sets) > 0 || len(odd) == len(s.blocks) {
		return sets
	}
	return s.setsOf(s.blocks, difference)
}

func (s sums) setsOf(blocks []Block, difference int64) (found [][]Block) {
	by := map[int64][]int{} // the last of a set is not tried but looked up
	for i, b := range blocks {
		by[s.net(b)] = append(by[s.net(b)], i)
	}
	for size := 1; size <= min(mostLeftOut, len(blocks)); size++ {
		var choose func(from int, left int64, chosen []Block)
		choose = func(from int, left int64, chosen []Block) {
			if len(chosen) < size-1 {
				for i := from; i < len(blocks) && len(found) < mostExplanations; i++ {
					choose(i+1, left-s.net(blocks[i]), append(chosen, blocks[i]))
				}
				return
			}
			for _, last := range by[left] {
				if last >= from && len(found) < mostExplanations {
					found = append(found, append(slices.Clone(chosen), blocks[last]))
				}
			}
		}
		choose(0, difference, make([]Block, 0, size))
	}
	return found
}

// explain finds how claims in bytes come about that differ from the count: the newest statement that counted, else the
// blocks together. A single explanation makes both agree; several settle nothing.
func (j *judging) explain() {
	if j.sums == nil {
		return
	}
	count, counted := j.sums.total, -1
	for i, s := range j.said {
		n, ok := s.value.bytes()
		if ok && s.Source == Counted && s.nature != SeenBy && (counted < 0 || j.said[counted].on == nil ||
			s.on != nil && !later(*j.said[counted].on, *s.on)) {
			counted, count = i, n
		}
	}
	if counted < 0 && !j.sums.isMade {
		return
	}
	known := map[int64][][]Block{}
	for i, s := range j.said {
		claim, ok := s.value.bytes()
		if !ok || i == counted || claim == count || s.nature == SeenBy {
			continue
		}
		if len(j.sums.blocks) > mostBlocks {
			j.problems = append(j.problems, Problem{s.ID, fmt.Sprintf(
				"it differs from the count, which is made of %d blocks; of more than %d none is tried to explain it",
				len(j.sums.blocks), mostBlocks)})
			continue
		}
		sets, tried := known[claim]
		if !tried {
			sets = j.sums.explaining(claim - count)
			known[claim] = sets
		}
		for _, set := range sets {
			ids := make([]string, len(set))
			for n, b := range set {
				ids[n] = b.ID
			}
			j.out.Explanations = append(j.out.Explanations,
				Explanation{ID: s.ID, Blocks: ids, Text: j.sums.inWords(claim, count, set)})
		}
		if len(sets) == 1 && counted >= 0 && !j.isHistory(i, counted, sets[0]) {
			j.agree.put(i, counted, true)
		}
	}
}

// isHistory reports whether a claim is older than the count of something that changes, and nothing odd about the blocks
// makes up the difference: it was less then.
func (j *judging) isHistory(claim, counted int, set []Block) bool {
	a, b := j.said[claim], j.said[counted]
	return a.nature == Timely && a.on != nil && b.on != nil && a.on.Latest().Before(b.on.Earliest()) &&
		slices.ContainsFunc(set, Block.plain)
}

// isExplained reports whether a statement agrees with a count only by an explanation.
func (j *judging) isExplained(i int) bool {
	for k, s := range j.said {
		if k != i && s.Source == Counted && j.agree.has(i, k) && !s.value.agrees(j.said[i].value) {
			return j.said[i].Source != Counted
		}
	}
	return false
}

// inWords says how a claim comes about, as "48 KB = 66 KB less 16 KB that repeat (IC41) and 2 KB of another processor
// (IC42)".
func (s sums) inWords(claim, count int64, set []Block) string {
	less, more := []string{}, []string{}
	for _, b := range set {
		words := memory.Format(b.Bytes)
		switch b.What {
		case "data", "":
			words += " in " + b.ID
		case "repeat":
			words += " that repeat (" + b.ID + ")"
		case "blank":
			words += " that are blank (" + b.ID + ")"
		case "other-processor":
			words += " of another processor (" + b.ID + ")"
		default:
			words += " (" + b.ID + ", " + b.What + ")"
		}
		if s.net(b) < 0 {
			less = append(less, words)
		} else {
			more = append(more, words)
		}
	}
	text := memory.Format(claim) + " = " + memory.Format(count)
	if len(less) > 0 {
		text += " less " + andBetween(less)
	}
	if len(more) > 0 {
		text += " and " + andBetween(more)
	}
	return text
}

func andBetween(words []string) string {
	if len(words) < 2 {
		return strings.Join(words, "")
	}
	return strings.Join(words[:len(words)-1], ", ") + " and " + words[len(words)-1]
}
