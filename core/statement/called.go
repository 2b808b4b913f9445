package statement

import (
	"slices"
	"strings"
)

// kindsCalled are the words by which people call the one part of a kind that a machine has, and the kind in sheets.
var kindsCalled = map[string]string{"battery": "battery", "cell": "battery", "fuse": "fuse", "fan": "fan",
	"crystal": "crystal", "speaker": "speaker", "loudspeaker": "speaker"}

// doneTo are words that may stand before what something is done to: removed the battery, new battery.
var doneTo = []string{"new", "removed", "replaced", "cleaned", "took out", "taken out", "changed", "swapped", "pulled"}

// Held is a part that stands on a sheet.
type Held struct {
	Kind   string // as the reckoning tells it, as battery
	Places string // designators, with blanks between
}

// ByDesignator puts the designator of a part in the place of its kind, where one of that kind is held: the battery is out.
// Otherwise the words stay as they are.
func ByDesignator(text string, held []Held) string {
	kind, said, ok := Called(text)
	if !ok {
		return text
	}
	places := []string{}
	for _, p := range held {
		if p.Kind == kind {
			places = append(places, strings.Fields(p.Places)...)
		}
	}
	if len(places) != 1 {
		return text
	}
	return places[0] + " " + said
}

// Called reads words that call a part by its kind instead of its designator, as the battery is out, or new battery CR2032:
// the kind, and what is said of it.
func Called(text string) (kind, said string, ok bool) {
	words := strings.Fields(text)
	done := ""
	for _, phrase := range doneTo {
		n := len(strings.Fields(phrase))
		if len(words) > n && strings.EqualFold(strings.Join(words[:n], " "), phrase) {
			done, words = phrase, words[n:]
			break
		}
	}
	for len(words) > 0 && slices.Contains([]string{"the", "its", "a", "old"}, strings.ToLower(words[0])) {
		words = words[1:]
	}
	if len(words) == 0 {
		return "", "", false
	}
	kind, ok = kindsCalled[bare(words[0])]
	said = strings.TrimSpace(done + " " + strings.Join(words[1:], " "))
	return kind, said, ok && said != ""
}
