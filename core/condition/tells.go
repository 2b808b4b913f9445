package condition

import (
	"regexp"
	"slices"
	"strconv"
	"strings"

	"frugalheron/core/device"
)

// Words are what a sheet says of a part.
type Words struct {
	Kind     string // of the reckoning: capacitor, battery, chip
	Class    string // of its type in the library: eprom, dram
	Ages     string // how its type ages: a class of ageing parts, or words
	Marking  string
	Places   []string // designators
	Socketed bool
	Board    string // what the board is called that it is on
}

var (
	safetyClass = regexp.MustCompile(`(?i)(^|\s)[XY][1-4](\s|$)`)
	alternating = regexp.MustCompile(`(?i)\b(\d{3})\s?(?:V\s?~|VAC\b|V\s?AC\b|~)`)
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
		case safetyClass.MatchString(w.Marking), isAcrossMains(w.Marking):
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
	if w.Ages != "" {
		words = append(words, strings.ReplaceAll(w.Ages, "-", " "))
	}
	if w.Socketed {
		words = append(words, "socketed")
	}
	return strings.Join(append(words, w.Marking), " ")
}

// mainsFrom is from how many volts of alternating current a capacitor is one that may sit across the mains. A rule of
// thumb: others are marked with direct volts.
const mainsFrom = 250

func isAcrossMains(marking string) bool {
	m := alternating.FindStringSubmatch(marking)
	if m == nil {
		return false
	}
	volts, err := strconv.Atoi(m[1])
	return err == nil && volts >= mainsFrom
}

// TellsOf says the same of words that stand alone, as battery NiCd 3.6V or 12887 8910: their kind is the first of them,
// and numbers of types that are known say what they are.
func TellsOf(library *device.Library, said string) string {
	kind, marking, _ := strings.Cut(strings.TrimSpace(said), " ")
	words := Words{Kind: strings.ToLower(kind), Marking: marking}
	for word := range strings.FieldsSeq(said) {
		if found, ok := library.Recognise(word); ok {
			words.Class, words.Ages = string(found.Type.Class), found.Type.Ages
			break
		}
	}
	return Tells(words) + " " + said
}

func isLarge(marking string) bool {
	m := inMicro.FindStringSubmatch(marking)
	if m == nil {
		return false
	}
	value, err := strconv.ParseFloat(m[1], 64)
	return err == nil && value >= electrolyticFrom
}
