package memfault

import (
	"cmp"
	"fmt"
	"math/bits"
	"slices"
)

// Rules of thumb: so many different places, in two bits or more, make one constant address bit a line and no chance;
// fewer are a hint.
const (
	placesOfALine = 12
	placesOfAHint = 24
)

// suspects lists what would explain the failing bits of banks.
func (c *memoryCase) suspects() []Suspect {
	failing := make([]uint64, len(c.banks)) // bits of each bank
	var any uint64
	for p := range c.pairs {
		failing[p.bank] |= 1 << p.bit
		any |= 1 << p.bit
	}
	found := c.lines(bits.OnesCount64(any))
	isLine := len(found) > 0 && found[0].Share == 1
	whole := []int{}
	for i := range c.banks {
		if all := c.bitsOf(i); bits.OnesCount64(all) > 1 && failing[i]&all == all {
			whole = append(whole, i)
		}
	}
	switch {
	case len(whole) == len(c.banks) && !isLine:
		found = append(found, Suspect{Group: "common", Kind: Common, Share: 1,
			Why: "all bits of all banks fail: look at what they share, as clock, supply and controller"})
	case len(whole) < len(c.banks):
		for _, i := range whole {
			found = append(found, Suspect{Group: c.banks[i].ID, Kind: BankSelect,
				Share: c.share(bits.OnesCount64(failing[i])),
				Why:   "all bits of this bank fail, and not those of every other: its select"})
		}
	}
	found = append(found, c.dataLines(failing, any)...)
	found = append(found, c.chipsAtFault(failing)...)
	slices.SortStableFunc(found, func(a, b Suspect) int {
		return cmp.Or(cmp.Compare(b.Share, a.Share), cmp.Compare(c.rank(a.Kind), c.rank(b.Kind)))
	})
	return found
}

// rank is the order of suspects that explain as much. With one bank a chip is likelier than the line that leads to it.
func (c *memoryCase) rank(k Kind) int {
	order := []Kind{Common, AddressLine, BankSelect, DataLine, Chip}
	if len(c.banks) == 1 {
		order = []Kind{Common, AddressLine, BankSelect, Chip, DataLine}
	}
	return slices.Index(order, k)
}

func (c *memoryCase) share(pairs int) float64 { return float64(pairs) / float64(len(c.pairs)) }

func (c *memoryCase) bitsOf(bank int) uint64 {
	var all uint64
	for bit := range c.chips[bank] {
		all |= 1 << bit
	}
	return all
}

// lines tells the one address bit that is the same in all failing places, where all others are not.
func (c *memoryCase) lines(dataBits int) []Suspect {
	same := ^c.varies & (1<<bits.Len64(c.span) - 1)
	n := len(c.offsets)
	if bits.OnesCount64(same) != 1 || n < 2 || dataBits < 2 {
		return nil
	}
	line := bits.TrailingZeros64(same)
	one := Suspect{Group: fmt.Sprintf("A%d", line), Kind: AddressLine, Share: 1,
		Why: fmt.Sprintf("%d failing places in %d bits differ in every address bit but this one, which is always %d",
			n, dataBits, c.first>>line&1)}
	if n < placesOfALine {
		one.Share = float64(n) / placesOfAHint
		one.Why += fmt.Sprintf("; fewer than %d places are no more than a hint", placesOfALine)
	}
	return []Suspect{one}
}

// dataLines tells the bits that fail in every bank that has them, or the only one of the only bank.
func (c *memoryCase) dataLines(failing []uint64, any uint64) []Suspect {
	found := []Suspect{}
	for left := any; left != 0; left &= left - 1 {
		bit := bits.TrailingZeros64(left)
		have, fail := 0, 0
		for i := range c.banks {
			if all := c.bitsOf(i); all == 0 || all>>bit&1 == 1 || failing[i]>>bit&1 == 1 {
				have++
				fail += int(failing[i] >> bit & 1)
			}
		}
		why := fmt.Sprintf("bit %d fails in every bank: the line or its buffer, rather than the chips", bit)
		switch {
		case len(c.banks) == 1 && bits.OnesCount64(any) == 1:
			why = fmt.Sprintf("bit %d fails in the only bank: the line or its buffer, where the chip is good", bit)
		case have < 2 || fail < have:
			continue
		}
		found = append(found, Suspect{Group: fmt.Sprintf("D%d", bit), Kind: DataLine, Share: c.share(fail), Why: why})
	}
	return found
}

// chipsAtFault tells the chips of all failing bits; one that holds several bits or banks stands once.
func (c *memoryCase) chipsAtFault(failing []uint64) []Suspect {
	found, counts, at := []Suspect{}, []int{}, map[string]int{}
	for i := range c.banks {
		for left := failing[i]; left != 0; left &= left - 1 {
			bit := bits.TrailingZeros64(left)
			designator := c.chips[i][bit]
			n, known := at[designator]
			switch {
			case designator == "":
				continue
			case known:
				counts[n]++
				continue
			}
			at[designator] = len(found)
			counts = append(counts, 1)
			found = append(found, Suspect{Designator: designator, Kind: Chip, Why: c.whyChip(i, bit)})
		}
	}
	for n := range found {
		found[n].Share = c.share(counts[n])
	}
	return found
}

func (c *memoryCase) whyChip(bank, bit int) string {
	places := "one line"
	if n := c.pairs[pair{bank, bit}]; n > 1 {
		places = fmt.Sprintf("%d lines", n)
	}
	why := fmt.Sprintf("bit %d of the bank %s fails on %s", bit, c.banks[bank].ID, places)
	if len(c.banks) == 1 {
		why += "; one bank does not tell it from its data line"
	}
	return why
}
