package sign

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"
)

// mostBeeps bounds a pattern.
const mostBeeps = 64

// beeps is a pattern: L long, S short, B a beep of which the length is not told, / a pause.
type beeps struct {
	pattern string
	goesOn  bool
}

var (
	countsOnly = regexp.MustCompile(`^\d{1,2}(\s*[-/]\s*\d{1,2})+$`)
	between    = regexp.MustCompile(`\s*[-/]\s*`)
	longPauses = regexp.MustCompile(`/+`)
	beepWords  = regexp.MustCompile(`\d+|[a-z]+|[/.\-_]`)
)

// lengths are the words for beeps.
var lengths = map[string]byte{"long": 'L', "l": 'L', "-": 'L', "_": 'L', "short": 'S', "s": 'S', ".": 'S', "beep": 'B',
	"beeps": 'B', "tone": 'B', "tones": 'B'}

// beepsOf reads a pattern: 1 long 2 short; short short pause long; . - -; 1-3-2 for groups of beeps; continuous; none.
func beepsOf(text string) (beeps, error) {
	lower := strings.ToLower(strings.TrimSpace(text))
	b, out := beeps{}, strings.Builder{}
	if isNone(lower) || lower == "no beep" || lower == "silent" {
		return beeps{pattern: "0"}, nil
	}
	if countsOnly.MatchString(lower) {
		lower = strings.Join(between.Split(lower, -1), " beeps / ") + " beeps"
	}
	if strings.ContainsAny(lower, "abcdefghijklmnopqrstuvwxyz") {
		lower = strings.NewReplacer(".", " ", "-", " ", "_", " ").Replace(lower) // no beeps beside words
	}
	count := 0
	for _, w := range beepWords.FindAllString(lower, -1) {
		n, isCount := strconv.Atoi(w)
		length, isBeep := lengths[w]
		switch {
		case isCount == nil && n > 0 && n <= mostBeeps && count == 0:
			count = n
		case isCount == nil:
			return b, fmt.Errorf("%q is no number of beeps", w)
		case w == "continuous" || w == "repeating" || w == "repeated" || w == "endless":
			b.goesOn = true
		case w == "pause" || w == "/" || w == "then":
			out.WriteByte('/')
		case w == "beeps" && count == 0 || w == "x" || w == "times" || w == "and" || w == "a" || w == "one":
		case w == "beep" && count == 0 && endsInLength(out.String()): // 1 long beep
		case isBeep:
			out.WriteString(strings.Repeat(string(length), max(count, 1)))
			count = 0
		default:
			return b, fmt.Errorf("%q is no beep; write long and short, as 1 long 2 short, or groups as 1-3-2", w)
		}
	}
	if count > 0 {
		out.WriteString(strings.Repeat("B", count))
	}
	b.pattern = strings.Trim(longPauses.ReplaceAllString(out.String(), "/"), "/")
	switch {
	case b.pattern == "" && b.goesOn:
		b.pattern = "B"
	case b.pattern == "":
		return b, fmt.Errorf("%q is no beep; write long and short, as 1 long 2 short, or groups as 1-3-2", text)
	case len(b.pattern) > mostBeeps:
		return b, fmt.Errorf("more than %d beeps are no pattern", mostBeeps)
	}
	return b, nil
}

func endsInLength(pattern string) bool {
	return strings.HasSuffix(pattern, "L") || strings.HasSuffix(pattern, "S")
}

// compareBeeps tells how beeps that were heard stand to a pattern.
func compareBeeps(shown, seen string) compared {
	want, err := beepsOf(shown)
	if err != nil {
		return compared{}
	}
	got, err := beepsOf(seen)
	if err != nil {
		return compared{why: err.Error()}
	}
	c := compared{isAlike: true}
	bare := func(p string) string { return strings.ReplaceAll(p, "/", "") }
	a, b := bare(want.pattern), bare(got.pattern)
	if len(a) != len(b) || (a == "0") != (b == "0") {
		c.apart = max(len(a), len(b))
		c.other = append(c.other, fmt.Sprintf("%d instead of %d beeps", beepCount(b), beepCount(a)))
		return c
	}
	untold := false
	for i := range a {
		switch {
		case a[i] == b[i]:
		case a[i] == 'B' || b[i] == 'B':
			untold = true
		default:
			c.apart++
		}
	}
	if c.apart > 0 {
		c.other = append(c.other, "as many beeps, but others of them long")
	}
	if want.pattern != got.pattern && strings.Contains(want.pattern, "/") != strings.Contains(got.pattern, "/") {
		c.doubts = append(c.doubts, "pauses are told of one and not of the other")
	} else if pauses(want.pattern) != pauses(got.pattern) {
		c.apart++
		c.other = append(c.other, "as many beeps, but with pauses elsewhere")
	}
	c.agrees = c.apart == 0
	if untold {
		c.doubts = append(c.doubts, "which beeps are long is not told of both")
	}
	if want.goesOn != got.goesOn {
		c.doubts = append(c.doubts, "whether it goes on and on is not told of both")
	}
	return c
}

func beepCount(pattern string) int {
	if pattern == "0" {
		return 0
	}
	return len(pattern)
}

// pauses tells where a pattern has them.
func pauses(pattern string) string {
	return strings.NewReplacer("L", "b", "S", "b", "B", "b").Replace(pattern)
}
