package gate

import (
	"slices"

	"frugalheron/core/sheet"
)

// CellState is how a cell stands, by what the sheet says of its place and by the kinds of what is open on it: one that is out
// leaks no more, and a leak goes before a swelling.
func CellState(isOut, isNew bool, found []string) string {
	switch {
	case isOut:
		return "out"
	case isFound(found, "leaking"):
		return "leaking"
	case isFound(found, "swollen"):
		return "swollen"
	case isNew:
		return "replaced"
	}
	return "fitted"
}

// FanState is how a fan stands: what is found open on it goes before what was said of it; unsaid is unknown.
func FanState(said string, found []string) string {
	switch {
	case isFound(found, "stands still"):
		return "dead"
	case said != "":
		return said
	}
	return "unknown"
}

// isFound reports whether some kind is one, however people call it.
func isFound(found []string, kind string) bool {
	same := sheet.KindOf(kind).Same
	return slices.ContainsFunc(found, func(one string) bool { return sheet.KindOf(one).Same == same })
}
