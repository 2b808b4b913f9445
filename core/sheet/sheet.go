// Package sheet answers: what did somebody write down about a board? It reads the plain text
// in which boards are transcribed into records, names what is wrong with line and column, and
// writes records back as text.
//
//	== Main board | part 4410-2 | rev C
//	U40-U48    41256-15 8512                 a run: nine chips
//	U20,U22    27128-25 8533 @socket         a list; socketed
//	U30        ?                             unreadable
//	8x         4164-15                       parts without designators
//	BT1        NiCd 3.6V 60mAh !leaking: green crust on the anode
//	C9         100uF 16V new:2021 !high esr 12 ohm
//
// What the words mean (which chip, how much memory) is not decided here.
package sheet

import (
	"errors"
)

// Limits of a sheet.
const (
	MaxBytes      = 1 << 20 // of text
	MaxRun        = 4096    // parts on one line
	MaxSheetParts = 200_000 // parts on all lines together
)

// Sheet is a transcription: assemblies in the order written, and the problems met.
type Sheet struct {
	Assemblies []Assembly
	Problems   []Problem
}

// Assembly is one board or other unit: its heading and the lines below it. Lines above the
// first heading belong to an assembly without heading.
type Assembly struct {
	Heading *Heading
	Lines   []Line
}

// Heading opens an assembly.
type Heading struct {
	Line       int
	Title      string
	Attributes []Attribute
	Comment    string // with its leading #, or empty
}

// Attribute is a key of a heading with its value, as "rev" and "C".
type Attribute struct {
	Key, Value string
}

// Value returns the value of an attribute, or nothing when the heading does not have it.
func (h *Heading) Value(key string) string {
	if h == nil {
		return ""
	}
	for _, a := range h.Attributes {
		if a.Key == key {
			return a.Value
		}
	}
	return ""
}

// Line is a line below a heading. It holds an entry, or is kept as text: a comment, an empty
// line, a line with a problem, or one without designator.
type Line struct {
	Number int
	Text   string // as written, without line end
	Entry  *Entry
}

// Entry is what one line says about one part, or about several equal ones.
type Entry struct {
	Line        int
	Written     string   // designators or count as written, as "U40-U48" or "8x"
	Designators []string // every one of a run or list; empty for counted parts
	Count       int
	Words       []string // the marking and what else is said, verbatim
	Unknown     bool     // a single ? stands among the words: nobody identified the part
	Doubtful    bool     // a word has a ? for a character that could not be read with certainty
	Socketed    bool
	Soldered    bool
	Empty       bool // a socket without its part
	Purpose     Purpose
	New         string // since when the part is new, in EDTF; empty for one that came with the board or is not told
	Findings    []Mark
	Comment     string // with its leading #, or empty
}

// Mark is something the eye met on a part: a kind, and a note when one was written.
type Mark struct {
	Kind string `json:"kind" says:"finding" doc:"A known kind, as leaking or high esr, or else the words up to a colon or the first word"`
	Note string `json:"note" says:"text" doc:"What stands behind the kind"`
}

// Purpose says what memory is for.
type Purpose string

// Purposes. The zero value leaves it to the heading, and to main when that is silent too.
const (
	Unsaid  Purpose = ""
	Main    Purpose = "main"
	Picture Purpose = "picture"
	Cache   Purpose = "cache"
	Shared  Purpose = "shared"
	Card    Purpose = "card"
	Parity  Purpose = "parity" // the chips of the line hold parity, not data
)

func purposeOf(word string) (Purpose, bool) {
	switch p := Purpose(word); p {
	case Main, Picture, Cache, Shared, Card, Parity:
		return p, true
	}
	return Unsaid, false
}

// Problem is something wrong on a line. Line and column count from 1; columns in UTF-16 units,
// as editors count.
type Problem struct {
	Line    int    `json:"line"`
	Column  int    `json:"column" doc:"Counted from 1 in UTF-16 units"`
	Message string `json:"message" doc:"What is wrong and what to do"`
}

// Reasons to refuse a text as a whole.
var (
	ErrTooLong = errors.New("the sheet is too long")
	ErrNotText = errors.New("the sheet is not plain UTF-8 text")
)
