package rom

import (
	"bytes"
	"fmt"
	"math/bits"
)

// Verdict says how two images stand to each other.
type Verdict string

// Verdicts.
const (
	Identical      Verdict = "identical"
	SameContent    Verdict = "same-content"    // one repeats the other
	LanesSwapped   Verdict = "lanes-swapped"   // the same bytes in another order within each word
	ChargeLoss     Verdict = "charge-loss"     // the second has lost charge since the first
	UnreliableRead Verdict = "unreliable-read" // one was not read right
	Related        Verdict = "related"         // they have a large part in common
	Different      Verdict = "different"
)

// Comparison is what differs between two images.
type Comparison struct {
	Verdict        Verdict `json:"verdict" enum:"identical,same-content,lanes-swapped,charge-loss,unreliable-read,related,different"`
	DifferingBytes int     `json:"differingBytes"` // bytes that only the longer has among them
	FirstOffset    *int    `json:"firstOffset"`    // null when nothing differs
	Bits0to1       int     `json:"bits0to1"`       // bits that are 0 in the first and 1 in the second
	Bits1to0       int     `json:"bits1to0"`
	Note           string  `json:"note"`
}

// differences are those at equal offsets.
type differences struct {
	bytes, up, down int
	first           int
	alone           int // differing bytes without a differing neighbour
	longest         int // bytes of the longest stretch that differs throughout
	nearest         int // the least distance between two bytes that differ; 0 for fewer than two
	anyBit          byte
}

func differencesOf(a, b []byte) differences {
	d := differences{first: -1}
	run, last := 0, -1
	n := min(len(a), len(b))
	for i := range n {
		if a[i] == b[i] {
			if run == 1 {
				d.alone++
			}
			run = 0
			continue
		}
		if d.first < 0 {
			d.first = i
		} else if d.nearest == 0 || i-last < d.nearest {
			d.nearest = i - last
		}
		last = i
		run++
		d.longest = max(d.longest, run)
		d.bytes++
		d.up += bits.OnesCount8(b[i] &^ a[i])
		d.down += bits.OnesCount8(a[i] &^ b[i])
		d.anyBit |= a[i] ^ b[i]
	}
	if run == 1 {
		d.alone++
	}
	return d
}

// Compare compares two images; where it matters, a is the earlier.
func Compare(a, b []byte) Comparison {
	d := differencesOf(a, b)
	c := Comparison{DifferingBytes: d.bytes + max(len(a), len(b)) - min(len(a), len(b)), Bits0to1: d.up,
		Bits1to0: d.down}
	switch {
	case d.first >= 0:
		c.FirstOffset = &d.first
	case len(a) != len(b):
		first := min(len(a), len(b))
		c.FirstOffset = &first
	}
	c.Verdict, c.Note = judge(a, b, d)
	return c
}

func judge(a, b []byte, d differences) (Verdict, string) {
	if bytes.Equal(a, b) {
		return Identical, "Every byte is the same."
	}
	if len(a) == 0 || len(b) == 0 {
		return Different, "One of them is empty."
	}
	if note := sameContent(a, b); note != "" {
		return SameContent, note
	}
	if len(a) == len(b) {
		if note := swapped(a, b); note != "" {
			return LanesSwapped, note
		}
		if verdict, note := misread(a, b, d); note != "" {
			return verdict, note
		}
	}
	common := commonPart(a, b)
	if common >= relatedShare {
		return Related, fmt.Sprintf("%.0f %% of what is not blank stands in both: two versions of one thing.",
			common*100)
	}
	return Different, fmt.Sprintf("%.0f %% of what is not blank stands in both.", common*100)
}

// sameContent tells whether both are copies of one content.
func sameContent(a, b []byte) string {
	if len(a) == len(b) || isConstant(a) || isConstant(b) {
		return ""
	}
	timesA, timesB := repeatsOf(a), repeatsOf(b)
	if !bytes.Equal(a[:len(a)/timesA], b[:len(b)/timesB]) {
		return ""
	}
	return fmt.Sprintf("The content of %d bytes is the same; the first holds it %s, the second %s.", len(a)/timesA,
		timesOrOnce(timesA), timesOrOnce(timesB))
}

