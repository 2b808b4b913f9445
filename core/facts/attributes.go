package facts

import (
	_ "embed"
	"slices"
	"strconv"
	"strings"
	"sync"

	"frugalheron/core/table"
)

//go:embed attributes.tsv
var attributesText string

//go:embed sources.tsv
var sourcesText string

// Source is a kind of source.
type Source string

// Sources that the rules speak of.
const (
	Counted  Source = "counted"
	Measured Source = "measured"
	Seen     Source = "seen"
	Tested   Source = "tested"
	Firmware Source = "firmware"
	Label    Source = "label"
	Document Source = "document"
	Recalled Source = "recalled"
	Inferred Source = "inferred"
)

// found is the rank from which on somebody, or the thing itself, told how it is.
const found = 4

// Nature says in what way an attribute is true.
type Nature string

// Natures of attributes.
const (
	Constant Nature = "constant" // it is so, or it is not
	Timely   Nature = "state"    // it is so at a time
	OfPart   Nature = "part"     // it belongs to a part, and moves with it
	SeenBy   Nature = "seen-by"  // what firmware or a program shows of something: compared, never ranked
)

var natures = []Nature{Constant, Timely, OfPart, SeenBy}

// Attribute is something that can be true of a thing.
type Attribute struct {
	Key       string `json:"key"`
	Label     string `json:"label"`
	Form      Form   `json:"form" doc:"How its values are written"`
	Unit      string `json:"unit" doc:"Of a figure that stands alone"`
	Base      int    `json:"base" doc:"What K, M and G stand for: powers of 1000 or 1024; 0 where it has no bytes"`
	Nature    Nature `json:"nature" enum:"constant,state,part,seen-by"`
	Identity  bool   `json:"identity" doc:"Says which thing it is, rather than what it can do"`
	SettledBy string `json:"settledBy" doc:"What would settle it"`
	Source    string `json:"-"`
}

// Attributes lists the known ones, in the order in which people look at them.
func Attributes() []Attribute { return slices.Clone(readAttributes()) }

var readAttributes = sync.OnceValue(func() []Attribute {
	read := []Attribute{}
	for _, row := range table.Reference("attributes", attributesText, "key", "label", "form", "unit", "base", "nature",
		"identity", "settled by", "source") {
		base := 0
		if row[4] != "" {
			var err error
			if base, err = strconv.Atoi(row[4]); err != nil {
				panic("attributes.tsv: " + row[4]) // a test reads it, so this cannot ship
			}
		}
		read = append(read, Attribute{row[0], row[1], Form(row[2]), row[3], base, Nature(row[5]), row[6] == "yes",
			row[7], row[8]})
	}
	return read
})

var attributesByKey = sync.OnceValue(func() map[string]Attribute {
	by := map[string]Attribute{}
	for _, a := range readAttributes() {
		by[a.Key] = a
	}
	return by
})

// AttributeOf finds an attribute by its key. Any other name is a constant of words: collections note what no table
// foresees. K, M and G in it are binary where its name speaks of memory, which is a rule of thumb.
func AttributeOf(key string) Attribute {
	if a, known := attributesByKey()[key]; known {
		return a
	}
	own := Attribute{Key: key, Label: key, Form: Text, Base: 1000, Nature: Constant,
		SettledBy: "look at the thing itself, and note what is there"}
	for _, word := range []string{"memory", "ram", "rom", "cache", "buffer"} {
		if slices.Contains(strings.FieldsFunc(strings.ToLower(key), notLetter), word) {
			own.Base = 1024
		}
	}
	return own
}

func notLetter(r rune) bool { return r < 'a' || r > 'z' }

type sourceRow struct {
	rank  int
	words string
}

var sources = sync.OnceValue(func() (read struct {
	order  []Source
	by     map[Source]sourceRow
	called map[string]Source // by the words that people use
}) {
	read.by, read.called = map[Source]sourceRow{}, map[string]Source{}
	for _, row := range table.Reference("sources", sourcesText, "kind", "rank", "words", "called",
		"source") {
		rank, err := strconv.Atoi(row[1])
		if err != nil {
			panic("sources.tsv: " + row[1])
		}
		read.order = append(read.order, Source(row[0]))
		read.by[Source(row[0])] = sourceRow{rank, row[2]}
		for word := range strings.SplitSeq(row[3], ", ") {
			read.called[word] = Source(row[0])
		}
	}
	return read
})

// Sources lists the kinds of sources, the strongest first.
func Sources() []Source { return slices.Clone(sources().order) }

// SourceCalled finds the kind of source by a word that people use for it, as plate or bios.
func SourceCalled(word string) (Source, bool) {
	s, known := sources().called[strings.ToLower(word)]
	return s, known && word != ""
}

// Words say the kind in a sentence.
func (s Source) Words() string { return sources().by[s].words }

// IsKnown reports whether it is one of the kinds.
func (s Source) IsKnown() bool { _, known := sources().by[s]; return known }

// IsFound reports whether it tells of the thing itself: somebody found it, or the thing said it.
func (s Source) IsFound() bool { return sources().by[s].rank >= found }

// Rank is how much a kind of source weighs, from 0 to 5.
func (s Source) Rank() int { return sources().by[s].rank }

func (s Source) rank() (int, bool) {
	row, known := sources().by[s]
	return row.rank, known
}

func sourceNames() string {
	names := []string{}
	for _, s := range sources().order {
		names = append(names, string(s))
	}
	return strings.Join(names, ", ")
}
