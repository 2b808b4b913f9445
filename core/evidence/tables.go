package evidence

import (
	_ "embed"
	"slices"
	"strconv"
	"sync"

	"frugalheron/core/table"
)

//go:embed attributes.tsv
var attributesTable string

//go:embed kinds.tsv
var kindsTable string

// Attribute is something that can be true of a thing.
type Attribute struct {
	Key       string `json:"key"`
	Label     string `json:"label"`
	Form      Form   `json:"form" doc:"How its values are written"`
	Unit      string `json:"unit"`
	Identity  bool   `json:"identity" doc:"Says which thing it is, rather than what it can do"`
	SettledBy string `json:"settledBy" doc:"What would settle it"`
	Source    string `json:"-"`
}

// Attributes lists the known ones, in the order in which people look at them.
func Attributes() []Attribute { return slices.Clone(readAttributes()) }

var readAttributes = sync.OnceValue(func() []Attribute {
	attributes := []Attribute{}
	for _, row := range table.Reference("attributes", attributesTable, "key", "label", "form", "unit", "identity",
		"settled by", "source") {
		attributes = append(attributes,
			Attribute{row[0], row[1], Form(row[2]), row[3], row[4] == "yes", row[5], row[6]})
	}
	return attributes
})

// AttributeOf finds an attribute by its key. Any other name is an attribute of words: collections
// note what no table foresees.
func AttributeOf(key string) Attribute {
	for _, a := range readAttributes() {
		if a.Key == key {
			return a
		}
	}
	return Attribute{Key: key, Label: key, Form: Words, SettledBy: "look at the thing itself, and note what is there"}
}

type kindRow struct {
	strength int
	words    string
}

var kinds = sync.OnceValue(func() map[Kind]kindRow {
	known := map[Kind]kindRow{}
	for _, row := range table.Reference("kinds", kindsTable, "kind", "strength", "words", "source") {
		strength, err := strconv.Atoi(row[1])
		if err != nil {
			panic("kinds.tsv: " + row[1]) // a test reads it, so this cannot ship
		}
		known[Kind(row[0])] = kindRow{strength, row[2]}
	}
	return known
})

// Kinds lists the kinds of sources, the strongest first.
func Kinds() []Kind {
	list := make([]Kind, 0, len(kinds()))
	for _, row := range table.Reference("kinds", kindsTable, "kind", "strength", "words", "source") {
		list = append(list, Kind(row[0]))
	}
	return list
}

// Strength is how much a kind of source weighs, from 0 to 4.
func (k Kind) Strength() int { return kinds()[k].strength }

// Words say the kind in a sentence.
func (k Kind) Words() string { return kinds()[k].words }

// IsKnown reports whether it is one of the kinds.
func (k Kind) IsKnown() bool { _, known := kinds()[k]; return known }
