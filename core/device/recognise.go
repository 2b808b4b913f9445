package device

import (
	"strconv"
	"strings"
	"unicode/utf8"
)

// Recognition is a device number found in one word of a marking.
type Recognition struct {
	*Type         // shared; not to be changed
	Prefix string // the maker's letters before the number
	Suffix string // what follows the number: revision, package, speed
	number string // as it is written, which may be that of a second source
	bare   bool
}

// IsBare reports whether the word was nothing but digits, so that it could be a date as well.
func (r Recognition) IsBare() bool { return r.bare }

// Recognise finds the type that a word of a marking names. Case does not matter, and the micro
// sign is read as the letter U. A word with a doubtful character names no type.
func (l *Library) Recognise(word string) (Recognition, bool) {
	word = Normal(word)
	if strings.Contains(word, "?") {
		return Recognition{}, false
	}
	prefixes, n := prefixLengths(word)
	for _, prefix := range prefixes[:n] {
		if found, ok := l.numberAt(word[:prefix], word[prefix:]); ok {
			return found, true
		}
	}
	return Recognition{}, false
}

// Companion is the chip that works beside a processor and is marked with its number and a word: Z80A SIO/0 is no processor.
// The word is the next one of the marking, or what stands behind a hyphen of the number.
func (l *Library) Companion(r Recognition, next string) (companion Recognition, isNext, ok bool) {
	for _, word := range []string{strings.TrimPrefix(r.Suffix, "-"), next} {
		word, _, _ = strings.Cut(Normal(word), "/")
		if t, known := l.types[l.companions[r.Number+"/"+word]]; known {
			return Recognition{Type: t, Prefix: r.Prefix, number: t.Number}, r.Suffix == "", true
		}
	}
	return r, false, false
}

// Normal is the spelling in which numbers are compared: upper case, a micro sign as U.
func Normal(word string) string {
	upper := strings.ToUpper(word)
	for i := range len(upper) {
		if upper[i] >= utf8.RuneSelf {
			return microSigns.Replace(upper)
		}
	}
	return upper
}

// The micro sign U+00B5 and the Greek letter mu, which upper-casing turns into capital mu.
var microSigns = strings.NewReplacer("µ", "U", "μ", "U", "Μ", "U")

// prefixLengths proposes where the number may start: at once, behind up to four letters, or
// behind letter, digit, letter as some makers write (M5L2764).
func prefixLengths(word string) (lengths [3]int, n int) {
	n = 1 // the first length is zero
	letters := 0
	for letters < len(word) && isLetter(word[letters]) {
		letters++
	}
	if 0 < letters && letters <= 4 && letters < len(word) {
		lengths[n], n = letters, n+1
	}
	if letters == 1 && len(word) > 3 && isDigit(word[1]) && isLetter(word[2]) && isDigit(word[3]) {
		lengths[n], n = 3, n+1
	}
	return lengths, n
}

// numberAt matches the longest known number that rest starts with and no further digit follows.
func (l *Library) numberAt(prefix, rest string) (Recognition, bool) {
	if rest == "" || !l.starts[rest[0]] {
		return Recognition{}, false
	}
	for end := min(l.longest, len(rest)); end > 0; end-- {
		if end < len(rest) && isDigit(rest[end]) && isDigit(rest[end-1]) {
			continue
		}
		if t, ok := l.types[rest[:end]]; ok && t.hasLetters(prefix) &&
			(end == len(rest) || boundary(rest[end-1], rest[end])) {
			return Recognition{Type: t, Prefix: prefix, Suffix: rest[end:], number: rest[:end],
				bare: prefix == "" && end == len(rest) && allDigits(rest)}, true
		}
	}
	return Recognition{}, false
}

// boundary reports whether a number may end before the character: after a number that ends in
// a letter, another letter would make it a different name.
func boundary(last, next byte) bool { return isDigit(last) || !isLetter(next) }

// Suffix is what the characters behind a device number tell.
type Suffix struct {
	SpeedNs int    // access time in nanoseconds, 0 when none is given
	Grade   string // temperature, package, revision in words; letters nobody knows as they stand
}

// ReadSuffix explains a suffix of the type's family, such as -25, LP-15 or N.
func (l *Library) ReadSuffix(t *Type, suffix string) Suffix {
	var s Suffix
	grades := []string{}
	if strings.HasPrefix(t.Number, "54") && t.Class == Logic {
		grades = append(grades, "-55 to 125 °C")
	}
	for _, part := range splitSuffix(suffix) {
		if ns, ok := t.speed(part); ok && s.SpeedNs == 0 {
			s.SpeedNs = ns
			continue
		}
		if meaning, ok := l.suffixes[t.suffixGroup()+"/"+part]; ok {
			part = meaning
		}
		grades = append(grades, part)
	}
	s.Grade = strings.Join(grades, ", ")
	return s
}

// slowest is the longest access time that a memory is sorted by, in nanoseconds.
const slowest = 650

// speed reads the digits of a suffix: by the family's table, or as plain nanoseconds when
// there are three of them, as on a memory marked -250.
func (t *Type) speed(digits string) (int, bool) {
	if ns, ok := t.speeds[digits]; ok {
		return ns, true
	}
	if t.Class.IsMemory() && len(digits) == 3 {
		if ns, err := strconv.Atoi(digits); err == nil && ns >= 100 && ns <= slowest && ns%5 == 0 {
			return ns, true
		}
	}
	return 0, false
}

// splitSuffix cuts at hyphens, slashes and wherever letters meet digits.
func splitSuffix(suffix string) []string {
	parts := []string{}
	start := 0
	for i := 1; i <= len(suffix); i++ {
		if i == len(suffix) || kindOf(suffix[i]) != kindOf(suffix[i-1]) {
			if kindOf(suffix[start]) != separator {
				parts = append(parts, suffix[start:i])
			}
			start = i
		}
	}
	return parts
}

type characterKind int

const (
	separator characterKind = iota
	letter
	digit
)

func kindOf(b byte) characterKind {
	switch {
	case isDigit(b):
		return digit
	case isLetter(b):
		return letter
	}
	return separator
}

func allDigits(s string) bool {
	for i := range len(s) {
		if !isDigit(s[i]) {
			return false
		}
	}
	return true
}

func isDigit(b byte) bool { return '0' <= b && b <= '9' }

func isLetter(b byte) bool { return 'A' <= b && b <= 'Z' }
