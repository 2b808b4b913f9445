package names

import (
	"strings"
	"unicode"
	"unicode/utf8"

	"golang.org/x/text/unicode/norm"
)

// word is a run of letters and figures, and where it stands.
type word struct {
	folded     string
	start, end int
}

// wordsOf cuts a text into folded words. Invisible characters stand in no word and end none; a hyphen at the end of
// a line holds both parts of a word together.
func wordsOf(text string) []word {
	words := make([]word, 0, len(text)/6+1)
	start, end := -1, 0     // of the word in hand; -1 for none
	letters, piece := "", 0 // its letters before the last interruption, and where those behind it start
	isInterrupted := false  // since its last letter
	at := 0
	interrupt := func(size int) {
		if start >= 0 && !isInterrupted {
			letters, isInterrupted = letters+text[piece:end], true
		}
		at += size
	}
	finish := func() {
		if start < 0 {
			return
		}
		interrupt(0)
		if folded := fold(letters); folded != "" {
			words = append(words, word{folded, start, end})
		}
		start, letters, isInterrupted = -1, "", false
	}
	for at < len(text) {
		r, size := rune(text[at]), 1
		if r >= utf8.RuneSelf {
			r, size = utf8.DecodeRuneInString(text[at:])
		}
		if isLetter(r) {
			if start < 0 {
				start, piece = at, at
			} else if isInterrupted {
				piece, isInterrupted = at, false
			}
			at += size
			end = at
			continue
		}
		if isInvisible(r) {
			interrupt(size)
			continue
		}
		if skip := brokenAt(text[at:]); start >= 0 && skip > 0 {
			interrupt(skip)
			continue
		}
		finish()
		at += size
	}
	finish()
	return words
}

func isLetter(r rune) bool {
	return r < utf8.RuneSelf && ('a' <= r && r <= 'z' || 'A' <= r && r <= 'Z' || '0' <= r && r <= '9') ||
		r >= utf8.RuneSelf && (unicode.IsLetter(r) || unicode.IsDigit(r) || unicode.IsMark(r))
}

// isInvisible reports characters that take no room: joiners, marks of direction, soft hyphens.
func isInvisible(r rune) bool {
	return r >= utf8.RuneSelf && (unicode.Is(unicode.Cf, r) || r == '\u034f')
}

// brokenAt measures a hyphen that ends a line with a letter behind it; 0 for none.
func brokenAt(text string) int {
	r, size := utf8.DecodeRuneInString(text)
	if r != '-' && r != '\u2010' {
		return 0
	}
	rest := strings.TrimLeft(text[size:], " \t\r")
	if !strings.HasPrefix(rest, "\n") {
		return 0
	}
	rest = strings.TrimLeft(rest, " \t\r\n")
	next, _ := utf8.DecodeRuneInString(rest)
	if !unicode.IsLetter(next) {
		return 0
	}
	return len(text) - len(rest)
}

// fold writes a word as it is compared: small letters, without accents, in their plain width.
func fold(text string) string {
	isPlain := true
	for i := range len(text) {
		if text[i] >= utf8.RuneSelf {
			isPlain = false
			break
		}
	}
	if isPlain {
		return strings.ToLower(text)
	}
	folded := make([]rune, 0, len(text))
	for _, r := range norm.NFKD.String(text) {
		if unicode.Is(unicode.Mn, r) || isInvisible(r) {
			continue
		}
		if letters, ok := spelledOut[r]; ok {
			folded = append(folded, []rune(letters)...)
			continue
		}
		folded = append(folded, unicode.ToLower(r))
	}
	return string(folded)
}

// spelledOut are letters that take no accent apart and are written with plain ones where they are missing.
var spelledOut = map[rune]string{
	'ß': "ss", 'ẞ': "ss", 'æ': "ae", 'Æ': "ae", 'œ': "oe", 'Œ': "oe", 'ø': "o", 'Ø': "o", 'ł': "l", 'Ł': "l", 'đ': "d",
	'Đ': "d", 'ð': "d", 'Ð': "d",
	'þ': "th", 'Þ': "th", 'ı': "i", 'ĸ': "k", 'ſ': "s",
}

// mostBetween is how many characters stand between two words of a name at most.
const mostBetween = 12

// isGap reports whether the words on both sides may be of one name: white space, hyphens and the signs that stand
// between names are between them, and nothing else.
func isGap(between string) bool {
	signs := 0
	for _, r := range between {
		switch {
		case unicode.IsSpace(r), isInvisible(r):
		case strings.ContainsRune("-#.,'’`´()[]\"“”„_/&*:;\u2010\u2011\u2012\u2013\u2014\u00b7\u30fb", r):
			signs++
		default:
			return false
		}
	}
	return signs <= 3 && utf8.RuneCountInString(between) <= mostBetween
}
