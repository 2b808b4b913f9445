// Package caution answers what to take care of at a step of the work, in plain words, where somebody may be
// hurt. It defers to local rules and to competent people, and never says that something may be done.
//
// The cautions are the usual ones of workshops and stores; the words at which each is due are a rule of thumb.
package caution

import (
	_ "embed"
	"regexp"
	"strings"
	"sync"

	"frugalheron/core/table"
)

//go:embed cautions.tsv
var cautionTable string

//go:embed due.tsv
var dueTable string

//go:embed looking.tsv
var lookingTable string

// Key names a caution.
type Key string

// The cautions, in the order in which they are said.
const (
	Mains           Key = "mains"
	Charge          Key = "charge"
	Tube            Key = "tube"
	Battery         Key = "battery"
	LithiumIon      Key = "li-ion"
	CellLeads       Key = "cell-leads"
	Static          Key = "static"
	Heat            Key = "heat"
	Fumes           Key = "fumes"
	Weight          Key = "weight"
	Edges           Key = "edges"
	Dust            Key = "dust"
	Solvents        Key = "solvents"
	Filings         Key = "filings"
	Air             Key = "air"
	Moving          Key = "moving"
	Light           Key = "light"
	Live            Key = "live"
	Loose           Key = "loose"
	BareSupply      Key = "bare-supply"
	StartsWithMains Key = "starts-with-mains"
	Data            Key = "data"
	Firmware        Key = "firmware"
	Settings        Key = "settings"
	Evidence        Key = "evidence"
	Network         Key = "network"
)

// Caution is what to take care of.
type Caution struct {
	Key  Key    `json:"key" enum:"mains,charge,tube,battery,li-ion,cell-leads,static,heat,fumes,weight,edges,dust,solvents,filings,air,moving,light,live,loose,bare-supply,starts-with-mains,data,firmware,settings,evidence,network"`
	Word string `json:"word" doc:"What it is about, in a word or two"`
	Text string `json:"text"`
}

type row struct {
	Caution
	due, not *regexp.Regexp
}

var rows = sync.OnceValue(func() []row {
	patterns := readPatterns("due", dueTable, "key")
	read := []row{}
	for _, cells := range table.Reference("cautions", cautionTable, "key", "word", "text", "source") {
		read = append(read, row{Caution: Caution{Key(cells[0]), cells[1], cells[2]}, due: patterns.of(cells[0], "due"),
			not: patterns.of(cells[0], "not")})
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

// Due lists the cautions that are due where somebody works on what a text names, in their order. Where somebody only
// reads, counts, writes or takes a picture from outside nothing is due: that hurts nobody.
func Due(text string) []Key {
	keys := []Key{}
	if onlyLooks(text) {
		return keys
	}
	for _, r := range rows() {
		said := text
		if r.not != nil {
			said = r.not.ReplaceAllString(said, "...")
		}
		if r.due.MatchString(said) {
			keys = append(keys, r.Key)
		}
	}
	return keys
}

// onlyLooks reports whether a step is done with eyes, a pen or a camera alone.
func onlyLooks(text string) bool {
	return looking().begins.MatchString(text) && !looking().hands.MatchString(text)
}

// looking are the words of steps that only look, and of what is more than that.
var looking = sync.OnceValue(func() (words struct{ begins, hands *regexp.Regexp }) {
	said := map[string][]string{}
	for _, cells := range table.Reference("looking", lookingTable, "kind", "words", "source") {
		said[cells[0]] = append(said[cells[0]], cells[1])
	}
	words.begins = regexp.MustCompile(`(?i)^\s*(?:` + strings.Join(said["begins"], "|") + `)\b`)
	words.hands = regexp.MustCompile(`(?i)\b(?:` + strings.Join(said["hands"], "|") + `)\b`)
	return words
})

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
