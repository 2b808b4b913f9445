// Package caution answers what to take care of at a step of the work, in plain words, where somebody may be
// hurt. It defers to local rules and to competent people, and never says that something may be done.
//
// The cautions are the usual ones of workshops and stores; the words at which each is due are a rule of thumb.
package caution

import (
	_ "embed"
	"regexp"
	"sync"

	"frugalheron/core/table"
)

//go:embed cautions.tsv
var cautionTable string

// Key names a caution.
type Key string

// The cautions, in the order in which they are said.
const (
	Mains    Key = "mains"
	Charge   Key = "charge"
	Tube     Key = "tube"
	Cells    Key = "cells"
	Static   Key = "static"
	Heat     Key = "heat"
	Weight   Key = "weight"
	Edges    Key = "edges"
	Dust     Key = "dust"
	Solvents Key = "solvents"
)

// Caution is what to take care of.
type Caution struct {
	Key  Key    `json:"key" enum:"mains,charge,tube,cells,static,heat,weight,edges,dust,solvents"`
	Word string `json:"word" doc:"What it is about, in a word or two"`
	Text string `json:"text"`
}

type row struct {
	Caution
	due *regexp.Regexp
}

var rows = sync.OnceValue(func() []row {
	read := []row{}
	for _, cells := range table.Reference("cautions", cautionTable, "key", "word", "text", "due", "source") {
		read = append(read,
			row{Caution{Key(cells[0]), cells[1], cells[2]}, regexp.MustCompile(`(?i)\b(` + cells[3] + `)\b`)})
	}
	return read
})

// Of returns the caution of a key.
func Of(key Key) Caution {
	for _, r := range rows() {
		if r.Key == key {
			return r.Caution
		}
	}
	return Caution{Key: key}
}

// All lists the cautions of some keys, in their order.
func All(keys []Key) []Caution {
	all := make([]Caution, len(keys))
	for i, key := range keys {
		all[i] = Of(key)
	}
	return all
}

// Due lists the cautions that are due where somebody works on what a text names, in their order.
func Due(text string) []Key {
	keys := []Key{}
	for _, r := range rows() {
		if r.due.MatchString(text) {
			keys = append(keys, r.Key)
		}
	}
	return keys
}

// Shown remembers which cautions were said, so that each is said once.
type Shown map[Key]bool

// Now returns the keys that were not said before, and remembers them.
func (s Shown) Now(keys []Key) []Key {
	fresh := []Key{}
	for _, key := range keys {
		if !s[key] {
			s[key] = true
			fresh = append(fresh, key)
		}
	}
	return fresh
}
