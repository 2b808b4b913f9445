package statement

import (
	_ "embed"
	"regexp"
	"slices"
	"strings"
	"sync"

	"frugalheron/core/edtf"
	"frugalheron/core/facts"
	"frugalheron/core/sheet"
	"frugalheron/core/table"
)

//go:embed events.tsv
var eventTable string

// Deed is what happened.
type Deed string

// Deeds.
const (
	TakenOut Deed = "taken out" // a part left its place
	Lent     Deed = "lent"      // somebody else has it for a while
	Returned Deed = "returned"  // what was lent is back
	Replaced Deed = "replaced"  // another part took its place
	Found    Deed = "found"     // something was found
	Treated  Deed = "treated"   // something was done that may end findings
	Worked   Deed = "worked"    // it works, or does not
	Moved    Deed = "moved"     // it is somewhere else now
	Stated   Deed = "stated"    // a source says what is true of it
)

// Happened is what a saying says that happened, to the parts of its entry, or to a machine or board as a whole.
type Happened struct {
	Deed      Deed
	Words     string       // of the new part; where it was found, or moved to; who has what is lent
	New       string       // since when, as it is said, in EDTF; empty for today
	Due       string       // when what is lent is to be back, as it is said; empty where nobody said so
	Found     []sheet.Mark // what was found
	Note      string       // what else is said
	Ends      []string     // kinds of findings that a treatment ends
	Worked    bool         // it does
	Subject   string       // what worked, where that is no board or part of a sheet
	Attribute string       // of what is stated
	Value     string
	Source    facts.Source
}

// phrase is a way to say a deed.
type phrase struct {
	words []string
	of    string
	deed  Deed
	value string
}

var phrases = sync.OnceValue(func() []phrase {
	read := []phrase{}
	for _, cells := range table.Reference("events", eventTable, "phrases", "of", "does", "value", "source") {
		for _, words := range strings.Split(cells[0], ", ") {
			read = append(read, phrase{strings.Fields(words), cells[1], Deed(cells[2]), cells[3]})
		}
	}
	// The longest first.
	slices.SortStableFunc(read, func(a, b phrase) int { return len(b.words) - len(a.words) })
	return read
})

// between are words between a thing and what happened to it that say nothing of that; fillers are all such words before
// it.
var (
	between = []string{"is", "was", "are", "were", "has", "have", "had", "been", "got", "looks", "seems", "now",
		"still",
		"very", "badly", "slightly", "completely", "found"}
	fillers = append([]string{"a", "the", "it", "machine", "computer"}, between...)
)

func bare(word string) string { return strings.ToLower(strings.Trim(word, ".,;:!")) }

// deedOf reads what a saying begins with as something that happened; of is part or thing. It leaves what stands behind.
func deedOf(words []string, of string) (p phrase, rest []string, ok bool) {
	for skip := 0; skip <= len(words); skip++ {
		for _, p := range phrases() {
			if p.of != "any" && p.of != of || len(p.words) > len(words)-skip {
				continue
			}
			matches := true
			for i, want := range p.words {
				matches = matches && bare(words[skip+i]) == want
			}
			if matches {
				return p, words[skip+len(p.words):], true
			}
		}
		if skip == len(words) || !slices.Contains(fillers, bare(words[skip])) {
			break
		}
	}
	return phrase{}, nil, false
}

// findingOf reads what a saying begins with as a known kind of finding.
func findingOf(words []string) (mark sheet.Mark, ok bool) {
	for len(words) > 0 {
		if mark = sheet.ReadMark(strings.Join(words, " ")); sheet.IsKnownFinding(mark.Kind) {
			return mark, true
		}
		if !slices.Contains(fillers, bare(words[0])) {
			break
		}
		words = words[1:]
	}
	return sheet.Mark{}, false
}

// cutFinding takes a known kind of finding off the end of a marking, as of 27128-25 8534 cracked.
func cutFinding(designator string, words []string) (marking []string, mark sheet.Mark, ok bool) {
	for at := 1; at < len(words); at++ {
		kind := strings.ToLower(strings.Join(words[at:], " "))
		if sheet.IsKnownFinding(kind) && !isSetting(designator, kind) && kind != sheet.Lent {
			return words[:at], sheet.Mark{Kind: kind}, true
		}
	}
	return words, sheet.Mark{}, false
}

