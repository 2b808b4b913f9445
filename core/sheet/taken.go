package sheet

import "strings"

// taken are the designators that stand in an assembly, and on which line. Runs are kept as they are: what it
// costs to look one up does not grow with how many parts it names by more than a step for each 64.
type taken struct {
	single map[string]int // those that are no letters and number alone, as U5A and 4C
	blocks map[block][]span
}

// block holds 64 numbers behind the same letters, written with as many digits: U7 and U07 are two parts.
type block struct {
	letters string // in upper case
	digits  int
	number  int // of the block
}

const blockSize = 64

// span is a stretch of a block, both ends included, and the line that it stands on.
type span struct {
	first, last uint8
	line        int32
}

func (t *taken) clear() {
	clear(t.single)
	clear(t.blocks)
}

// find returns the first designator of a run that stands somewhere, and on which line.
func (t *taken) find(r run) (designator string, line int) {
	if r.only != "" {
		if line, ok := t.single[strings.ToUpper(r.only)]; ok {
			return r.only, line
		}
		return "", 0
	}
	r.eachBlock(func(b block, first, last int) bool {
		lowest := blockSize
		for _, s := range t.blocks[b] {
			from := max(first, int(s.first))
			if from <= min(last, int(s.last)) && from < lowest {
				lowest, line = from, int(s.line)
			}
		}
		if lowest < blockSize {
			designator = r.name(b.number*blockSize + lowest)
		}
		return lowest == blockSize
	})
	return designator, line
}

func (t *taken) add(r run, line int) {
	if r.only != "" {
		if t.single == nil {
			t.single = map[string]int{}
		}
		t.single[strings.ToUpper(r.only)] = line
		return
	}
	if t.blocks == nil {
		t.blocks = map[block][]span{}
	}
	r.eachBlock(func(b block, first, last int) bool {
		t.blocks[b] = append(t.blocks[b],
			span{uint8(first), uint8(last), int32(line)}) //nolint:gosec // below 64, and lines of 1 MiB
		return true
	})
}

// remove takes back the newest addition of a run.
func (t *taken) remove(r run) {
	if r.only != "" {
		delete(t.single, strings.ToUpper(r.only))
		return
	}
	r.eachBlock(func(b block, _, _ int) bool {
		spans := t.blocks[b]
		t.blocks[b] = spans[:len(spans)-1]
		return true
	})
}
