// Package marking answers: what do the characters printed on a chip say? It finds the device
// number, the speed and grade behind it and every way to read the date code, and lists the
// words it could not read.
package marking

import (
	"slices"
	"strconv"
	"strings"

	"frugalheron/core/datecode"
	"frugalheron/core/device"
)

// Reading is what a marking says.
type Reading struct {
	Type    *device.Type `json:"type" doc:"The device type, or null when the library does not know it"`
	SpeedNs int          `json:"speedNs" doc:"Access time in nanoseconds; 0 when the marking does not say"`
	// ClockMHz is the highest clock that the marking says.
	ClockMHz float64            `json:"clockMHz,omitempty" doc:"Highest clock of a processor in MHz, where the marking says it"`
	Grade    string             `json:"grade" doc:"What else the suffix says: temperature, package, revision"`
	Date     *datecode.DateCode `json:"date" doc:"The reading of the date code that clearly leads, or null"`
	// Candidates holds every reading of every word that could be a date, the surest first.
	Candidates []datecode.Candidate `json:"candidates"`
	Unread     []string             `json:"unread" doc:"Words that were not understood"`

	goesOn bool // the number goes on in the word behind it
}

// Part says what kind of part carries the marking, as far as that changes how it is read.
type Part int

// Parts that are marked differently. Any is decided by the words themselves.
const (
	Any Part = iota
	Chip
	Passive // capacitor or resistor: month letters of IEC 60062, no device numbers
	Unit    // battery, crystal, module, drive or supply: figures with units, and a date
)

// Context is what is known of the part beside its marking.
type Context struct {
	Part Part
	Era  datecode.Era
}

// Read reads a marking word by word. Text in which nothing is readable gives an empty reading.
func Read(library *device.Library, text string, context Context) Reading {
	return ReadWords(library, strings.Fields(text), context)
}

// ReadWords is Read for a marking that is cut into words already.
func ReadWords(library *device.Library, words []string, context Context) Reading {
	r := Reading{Candidates: []datecode.Candidate{}, Unread: []string{}}
	part := context.Part
	if part == Any {
		part = Chip
		if slices.ContainsFunc(words, func(word string) bool {
			_, isDevice := library.Recognise(word)
			return IsPassiveValue(word) && !isDevice // 6802P is no capacitor
		}) {
			part = Passive
		}
	}
	numberAt, numberEnd := -1, -1 // where the words of the number begin, and end
	if part == Chip {
		numberAt = r.readNumber(library, words)
		numberEnd = numberAt
		if numberAt >= 0 && r.goesOn {
			numberEnd++
		}
	}
	for i, word := range words {
		if numberAt >= 0 && i >= numberAt && i <= numberEnd || isCopyright(words, i) || part == Unit &&
			isMeasure(words, i) {
			continue
		}
		behind := numberAt >= 0 && i > numberEnd
		if !r.readOther(library, word, part, context.Era, behind, i == numberEnd+1) {
			r.Unread = append(r.Unread, word)
		}
	}
	datecode.Sort(r.Candidates)
	r.Date = datecode.Best(r.Candidates)
	return r
}

// isCopyright reports whether a word is the mark of a copyright or the year behind it, which is no date of making.
func isCopyright(words []string, i int) bool {
	isMark := func(word string) bool { return strings.EqualFold(word, "(c)") || word == "©" }
	rest, marked := strings.CutPrefix(strings.ToLower(words[i]), "(c)")
	if !marked {
		rest, marked = strings.CutPrefix(words[i], "©")
	}
	return marked && (rest == "" || isYear(rest)) || i > 0 && isMark(words[i-1]) && isYear(words[i])
}

func isYear(word string) bool {
	year, err := strconv.Atoi(word)
	return err == nil && year >= 1950 && year < 2100
}

// readNumber finds the word with the device number and takes type, speed and grade from it.
// It returns the word's index, or -1 when no word can be a device number. A number the library
// does not know counts as unread, yet still keeps later numbers from being taken for it.
func (r *Reading) readNumber(library *device.Library, words []string) int {
	at, found := numberWord(library, words)
	if at < 0 {
		return -1
	}
	if found.Type == nil {
		r.Unread = append(r.Unread, words[at])
		return at
	}
	next := ""
	if at+1 < len(words) {
		next = words[at+1]
	}
	if companion, isNext, ok := library.Companion(found, next); ok {
		found, r.goesOn = companion, isNext
	}
	suffix := library.ReadSuffix(found.Type, found.Suffix)
	r.Type, r.SpeedNs, r.Grade, r.ClockMHz = found.Type, suffix.SpeedNs, suffix.Grade, found.MaxMHz()
	return at
}