var looksDated = regexp.MustCompile(`^\d{4}(-\d+)*$`)

var (
	dated = regexp.MustCompile(`(?i)^(.*?)\s*\b(?:in|on|since)\s+(\S+)$`)
	// A day or month behind the words, and a year that is all there is; a year behind a marking may be a date code.
	datedAlone = regexp.MustCompile(`(?i)^(?:(.*?)[\s,]+)?(yesterday|today|(?:19|20)\d\d-\d\d(?:-\d\d)?)$`)
	onlyYear   = regexp.MustCompile(`^(?:19|20)\d\d$`)
)

var dueBy = regexp.MustCompile(`(?i)^(.*?),?\s*\b(?:until|till|due|due back|back by|by)\s+(\S+)$`)

// lent reads what stands behind lent: to whom, since when, and until when.
func lent(behind string) *Happened {
	h := Happened{Deed: Lent, Words: behind}
	for range 2 { // until when may stand before since when, or behind it
		if m := dueBy.FindStringSubmatch(h.Words); m != nil && looksDated.MatchString(m[2]) {
			h.Words, h.Due = strings.TrimSpace(m[1]), m[2]
		}
		if h.New == "" {
			h.Words, h.New = cutDate(h.Words)
		}
	}
	if to, who, found := strings.Cut(h.Words, " "); found && strings.EqualFold(to, "to") {
		h.Words = strings.TrimSpace(who)
	}
	return &h
}

// cutDate takes the day off the end of what is said, as in 2021 or on 2026-05-17: also one that there is not, so that
// somebody says so.
func cutDate(words string) (rest, when string) {
	if onlyYear.MatchString(words) {
		return "", words
	}
	m := dated.FindStringSubmatch(words)
	if m == nil {
		if m = datedAlone.FindStringSubmatch(words); m == nil {
			return words, ""
		}
		return strings.TrimRight(m[1], ", "), strings.ToLower(m[2])
	}
	if _, err := edtf.Parse(m[2]); err != nil && !looksDated.MatchString(m[2]) {
		return words, ""
	}
	return strings.TrimSpace(m[1]), m[2]
}

// ofParts reads what is said of designators; nil for what is rather a marking.
func ofParts(designator string, words []string) *Happened {
	text := strings.Join(words, " ")
	p, rest, isDeed := deedOf(words, "part")
	mark, isFinding := findingOf(words)
	behind := strings.TrimLeft(strings.TrimSpace(strings.Join(rest, " ")), ":,; ")
	switch {
	// Dead, missing and the like are findings of a part, whatever they are of a machine.
	case isFinding && (!isDeed || !isLonger(p, mark.Kind)):
		if isSetting(designator, mark.Kind) {
			return nil
		}
		return &Happened{Deed: Found, Found: []sheet.Mark{mark}}
	case !isDeed:
		return nil
	case p.deed == TakenOut:
		if !goesOn(words, rest) && !isWhy(rest) {
			return nil // lost its time, out of round
		}
		note, when := cutDate(behind)
		return &Happened{Deed: TakenOut, Note: note, New: when}
	case p.deed == Lent:
		return lent(behind)
	case p.deed == Returned:
		if behind != "" && !strings.HasPrefix(behind, "from ") {
			return nil
		}
		return &Happened{Deed: Returned}
	case p.deed == Replaced:
		marking, when := cutDate(behind)
		switch {
		case marking == "" && p.wantsPart():
			return nil // replaced by what?
		case isLike(designator, marking):
			return nil // two parts changed places, or one of another place sits here: which came when is not said
		}
		if isNothing(marking) {
			marking = ""
		}
		return &Happened{Deed: Replaced, Words: marking, New: when}
	case p.deed == Treated:
		return &Happened{Deed: Treated, Words: text, Ends: strings.Split(p.value, ", ")}
	}
	return worked(p, words, rest)
}

// isSetting reports whether a word is how a jumper or switch stands, not what is wrong with it.
func isSetting(designator, kind string) bool {
	return isSet(designator) && slices.Contains([]string{"open", "short", "shorted", "missing"}, kind)
}

