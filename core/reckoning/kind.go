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

// suggestion is what the letters of a designator suggest, and to what it gives way.
type suggestion struct {
	kind   Kind
	yields string
}

// To what a suggestion gives way.
const (
	toLetters = "letters" // a device number with letters, or another part by name; bare figures are a value
	toWords   = "words"   // another part by name only
)

var suggestions = func() map[string]suggestion {
	found := map[string]suggestion{}
	for _, cells := range table.Reference("designators", designatorTable, "letters", "kind", "yields", "source") {
		found[cells[0]] = suggestion{Kind(cells[1]), cells[2]}
	}
	return found
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
	// Resistor networks, as 4116R-001-472: pins and package, circuit, value.
	networkNumber = regexp.MustCompile(`(?i)^\d{4}[a-z]-\d{1,3}-\d{3,4}`)
)

// kindWords are words that say what a part is, whatever its designator.
var kindWords = map[string]Kind{
	"simm": Module, "dimm": Module, "sipp": Module,
	"crystal": Crystal, "xtal": Crystal, "oscillator": Crystal, "resonator": Crystal,
	"capacitor": Capacitor, "electrolytic": Capacitor, "tantalum": Capacitor,
	"resistor": Resistor, "potentiometer": Resistor,
	"nicd": Battery, "ni-cd": Battery, "nimh": Battery, "ni-mh": Battery, "lithium": Battery,
	"alkaline": Battery, "battery": Battery, "accumulator": Battery, "lead-acid": Battery,
	"jumper": Jumper, "link": Jumper, "strap": Jumper,
	"switch": Switch, "switches": Switch,
	"connector": Connector, "header": Connector, "plug": Connector, "receptacle": Connector,
	"drive": Drive, "supply": Supply, "psu": Supply, "fan": Fan, "relay": Relay, "fuse": Fuse, "filter": Filter,
	"network": Network, "display": Display, "speaker": Speaker, "loudspeaker": Speaker,
}

// notThePart are words behind which a part is only what something else is for: a drive controller is no drive.
var notThePart = map[string]bool{
	"controller": true, "interface": true, "driver": true, "cable": true, "card": true, "board": true,
	"adapter": true, "holder": true, "bracket": true, "belt": true, "belts": true, "cage": true, "cover": true,
}

var unitKinds = map[string]Kind{
	"mhz": Crystal, "khz": Crystal, "hz": Crystal,
	"uf": Capacitor, "µf": Capacitor, "μf": Capacitor, "nf": Capacitor, "pf": Capacitor, "mf": Capacitor,
	"ohm": Resistor, "ohms": Resistor, "kohm": Resistor, "ω": Resistor, "kω": Resistor,
}

// kindOf decides what sort of part an entry is about: by what its words say, and only where they are silent by what
// the designator's letters suggest.
func kindOf(library *device.Library, e *sheet.Entry) Kind {
	suggested := suggestions[lettersOf(e)]
	named := kindByName(e.Words, suggested.kind)
	if named != Network && suggested.kind != "" && kindByValue(e.Words, suggested.kind) == suggested.kind {
		return suggested.kind // C5 47uF filter: the words say what it is for
	}
	if named != "" {
		return named
	}
	if suggested.yields == toWords {
		if suggested.kind == Module && isBareDevice(library, e.Words) {
			return Chip
		}
		return suggested.kind
	}
	if _, isMemory := memoryInWords(e.Words); isMemory {
		return Chip
	}
	if kind := kindByValue(e.Words, suggested.kind); kind != "" {
		return kind
	}
	if suggested.kind == Chip || namesDevice(library, e.Words, suggested.yields == toLetters) {
		return Chip
	}
	if suggested.kind != "" {
		return suggested.kind
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

// kindByName looks for words that name a part; of several that follow each other, as in battery connector, the last
// one counts. They count for a chip's designator only when they are about a module or a crystal: a chip may well be
// marked with words.
func kindByName(words []string, suggested Kind) Kind {
	if len(words) > 0 && networkNumber.MatchString(words[0]) {
		return Network
	}
	named := Kind("")
	for i, word := range words {
		if strings.ContainsAny(word, "0123456789") {
			if named != "" {
				break // none of the words has a figure, and most markings do
			}
			continue
		}
		bare := plainWord(word)
		kind, ok := kindWords[bare]
		if bare == "module" && isMemoryModule(words) {
			kind, ok = Module, true
		}
		switch {
		case ok && (suggested != Chip || kind == Module || kind == Crystal):
			named = kind
		case named != "" && notThePart[bare]:
			named = ""
		case named != "":
			return named
		}
		if strings.HasSuffix(words[i], ",") && named != "" {
			return named
		}
	}
	return named
}

func plainWord(word string) string { return strings.ToLower(strings.Trim(word, ".,;()")) }

// kindByValue looks at the first word as a value or a name of its own.
func kindByValue(words []string, suggested Kind) Kind {
	if len(words) == 0 {
		return ""
	}
	first := words[0]
	switch suggested {
	case Fuse, Relay, Filter, Network, Display:
		return "" // their values are like those of other parts
	}
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
	case slices.ContainsFunc(words, func(word string) bool {
		return strings.EqualFold(strings.TrimSuffix(word, "s"), "ohm")
	}):
		return Resistor
	}
	return ""
}

// namesDevice reports whether a word names a type of the library. Three bare digits do not: they are a value or a part
// of something else. With letters asked for, no bare figure does.
func namesDevice(library *device.Library, words []string, withLetters bool) bool {
	for _, word := range words {
		if found, ok := library.Recognise(word); ok && (!found.IsBare() || !withLetters && len(word) > 3) {
			return true
		}
	}
	return false
}

// isBareDevice reports whether words are a known number and nothing but its speed and date.
func isBareDevice(library *device.Library, words []string) bool {
	read := marking.ReadWords(library, words, marking.Context{Part: marking.Chip})
	return read.Type != nil && len(read.Unread) == 0
}

func joined(words []string) string { return strings.Join(words, " ") }

func isText(line string) bool {
	content := strings.TrimSpace(line)
	return content != "" && !strings.HasPrefix(content, "#")
}
