package rom

import "bytes"

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
