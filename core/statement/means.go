package statement

import (
	"fmt"
	"strings"

	"frugalheron/core/reckoning"
)

// MeansAPart reports whether a line, reckoned alone, says what a part is in words that the library or the house knows: a
// type, a value, that nothing is there, or that nobody could read it.
func MeansAPart(alone reckoning.Result) bool {
	for _, assembly := range alone.Assemblies {
		for _, e := range assembly.Entries {
			isValue := e.Kind != reckoning.Chip && e.Kind != reckoning.Other &&
				strings.ContainsAny(e.Marking, "0123456789")
			isSaid := len(e.Designators) > 0 && isPosition(e.Designators[0], e.Marking)
			if e.Type != nil || e.Empty || isValue || isSaid || strings.Contains(e.Marking, "?") {
				return true
			}
		}
	}
	return false
}

// readsBetter reports whether words say a marking of which characters were doubtful, each with a ? behind it or in its place.
func readsBetter(doubtful, words []string) bool {
	bare := func(words []string) []rune { return []rune(strings.ToUpper(strings.Join(words, " "))) }
	was, now := bare(doubtful), bare(words)
	for at := 0; at < len(was); at++ {
		switch {
		case len(now) > 0 && was[at] == now[0]:
			now = now[1:]
		case was[at] == '?': // instead of the character, or behind the one that is doubtful
			if at+1 < len(was) && len(now) > 1 && was[at+1] == now[1] {
				now = now[1:]
			}
		case at+1 < len(was) && was[at+1] == '?' && len(now) > 0: // another one than was read
			now = now[1:]
		default:
			return false
		}
	}
	return len(now) == 0
}

// WhyNot is why what was said cannot be put on a sheet as it was placed there, and what to say instead; empty where it can.
// Alone is its line, reckoned by itself. A word that means nothing never takes the place of a marking.
func WhyNot(s Statement, p Placement, alone reckoning.Result) string {
	if s.Happened != nil {
		for _, problem := range alone.Problems {
			return problem.Message
		}
		return ""
	}
	was := lineOf(p.Replaces)
	saysWhatItIs := was != nil && !was.Empty && !was.Unknown && len(was.Words) > 0
	if !saysWhatItIs || MeansAPart(alone) || was.Doubtful && readsBetter(was.Words, s.Entry.Words) {
		return ""
	}
	return fmt.Sprintf("%s is %s there, and %q is no marking that is known. If another part sits there now, say %s "+
		"replaced by ...; else change the line in the sheet", s.Entry.Written, strings.Join(was.Words, " "),
		strings.Join(s.Entry.Words, " "), s.Entry.Written)
}