// Nameable proposes the device number under which an unknown marking could be named: the word that
// is built like one, without what follows a hyphen or slash. It is empty where there is no such
// word, or where a character of it is doubtful.
func Nameable(library *device.Library, words []string) string {
	at, found := numberWord(library, words)
	if at < 0 || found.Type != nil {
		return ""
	}
	whole := device.Normal(words[at])
	number, _, _ := strings.Cut(whole, "-")
	if !strings.ContainsAny(number, "0123456789") {
		number = whole // letters alone are no number: DAC-08
	}
	number, _, _ = strings.Cut(number, "/")
	if strings.Contains(number, "?") {
		return ""
	}
	return number
}

// numberWord picks the word that holds the device number: a known number with a prefix, suffix
// or speed attached; else an unknown one that stands before any bare number; else the first
// bare number that is a known device; else whatever is built like a device number. HX9040 8251
// is an unknown chip with a date, though 8251 is a device, too.
func numberWord(library *device.Library, words []string) (at int, found device.Recognition) {
	bare, unknown := -1, -1
	var bareDevice device.Recognition
	for i, word := range words {
		found, known := library.Recognise(word)
		switch {
		case isCopyright(words, i):
		case known && !found.IsBare():
			return i, found
		case known:
			if bare < 0 {
				bare, bareDevice = i, found
			}
		case unknown < 0 && LooksLikeNumber(word) && !isDate(word):
			unknown = i
		}
	}
	switch {
	case unknown >= 0 && (bare < 0 || unknown < bare && (isDate(words[bare]) || !isLot(words[unknown]))):
		return unknown, device.Recognition{}
	case bare >= 0:
		return bare, bareDevice
	}
	return -1, device.Recognition{}
}

// isDate reports whether a word can be a date by itself.
func isDate(word string) bool { return len(datecode.Read(device.Normal(word), datecode.Era{})) > 0 }

// isLot reports whether a word can be a date between letters of the plant or the lot.
func isLot(word string) bool {
	return len(datecode.ReadLettered(device.Normal(word), datecode.Era{})) > 0
}

// LooksLikeNumber reports whether a word is built like a device number: letters and at least
// two digits, or digits with a suffix. Pure digits are not: they could be anything.
func LooksLikeNumber(word string) bool {
	digits, letters := 0, 0
	for _, c := range device.Normal(word) {
		switch {
		case '0' <= c && c <= '9':
			digits++
		case 'A' <= c && c <= 'Z':
			letters++
		case c != '-' && c != '/' && c != '?' && c != '.':
			return false
		}
	}
	return digits >= 2 && letters >= 1 && !IsPassiveValue(word) && !isSpeed(word) && !IsFrequency(word)
}

// mostCandidates bounds the readings of one marking; no chip carries that many dates. Words beyond
// are listed as unread.
const mostCandidates = 40

// readOther takes a word that is not the device number: a date, a speed, a value.
func (r *Reading) readOther(library *device.Library, word string, part Part, era datecode.Era, behind, next bool) bool {
	normal := device.Normal(word)
	if ns, ok := SpeedNs(normal); ok && r.SpeedNs == 0 {
		r.SpeedNs = ns
		return true
	}
	if next && strings.HasPrefix(word, "-") && r.Type != nil && r.SpeedNs == 0 {
		if s := library.ReadSuffix(r.Type, normal); s.SpeedNs > 0 {
			r.SpeedNs = s.SpeedNs
			return true
		}
	}
	if part == Passive {
		if IsPassiveValue(word) {
			return true
		}
		if found := datecode.ReadMonth(normal, era); len(found) > 0 {
			r.Candidates = append(r.Candidates, found...)
			return true
		}
	}
	if part != Chip && len(word) == 3 { // 104 is a value, and 230 a voltage
		return false
	}
	if len(r.Candidates) > mostCandidates {
		return false
	}
	found := datecode.Read(normal, era)
	if behind && len(found) == 0 {
		found = datecode.ReadLettered(normal, era)
	}
	if len(r.Candidates) == 0 {
		r.Candidates = found
	} else {
		r.Candidates = append(r.Candidates, found...)
	}
	return len(found) > 0
}

// SpeedNs reads an access time written out, as 70ns.
func SpeedNs(word string) (int, bool) {
	if !endsIn(word, "ns") {
		return 0, false
	}
	ns, err := strconv.Atoi(word[:len(word)-len("ns")])
	return ns, err == nil && ns > 0 && ns < 10_000
}

func isSpeed(word string) bool {
	_, ok := SpeedNs(word)
	return ok
}

// IsFrequency reports whether a word is a frequency, as 18.432MHz.
func IsFrequency(word string) bool {
	if !endsIn(word, "hz") {
		return false
	}
	figures := strings.TrimRight(word[:len(word)-len("hz")], "mkMK")
	return figures != "" && strings.Trim(figures, "0123456789.,") == ""
}

// endsIn reports whether a word ends in a unit, in either case.
func endsIn(word, unit string) bool {
	return len(word) >= len(unit) && strings.EqualFold(word[len(word)-len(unit):], unit)
}
