// Package population answers: may memory modules stand in these sockets so, and which populations are near that may, or
// hold as much as is wanted, from what is fitted and in stock, or bought?
package population

import (
	"bytes"
	"encoding/json"

	"frugalheron/core/malformed"
)

// Bank is a group of sockets that are filled together.
type Bank struct {
	ID      string   `json:"id"`
	Sockets []string `json:"sockets"`
	After   *string  `json:"after"` // the bank that is filled before it; null for none
}

// Row is a population that the maker allows.
type Row struct {
	Fill    map[string]*string `json:"fill"` // size by bank; those that are missing or null are empty
	Bytes   int64              `json:"bytes"`
	Jumpers map[string]any     `json:"jumpers"`
}

// Depth is how deep a chip the board addresses.
type Depth struct {
	Words int `json:"words"`
}

// Rules are what a machine asks of its modules.
type Rules struct {
	Full         bool   `json:"full"` // a bank is filled in full or not at all
	SameInBank   bool   `json:"sameInBank"`
	Parity       bool   `json:"parity"`
	MaxNs        *int   `json:"maxNs"`
	MaxBytes     *int64 `json:"maxBytes"`
	Organisation *Depth `json:"organisation"`
}

// Stock is modules that lie ready.
type Stock struct {
	Text  string `json:"text"`
	Count int    `json:"count"`
}

// Want is how much memory is wanted: bytes, or the most.
type Want struct {
	Bytes int64
	IsMax bool
}

// UnmarshalJSON takes a number of bytes, or "max".
func (w *Want) UnmarshalJSON(data []byte) error {
	if string(bytes.TrimSpace(data)) == `"max"` {
		*w = Want{IsMax: true}
		return nil
	}
	*w = Want{}
	if err := json.Unmarshal(data, &w.Bytes); err != nil || w.Bytes < 0 {
		return malformed.Named("want", `%s is neither a number of bytes nor "max"`, data)
	}
	return nil
}

// Input is a machine's sockets with what is in them.
type Input struct {
	Banks   []Bank             `json:"banks"`
	Sizes   []string           `json:"sizes"`   // as 1Mx9
	Allowed []Row              `json:"allowed"` // where it is given, nothing else may stand; parity and speed still hold
	Rules   Rules              `json:"rules"`
	Fitted  map[string]*string `json:"fitted"` // text of a module by socket
	Stock   []Stock            `json:"stock"`
	Want    *Want              `json:"want"` // null asks for the nearest populations that may stand
}

// Rule names what is broken.
type Rule string

// What can be broken.
const (
	Full         Rule = "full"
	Order        Rule = "order"
	Mixed        Rule = "mixed"
	Size         Rule = "size"
	Parity       Rule = "parity"
	Speed        Rule = "speed"
	Max          Rule = "max"
	Organisation Rule = "organisation"
	NotAllowed   Rule = "not-allowed"
)

// Broken is a rule that does not hold, with the sockets that break it.
type Broken struct {
	Rule    Rule     `json:"rule"`
	Sockets []string `json:"sockets"`
	Why     string   `json:"why"`
}

// Buy is modules that would have to be bought.
type Buy struct {
	Size  string `json:"size"`
	Count int    `json:"count"`
}

// Plan is a population that may stand.
type Plan struct {
	Sockets map[string]*string `json:"sockets"` // null where one is empty; a bought module stands as its size
	Bytes   int64              `json:"bytes"`
	Jumpers map[string]any     `json:"jumpers"`
	Changes int                `json:"changes"` // sockets that are not as they are now
	Buy     []Buy              `json:"buy"`
}

// Output is how it stands, and what could stand instead.
type Output struct {
	Legal  bool     `json:"legal"`
	Bytes  int64    `json:"bytes"` // of all that is fitted, legal or not
	Broken []Broken `json:"broken"`
	Plans  []Plan   `json:"plans"` // at most three
	Why    string   `json:"why"`   // why there is no plan
}

// mostPlans is how many are told.
const mostPlans = 3
