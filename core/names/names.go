// Package names answers: does a text name a person, however the name is written there, and what does the text say
// with the person's role in place of the name?
//
// Names are compared word by word, at the edges of words. Capitals, accents, full-width letters, invisible
// characters, hyphens, line breaks, the order of given and family names, and initials make no difference.
package names

import (
	"cmp"
	"slices"
	"strings"
	"unicode/utf8"
)

// LeastLetters is how many letters a way of writing a name has at least: shorter ones stand in too many words.
const LeastLetters = 3

// Person is somebody whose name is looked for.
type Person struct {
	ID        int64
	Name      string
	Spellings []string // other ways in which the name is written
	Role      string   // what stands in place of the name
}

// Mention is a place in a text that names a person, in bytes.
type Mention struct {
	Start, End int
	Person     int64
	role       string
}

// Matcher looks for persons. The zero value knows none.
type Matcher struct {
	patterns map[string][]pattern // by their first word, the longest first
}

// pattern is a way of writing a name, as folded words.
type pattern struct {
	words  []string
	person int64
	role   string
}

// New prepares a matcher.
func New(persons []Person) *Matcher {
	m := &Matcher{patterns: map[string][]pattern{}}
	for _, p := range persons {
		for _, words := range waysToWrite(p) {
			m.patterns[words[0]] = append(m.patterns[words[0]], pattern{words, p.ID, p.Role})
		}
	}
	for _, of := range m.patterns {
		slices.SortStableFunc(of, func(a, b pattern) int { return cmp.Compare(len(b.words), len(a.words)) })
	}
	return m
}

// IsEmpty reports whether the matcher knows nobody.
func (m *Matcher) IsEmpty() bool { return m == nil || len(m.patterns) == 0 }

// Find lists the mentions in a text, from left to right, none inside another.
func (m *Matcher) Find(text string) []Mention {
	if m.IsEmpty() || len(text) < LeastLetters {
		return nil
	}
	var found []Mention
	words := wordsOf(text)
	for i := 0; i < len(words); {
		n, p := m.longestAt(text, words[i:])
		if n == 0 {
			i++
			continue
		}
		found = append(found, Mention{words[i].start, endOf(text, words[i:i+n]), p.person, p.role})
		i += n
	}
	return found
}

// longestAt finds the longest pattern that words start with, and how many of them it takes; 0 for none.
func (m *Matcher) longestAt(text string, words []word) (int, pattern) {
next:
	for _, p := range m.patterns[words[0].folded] {
		if len(p.words) > len(words) {
			continue
		}
		for i := 1; i < len(p.words); i++ {
			if words[i].folded != p.words[i] || !isGap(text[words[i-1].end:words[i].start]) {
				continue next
			}
		}
		return len(p.words), p
	}
	return 0, pattern{}
}

// closing are the signs that belong to one before the last word of a name.
var closing = map[rune]string{'(': ")", '[': "]", '"': "\"", '“': "”", '„': "“"}

// endOf is where a name ends: behind the point of an initial, and the bracket around a given name.
func endOf(text string, name []word) int {
	last := name[len(name)-1]
	end := last.end
	if len(last.folded) == 1 && strings.HasPrefix(text[end:], ".") {
		end++
	}
	if len(name) > 1 {
		opened, _ := utf8.DecodeLastRuneInString(text[:last.start])
		if sign := closing[opened]; sign != "" && strings.HasPrefix(text[end:], sign) {
			end += len(sign)
		}
	}
	return end
}

// Redact writes a text with the role of each person in place of the name; keep says of which mentions not to.
func (m *Matcher) Redact(text string, keep func(Mention) bool) string {
	found := m.Find(text)
	if len(found) == 0 {
		return text
	}
	redacted, done := make([]byte, 0, len(text)), 0
	for _, mention := range found {
		if keep != nil && keep(mention) {
			continue
		}
		redacted = append(redacted, text[done:mention.Start]...)
		redacted = append(redacted, mention.role...)
		// Lines keep their numbers: others speak of them.
		for range strings.Count(text[mention.Start:mention.End], "\n") {
			redacted = append(redacted, '\n')
		}
		done = mention.End
	}
	return string(append(redacted, text[done:]...))
}
