package known

import (
	"slices"
	"strings"
)

// separators stand between the signs of a part number without being part of it. The column assembly.part_key of the
// database leaves out the same ones.
const separators = " \t\u00a0-\u2010\u2011\u2012\u2013\u2014\u2212_./\\,:;#()+*'\""

// Fold writes a part number so that ways of writing it are equal: dashes, blanks and the like are left out, and what
// stands before its first digit, as in ASSY 4410-2, P/N 4410 2 and 44102. One without a digit stays whole.
func Fold(number string) string {
	folded := strings.Map(func(r rune) rune {
		switch {
		case strings.ContainsRune(separators, r):
			return -1
		case 'a' <= r && r <= 'z':
			return r - 'a' + 'A'
		}
		return r
	}, number)
	if first := strings.IndexAny(folded, "0123456789"); first > 0 {
		return folded[first:]
	}
	return folded
}

// words that makers print before any part number; they say nothing of which number it is.
var numberWords = []string{"ASSY", "ASSEMBLY", "PART", "PARTS", "P", "N", "PN", "NO", "NR", "NUM", "NUMBER", "PCB",
	"PWB", "PCA",
	"BOARD", "CARD", "MODEL", "MOD", "TYPE", "CAT", "REF", "SKU", "ORDER", "DWG"}

// letters are those before the first digit of a number that tell it from others, as PS of PS-65; none for ASSY 4410.
func letters(number string) string {
	first := strings.IndexAny(number, "0123456789")
	if first < 0 {
		return ""
	}
	isSeparator := func(r rune) bool { return strings.ContainsRune(separators, r) }
	own := slices.DeleteFunc(strings.FieldsFunc(strings.ToUpper(number[:first]), isSeparator),
		func(word string) bool { return slices.Contains(numberWords, word) })
	return strings.Join(own, "")
}

// groups are the parts of a number between its dashes and blanks, from its first digit on.
func groups(number string) []string {
	first := max(strings.IndexAny(number, "0123456789"), 0)
	return strings.FieldsFunc(strings.ToUpper(number[first:]),
		func(r rune) bool { return strings.ContainsRune(separators, r) })
}

// sameNumber compares a number of a record with one on a thing. Doubt says why they may be two all the same.
func sameNumber(recorded, printed string) (same bool, doubt string) {
	key := Fold(recorded)
	if key == "" || key != Fold(printed) {
		return false, ""
	}
	of, on := letters(recorded), letters(printed)
	ofGroups, onGroups := groups(recorded), groups(printed)
	switch {
	case of != "" && on != "" && of != on && len(key) < shortNumber:
		return false, ""
	case of != "" && on != "" && of != on:
		return true, "the letters before the number differ: " + of + " there, " + on + " here"
	case of != on && len(key) < shortNumber:
		return true, "so short a number says little without its letters: " + of + on
	case len(ofGroups) > 1 && len(onGroups) > 1 && !slices.Equal(ofGroups, onGroups):
		return true, "the number is divided elsewhere: " + strings.Join(ofGroups, "-") + " there, " +
			strings.Join(onGroups, "-") + " here"
	}
	return true, ""
}

// shortNumber is the length from which a number tells a thing from others without letters. A rule of thumb.
const shortNumber = 4

// SameNumber reports whether two ways of writing a part number are one beyond doubt.
func SameNumber(a, b string) bool {
	same, doubt := sameNumber(a, b)
	return same && doubt == ""
}

// Tells reports whether a part number tells a thing from others at all: PT-2 does, 2 does not.
func Tells(number string) bool {
	return len(letters(number))+len(Fold(number)) > 2 || len(Fold(number)) > 1
}

// withRevisionBehind reports whether a printed number is a recorded one with one or two letters behind it, which may be
// its revision.
func withRevisionBehind(recorded, printed string) (revision string, ok bool) {
	key, own := Fold(recorded), Fold(printed)
	tail, ok := strings.CutPrefix(own, key)
	if !ok || len(key) < shortNumber || len(tail) == 0 || len(tail) > 2 || strings.Trim(tail,
		"ABCDEFGHIJKLMNOPQRSTUVWXYZ") != "" {
		return "", false
	}
	if of, on := letters(recorded), letters(printed); of != "" && on != "" && of != on {
		return "", false
	}
	return tail, true
}
