package rom

// How large a part of what is not blank two images must have in common to be related. A rule of thumb.
const relatedShare = 0.25

// chunk is the length of the stretches that are looked for, and leastVaried how many different bytes one
// has at least: fillings and tables of one value are met everywhere.
const (
	chunk       = 32
	leastVaried = 8
)

// commonPart is the share of the stretches of the one with fewer that stand anywhere in the other.
func commonPart(a, b []byte) float64 {
	ofA, ofB := chunksOf(a), chunksOf(b)
	if len(ofA) > len(ofB) && len(ofB) > 0 {
		a, b, ofA = b, a, ofB
	}
	if len(ofA) == 0 {
		return 0
	}
	wanted := map[uint64][]int{}
	for _, at := range ofA {
		h := hashOf(a[at : at+chunk])
		wanted[h] = append(wanted[h], at)
	}
	found := 0
	rolling := rollingHash{}
	for i := range b {
		rolling.add(b, i)
		if i < chunk-1 {
			continue
		}
		// Equal stretches are found together.
		if starts := wanted[rolling.sum]; len(starts) > 0 &&
			string(a[starts[0]:starts[0]+chunk]) == string(b[i-chunk+1:i+1]) {
			found += len(starts)
			delete(wanted, rolling.sum)
		}
	}
	return float64(found) / float64(len(ofA))
}

// chunksOf lists where the stretches of an image start that are varied enough to be told from others.
func chunksOf(data []byte) []int {
	starts := []int{}
	for at := 0; at+chunk <= len(data); at += chunk {
		var seen [256]bool
		varied := 0
		for _, b := range data[at : at+chunk] {
			if !seen[b] {
				seen[b] = true
				varied++
			}
		}
		if varied >= leastVaried {
			starts = append(starts, at)
		}
	}
	return starts
}

// base of the polynomial that stretches are summed up by; any odd number with many bits does.
const base = 0x9E3779B97F4A7C15

// leaving is base to the power of the length: what the byte that leaves counts for.
var leaving = func() uint64 {
	power := uint64(1)
	for range chunk {
		power *= base
	}
	return power
}()

// rollingHash is the hash of the last chunk bytes that were added.
type rollingHash struct{ sum uint64 }

func (r *rollingHash) add(data []byte, i int) {
	r.sum = r.sum*base + uint64(data[i])
	if i >= chunk {
		r.sum -= leaving * uint64(data[i-chunk])
	}
}

func hashOf(stretch []byte) uint64 {
	var r rollingHash
	for i := range stretch {
		r.add(stretch, i)
	}
	return r.sum
}
