package memfault

import (
	"cmp"
	"fmt"
	"frugalheron/core/malformed"
	"math/bits"
	"slices"
	"strconv"
	"strings"
)

// mostBits is how many bits a word has at most.
const mostBits = 64

// pair is a bit of a bank.
type pair struct{ bank, bit int }

// memoryCase is banks with their chips, and what fails in them.
type memoryCase struct {
	banks     []Bank
	chips     []map[int]string // by bit, of each bank
	syndromes map[uint64]int
	byBase    []int // positions in banks, by their first address

	pairs   map[pair]int // lines by failing bit of a bank
	offsets map[uint64]bool
	varies  uint64 // address bits that are not the same in all failing offsets
	first   uint64 // a failing offset
	span    uint64 // the last offset of the largest bank that fails
}

func newCase(in Input) (*memoryCase, error) {
	c := &memoryCase{banks: in.Banks, syndromes: map[uint64]int{}, pairs: map[pair]int{}, offsets: map[uint64]bool{}}
	known := map[string]bool{}
	for i, b := range in.Banks {
		at := fmt.Sprintf("banks[%d]", i)
		switch {
		case strings.TrimSpace(b.ID) == "":
			return nil, malformed.Named(at+".id", "a bank needs a name")
		case known[b.ID]:
			return nil, malformed.Named(at+".id", "%q is there twice", b.ID)
		case b.Size == 0 || uint64(b.Base)+uint64(b.Size-1) < uint64(b.Base):
			return nil, malformed.Named(at+".size", "%d is no size of a bank that begins at %#x", b.Size, b.Base)
		}
		known[b.ID] = true
		chips := map[int]string{}
		for written, designator := range b.Chips {
			bit, err := strconv.Atoi(written)
			if err != nil || bit < 0 || bit >= mostBits {
				return nil, malformed.Named(at+".chips", "%q is no bit from 0 to %d", written, mostBits-1)
			}
			chips[bit] = designator
		}
		c.chips = append(c.chips, chips)
		c.byBase = append(c.byBase, i)
	}
	slices.SortFunc(c.byBase, func(a, b int) int { return cmp.Compare(in.Banks[a].Base, in.Banks[b].Base) })
	for n := 1; n < len(c.byBase); n++ {
		before, one := in.Banks[c.byBase[n-1]], in.Banks[c.byBase[n]]
		if uint64(one.Base)-uint64(before.Base) < uint64(before.Size) {
			return nil, malformed.Named(fmt.Sprintf("banks[%d].base", c.byBase[n]), "%#x lies in the bank %s, too",
				one.Base, before.ID)
		}
	}
	for written, bit := range in.Syndromes {
		value, err := syndrome(written)
		if err != nil || bit < 0 || bit >= mostBits {
			return nil, malformed.Named("syndromes", "%q: %d is not a hexadecimal syndrome with a bit from 0 to %d", written, bit, mostBits-1)
		}
		c.syndromes[value] = bit
	}
	return c, nil
}

func syndrome(written string) (uint64, error) {
	return strconv.ParseUint(strings.TrimPrefix(strings.ToLower(strings.TrimSpace(written)), "0x"), 16, 64)
}

// place notes which bits of which bank fail on a line, or says why it is of no use.
func (c *memoryCase) place(f Failure, unplaced *int) string {
	n, found := slices.BinarySearchFunc(c.byBase, f.Address, func(i int, address Figure) int {
		return cmp.Compare(c.banks[i].Base, address)
	})
	if !found {
		n--
	}
	if n < 0 || uint64(f.Address)-uint64(c.banks[c.byBase[n]].Base) >= uint64(c.banks[c.byBase[n]].Size) {
		return fmt.Sprintf("%#x lies in no bank", uint64(f.Address))
	}
	bank := c.byBase[n]
	var failing uint64
	switch {
	case f.Expected != nil && f.Actual != nil:
		if failing = uint64(*f.Expected ^ *f.Actual); failing == 0 {
			return fmt.Sprintf("at %#x what was there is what was expected", uint64(f.Address))
		}
	case f.Syndrome != nil:
		value, err := syndrome(*f.Syndrome)
		if err != nil {
			return fmt.Sprintf("%q is no hexadecimal syndrome", *f.Syndrome)
		}
		bit, known := c.syndromes[value]
		if !known {
			*unplaced++
			return ""
		}
		failing = 1 << bit
	default:
		return "a line needs what was expected and what was there, or a syndrome"
	}
	why := ""
	for left := failing; left != 0; left &= left - 1 {
		p := pair{bank, bits.TrailingZeros64(left)}
		if c.pairs[p]++; c.pairs[p] == 1 && c.chips[bank][p.bit] == "" {
			why = fmt.Sprintf("no chip is named for bit %d of the bank %s", p.bit, c.banks[bank].ID)
		}
	}
	offset := uint64(f.Address) - uint64(c.banks[bank].Base)
	if len(c.offsets) == 0 {
		c.first = offset
	}
	c.offsets[offset] = true
	c.varies |= offset ^ c.first
	c.span = max(c.span, uint64(c.banks[bank].Size)-1)
	return why
}