// isSet reports whether a designator is that of something that can be set.
func isSet(designator string) bool {
	letters := strings.TrimRight(strings.ToUpper(designator), "0123456789")
	return slices.Contains([]string{"J", "JP", "W", "SW", "S", "DS", "E", "LK"}, letters)
}

// cutSet takes off what stands before how something is set: moved to 2-3.
func cutSet(words []string) []string {
	for n := min(len(words)-1, 3); n > 0; n-- {
		if slices.Contains([]string{"moved to", "set to", "changed to", "switched to", "put to", "now", "is now", "is",
			"is at", "at", "now at", "moved to the"}, strings.ToLower(strings.Join(words[:n], " "))) {
			return words[n:]
		}
	}
	return words
}

// isPlaceOn reports whether a word is a spot on a part, and not what the part is: pin 3 bent.
func isPlaceOn(word string) bool {
	return slices.Contains([]string{"pin", "pins", "leg", "legs", "lead", "leads", "pad", "pads", "socket", "contact",
		"contacts", "body", "case", "side", "edge", "top", "anode", "cathode", "window", "label", "lug", "tab"},
		bare(word))
}

// isPosition reports whether words are how something stands that can be set.
func isPosition(designator, words string) bool {
	return isSet(designator) &&
		slices.Contains([]string{"open", "closed", "short", "shorted", "on", "off", "up", "down",
			"left", "right"}, strings.ToLower(words))
}

// wantsPart reports whether a phrase is nothing without what stands behind it.
func (p phrase) wantsPart() bool {
	return slices.Contains([]string{"by", "with", "for", "to"}, p.words[len(p.words)-1])
}

// isLonger reports whether a phrase says more than a kind of finding that fits, too: replaced by says more than
// replaced. Lent is both.
func isLonger(p phrase, kind string) bool {
	return len(p.words) > len(strings.Fields(kind)) || p.deed == Replaced || p.deed == Lent
}

// isNothing reports whether words say of a new part only that it is one.
func isNothing(words string) bool {
	return slices.Contains([]string{"", "one", "part", "cell", "battery", "chip", "a new one", "by a new one",
		"new one",
		"new", "new part", "new battery", "new cell", "new chip"}, strings.ToLower(words))
}

// ofThing reads what is said of a machine, or of a board that was named, as a whole; nil for what is rather looked for.
func ofThing(words []string, isNamed bool) *Happened {
	text := strings.Join(words, " ")
	if mark, ok := findingOf(words); ok && isNamed && mark.Kind != sheet.Lent {
		return &Happened{Deed: Found, Found: []sheet.Mark{mark}}
	}
	if stated := statedIn(words); stated != nil {
		return stated
	}
	p, rest, ok := deedOf(words, "thing")
	if mark, isFinding := findingOf(words); isFinding && (!ok || p.deed == Worked && p.value == "yes") &&
		strings.Contains(mark.Kind, " ") {
		return &Happened{Deed: Found, Found: []sheet.Mark{mark}} // runs hot
	}
	if ok {
		behind := strings.Trim(strings.Join(rest, " "), " .")
		switch p.deed {
		case Lent:
			if h := lent(strings.TrimLeft(behind, ":,; ")); h.Words != "" {
				return h
			}
			return nil
		case Returned:
			return nil // where to? moved to says it
		case Moved:
			if behind == "" {
				return nil
			}
			return &Happened{Deed: Moved, Words: behind}
		case Worked:
			return worked(p, words, rest)
		case Treated:
			return &Happened{Deed: Treated, Words: text, Ends: strings.Split(p.value, ", ")}
		}
	}
	// What it was, and then how it was, or what was found there: disk drive ran in 2016, hinge cracked.
	for at := 1; at < len(words); at++ {
		if p, rest, ok := deedOf(words[at:], "thing"); ok && p.deed == Worked && isPast(p) {
			if h := worked(p, words[at:], rest); h != nil {
				h.Subject = strings.Join(words[:at], " ")
				return h
			}
		}
		mark := sheet.ReadMark(strings.Join(words[at:], " "))
		if !sheet.IsKnownFinding(mark.Kind) || mark.Kind == sheet.Lent {
			continue
		}
		where := words[:at]
		for len(where) > 0 && slices.Contains(between, bare(where[len(where)-1])) {
			where = where[:len(where)-1]
		}
		if len(where) > 0 {
			return &Happened{Deed: Found, Found: []sheet.Mark{mark}, Words: strings.Join(where, " ")}
		}
	}
	return nil
}

