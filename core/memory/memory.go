// Package memory answers: how much memory do these parts add up to, what is it for, and which
// of it is parity? And: is the picture memory enough for a screen?
//
// K and M are binary throughout: 1 K is 1,024.
package memory

import (
	"fmt"
	"strconv"

	"frugalheron/core/device"
)

// Purpose says what memory serves.
type Purpose string

// What memory can be for.
const (
	Main    Purpose = "main"
	Picture Purpose = "picture"
	Cache   Purpose = "cache"
	Shared  Purpose = "shared"
	Card    Purpose = "card"
)

// Purposes lists all, in the order in which sums are shown.
func Purposes() []Purpose {
	return []Purpose{Main, Picture, Cache, Shared, Card}
}

// Bank is a number of equal chips or modules written as one run.
type Bank struct {
	device.Organisation
	Count int
	// AllParity is set when the sheet says that the run holds parity only.
	AllParity bool
}

// Capacity is what a bank holds: data, and parity beside it.
type Capacity struct {
	DataBits   int64
	ParityBits int64
	// Note explains a reading that is not the only one possible; else it is empty.
	Note string
}

// Of computes a bank's capacity. Chips one bit wide in a number that is a multiple of nine and
// not of eight are data with parity, one chip in nine. A multiple of both, such as 72, is
// counted as data only, with a note. Words of 9, 18, 36 or 72 bits, as modules have, carry one
// parity bit in nine; those of 39 or 40 bits hold 32 of data and the rest to correct errors.
func Of(b Bank) Capacity {
	total := b.TotalBits() * int64(b.Count)
	switch {
	case b.AllParity:
		return Capacity{ParityBits: total}
	case b.Bits == 9 || b.Bits == 18 || b.Bits == 36 || b.Bits == 72:
		return Capacity{DataBits: total / 9 * 8, ParityBits: total / 9}
	case b.Bits == 39 || b.Bits == 40:
		return Capacity{DataBits: total / int64(b.Bits) * 32, ParityBits: total / int64(b.Bits) * int64(b.Bits-32)}
	case b.Bits == 1 && b.Count%9 == 0 && b.Count%8 == 0 && b.Count > 0:
		return Capacity{DataBits: total, Note: fmt.Sprintf(
			"%d chips one bit wide could be %d bytes wide, or %d with parity; counted as data only (write for:parity on a line of its own to settle it)",
			b.Count, b.Count/8, b.Count/9)}
	case b.Bits == 1 && b.Count%9 == 0:
		return Capacity{DataBits: total / 9 * 8, ParityBits: total / 9}
	}
	return Capacity{DataBits: total}
}

// IsWhole reports whether a bank by itself makes whole bytes, with parity or without.
func (b Bank) IsWhole() bool {
	width := b.Bits * b.Count
	return b.AllParity || b.Bits > 8 || width%8 == 0 || b.Bits == 1 && width%9 == 0
}

// Together is what chips of one depth and purpose hold that make whole bytes only together, as two of four bits and one
// of one bit: width is all their bits side by side.
func Together(words, width int) Capacity {
	total := int64(words) * int64(width)
	switch {
	case width%8 == 0 && width%9 == 0:
		return Capacity{DataBits: total, Note: fmt.Sprintf(
			"chips %d bits wide together could be %d bytes wide, or %d with parity; counted as data only (write for:parity on a line of its own to settle it)",
			width, width/8, width/9)}
	case width%8 == 0:
		return Capacity{DataBits: total}
	case width%9 == 0:
		return Capacity{DataBits: total / 9 * 8, ParityBits: total / 9}
	case width%39 == 0:
		return Capacity{DataBits: total / 39 * 32, ParityBits: total / 39 * 7,
			Note: fmt.Sprintf("chips %d bits wide together: 32 of each 39 are data, 7 correct errors", width)}
	}
	return Capacity{DataBits: total / 8 * 8, Note: fmt.Sprintf(
		"the chips of this depth have a width of %d together, which makes no whole bytes; counted is what does", width)}
}

// InKB writes a number of bytes in KB of 1,024 bytes with one decimal, for columns of figures.
func InKB(bytes int64) string { return strconv.FormatFloat(float64(bytes)/1024, 'f', 1, 64) }

// FormatKB writes a number of bytes in KB of 1,024 bytes, exactly, whatever its size.
func FormatKB(bytes int64) string {
	return strconv.FormatFloat(float64(bytes)/1024, 'f', -1, 64) + " KB"
}

// Format writes a number of bytes with a binary unit, exactly: 98304 is 96 KB, 49280 is 48.125 KB.
func Format(bytes int64) string {
	const k = 1024
	switch {
	case bytes != 0 && bytes%(k*k) == 0:
		return fmt.Sprintf("%d MB", bytes/(k*k))
	case bytes != 0 && bytes%k == 0 || bytes > k && bytes%(k/64) == 0:
		return FormatKB(bytes)
	case bytes == 1:
		return "1 byte"
	}
	return fmt.Sprintf("%d bytes", bytes)
}
