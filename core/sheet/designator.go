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

// run is one item of a subject: the numbers from start to end behind the same letters, or a single designator
// that is no letters and number alone.
type run struct {
	only       string
	letters    string
	start, end int
	width      int // digits that numbers are filled up to with zeros; 0 for none
}

// readRun reads an item, or says why it cannot. Nothing is expanded: a run is counted first.
func readRun(item string) (r run, why string) {
	from, to, isRun := cutRun(item)
	first, isFirst := cut(from)
	if !isRun {
		if !isFirst || first.suffix != "" {
			return run{only: item}, ""
		}
		to = from
	}
	last, isLast := cut(to)
	if isDigits(to) && len(to) <= maxDigits {
		last, isLast = designator{first.letters, to, ""}, true
	}
	if !isFirst || !isLast || !strings.EqualFold(first.letters, last.letters) || first.suffix+last.suffix != "" {
		return run{}, fmt.Sprintf(
			"%s is no run; a run goes from one number to a higher one under the same letters, as U40-U48", item)
	}
	start, errStart := strconv.Atoi(first.digits)
	end, errEnd := strconv.Atoi(last.digits)
	switch {
	case errStart != nil || errEnd != nil:
		return run{}, fmt.Sprintf("%s is no run of numbers", item)
	case end < start:
		return run{}, fmt.Sprintf("%s counts down; write %s%s-%s%s", item, first.letters, last.digits, first.letters,
			first.digits)
	case end-start+1 > MaxRun:
		return run{}, fmt.Sprintf("%s holds %d parts; a run holds at most %d", item, end-start+1, MaxRun)
	}
	r = run{letters: first.letters, start: start, end: end}
	if strings.HasPrefix(first.digits, "0") {
		r.width = len(first.digits)
	}
	return r, ""
}

func (r run) count() int { return r.end - r.start + 1 }

func (r run) name(n int) string {
	digits := strconv.Itoa(n)
	return r.letters + strings.Repeat("0", max(0, r.width-len(digits))) + digits
}

// designators lists what the run names.
func (r run) designators(list []string) []string {
	if r.only != "" {
		return append(list, r.only)
	}
	for n := r.start; n <= r.end; n++ {
		list = append(list, r.name(n))
	}
	return list
}

func (r run) holds(designator string) bool {
	if r.only != "" {
		return r.only == designator
	}
	d, ok := cut(designator)
	if !ok || d.letters != r.letters {
		return false
	}
	n, err := strconv.Atoi(d.digits)
	return err == nil && r.start <= n && n <= r.end && r.name(n) == designator
}

// IsDesignator reports whether a word names one part, as U40 or the cell 4C of a lettered grid.
func IsDesignator(word string) bool { return isDesignator(word) }

// Names reports whether designators as a line writes them, as U40-U48 or U20,U22, name one, in any case.
func Names(written, designator string) bool {
	designator = strings.ToUpper(designator)
	for item := range strings.SplitSeq(strings.ToUpper(written), ",") {
		if r, why := readRun(item); item != "" && why == "" && r.holds(designator) {
			return true
		}
	}
	return false
}

// Designators lists what a line names by U40-U48 or U20,U22, but no more than some.
func Designators(written string, most int) []string {
	list := []string{}
	for item := range strings.SplitSeq(written, ",") {
		r, why := readRun(item)
		if item == "" || why != "" || isCount(item) {
			continue
		}
		if r.only == "" {
			r.end = min(r.end, r.start+most-1)
		}
		list = r.designators(list)
		if len(list) >= most {
			return list[:most]
		}
	}
	return list
}

// Compact writes designators as a line does: neighbours as runs, in the order in which they come.
func Compact(designators []string) string {
	items := []string{}
	for at := 0; at < len(designators); {
		end := at
		for end+1 < len(designators) && isNext(designators[end], designators[end+1]) {
			end++
		}
		switch {
		case end-at >= 2:
			items = append(items, designators[at]+"-"+designators[end])
		default:
			items = append(items, designators[at:end+1]...)
		}
		at = end + 1
	}
	return strings.Join(items, ",")
}

// isNext reports whether a designator is the one behind another in a run.
func isNext(one, other string) bool {
	a, okA := cut(one)
	b, okB := cut(other)
	if !okA || !okB || a.letters != b.letters || a.suffix+b.suffix != "" {
		return false
	}
	n, errA := strconv.Atoi(a.digits)
	m, errB := strconv.Atoi(b.digits)
	isPadded := strings.HasPrefix(a.digits, "0") || strings.HasPrefix(b.digits, "0")
	return errA == nil && errB == nil && m == n+1 && (!isPadded || len(a.digits) == len(b.digits))
}

// First is the first designator of those that a line writes; empty where it names none, as 8x.
func First(written string) string {
	item, _, _ := strings.Cut(written, ",")
	r, why := readRun(item)
	switch {
	case why != "" || isCount(item):
		return ""
	case r.only != "":
		return r.only
	}
	return r.name(r.start)
}

// eachBlock visits the blocks that the run touches, with the stretch of each, until visit says no.
func (r run) eachBlock(visit func(b block, first, last int) bool) {
	letters := strings.ToUpper(r.letters)
	for from := r.start; from <= r.end; {
		digits := max(r.width, len(strconv.Itoa(from)))
		// As many digits, and the same block.
		to := min(r.end, from/blockSize*blockSize+blockSize-1, highest(digits))
		if !visit(block{letters, digits, from / blockSize}, from%blockSize, to%blockSize) {
			return
		}
		from = to + 1
	}
}

// highest is the highest number of so many digits.
func highest(digits int) int {
	n := 1
	for range digits {
		n *= 10
	}
	return n - 1
}
