package device

import (
	"fmt"
	"strconv"
	"strings"

	"frugalheron/core/table"
)

// noGrade stands in a table of clocks for a part that is marked with its number alone.
const noGrade = "*"

// readRatings says of types, the numbers of second sources among them, for which supply and clocks they are made.
func (l *Library) readRatings(text []byte) error {
	rows, err := table.ReadReference("ratings", string(text), "numbers", "supply", "clocks", "source")
	if err != nil {
		return err
	}
	for _, r := range rows {
		grades := map[string]float64{}
		for word := range strings.FieldsSeq(r.Cells[2]) {
			grade, figure, _ := strings.Cut(word, ":")
			if grades[grade], err = strconv.ParseFloat(figure, 64); err != nil {
				return fmt.Errorf("ratings, line %d: %q is no grade and its megahertz", r.Line, word)
			}
		}
		for number := range strings.SplitSeq(r.Cells[0], ",") {
			if _, known := l.types[number]; !known {
				return fmt.Errorf("ratings, line %d: %s is no type", r.Line, number)
			}
			for _, t := range l.types {
				if t.Number == number {
					t.Supply, t.clocks, t.ClockMHz = r.Cells[1], grades, grades[noGrade]
				}
			}
		}
	}
	return nil
}

// MaxMHz is the highest clock that a part is made for by its marking, in megahertz; 0 where that does not say, or says it
// in a grade that nobody knows.
func (r Recognition) MaxMHz() float64 {
	if mhz, known := r.clocks[r.number]; known {
		return mhz
	}
	parts, isGraded := splitSuffix(r.Suffix), false
	for _, part := range parts {
		if isDigit(part[0]) {
			if mhz, known := r.clocks[part]; known {
				return mhz
			}
			isGraded = true
		}
	}
	for _, part := range parts {
		if mhz, known := r.clocks[part]; known {
			return mhz
		}
		// The grade is the first of two or three letters, the package stands behind it.
		if mhz, known := r.clocks[part[:1]]; known && len(part) <= 3 {
			return mhz
		}
	}
	if isGraded {
		return 0
	}
	return r.ClockMHz
}
