package rom

import (
	"bytes"
	"math"
)

// Kinds of the cells of a byte map, a letter each.
const (
	CellBlank    = 'b'
	CellText     = 't'
	CellRepeated = 'r' // stands there before, or lies behind the first copy
	CellTable    = 'd' // few different bytes: tables, character patterns, fillings
	CellCode     = 'c' // as varied as programs are
	CellDense    = 'x' // as varied as chance: packed, or noise
)

// Cells divides an image into cells of equal length and says what each holds, a letter of the kinds above
// for each. Between tables, programs and packed data it is told by the entropy of the bytes around: less
// than leastOfCode bits in a byte are a table, more than mostOfCode packed. Rules of thumb.
type Cells struct {
	Cell  int    `json:"cell"` // bytes in one; the last may be shorter
	Kinds string `json:"kinds"`
}

// window is how many bytes the entropy is taken over.
const (
	window      = 256
	leastOfCode = 3.0
	mostOfCode  = 6.75
)

// MapOf makes the map of an image that was inspected. A cell has at least 16 bytes.
func MapOf(data []byte, i Inspection, cell int) Cells {
	cell = max(cell, blankRun)
	count := (len(data) + cell - 1) / cell
	kinds := make([]byte, count)
	entropies := entropiesOf(data)
	earlier := map[string]bool{}
	for n := range kinds {
		from, to := n*cell, min((n+1)*cell, len(data))
		stretch := data[from:to]
		switch {
		case i.Repeats > 1 && from >= i.EffectiveBytes:
			kinds[n] = CellRepeated
		case len(stretch) >= blankRun && earlier[string(stretch)]:
			kinds[n] = CellRepeated
		default:
			kinds[n] = byEntropy(entropies[from/window])
		}
		earlier[string(stretch)] = true
	}
	cells := Cells{cell, ""}
	// What is blank or text is told by the inspection, by the larger part of a cell.
	cover(kinds, cell, len(data), CellText, func(yield func(from, to int)) {
		for _, t := range i.Texts {
			yield(t.Offset, t.Offset+len(t.Text))
		}
	})
	cover(kinds, cell, len(data), CellBlank, func(yield func(from, to int)) {
		for _, r := range i.BlankRuns {
			yield(r.From, r.To)
		}
	})
	cells.Kinds = string(kinds)
	return cells
}

// cover gives a kind to the cells that stretches fill by more than half.
func cover(kinds []byte, cell, length int, kind byte, stretches func(yield func(from, to int))) {
	filled := make([]int, len(kinds))
	stretches(func(from, to int) {
		for n := from / cell; n*cell < to; n++ {
			filled[n] += min(to, (n+1)*cell) - max(from, n*cell)
		}
	})
	for n := range kinds {
		if kinds[n] != CellRepeated && 2*filled[n] > min(cell, length-n*cell) || kind == CellBlank &&
			2*filled[n] > min(cell, length-n*cell) {
			kinds[n] = kind
		}
	}
}

func byEntropy(entropy float64) byte {
	switch {
	case entropy < leastOfCode:
		return CellTable
	case entropy > mostOfCode:
		return CellDense
	}
	return CellCode
}

// entropiesOf takes the entropy of each window, in bits a byte.
func entropiesOf(data []byte) []float64 {
	entropies := make([]float64, len(data)/window+1)
	for n := range entropies {
		stretch := data[n*window : min((n+1)*window, len(data))]
		if len(stretch) < window && len(data) >= window {
			stretch = data[len(data)-window:]
		}
		entropies[n] = entropyOf(stretch)
	}
	return entropies
}

func entropyOf(stretch []byte) float64 {
	var counts [256]int
	for _, b := range stretch {
		counts[b]++
	}
	entropy := 0.0
	for _, n := range counts {
		if n > 0 {
			share := float64(n) / float64(len(stretch))
			entropy -= share * math.Log2(share)
		}
	}
	return entropy
}

// DifferingCells says of each cell of two images how many of its bytes differ, in tenths rounded up, a figure
// for each; "a" for all ten. Bytes that only one has differ.
func DifferingCells(a, b []byte, cell int) Cells {
	cell = max(cell, blankRun)
	length := max(len(a), len(b))
	out := &bytes.Buffer{}
	for from := 0; from < length; from += cell {
		to := min(from+cell, length)
		differ := 0
		for at := from; at < to; at++ {
			if at >= len(a) || at >= len(b) || a[at] != b[at] {
				differ++
			}
		}
		out.WriteByte("0123456789a"[(differ*10+to-from-1)/(to-from)])
	}
	return Cells{cell, out.String()}
}