// worked reads that something works or does not: now, as somebody tried it, or on a day that has gone. It is nil where
// that is not what is said.
func worked(p phrase, words, rest []string) *Happened {
	if p.value == "yes" && !goesOn(words, rest) {
		return nil
	}
	behind := strings.TrimLeft(strings.Trim(strings.Join(rest, " "), " ."), ":,; ")
	h := Happened{Deed: Worked, Worked: p.value == "yes", Words: strings.Join(words, " ")}
	h.Note, h.New = cutDate(behind)
	if isPast(p) && h.New == "" {
		return nil // it ran once: when?
	}
	if strings.HasSuffix(strings.ToLower(behind), "since "+strings.ToLower(h.New)) && h.New != "" {
		h.Note, h.New = behind, "" // it does so still
	}
	return &h
}

// isPast reports whether a phrase says how it was, not how it is.
func isPast(p phrase) bool {
	return slices.Contains([]string{"ran", "worked", "running", "working", "booted"}, p.words[len(p.words)-1]) &&
		p.value == "yes"
}

// goesOn reports whether what stands behind a deed says more of that, rather than something else: runs again with the
// spare supply, but not: runs only sometimes, starts with a capital letter, lost its time.
func goesOn(words, rest []string) bool {
	if len(rest) == 0 || strings.ContainsAny(words[len(words)-len(rest)-1], ":,;") {
		return true
	}
	first := strings.ToLower(rest[0])
	return strings.ContainsAny(first[:1], ":,;(0123456789") || slices.Contains([]string{"again", "now", "fine", "well",
		"after", "since", "without", "from", "on", "in", "today", "yesterday"}, bare(first))
}

// isWhy reports whether what stands behind that something was taken out says more of that: for reading, by Bram.
func isWhy(rest []string) bool {
	return len(rest) > 1 && slices.Contains([]string{"for", "to", "by", "with", "at", "before", "because", "as", "and",
		"while"}, bare(rest[0]))
}

// isLike reports whether a word is a designator with the same letters as another: U2 beside U1.
func isLike(designator, word string) bool {
	letters := func(text string) string { return strings.TrimRight(strings.ToUpper(text), "0123456789") }
	return sheet.IsDesignator(word) && letters(word) == letters(designator)
}

// saidBy are words between a value and its source.
var saidBy = []string{"by", "per", "from", "says", "according"}

// statedIn reads an attribute, its value, and who says so: memory 64 MB by firmware.
func statedIn(words []string) *Happened {
	for at := len(words) - 1; at > 1; at-- {
		if !slices.Contains(saidBy, bare(words[at-1])) {
			continue
		}
		source := words[at:]
		for len(source) > 1 && slices.Contains([]string{"the", "to", "a", "its"}, bare(source[0])) {
			source = source[1:]
		}
		known, ok := facts.SourceCalled(bare(source[0]))
		if !ok {
			continue
		}
		attribute, value := attributeIn(words[:at-1])
		if attribute == "" || value == "" {
			return nil
		}
		return &Happened{Deed: Stated, Attribute: attribute, Value: value, Source: known,
			Note: strings.Join(source, " ")}
	}
	return nil
}

// attributeIn cuts the name of a known attribute off the front; its key, and the value behind it.
func attributeIn(words []string) (key, value string) {
	for n := len(words) - 1; n > 0; n-- {
		name := strings.ToLower(strings.Join(words[:n], " "))
		for _, a := range facts.Attributes() {
			if name == a.Key || name == strings.ToLower(a.Label) || name == strings.ReplaceAll(a.Key, "-", " ") ||
				name == "ram" && a.Key == "memory" {
				return a.Key, strings.TrimSpace(strings.TrimPrefix(strings.Join(words[n:], " "), "is "))
			}
		}
	}
	return "", ""
}
