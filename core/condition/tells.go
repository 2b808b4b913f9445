package condition

import (
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// Words are what a sheet says of a part.
type Words struct {
	Kind     string // of the reckoning: capacitor, battery, chip
	Class    string // of its type in the library: eprom, dram
	Marking  string
	Places   []string // designators
	Socketed bool
	Board    string // what the board is called that it is on
}

var (
	safetyClass = regexp.MustCompile(`(?i)(^|\s)[XY][1-4](\s|$)`)
	inMicro     = regexp.MustCompile(`(?i)(\d+(?:\.\d+)?)\s?[uµμ]f?`)
	adjusts     = regexp.MustCompile(`(?i)^(VR|RV)\d`) // designators of what is turned
	unpolar     = regexp.MustCompile(`(?i)\b(film|ceramic|paper|mica|polyester|mlcc)\b`)
)

// electrolyticFrom is from how many microfarads a capacitor is an electrolytic unless its marking says
// otherwise. A rule of thumb: others of that size were rare.
const electrolyticFrom = 1.0

// Tells says what sort of part it is, in the words by which subsystems and ageing classes are told.
func Tells(w Words) string {
	words := []string{w.Kind}
	lower := strings.ToLower(w.Marking)
	if w.Kind == "capacitor" {
		switch {
		case safetyClass.MatchString(w.Marking):
			words = append(words, "safety capacitor")
		case strings.Contains(lower, "tantalum"):
		case strings.Contains(lower, "electrolytic"), isLarge(w.Marking) && !unpolar.MatchString(w.Marking):
			words = append(words, "electrolytic capacitor")
		}
	}
	if slices.ContainsFunc(w.Places, adjusts.MatchString) {
		words = append(words, "adjuster")
	}
	if w.Class != "" {
		words = append(words, w.Class)
	}
	if w.Socketed {
		words = append(words, "socketed")
	}
	return strings.Join(append(words, w.Marking), " ")
}

func isLarge(marking string) bool {
	m := inMicro.FindStringSubmatch(marking)
	if m == nil {
		return false
	}
	value, err := strconv.ParseFloat(m[1], 64)
	return err == nil && value >= electrolyticFrom
}
