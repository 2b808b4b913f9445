package known

import (
	_ "embed"
	"slices"
	"strings"
	"sync"
	"unicode"

	"frugalheron/core/table"
)

//go:embed ordinary.tsv
var ordinaryText string

var ordinary = sync.OnceValue(func() map[string]bool {
	words := map[string]bool{}
	for _, row := range table.Reference("ordinary words", ordinaryText, "words", "source") {
		for word := range strings.FieldsSeq(row[0]) {
			words[word] = true
		}
	}
	return words
})

// wordsOf are the words of a text without regard to case and signs, with blanks around each.
func wordsOf(text string) string {
	words := strings.FieldsFunc(strings.ToLower(text),
		func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsDigit(r) })
	return " " + strings.Join(words, " ") + " "
}

// Distinctive reports whether printed words tell a thing from others: one of them is no ordinary word, and no figure.
func Distinctive(printed string) bool {
	for word := range strings.FieldsSeq(wordsOf(printed)) {
		if len([]rune(word)) > 2 && !ordinary()[word] && strings.Trim(word, "0123456789") != "" && !isAmount(word) {
			return true
		}
	}
	return false
}

// isAmount reports whether a word is a figure with a unit behind it, as 384kb.
func isAmount(word string) bool {
	unit := strings.TrimLeft(word, "0123456789")
	return unit != word && ordinary()[unit]
}

// Patterns are the longest words of what is printed on it: what is to be recognised by a phrase has its longest word.
func (r Record) Patterns() []string {
	longest := []string{}
	for _, printed := range r.Words {
		words := strings.Fields(wordsOf(printed))
		longest = append(longest, slices.MaxFunc(words, func(a, b string) int { return len(a) - len(b) }))
	}
	return longest
}

// Names says by what something would be recognised that somebody calls so: by its number, by words that tell it from
// others, or, empty, by nothing.
func Names(subject string) By {
	hasFigure := strings.ContainsAny(subject, "0123456789")
	switch {
	case hasFigure && len(strings.Fields(subject)) <= mostWordsOfNumber && len(Fold(subject)) >= shortNumber:
		return ByNumber
	case Distinctive(subject):
		return ByWords
	}
	return ""
}

// mostWordsOfNumber is how many words a part number is written in at most, as ASSY NO 4410 2 B. A rule of thumb.
const mostWordsOfNumber = 5
