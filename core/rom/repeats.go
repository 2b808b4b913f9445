package rom

import (
	"bytes"
	"math/bits"
)

// repeatsOf tells how often an image holds the same content, one copy behind the other.
func repeatsOf(data []byte) int {
	repeats := 1
	for _, n := range []int{2, 3, 5, 7} {
		for size := len(data) / repeats; size >= n && size%n == 0 &&
			isRepeated(data[:size], n); size = len(data) / repeats {
			repeats *= n
		}
	}
	return repeats
}

// isRepeated reports whether data is n equal parts.
func isRepeated(data []byte, n int) bool {
	return bytes.Equal(data[:len(data)-len(data)/n], data[len(data)/n:])
}

// ignoredLines lists the address lines that make no difference anywhere in data, from 0. Lines whose two
// sides are not equally long in it cannot be told.
func ignoredLines(data []byte) []int {
	lines := []int{}
	for line, step := 0, 1; step*2 <= len(data) && len(data)%(step*2) == 0; line, step = line+1, step*2 {
		if ignores(data, step) {
			lines = append(lines, line)
		}
	}
	return lines
}

// ignores reports whether each byte equals that at the address with the bit of step turned.
func ignores(data []byte, step int) bool {
	for at := 0; at < len(data); at += 2 * step {
		if !bytes.Equal(data[at:at+step], data[at+step:at+2*step]) {
			return false
		}
	}
	return true
}

// NearRepeat is content that is there twice but for a few bits.
type NearRepeat struct {
	Line           int `json:"line"` // the address line that tells one copy from the other, from 0
	DifferingBytes int `json:"differingBytes"`
	DifferingBits  int `json:"differingBits"`
	FirstOffset    int `json:"firstOffset"` // of the first that differs, with the line low
}

// nearBy is the part of the bytes that are not blank up to which two copies count as nearly the same, and leastCopied how
// many of these there must be at least. Rules of thumb: what is nearly blank is nearly the same as anything blank.
const (
	nearBy      = 0.005
	leastCopied = 256
)

// nearRepeatIn finds the highest address line that makes a difference in a few bits only; nil for none. Filled is how
// many bytes are not blank.
func nearRepeatIn(data []byte, filled int) *NearRepeat {
	most := int(nearBy * float64(filled) / 2)
	if filled < leastCopied {
		return nil
	}
	for line := bits.Len(uint(len(data))) - 2; line >= 0; line-- { //nolint:gosec // a length
		if step := 1 << line; len(data)%(2*step) == 0 {
			if near := nearlyIgnores(data, line, max(1, most)); near != nil {
				return near
			}
		}
	}
	return nil
}

// nearlyIgnores lays each byte beside that at the address with the bit of the line turned; nil where more differ than most.
func nearlyIgnores(data []byte, line, most int) *NearRepeat {
	near, step := NearRepeat{Line: line, FirstOffset: -1}, 1<<line
	for at := 0; at < len(data); at += 2 * step {
		low, high := data[at:at+step], data[at+step:at+2*step]
		if bytes.Equal(low, high) {
			continue
		}
		for i := range low {
			if low[i] == high[i] {
				continue
			}
			if near.FirstOffset < 0 {
				near.FirstOffset = at + i
			}
			near.DifferingBytes++
			near.DifferingBits += bits.OnesCount8(low[i] ^ high[i])
			if near.DifferingBytes > most {
				return nil
			}
		}
	}
	return &near
}

// constantBits lists the data bits that are the same in every byte.
func constantBits(data []byte) (always0, always1 []int) {
	and, or := byte(0xff), byte(0)
	for _, b := range data {
		and &= b
		or |= b
	}
	for bit := range 8 {
		switch {
		case and>>bit&1 == 1:
			always1 = append(always1, bit)
		case or>>bit&1 == 0:
			always0 = append(always0, bit)
		}
	}
	return always0, always1
}
