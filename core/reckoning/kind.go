package reckoning

import (
	_ "embed"
	"regexp"
	"slices"
	"strings"
	"unicode"

	"frugalheron/core/device"
	"frugalheron/core/marking"
	"frugalheron/core/sheet"
	"frugalheron/core/table"
)

//go:embed designators.tsv
var designatorTable string

// kindByLetters holds what the letters of a designator suggest.
var kindByLetters = func() map[string]Kind {
	kinds := map[string]Kind{}
	for _, cells := range table.Reference("designators", designatorTable, "letters", "kind", "source") {
		kinds[cells[0]] = Kind(cells[1])
	}
	return kinds
}()

var (
	plainNumber = regexp.MustCompile(`^\d+([.,]\d+)?$`)
	capacitance = regexp.MustCompile(`(?i)^\d*[.,]?\d+\s?[pnuµμm]f?(\d|/|$)`)
	pinPosition = regexp.MustCompile(`^\d{1,2}-\d{1,2}$`)
	switchBits  = regexp.MustCompile(`^[01xX]{2,16}$`)
	coinCell    = regexp.MustCompile(`(?i)^(cr|br|lr|sr)\d{3,4}$`)
	// Registered diodes and transistors, as 1N4148 or 2N3904.
	semiconductor = regexp.MustCompile(`(?i)^[123]n\d{2,4}[a-z]?$`)
	plugName      = regexp.MustCompile(`(?i)^(d[a-e]-?\d{1,2}|din-?\d?|\d{1,3}-(pin|way))`)
)

// kindWords are words that say what a part is, whatever its designator.
var kindWords = map[string]Kind{
	"simm": Module, "dimm": Module, "sipp": Module,
	"crystal": Crystal, "xtal": Crystal, "oscillator": Crystal, "resonator": Crystal,
	"capacitor": Capacitor, "electrolytic": Capacitor, "tantalum": Capacitor,
	"resistor": Resistor, "potentiometer": Resistor, "ohm": Resistor, "ohms": Resistor,
	"nicd": Battery, "ni-cd": Battery, "nimh": Battery, "ni-mh": Battery, "lithium": Battery,
	"alkaline": Battery, "battery": Battery, "accumulator": Battery, "lead-acid": Battery,
	"jumper": Jumper, "link": Jumper, "strap": Jumper,
	"switch": Switch, "switches": Switch,
	"connector": Connector, "header": Connector, "plug": Connector, "receptacle": Connector,
}

var unitKinds = map[string]Kind{
	"mhz": Crystal, "khz": Crystal, "hz": Crystal,
	"uf": Capacitor, "µf": Capacitor, "μf": Capacitor, "nf": Capacitor, "pf": Capacitor, "mf": Capacitor,
	"ohm": Resistor, "ohms": Resistor, "kohm": Resistor, "ω": Resistor, "kω": Resistor,
}

// kindOf decides what sort of part an entry is about: by what its words say, and only where
// they are silent by what the designator's letters suggest.
func kindOf(library *device.Library, e *sheet.Entry) Kind {
	letters := lettersOf(e)
	suggested := kindByLetters[letters]
	if kind := kindByWords(e.Words, suggested); kind != "" {
		return kind
	}
	if suggested == Chip || namesDevice(library, e.Words) {
		return Chip
	}
	if suggested != "" {
		return suggested
	}
	if e.Unknown || slices.ContainsFunc(e.Words, marking.LooksLikeNumber) {
		return Chip
	}
	return Other
}

func lettersOf(e *sheet.Entry) string {
	if len(e.Designators) == 0 {
		return ""
	}
	return strings.ToUpper(strings.TrimRightFunc(e.Designators[0], func(r rune) bool { return !unicode.IsLetter(r) }))
}

// kindByWords looks at the first word as a value, then for words that name a part. A word
// that names a part counts for a chip's designator only when it is about a module or a
// crystal: a chip may well be marked with words.
func kindByWords(words []string, suggested Kind) Kind {
	if len(words) == 0 {
		return ""
	}
	first := words[0]
	switch {
	case marking.IsFrequency(first):
		return Crystal
	case marking.IsPassiveValue(first):
		if capacitance.MatchString(first) {
			return Capacitor
		}
		return Resistor
	}
	if len(words) > 1 && plainNumber.MatchString(first) {
		if kind, ok := unitKinds[strings.ToLower(words[1])]; ok {
			return kind
		}
	}
	for _, word := range words {
		if strings.ContainsAny(word, "0123456789") {
			continue // none of the words has a figure, and most markings do
		}
		kind, ok := kindWords[strings.ToLower(strings.Trim(word, ".,;()"))]
		if ok && (suggested != Chip || kind == Module || kind == Crystal) {
			return kind
		}
	}
	switch {
	case suggested == Chip:
		return ""
	case semiconductor.MatchString(first):
		return Other
	case coinCell.MatchString(first):
		return Battery
	case pinPosition.MatchString(first):
		return Jumper
	case switchBits.MatchString(first) && suggested == Switch:
		return Switch
	case plugName.MatchString(first):
		return Connector
	}
	return ""
}

// namesDevice reports whether a word names a type of the library. Three bare digits do not:
// they are a value or a part of something else.
func namesDevice(library *device.Library, words []string) bool {
	for _, word := range words {
		if found, ok := library.Recognise(word); ok && (!found.IsBare() || len(word) > 3) {
			return true
		}
	}
	return false
}

func joined(words []string) string { return strings.Join(words, " ") }

func isText(line string) bool {
	content := strings.TrimSpace(line)
	return content != "" && !strings.HasPrefix(content, "#")
}