func timesOrOnce(n int) string {
	if n == 1 {
		return "once"
	}
	return times(n)
}

// orders are those in which the bytes of a word can be dealt out wrongly.
var orders = []struct {
	order []int
	words string
}{
	{[]int{1, 0}, "the two bytes of each word have changed places: the even and the odd lane are swapped"},
	{[]int{3, 2, 1, 0}, "the four bytes of each word stand in the opposite order"},
	{[]int{2, 3, 0, 1}, "the two halves of each word of four bytes have changed places"},
	{[]int{0, 2, 1, 3}, "the two lanes in the middle of four are swapped"},
}

func swapped(a, b []byte) string {
	for _, o := range orders {
		if bytes.Equal(reordered(a, o.order), b) {
			return "The same bytes, but " + o.words + "."
		}
	}
	return ""
}

// Rules of thumb by which a device that was not read right is told from another version: few bits, one in
// a byte, far from each other. People change stretches; bad contacts and time do not.
const (
	fewBits        = 64   // so many are few in any image
	fewBitsShare   = 0.02 // or so large a part of all
	bitsInByte     = 1.5  // that differ in a differing byte, on average
	aloneShare     = 0.6  // of the differing bytes that have no differing neighbour
	longestStretch = 8    // differing bytes side by side
)

// A device that loses its charge loses it here and there: in few bytes, none near another. Rules of thumb.
const (
	fadingShare = 0.005
	fadingApart = 64 // bytes
)

// misread tells whether one of two images of the same length is a bad read of what the other holds.
func misread(a, b []byte, d differences) (Verdict, string) {
	count := d.up + d.down
	// Few differences are not a line's: where the two sides of it hold nearly the same, both would fit.
	if count > fewBits {
		if lines := lineIgnored(a, b); lines != "" {
			return UnreliableRead, lines
		}
	}
	if bits.OnesCount8(d.anyBit) == 1 && count > fewBits {
		return UnreliableRead,
			fmt.Sprintf(
				"All %d differences are in D%d: a bad contact of that data line. Clean the pins and read it again.",
				count, bits.TrailingZeros8(d.anyBit))
	}
	if d.down == 0 && float64(d.bytes) <= fadingShare*float64(len(a)) && (d.bytes < 2 || d.nearest > fadingApart) {
		return ChargeLoss,
			fmt.Sprintf(
				"%d bits have gone from 0 to 1 and none the other way, far from each other: the device is losing its charge. Read it again now, keep the earlier read, and burn a copy.", d.up)
	}
	few := count <= fewBits || float64(count) <= fewBitsShare*8*float64(len(a))
	scattered := float64(count) <= bitsInByte*float64(d.bytes) && d.longest <= longestStretch &&
		(float64(d.alone) >= aloneShare*float64(d.bytes) || count <= fewBits && d.longest <= 3)
	if !few || !scattered || d.down == 0 {
		return "", "" // bits that only rose near each other are a patch as well as a fault
	}
	return UnreliableRead,
		fmt.Sprintf("%d bits went from 0 to 1 and %d from 1 to 0, far from each other: no device changes that way. Clean the contacts and read it again.", d.up, d.down)
}

// lineIgnored tells whether one image is the other read with address lines that made no difference.
func lineIgnored(a, b []byte) string {
	for turn, pair := range [][2][]byte{{a, b}, {b, a}} {
		good, bad := pair[0], pair[1]
		if isConstant(bad) {
			continue
		}
		for _, line := range ignoredLines(bad) {
			if fold := foldedBy(good, bad, 1<<line); fold {
				return fmt.Sprintf(
					"The %s is the other read with A%d making no difference: that address line had no contact.",
					[]string{"second", "first"}[turn], line)
			}
		}
	}
	return ""
}

// foldedBy reports whether bad holds, on both sides of an address line, what good holds on one side.
func foldedBy(good, bad []byte, step int) bool {
	low, high := true, true
	for at := range good {
		if at&step == 0 {
			low = low && good[at] == bad[at]
		} else {
			high = high && good[at] == bad[at]
		}
		if !low && !high {
			return false
		}
	}
	return true
}
