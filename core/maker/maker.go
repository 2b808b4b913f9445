// Package maker answers what is told of those who made machines and parts: from when to when, and how one
// stands to others. It is written a line each:
//
//	renamed | Brackwater Systems | 1986 | letterheads
//	made for | Quennell Systems | 1983/1985 | plate on EH-0155
package maker

import (
	"errors"
	"fmt"
	"strings"

	"frugalheron/core/edtf"
)

// Ties are how a maker can stand to another, with how that is said.
func Ties() map[string]string {
	return map[string]string{
		"renamed": "was renamed", "made for": "made machines for", "made by": "had machines made by",
		"licensed to":   "licensed its machines to",
		"licensed from": "made machines under licence of", "joint": "had a firm together with",
		"part of": "was a part of", "bought": "bought",
	}
}

// Tie is how a maker stands to another.
type Tie struct {
	Line   int    `json:"line"`
	Kind   string `json:"kind"`
	Other  string `json:"other"`
	When   string `json:"when"` // EDTF, or empty
	Source string `json:"source" says:"text"`
	Words  string `json:"words"` // the whole of it, as a sentence goes on
}

// Parse reads ties, a line each: kind, the other's name, when, and how one knows.
func Parse(text string) ([]Tie, error) {
	ties := []Tie{}
	for i, line := range strings.Split(text, "\n") {
		if strings.TrimSpace(line) == "" {
			continue
		}
		tie, err := readTie(line)
		if err != nil {
			return nil, fmt.Errorf("line %d: %w", i+1, err)
		}
		tie.Line = i + 1
		ties = append(ties, tie)
	}
	return ties, nil
}

func readTie(line string) (Tie, error) {
	cells := strings.Split(line, "|")
	for i := range cells {
		cells[i] = strings.Join(strings.Fields(cells[i]), " ")
	}
	cells = append(cells, "", "", "")
	tie := Tie{Kind: strings.ToLower(cells[0]), Other: cells[1], When: cells[2], Source: cells[3]}
	words, ok := Ties()[tie.Kind]
	switch {
	case !ok:
		return tie, fmt.Errorf(
			"%q is no tie; use one of renamed, made for, made by, licensed to, licensed from, joint, part of, bought",
			cells[0])
	case tie.Other == "":
		return tie, errors.New("name the other behind a stroke, as: renamed | Brackwater Systems | 1986")
	}
	if tie.When != "" {
		d, err := edtf.Parse(tie.When)
		if err != nil {
			return tie, fmt.Errorf("when: %w", err)
		}
		tie.When = d.String()
	}
	tie.Words = words + " " + tie.Other
	if tie.When != "" {
		tie.Words += ", " + tie.When
	}
	return tie, nil
}
