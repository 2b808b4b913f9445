package names

import (
	"slices"
	"strings"
	"unicode/utf8"
)

// Names of more words are looked for in the order in which they are written, and with the last word first.
const mostShuffled = 4

// leastJoined is how many letters a name has at least that is looked for written as one word.
const leastJoined = 6

// waysToWrite lists the ways in which a person's name may be written, as folded words, none twice.
func waysToWrite(p Person) [][]string {
	ways := [][]string{}
	seen := map[string]bool{}
	add := func(words []string) {
		key := strings.Join(words, " ")
		if len(words) == 0 || seen[key] || utf8.RuneCountInString(strings.Join(words, "")) < LeastLetters {
			return
		}
		seen[key] = true
		ways = append(ways, words)
	}
	for i, spelling := range append([]string{p.Name}, p.Spellings...) {
		words := []string{}
		for _, w := range wordsOf(spelling) {
			words = append(words, w.folded)
		}
		sets := [][]string{words}
		if i == 0 {
			sets = append(sets, shortened(words)...)
		}
		for _, set := range sets {
			for _, ordered := range orders(set) {
				add(ordered)
				if joined := strings.Join(ordered, ""); len(ordered) > 1 &&
					utf8.RuneCountInString(joined) >= leastJoined {
					add([]string{joined})
				}
			}
		}
	}
	return ways
}

// shortened lists a name with some of the given names as initials, or left out; the last word is the family name, and
// at least one given name stays in some form.
func shortened(words []string) [][]string {
	if len(words) < 2 || len(words) > mostShuffled {
		return nil
	}
	sets := [][]string{{}}
	for _, given := range words[:len(words)-1] {
		initial, _ := utf8.DecodeRuneInString(given)
		longer := [][]string{}
		for _, set := range sets {
			longer = append(longer, append(slices.Clone(set), given), append(slices.Clone(set), string(initial)), set)
		}
		sets = longer
	}
	named := [][]string{}
	for _, set := range sets {
		if len(set) > 0 {
			named = append(named, append(slices.Clone(set), words[len(words)-1]))
		}
	}
	// Initials without anything between them, as JT Penhallow.
	if initials := initialsOf(words[:len(words)-1]); len(words) > 2 {
		named = append(named, []string{initials, words[len(words)-1]})
	}
	return named
}

func initialsOf(words []string) string {
	initials := ""
	for _, w := range words {
		r, _ := utf8.DecodeRuneInString(w)
		initials += string(r)
	}
	return initials
}

// orders lists the orders in which words may stand.
func orders(words []string) [][]string {
	if len(words) < 2 {
		return [][]string{words}
	}
	if len(words) > mostShuffled {
		last := len(words) - 1
		return [][]string{words, append([]string{words[last]}, words[:last]...)}
	}
	all := [][]string{}
	for i, first := range words {
		rest := slices.Delete(slices.Clone(words), i, i+1)
		for _, order := range orders(rest) {
			all = append(all, append([]string{first}, order...))
		}
	}
	return all
}

// Hints lists, in small letters, a word for each way in which the persons may be written: a text in plain letters that
// holds none of them, not even inside another word, names none of them.
func Hints(persons []Person) []string {
	hints := []string{}
	seen := map[string]bool{}
	for _, p := range persons {
		for _, words := range waysToWrite(p) {
			longest := slices.MaxFunc(words, func(a, b string) int { return len(a) - len(b) })
			if !seen[longest] {
				seen[longest] = true
				hints = append(hints, longest)
			}
		}
	}
	return hints
}

// CanBeFound reports whether a way of writing a name has letters enough to be looked for.
func CanBeFound(spelling string) bool {
	letters := 0
	for _, w := range wordsOf(spelling) {
		letters += utf8.RuneCountInString(w.folded)
	}
	return letters >= LeastLetters
}
