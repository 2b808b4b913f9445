package rom

import "fmt"

// Split deals the bytes out to so many lanes in turn, as a bus of that many bytes reads them: lane 0 takes
// the bytes 0, n, 2n and so on.
func Split(data []byte, lanes int) ([][]byte, error) {
	if lanes < 2 || lanes > 8 {
		return nil, fmt.Errorf("a bus has 2 to 8 lanes, not %d", lanes)
	}
	if len(data)%lanes != 0 {
		return nil, fmt.Errorf("%d bytes cannot be dealt out to %d lanes: %d would be left over", len(data), lanes,
			len(data)%lanes)
	}
	dealt := make([][]byte, lanes)
	for lane := range dealt {
		dealt[lane] = make([]byte, len(data)/lanes)
		for i := range dealt[lane] {
			dealt[lane][i] = data[i*lanes+lane]
		}
	}
	return dealt, nil
}

// Merge takes the bytes of lanes in turn: it undoes Split.
func Merge(lanes [][]byte) ([]byte, error) {
	if len(lanes) < 2 || len(lanes) > 8 {
		return nil, fmt.Errorf("a bus has 2 to 8 lanes, not %d", len(lanes))
	}
	for i, lane := range lanes {
		if len(lane) != len(lanes[0]) {
			return nil, fmt.Errorf("lane %d has %d bytes, lane 0 has %d; lanes are equally long", i, len(lane),
				len(lanes[0]))
		}
	}
	if total := len(lanes) * len(lanes[0]); total > MaxBytes {
		return nil, fmt.Errorf("together they have %d bytes; an image has at most %d", total, MaxBytes)
	}
	data := make([]byte, len(lanes)*len(lanes[0]))
	for l, lane := range lanes {
		for i, b := range lane {
			data[i*len(lanes)+l] = b
		}
	}
	return data, nil
}

// reordered deals the bytes of each group out in another order; a rest that fills no group stays.
func reordered(data []byte, order []int) []byte {
	turned := make([]byte, len(data))
	whole := len(data) - len(data)%len(order)
	copy(turned[whole:], data[whole:])
	for at := 0; at < whole; at += len(order) {
		for i, from := range order {
			turned[at+i] = data[at+from]
		}
	}
	return turned
}
