package caution

import (
	_ "embed"
	"regexp"
	"slices"
	"sync"

	"frugalheron/core/table"
)

//go:embed holding.tsv
var holdingTable string

// Holding is something that a machine is known to hold, as a tube or cells, that matters at more steps than those whose
// words name it.
type Holding string

type holdingRow struct {
	holding   Holding
	tells, at *regexp.Regexp
	not       *regexp.Regexp // nil for none
	adds      []Key
}

var holdings = sync.OnceValue(func() []holdingRow {
	patterns := readPatterns("holding", holdingTable, "holding")
	read := []holdingRow{}
	for _, cells := range table.Reference("holding", holdingTable, "holding", "is", "words", "source") {
		name := cells[0]
		if len(read) == 0 || string(read[len(read)-1].holding) != name {
			read = append(read, holdingRow{holding: Holding(name), tells: patterns.of(name, "tells"),
				not: patterns.of(name, "not"), at: patterns.of(name, "at")})
		}
		if cells[1] == "adds" {
			read[len(read)-1].adds = append(read[len(read)-1].adds, Key(cells[2]))
		}
	}
	return read
})

// Holdings are all that a machine can be known to hold, as far as it adds to cautions.
func Holdings() []Holding {
	all := []Holding{}
	for _, r := range holdings() {
		all = append(all, r.holding)
	}
	return all
}

// HoldingsOf tells what a machine holds by the words of its parts, its boards and its outside.
func HoldingsOf(words []string) []Holding {
	held := []Holding{}
	for _, r := range holdings() {
		if slices.ContainsFunc(words, func(said string) bool {
			return r.tells.MatchString(said) && (r.not == nil || !r.not.MatchString(said))
		}) {
			held = append(held, r.holding)
		}
	}
	return held
}

// DueIn lists the cautions that are due at a step on a machine that holds some things: those of its words, and those that
// what the machine holds adds to them.
func DueIn(text string, held []Holding) []Key {
	due := Due(text)
	if len(held) == 0 || onlyLooks(text) {
		return due
	}
	for _, r := range holdings() {
		if slices.Contains(held, r.holding) && r.at.MatchString(text) {
			due = append(due, r.adds...)
		}
	}
	inOrder := []Key{}
	for _, row := range rows() {
		if slices.Contains(due, row.Key) {
			inOrder = append(inOrder, row.Key)
		}
	}
	return inOrder
}
