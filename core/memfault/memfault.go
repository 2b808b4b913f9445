// Package memfault answers: which chip is that error? It leads the lines of a memory test to chips, data lines, the
// select of a bank, an address line, or what all of them share.
package memfault

import (
	"encoding/json"
	"fmt"
	"strconv"
	"strings"

	"frugalheron/core/word"
)

// Figure is a value or an address: in JSON a number, or a string as 0x1F000.
type Figure uint64

// UnmarshalJSON takes either.
func (f *Figure) UnmarshalJSON(data []byte) error {
	text := string(data)
	if strings.HasPrefix(text, `"`) {
		if err := json.Unmarshal(data, &text); err != nil {
			return err
		}
		value, err := word.Parse(text)
		*f = Figure(value)
		return err
	}
	value, err := strconv.ParseUint(text, 10, 64)
	if err != nil {
		return fmt.Errorf("%s is no whole number from 0 up; write it so, or as \"0x1F000\"", text)
	}
	*f = Figure(value)
	return nil
}

// Bank is a run of addresses whose words sit in chips side by side.
type Bank struct {
	ID    string            `json:"id"`
	Base  Figure            `json:"base"` // its first address
	Size  Figure            `json:"size"` // in the unit of addresses
	Chips map[string]string `json:"chips"`
}

// Failure is a line of a memory test: what was there instead of what, or the syndrome that the error correction told.
type Failure struct {
	Address  Figure  `json:"address"`
	Expected *Figure `json:"expected"`
	Actual   *Figure `json:"actual"`
	Syndrome *string `json:"syndrome"` // hexadecimal, with or without 0x
}

// Input is what is judged.
type Input struct {
	Banks     []Bank         `json:"banks"`
	Failures  []Failure      `json:"failures"`
	Syndromes map[string]int `json:"syndromes"` // the failing bit by syndrome, in hexadecimal without prefix
}

// Kind says what is suspected.
type Kind string

// What can be at fault, in the order in which equal suspects are told.
const (
	Common      Kind = "common" // clock, supply, controller
	AddressLine Kind = "address-line"
	BankSelect  Kind = "bank-select"
	DataLine    Kind = "data-line"
	Chip        Kind = "chip"
)

// Suspect is what would explain failures.
type Suspect struct {
	Designator string  `json:"designator,omitempty" doc:"Of a chip"`
	Group      string  `json:"group,omitempty" says:"text" doc:"Of what is no chip: D3, A7, the name of a bank, common"`
	Kind       Kind    `json:"kind" enum:"common,address-line,bank-select,data-line,chip"`
	Share      float64 `json:"share" doc:"Of the failing bits of banks that it explains; of a hint how far it is from being sure"`
	Why        string  `json:"why" says:"text"`
}

// Useless is a line that leads nowhere.
type Useless struct {
	Line int    `json:"line" doc:"From 1"`
	Why  string `json:"why" says:"text"`
}

// Output is what the lines lead to.
type Output struct {
	Suspects []Suspect `json:"suspects"` // those that explain most first
	Unplaced int       `json:"unplaced"` // lines with a syndrome that nobody knows
	Problems []Useless `json:"problems"`
}

// Judge leads the failures to suspects. An input that cannot be is refused by its place.
func Judge(in Input) (Output, error) {
	c, err := newCase(in)
	if err != nil {
		return Output{}, err
	}
	out := Output{Suspects: []Suspect{}, Problems: []Useless{}}
	for i, f := range in.Failures {
		if why := c.place(f, &out.Unplaced); why != "" {
			out.Problems = append(out.Problems, Useless{i + 1, why})
		}
	}
	if len(c.pairs) > 0 {
		out.Suspects = c.suspects()
	}
	return out, nil
}
