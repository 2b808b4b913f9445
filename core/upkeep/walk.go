package upkeep

import (
	"cmp"
	"strings"
)

// InWalkingOrder compares two things by where they are: place by place from the outermost, figures by their value, so
// that bay 2 comes before bay 10; the shorter way first, and things of one place by their ids.
func InWalkingOrder(a, b Thing) int {
	for i := range min(len(a.Place), len(b.Place)) {
		if a.Place[i] == b.Place[i] {
			continue
		}
		if order := ByFigures(a.Place[i], b.Place[i]); order != 0 {
			return order
		}
	}
	return cmp.Or(cmp.Compare(len(a.Place), len(b.Place)), ByFigures(a.ID, b.ID))
}

// ByFigures compares two words as people order them: runs of figures by their value, all else as it is written. Words
// that say the same in this way are told apart as they are written.
func ByFigures(a, b string) int {
	same := 0 // what both begin with, up to the figures at its end
	for same < len(a) && same < len(b) && a[same] == b[same] {
		same++
	}
	for same > 0 && isFigure(a[same-1]) {
		same--
	}
	x, y := a[same:], b[same:]
	for x != "" && y != "" {
		if isFigure(x[0]) && isFigure(y[0]) {
			var m, n string
			m, x = cutFigures(x)
			n, y = cutFigures(y)
			if order := cmp.Or(cmp.Compare(len(m), len(n)), strings.Compare(m, n)); order != 0 {
				return order
			}
			continue
		}
		if order := cmp.Compare(x[0], y[0]); order != 0 {
			return order
		}
		x, y = x[1:], y[1:]
	}
	return cmp.Or(cmp.Compare(len(x), len(y)), strings.Compare(a, b))
}

func isFigure(b byte) bool { return b >= '0' && b <= '9' }

// cutFigures returns the figures that a word begins with, without zeros before them, and the rest.
func cutFigures(word string) (figures, rest string) {
	end := 0
	for end < len(word) && isFigure(word[end]) {
		end++
	}
	return strings.TrimLeft(word[:end], "0"), word[end:]
}
