package action

import (
	"fmt"
	"slices"
	"strings"
)

// Wording says what was done to a subject, from which state to which.
type Wording func(subject string, before, after Fields) string

// Fields are what an event kept of a record, by name.
type Fields = map[string]any

// fieldWords says fields by the words that forms use, in the order of the alphabet.
var fieldWords = map[string]string{
	"accession": "accession number", "eraFrom": "parts from", "eraTo": "parts to", "rev": "revision",
	"part":   "part number",
	"serial": "serial number", "fit": "fitted", "purpose": "memory is for", "title": "name",
	"clockMHz":         "rated clock, MHz",
	"typicalMilliamps": "current, mA", "function": "what it does",
	"priceCents": "price, cents", "estimateCents": "estimate, cents", "valueCents": "value, cents",
	"handCents": "share, cents", "usedFor": "used for",
	"partyId": "party", "pictureId": "picture", "statedOn": "said on", "decidedBy": "decided by",
	"decidedOn": "decided on", "doneOn": "carried out on",
	"accessionPattern": "pattern of accession numbers", "staffOnly": "for staff only", "cameWith": "came with",
	"passedOn": "passed on",
}

// Changes says which fields differ, and how, in the words of forms; "nothing" for none.
func Changes(before, after Fields) string {
	parts := []string{}
	for field, now := range after {
		was := before[field]
		if fmt.Sprint(was) == fmt.Sprint(now) {
			continue
		}
		name := fieldWords[field]
		if name == "" {
			name = field
		}
		parts = append(parts, fmt.Sprintf("%s from %s to %s", name, OrNothing(was), OrNothing(now)))
	}
	if len(parts) == 0 {
		return "nothing"
	}
	slices.Sort(parts)
	return strings.Join(parts, "; ")
}

// OrNothing is a value in words, "nothing" for an empty one.
func OrNothing(value any) string {
	if value == nil || value == "" {
		return "nothing"
	}
	return fmt.Sprint(value)
}

// OrEmpty is a value in words, empty for none.
func OrEmpty(value any) string {
	if value == nil {
		return ""
	}
	return fmt.Sprint(value)
}

// Said is a value in words behind some words, and empty where there is none.
func Said(before string, value any) string {
	if value == nil || value == "" {
		return ""
	}
	return fmt.Sprint(before, value)
}
