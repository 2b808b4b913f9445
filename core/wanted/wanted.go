// Package wanted answers: is something that is wanted for years in what is offered today, and what is already held of it?
//
// An offer is text of somebody else. What it says is compared word by word: a hit says by which words, and where they are so
// ordinary that they may mean something else, it says so. Nothing is bought by it.
package wanted

import (
	"slices"
	"strings"
	"unicode"
)

// Want is something that is looked for.
type Want struct {
	ID     int64
	What   string
	Alerts []string // words, or several together, by which it is known in offers
}

// Hit is a want that an offer may hold.
type Hit struct {
	WantID int64    `json:"wantId"`
	By     []string `json:"by" says:"text" doc:"Words of the offer by which it is known"`
	Doubt  string   `json:"doubt" says:"text" doc:"Why it may be something else; empty where the words say it plainly"`
}

// Text is a text whose words can be looked for.
type Text struct {
	words  []string
	at     map[string][]int // where each word stands
	joined map[string]bool  // numbers, however they are divided
}

// Bounds of numbers that are found however they are divided: in how many pieces, and from how many characters on.
const (
	mostPieces     = 5
	shortestNumber = 4
)

// TextOf reads a text.
func TextOf(text string) Text {
	t := Text{wordsOf(text), map[string][]int{}, map[string]bool{}}
	for at, word := range t.words {
		t.at[word] = append(t.at[word], at)
		joined := ""
		for _, piece := range t.words[at:min(at+mostPieces, len(t.words))] {
			if joined += piece; len(joined) >= shortestNumber && hasDigit(joined) {
				t.joined[joined] = true
			}
		}
	}
	return t
}

// wordsOf are the words of a text in lower case, without what stands between them. A plural is its singular.
func wordsOf(text string) []string {
	words := strings.FieldsFunc(strings.ToLower(text), func(r rune) bool {
		return !unicode.IsLetter(r) &&
			!unicode.IsDigit(r)
	})
	for i, word := range words {
		words[i] = singular(word)
	}
	return words
}

// shortestPlural is from how many letters on an s at the end is that of several.
const shortestPlural = 4

func singular(word string) string {
	if len(word) < shortestPlural || hasDigit(word) || strings.HasSuffix(word, "ss") {
		return word
	}
	return strings.TrimSuffix(word, "s")
}

func hasDigit(text string) bool { return strings.ContainsFunc(text, unicode.IsDigit) }

// Has reports whether words stand in the text one behind the other. A number may be written together, or with dashes and
// blanks: 4424-1, 4424 1 and 44241 are one.
func (t Text) Has(phrase string) bool {
	want := wordsOf(phrase)
	if len(want) == 0 {
		return false
	}
	for _, at := range t.at[want[0]] {
		if at+len(want) <= len(t.words) && slices.Equal(t.words[at:at+len(want)], want) {
			return true
		}
	}
	return hasDigit(phrase) && t.joined[strings.Join(want, "")]
}

// holds reports whether all terms stand anywhere in the text.
func (t Text) holds(terms []string) bool {
	for _, term := range terms {
		if t.at[term] == nil && !t.Has(term) {
			return false
		}
	}
	return len(terms) > 0
}

// littleWords say nothing about which thing is meant.
var littleWords = []string{"a", "an", "the", "of", "for", "with", "and", "or", "to", "in", "from", "any", "its",
	"original",
	"old", "new", "spare", "working", "complete"}

// telling are the terms of a text that say which thing is meant, numbers as they are written.
func telling(what string) []string {
	terms := []string{}
	for _, term := range strings.Fields(what) {
		words := wordsOf(term)
		switch {
		case len(words) == 0, len(words) == 1 && slices.Contains(littleWords, words[0]):
		case len(words) == 1:
			terms = append(terms, words[0])
		default:
			terms = append(terms, term)
		}
	}
	return terms
}

// isOrdinary reports whether words may mean anything: a single one without a figure.
func isOrdinary(phrase string) bool { return len(telling(phrase)) < 2 && !hasDigit(phrase) }

// Find tells which wants an offer may hold, in their order.
func (t Text) Find(wants []Want) []Hit {
	hits := []Hit{}
	for _, w := range wants {
		hit := Hit{WantID: w.ID, By: []string{}}
		isPlain := false
		for _, alert := range w.Alerts {
			if t.Has(alert) {
				hit.By = append(hit.By, strings.TrimSpace(alert))
				isPlain = isPlain || !isOrdinary(alert)
			}
		}
		if words := telling(w.What); t.holds(words) {
			hit.By = append(hit.By, w.What)
			isPlain = isPlain || t.Has(w.What) && !isOrdinary(w.What)
		}
		if len(hit.By) == 0 {
			continue
		}
		if !isPlain {
			hit.Doubt = "its words are there, but not together, or so ordinary that they may mean something else"
		}
		hits = append(hits, hit)
	}
	return hits
}

// Named is something that is held, or was once bought, by what it is called.
type Named struct {
	Name  string
	Count int
}

// Met is something of the kind that an offer names.
type Met struct {
	Name  string `json:"name" says:"text"`
	Count int    `json:"count"`
	Doubt string `json:"doubt" says:"text" doc:"Why it may be something else; empty where the name is plain"`
}

// Held tells what an offer names of what is held.
func (t Text) Held(held []Named) []Met {
	met := []Met{}
	for _, one := range held {
		if len(wordsOf(one.Name)) == 0 || !t.Has(one.Name) {
			continue
		}
		m := Met{Name: one.Name, Count: one.Count}
		if isOrdinary(one.Name) {
			m.Doubt = "an ordinary word: it may mean something else"
		}
		met = append(met, m)
	}
	return met
}

// IsLike reports whether what was once offered or bought is of the kind of an offer: all its telling words stand in it, and
// they are not ordinary.
func (t Text) IsLike(what string) bool { return !isOrdinary(what) && t.holds(telling(what)) }
