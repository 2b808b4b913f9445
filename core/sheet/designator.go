package sheet

import (
	"fmt"
	"strconv"
	"strings"
)

// Most signs a designator has.
const (
	maxLetters = 6
	maxDigits  = 9
)

// designator is letters and a number (U40, IC1, R12A), cut into its pieces.
type designator struct {
	letters, digits, suffix string
}

// cut takes a designator apart; ok is false for anything else.
func cut(text string) (d designator, ok bool) {
	at := 0
	for at < len(text) && isLetter(text[at]) {
		at++
	}
	end := at
	for end < len(text) && isDigit(text[end]) {
		end++
	}
	d = designator{text[:at], text[at:end], text[end:]}
	ok = 1 <= at && at <= maxLetters && 1 <= end-at && end-at <= maxDigits &&
		(d.suffix == "" || len(d.suffix) == 1 && isLetter(d.suffix[0]))
	return d, ok
}

// isGridCell reports whether text is a cell of a board that letters its grid with the number
// first, as 4C or 12F2. 8X is a count.
func isGridCell(text string) bool {
	if isCount(text) {
		return false
	}
	letter := strings.IndexFunc(text, func(r rune) bool { return 'A' <= r && r <= 'Z' })
	if letter < 1 || letter > 2 || len(text)-letter-1 > 2 {
		return false
	}
	return isDigits(text[:letter]) && (letter+1 == len(text) || isDigits(text[letter+1:]))
}

func isDesignator(text string) bool {
	_, ok := cut(text)
	return ok || isGridCell(text)
}

func isLetter(b byte) bool { return 'a' <= b && b <= 'z' || 'A' <= b && b <= 'Z' }

func isDigit(b byte) bool { return '0' <= b && b <= '9' }

// looksLikeDesignators reports whether an item is a designator or a run of them, right or wrong.
func looksLikeDesignators(item string) bool {
	from, to, isRun := cutRun(item)
	if !isRun {
		return isDesignator(item)
	}
	return isDesignator(from) && (isDesignator(to) || isDigits(to))
}

// cutRun splits U40-U48, U40..U48 and U40–U48.
func cutRun(item string) (from, to string, isRun bool) {
	for _, separator := range []string{"..", "-", "–"} {
		if from, to, found := strings.Cut(item, separator); found {
			return from, to, true
		}
	}
	return item, "", false
}

// expand lists the designators of an item, or says why it cannot.
func expand(item string) (designators []string, why string) {
	from, to, isRun := cutRun(item)
	if !isRun {
		return []string{item}, ""
	}
	first, isFirst := cut(from)
	last, isLast := cut(to)
	if isDigits(to) && len(to) <= maxDigits {
		last, isLast = designator{first.letters, to, ""}, true
	}
	if !isFirst || !isLast || !strings.EqualFold(first.letters, last.letters) || first.suffix+last.suffix != "" {
		return nil, fmt.Sprintf("%s is no run; a run goes from one number to a higher one under the same letters, as U40-U48", item)
	}
	start, errStart := strconv.Atoi(first.digits)
	end, errEnd := strconv.Atoi(last.digits)
	switch {
	case errStart != nil || errEnd != nil:
		return nil, fmt.Sprintf("%s is no run of numbers", item)
	case end < start:
		return nil, fmt.Sprintf("%s counts down; write %s%s-%s%s", item, first.letters, last.digits, first.letters, first.digits)
	case end-start+1 > MaxRun:
		return nil, fmt.Sprintf("%s holds %d parts; a run holds at most %d", item, end-start+1, MaxRun)
	}
	designators = make([]string, 0, end-start+1)
	width := 0
	if strings.HasPrefix(first.digits, "0") {
		width = len(first.digits)
	}
	for n := start; n <= end; n++ {
		digits := strconv.Itoa(n)
		designators = append(designators, first.letters+strings.Repeat("0", max(0, width-len(digits)))+digits)
	}
	return designators, ""
}
