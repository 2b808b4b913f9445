// Package word answers what a word of a machine says: in hexadecimal, octal, split octal and binary, and field by
// field.
package word

import (
	"fmt"
	"math"
	"math/bits"
	"strconv"
	"strings"

	"frugalheron/core/malformed"
)

// Written is a value in the radices in which machines and their papers write it, without marks of the radix.
type Written struct {
	Value  uint64 `json:"value"`
	Hex    string `json:"hex"`
	Octal  string `json:"octal"`
	Split  string `json:"splitOctal"` // each byte by itself, in octal, the highest first
	Binary string `json:"binary"`
}

// Write writes a value.
func Write(value uint64) Written {
	w := Written{Value: value, Hex: strconv.FormatUint(value, 16), Octal: strconv.FormatUint(value, 8),
		Binary: strconv.FormatUint(value, 2)}
	groups := []string{}
	for at := max(2, (bits.Len64(value)+7)/8) - 1; at >= 0; at-- {
		groups = append(groups, fmt.Sprintf("%03o", byte(value>>(8*at))))
	}
	w.Split = strings.Join(groups, ".")
	return w
}

// Field is a run of bits in a word, the lowest of which is 0.
type Field struct {
	Name string `json:"name"`
	From int    `json:"from"` // its high bit
	To   int    `json:"to"`   // its low bit
	Written
}

// digits are those of all radices.
const digits = "0123456789abcdef"

// Parse reads a value: 0x3F8 or 3F8h, 0b1010, 017650 or 377q in octal, 377.250 in split octal, else in decimal. A
// *malformed.Error names the column of a digit outside its radix.
func Parse(text string) (uint64, error) {
	trimmed := strings.TrimSpace(text)
	first := len(text) - len(strings.TrimLeft(text, " \t")) + 1 // column of its first character
	lower := strings.ToLower(trimmed)
	switch body, isHex := strings.CutPrefix(lower, "0x"); {
	case trimmed == "":
		return 0, malformed.Of("write a value, as 0x3F8, 3F8h, 0b1010, 017650, 377q or 377.250")
	case isHex:
		return figures(body, first+2, 16)
	case strings.HasSuffix(lower, "h"):
		return figures(lower[:len(lower)-1], first, 16)
	case strings.HasPrefix(lower, "0b"):
		return figures(lower[2:], first+2, 2)
	case strings.HasSuffix(lower, "q"):
		return figures(lower[:len(lower)-1], first, 8)
	case strings.Contains(lower, "."):
		return splitOctal(lower, first)
	case len(lower) > 1 && lower[0] == '0':
		return figures(lower, first, 8)
	}
	return figures(lower, first, 10)
}

// radixNames are what radices are called.
var radixNames = map[uint64]string{2: "binary", 8: "octal", 10: "decimal", 16: "hexadecimal"}

// figures reads digits that begin at a column.
func figures(text string, column int, radix uint64) (uint64, error) {
	if text == "" {
		return 0, &malformed.Error{Column: column, Err: fmt.Errorf("no %s figure stands there", radixNames[radix])}
	}
	var value uint64
	for i, c := range []rune(text) {
		digit := strings.IndexRune(digits[:radix], c)
		if digit < 0 {
			return 0, &malformed.Error{Column: column + i, Err: fmt.Errorf("%q is no %s digit", c, radixNames[radix])}
		}
		high, low := bits.Mul64(value, radix)
		if high > 0 || low > math.MaxUint64-uint64(digit) { //nolint:gosec // 0 to 15
			return 0, &malformed.Error{Column: column + i, Err: fmt.Errorf("the value is longer than 64 bits")}
		}
		value = low + uint64(digit) //nolint:gosec // 0 to 15
	}
	return value, nil
}

// mostGroups bounds the bytes of a value.
const mostGroups = 8

// splitOctal reads bytes, each in octal, with points between.
func splitOctal(text string, column int) (uint64, error) {
	var value uint64
	for n, group := range strings.Split(text, ".") {
		b, err := figures(group, column, 8)
		if err != nil {
			return 0, err
		}
		if b > math.MaxUint8 || n == mostGroups {
			return 0, &malformed.Error{Column: column,
				Err: fmt.Errorf("%s is more than a byte; in split octal each group goes up to 377", group)}
		}
		value = value<<8 | b
		column += len(group) + 1
	}
	return value, nil
}

// FieldsOf cuts a value into fields, told as "15-12 bank, 7 top": the high bit first, one figure for one bit.
func FieldsOf(value uint64, told string) ([]Field, error) {
	fields := []Field{}
	if strings.TrimSpace(told) == "" {
		return fields, nil
	}
	column := 1
	for part := range strings.SplitSeq(told, ",") {
		start := column + len(part) - len(strings.TrimLeft(part, " \t"))
		column += len(part) + 1
		at, name, _ := strings.Cut(strings.TrimSpace(part), " ")
		high, low, isRun := strings.Cut(at, "-")
		if !isRun {
			low = high
		}
		from, errFrom := strconv.Atoi(high)
		to, errTo := strconv.Atoi(low)
		switch {
		case errFrom != nil || errTo != nil || from < 0 || to < 0 || from > 63 || to > 63:
			return nil, &malformed.Error{Column: start,
				Err: fmt.Errorf("%q is no field; write its bits, from 63 to 0, and its name: 15-12 bank",
					strings.TrimSpace(part))}
		case from < to:
			return nil, &malformed.Error{Column: start,
				Err: fmt.Errorf("%s: the high bit goes first, as %d-%d", at, to, from)}
		}
		width := from - to + 1
		mask := uint64(math.MaxUint64) >> (64 - width)
		fields = append(fields, Field{strings.TrimSpace(name), from, to, Write(value >> to & mask)})
	}
	return fields, nil
}
