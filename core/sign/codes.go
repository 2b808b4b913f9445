package sign

import (
	"fmt"
	"strconv"
	"strings"

	"frugalheron/core/word"
)

// bases are the radices a table may name.
var bases = map[string]int{"hex": 16, "octal": 8, "decimal": 10, "binary": 2}

// hasMark reports whether a code says itself of which radix it is. A 0 before it is none, as displays show it.
func hasMark(text string) bool {
	lower := strings.ToLower(strings.TrimSpace(text))
	return strings.HasPrefix(lower, "0x") || strings.HasPrefix(lower, "0b") || strings.Contains(lower, ".") ||
		len(lower) > 1 && (strings.HasSuffix(lower, "h") || strings.HasSuffix(lower, "q"))
}

// valueOf reads a code as a number: by its own mark, else in the radix of the table.
func (t *Table) valueOf(text string) (value uint64, err error) {
	text = strings.ReplaceAll(text, " ", "")
	if base := bases[t.Radix]; base > 0 && !hasMark(text) {
		if value, err = strconv.ParseUint(text, base, 64); err != nil {
			return 0, fmt.Errorf("%q is no %s number of at most 64 bits", text, t.Radix)
		}
		return value, nil
	}
	return word.Parse(text)
}

// digitsOf divides a code with wildcards into its digits and its base; 0 where it is no number.
func (t *Table) digitsOf(text string) (digits string, base int) {
	lower := strings.ToLower(strings.ReplaceAll(text, " ", ""))
	switch base = bases[t.Radix]; {
	case strings.HasPrefix(lower, "0x"):
		digits, base = lower[2:], 16
	case strings.HasPrefix(lower, "0b"):
		digits, base = lower[2:], 2
	case strings.HasSuffix(lower, "h"):
		digits, base = lower[:len(lower)-1], 16
	case strings.HasSuffix(lower, "q"):
		digits, base = lower[:len(lower)-1], 8
	default:
		digits = lower
	}
	for _, d := range digits {
		if _, err := strconv.ParseUint(string(d), max(base, 2), 8); d != '?' && err != nil {
			return "", 0
		}
	}
	return digits, base
}

// tight is a code without the blanks that people put between its figures.
func tight(code string) string { return strings.ReplaceAll(code, " ", "") }

// compareCode tells how a code that was seen stands to one of the table: as it is written, else as a number.
func (t *Table) compareCode(s Sign, seen string) compared {
	p, shown := s.text, s.Shown
	c := compared{isAlike: true, wild: p.wild}
	if at, agrees := p.in(folded(tight(seen))); agrees {
		c.agrees, c.at = true, at
		return c
	}
	value, err := t.valueOf(seen)
	if err != nil {
		return compared{}
	}
	if p.wild > 0 {
		return t.compareDigits(c, shown, value)
	}
	want, err := t.valueOf(shown)
	switch {
	case err != nil:
		return compared{}
	case want != value && sameFigures(shown, seen):
		c.apart, c.other = 1, []string{fmt.Sprintf("the same figures in another radix: the list means %d, what was seen "+
			"says %d", want, value)}
		return c
	case want != value:
		return compared{}
	}
	c.agrees = true
	if t.Radix == "" && hasMark(shown) != hasMark(seen) {
		c.doubts = append(c.doubts, "the list does not say of which radix its codes are, or what was seen does not")
	}
	return c
}

// compareDigits compares a number with digits of which some stand for any.
func (t *Table) compareDigits(c compared, shown string, value uint64) compared {
	digits, base := t.digitsOf(shown)
	if base == 0 {
		return compared{}
	}
	figures := strconv.FormatUint(value, base)
	if n := len(digits) - len(figures); n > 0 {
		figures = strings.Repeat("0", n) + figures
	}
	c.at, c.agrees = patternOf(digits).in(folded(figures))
	c.isAlike = c.agrees
	return c
}

func sameFigures(a, b string) bool {
	bare := func(s string) string {
		s = strings.ToLower(strings.ReplaceAll(s, " ", ""))
		s = strings.TrimSuffix(strings.TrimSuffix(strings.TrimPrefix(strings.TrimPrefix(s, "0x"), "0b"), "h"), "q")
		return strings.TrimLeft(s, "0")
	}
	return bare(a) == bare(b)
}

// Word is a code in each radix, cut into the fields of a table.
type Word struct {
	word.Written
	Fields []word.Field `json:"fields"`
}

// Cut writes a code in each radix and field by field; nil where it is no number.
func (t *Table) Cut(code string) *Word {
	value, err := t.valueOf(code)
	if err != nil {
		return nil
	}
	fields, err := word.FieldsOf(value, t.Fields)
	if err != nil {
		return nil
	}
	return &Word{word.Write(value), fields}
}
