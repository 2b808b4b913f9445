// Package accession answers: which number does the next thing of the collection get? A collection has
// a pattern, as EH-{number:4} or {year}.{lot}.{item}; a number is given once and never again, whatever
// became of the thing that had it.
package accession

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"frugalheron/core/malformed"
)

// Pattern is how a collection writes its numbers.
type Pattern struct {
	text   string
	fields []field
	form   *regexp.Regexp
}

type field struct {
	name  string // number, year, lot, item
	width int    // least figures
}

var placeholder = regexp.MustCompile(`\{([a-z]+)(?::(\d))?\}`)

// ParsePattern reads a pattern. It has either {number}, which counts through the collection, or {lot}
// and {item}, which count the lots of a year and the things of a lot; {year} is that of the arrival.
// Behind a colon stands the least number of figures.
func ParsePattern(text string) (Pattern, error) {
	p := Pattern{text: text}
	if !utf8.ValidString(text) || strings.ContainsFunc(text, unicode.IsControl) {
		return p, malformed.Of("it holds characters that cannot be shown")
	}
	form := strings.Builder{}
	form.WriteString("^")
	at := 0
	for _, m := range placeholder.FindAllStringSubmatchIndex(text, -1) {
		literal := text[at:m[0]]
		if strings.ContainsAny(literal, "{}") {
			return p, malformed.Of("a brace stands alone; write fields as {number:4}")
		}
		f := field{name: text[m[2]:m[3]], width: 1}
		if m[4] >= 0 {
			f.width, _ = strconv.Atoi(text[m[4]:m[5]])
		}
		switch {
		case !slices.Contains([]string{"number", "year", "lot", "item"}, f.name):
			return p, malformed.Of("%s", "there is no field {"+f.name+"}; there are {number}, {year}, {lot} and {item}")
		case p.has(f.name):
			return p, malformed.Of("%s", "{"+f.name+"} stands twice")
		case m[1] < len(text) && '0' <= text[m[1]] && text[m[1]] <= '9':
			return p, malformed.Of("%s", "a figure stands right behind {"+f.name+"}, so that nobody can tell where that ends; put a point or a stroke between them")
		case literal == "" && len(p.fields) > 0:
			return p, malformed.Of("two fields touch, so that nobody can tell where one ends; put a point or a stroke between them")
		}
		figures := fmt.Sprintf(`(\d{%d,9})`, max(f.width, 1))
		if f.name == "year" {
			figures = `(\d{4})`
		}
		form.WriteString(regexp.QuoteMeta(literal) + figures)
		p.fields = append(p.fields, f)
		at = m[1]
	}
	rest := text[at:]
	switch {
	case strings.ContainsAny(rest, "{}"):
		return p, malformed.Of("a brace stands alone; write fields as {number:4}")
	case !p.has("number") && !(p.has("lot") && p.has("item")):
		return p, malformed.Of("nothing in it counts; put {number} into it, or {lot} and {item}")
	case p.has("number") && (p.has("lot") || p.has("item")):
		return p, malformed.Of("{number} counts through the whole collection, so {lot} and {item} have no place beside it")
	case strings.TrimSpace(text) != text || len(text) > 40:
		return p, malformed.Of("it has white space at an end, or more than 40 characters")
	}
	form.WriteString(regexp.QuoteMeta(rest) + "$")
	p.form = regexp.MustCompile(form.String())
	return p, nil
}

func (p Pattern) has(name string) bool {
	return slices.ContainsFunc(p.fields, func(f field) bool { return f.name == name })
}

// String gives the pattern as it was written.
func (p Pattern) String() string { return p.text }

// CountsLots reports whether lots have numbers of their own.
func (p Pattern) CountsLots() bool { return p.has("lot") }

// Number is what a written number says.
type Number struct{ Year, Lot, Count int }

// Read takes a written number apart. It returns false for one of another pattern: collections inherit
// such numbers.
func (p Pattern) Read(text string) (Number, bool) {
	m := p.form.FindStringSubmatch(text)
	if m == nil {
		return Number{}, false
	}
	n := Number{}
	for i, f := range p.fields {
		value, err := strconv.Atoi(m[i+1])
		if err != nil {
			return n, false
		}
		switch f.name {
		case "year":
			n.Year = value
		case "lot":
			n.Lot = value
		default:
			n.Count = value
		}
	}
	return n, p.Write(n) == text
}

// Write writes a number.
func (p Pattern) Write(n Number) string {
	values := map[string]int{"year": n.Year, "lot": n.Lot, "number": n.Count, "item": n.Count}
	at := -1
	return placeholder.ReplaceAllStringFunc(p.text, func(string) string {
		at++
		f := p.fields[at]
		width := f.width
		if f.name == "year" {
			width = 4
		}
		return fmt.Sprintf("%0*d", width, values[f.name])
	})
}

// Next finds the number for a thing that arrived in a year: one behind the last of those ever given.
// Where lots are counted, lot is the lot's own number, or 0 for a lot that has none yet.
func (p Pattern) Next(given []string, year, lot int) Number {
	next := Number{Year: year, Lot: lot}
	if !p.has("year") {
		next.Year = 0
	}
	lastLot := 0
	for _, text := range given {
		n, ok := p.Read(text)
		if !ok || n.Year != next.Year {
			continue
		}
		lastLot = max(lastLot, n.Lot)
		if n.Lot == lot || !p.has("lot") {
			next.Count = max(next.Count, n.Count)
		}
	}
	if p.has("lot") && lot == 0 {
		next.Lot, next.Count = lastLot+1, 0
	}
	next.Count++
	return next
}

// Gap is a run of numbers that were passed over.
type Gap struct {
	From  string `json:"from"`
	To    string `json:"to" doc:"The last of them; the same as the first where there is one"`
	Count int    `json:"count"`
}

// Gaps lists the runs of numbers that were passed over between the first and the last that were given, in order.
func (p Pattern) Gaps(given []string) []Gap {
	type series struct{ year, lot int }
	counts := map[series][]int{}
	for _, text := range given {
		if n, ok := p.Read(text); ok {
			key := series{n.Year, n.Lot}
			if p.has("number") {
				key = series{year: n.Year}
			}
			counts[key] = append(counts[key], n.Count)
		}
	}
	keys := make([]series, 0, len(counts))
	for key := range counts {
		keys = append(keys, key)
	}
	slices.SortFunc(keys, func(a, b series) int {
		if a.year != b.year {
			return a.year - b.year
		}
		return a.lot - b.lot
	})
	gaps := []Gap{}
	for _, key := range keys {
		numbers := counts[key]
		slices.Sort(numbers)
		for i := 1; i < len(numbers); i++ {
			first, last := numbers[i-1]+1, numbers[i]-1
			if first <= last {
				gaps = append(gaps, Gap{p.Write(Number{key.year, key.lot, first}),
					p.Write(Number{key.year, key.lot, last}), last - first + 1})
			}
		}
	}
	return gaps
}
