// Package annotation answers which numbers on a picture of a board stand for which lines of its sheet, and draws
// them.
package annotation

import (
	"cmp"
	"slices"
	"strings"

	"frugalheron/core/malformed"
)

// Callout is a number on a picture. Places count from the upper left corner, in parts of the picture's width
// and height.
type Callout struct {
	Designator string  `json:"designator"`
	X          float64 `json:"x"`
	Y          float64 `json:"y"`
}

// Block is a group of callouts that do something together.
type Block struct {
	Name    string   `json:"name" says:"text"`    // what it does: supply, picture, memory, bus
	Members []string `json:"members"`             // designators
	Reaches []string `json:"reaches" says:"text"` // of a block with a processor: the memory that it may reach, by name
}

// Annotation is what is drawn on a picture.
type Annotation struct {
	Callouts []Callout `json:"callouts"`
	Blocks   []Block   `json:"blocks"`
}

// Whole is the annotation with empty lists where there are none.
func (p Annotation) Whole() Annotation {
	whole := Annotation{append([]Callout{}, p.Callouts...), make([]Block, len(p.Blocks))}
	for i, b := range p.Blocks {
		whole.Blocks[i] = Block{b.Name, append([]string{}, b.Members...), append([]string{}, b.Reaches...)}
	}
	return whole
}

// Row puts callouts evenly along a line, the first at its start and the last at its end, as a row of equal
// chips lies on a board.
func Row(designators []string, x1, y1, x2, y2 float64) []Callout {
	row := make([]Callout, len(designators))
	for i, d := range designators {
		part := 0.0
		if len(designators) > 1 {
			part = float64(i) / float64(len(designators)-1)
		}
		row[i] = Callout{d, x1 + part*(x2-x1), y1 + part*(y2-y1)}
	}
	return row
}

// Entry is a line of the sheet.
type Entry struct {
	Line        int      `json:"line"`
	Designators []string `json:"designators"`
	Words       string   `json:"words"`
}

// Numbered is a callout with its number and the line that it stands for.
type Numbered struct {
	Callout
	N     int    `json:"n"`
	Line  int    `json:"line"` // 0 when the sheet has no such designator
	Words string `json:"words"`
}

// Legend is what is printed beside a picture.
type Legend struct {
	Numbered []Numbered `json:"numbered"` // in reading order: from the top, and from the left
	Unplaced []Entry    `json:"unplaced"` // lines of the sheet, with their designators that have no callout
	Strays   []string   `json:"strays"`   // callouts whose designator is not on the sheet
}

// rowHeight is how far apart callouts may lie to count as one row, in parts of the height.
const rowHeight = 0.04

// LegendOf numbers the callouts and lays them beside the sheet.
func LegendOf(p Annotation, entries []Entry) Legend {
	lines, words := map[string]int{}, map[string]string{}
	legend := Legend{Numbered: []Numbered{}, Unplaced: []Entry{}, Strays: []string{}}
	placed := map[string]bool{}
	for _, c := range p.Callouts {
		placed[c.Designator] = true
	}
	for _, e := range entries {
		left := Entry{e.Line, []string{}, e.Words}
		for _, d := range e.Designators {
			lines[d], words[d] = e.Line, e.Words
			if !placed[d] {
				left.Designators = append(left.Designators, d)
			}
		}
		if len(left.Designators) > 0 {
			legend.Unplaced = append(legend.Unplaced, left)
		}
	}
	ordered := slices.Clone(p.Callouts)
	slices.SortStableFunc(ordered, func(a, b Callout) int {
		return cmp.Or(cmp.Compare(int(a.Y/rowHeight), int(b.Y/rowHeight)), cmp.Compare(a.X, b.X),
			cmp.Compare(a.Designator, b.Designator))
	})
	for i, c := range ordered {
		legend.Numbered = append(legend.Numbered, Numbered{c, i + 1, lines[c.Designator], words[c.Designator]})
		if lines[c.Designator] == 0 {
			legend.Strays = append(legend.Strays, c.Designator)
		}
	}
	return legend
}

// Check refuses callouts outside of the picture, two for one designator, and blocks of callouts that are not
// there.
func Check(p Annotation) error {
	placed, blocks := map[string]bool{}, map[string]bool{}
	for _, c := range p.Callouts {
		switch {
		case strings.TrimSpace(c.Designator) == "":
			return malformed.Of("a callout has no designator")
		case placed[c.Designator]:
			return malformed.Of("%s", c.Designator+" is on the picture twice")
		case !(c.X >= 0 && c.X <= 1 && c.Y >= 0 && c.Y <= 1):
			return malformed.Of("%s", c.Designator+" lies outside of the picture")
		}
		placed[c.Designator] = true
	}
	for _, b := range p.Blocks {
		if strings.TrimSpace(b.Name) == "" || blocks[b.Name] {
			return malformed.Of("an outline needs a name of its own: say what it does")
		}
		blocks[b.Name] = true
	}
	for _, b := range p.Blocks {
		if len(b.Members) == 0 {
			return malformed.Of("%s", b.Name+" holds no callout")
		}
		for _, member := range b.Members {
			if !placed[member] {
				return malformed.Of("%s holds %s, which is not on the picture", b.Name, member)
			}
		}
		for _, reached := range b.Reaches {
			if !blocks[reached] || reached == b.Name {
				return malformed.Of("%s reaches %s, which is no other outline", b.Name, reached)
			}
		}
	}
	return nil
}

// Box is the outline of a block, in parts of the picture.
type Box struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
	W float64 `json:"w"`
	H float64 `json:"h"`
}

// around is the room that an outline leaves round its callouts.
const around = 0.025

// BoxOf is the outline round the members of a block.
func (p Annotation) BoxOf(b Block) Box {
	x1, y1, x2, y2 := 1.0, 1.0, 0.0, 0.0
	for _, c := range p.Callouts {
		if slices.Contains(b.Members, c.Designator) {
			x1, y1, x2, y2 = min(x1, c.X), min(y1, c.Y), max(x2, c.X), max(y2, c.Y)
		}
	}
	x1, y1, x2, y2 = max(0, x1-around), max(0, y1-around), min(1, x2+around), min(1, y2+around)
	return Box{x1, y1, x2 - x1, y2 - y1}
}
