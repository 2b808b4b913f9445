package risk

// sortKey is what a part is sorted by, and which it is.
type sortKey struct {
	bits uint64
	at   int32
}

// digit is how many bits are sorted by at once.
const digit = 11

// sorted puts keys in the order of their bits, equal ones as they come: a radix sort, as comparing four
// hundred thousand ranks takes three times as long. It may use the keys given as its own.
func sorted(keys []sortKey) []sortKey {
	other := make([]sortKey, len(keys))
	for shift := 0; shift < 64; shift += digit {
		var starts [1<<digit + 1]int
		for _, k := range keys {
			starts[k.bits>>shift&(1<<digit-1)+1]++
		}
		for i := 1; i < len(starts); i++ {
			starts[i] += starts[i-1]
		}
		for _, k := range keys {
			d := k.bits >> shift & (1<<digit - 1)
			other[starts[d]] = k
			starts[d]++
		}
		keys, other = other, keys
	}
	return keys
}
