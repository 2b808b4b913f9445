// Package identifier answers: which words of a text are numbers that tell one thing from all others, and do two of them
// name the same?
package identifier

import (
	"regexp"
	"strings"
)

// Key is what two spellings of one identifier have in common: letters and figures in upper case. O and 0, I and 1 stay
// apart, as they do on plates.
func Key(value string) string {
	return strings.Map(func(r rune) rune {
		if r >= '0' && r <= '9' || r >= 'A' && r <= 'Z' {
			return r
		}
		return -1
	}, strings.ToUpper(value))
}

// A word that announces an identifier, and what follows: letters and figures, in groups that a hyphen, a
// point, a stroke or a colon joins.
var announced = regexp.MustCompile(
	`(?i)\b(?:serial|ser\.|s/n|s\.n\.|inventory|inv\.|asset|property|hardware address)(?:[ \t]+(?:number|numbers|no|nr|tag))*\.?[ \t]*[:#=]?[ \t]*([a-z0-9]+(?:[-./:][a-z0-9]+)*)`)

var hasFigure = regexp.MustCompile(`[0-9]`)

// mostNumbers bounds what is taken out of one text.
const mostNumbers = 40

// In finds the identifiers that a text announces, as "serial no. TV2-00817" or "S/N: 4711", in
// order and each once. A rule of thumb: a number that nothing announces is not found, since a bill is
// full of amounts, dates and part numbers that identify nothing.
func In(text string) []string {
	found := []string{}
	seen := map[string]bool{}
	for _, match := range announced.FindAllStringSubmatch(text, -1) {
		number := match[1]
		if key := Key(number); Telling(key) && hasFigure.MatchString(number) && !seen[key] {
			seen[key] = true
			found = append(found, number)
		}
		if len(found) == mostNumbers {
			break
		}
	}
	return found
}

// Telling reports whether a key is long enough for records to be compared by it: short ones are met
// everywhere. Four letters and figures; a rule of thumb.
func Telling(key string) bool { return len(key) >= 4 }
