package census

import (
	"fmt"
	"slices"
	"strconv"

	"frugalheron/core/memory"
)

// EnoughBoards is how many boards there must be before one is compared with them. A rule of thumb.
const EnoughBoards = 5

// Board is what is counted on a board.
type Board struct {
	Chips    int
	RAMBytes int64
	ROMBytes int64
}

// Alike compares a board with those of the collection that do the same.
type Alike struct {
	Key   string   `json:"key"`
	Words string   `json:"words" doc:"What they all do"`
	N     int      `json:"n" doc:"Others that do it"`
	Few   bool     `json:"few" doc:"They are too few to compare"`
	Rows  []Figure `json:"rows" doc:"Empty where they are too few"`
}

// Figure is what is counted on this board beside those of the others.
type Figure struct {
	Name   string `json:"name"`
	Own    string `json:"own"`
	Lowest string `json:"lowest"`
	Median string `json:"median"`
	Most   string `json:"most"`
	Odd    string `json:"odd" doc:"How it is unlike all others; empty where it is not"`
}

// Can lists what a board does for certain, by the keys of its capabilities.
func (c Census) Can() []string {
	keys := []string{}
	for _, one := range c.Capabilities {
		if one.State == Present {
			keys = append(keys, one.Key)
		}
	}
	return keys
}

// Compare lays a board beside others that do the same.
func (c Census) Compare(key string, own Board, others []Board) Alike {
	a := Alike{Key: key, N: len(others), Few: len(others) < EnoughBoards, Rows: []Figure{}}
	for _, one := range c.Capabilities {
		if one.Key == key {
			a.Words = one.Words
		}
	}
	if a.Few {
		return a
	}
	count := func(n int64) string { return strconv.FormatInt(n, 10) }
	for _, figure := range []struct {
		name string
		of   func(Board) int64
		say  func(int64) string
	}{
		{"chips", func(b Board) int64 { return int64(b.Chips) }, count},
		{"RAM", func(b Board) int64 { return b.RAMBytes }, memory.Format},
		{"ROM", func(b Board) int64 { return b.ROMBytes }, memory.Format},
	} {
		values := make([]int64, len(others))
		for i, other := range others {
			values[i] = figure.of(other)
		}
		slices.Sort(values)
		own, lowest, most := figure.of(own), values[0], values[len(values)-1]
		if own == 0 && most == 0 {
			continue
		}
		row := Figure{figure.name, figure.say(own), figure.say(lowest), figure.say(median(values)), figure.say(most),
			""}
		switch {
		case own < lowest:
			row.Odd = fmt.Sprintf("less than on any of the %d others", len(others))
		case own > most:
			row.Odd = fmt.Sprintf("more than on any of the %d others", len(others))
		}
		a.Rows = append(a.Rows, row)
	}
	return a
}

// median is the middle of sorted values; of two in the middle the lower, so that it is one that some board has.
func median(sorted []int64) int64 { return sorted[(len(sorted)-1)/2] }
