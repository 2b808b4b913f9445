package measure

import (
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"frugalheron/core/malformed"
	"frugalheron/core/quantity"
)

// Line is a measurement as somebody typed it.
type Line struct {
	Point    string            // what was measured: a rail, a designator, a place
	Quantity quantity.Quantity // of the readings
	Readings []float64         // in the unit of the quantity, at least one
	Opening  *float64          // of two parts that must slide or plug: the second, which the first must go into
	Expected *Expected         // null when nothing is known
	ByRule   bool              // what is expected is what rails of that name usually have; nobody typed it
	Sure     bool              // it cannot be meant as something else, as a line of a sheet
}

var (
	decimalComma = regexp.MustCompile(`(\d),(\d)`)
	expectation  = regexp.MustCompile(`\s*([=<>])\s*`)
	number       = regexp.MustCompile(`^[+-]?\d+(\.\d+)?$`)
	numberUnit   = regexp.MustCompile(`^[+-]?\d+(\.\d+)?[A-Za-zµμΩ°]+$`)
)

// numbered are words that a figure of the point stands behind.
var numbered = regexp.MustCompile(`(?i)^(pin|pins|leg|key|no\.?|slot|bank|row|channel)$`)

// Parse reads a line as "+5 4.93", "BT1 2.1 V", "C12 ESR 0.8 ohm < 1", "U3 pin 8 4.9 V = 5 V +/- 5 %" or
// "drive guide 31.4 mm / 30.9 mm". Several readings of one point may follow each other. A *malformed.Error
// is returned for what is no measurement.
func Parse(line string) (Line, error) {
	said := Line{Readings: []float64{}}
	line = strings.Join(strings.Fields(decimalComma.ReplaceAllString(line, "$1.$2")), " ")
	sign, wanted := "", ""
	if at := expectation.FindStringSubmatchIndex(line); at != nil {
		sign, wanted = line[at[2]:at[3]], line[at[1]:]
		line = line[:at[0]]
	}
	left, opening, hasOpening := strings.Cut(line, " / ")
	if err := said.readings(strings.Fields(left)); err != nil {
		return said, err
	}
	if hasOpening {
		if said.Quantity != quantity.Millimetres || len(said.Readings) != 1 {
			return said,
				malformed.Of("two measures with a stroke between are a part and its opening, in mm: drive guide 31.4 mm / 30.9 mm")
		}
		value, _, err := quantity.Parse(opening, quantity.Millimetres)
		if err != nil {
			return said, malformed.Of("%w", err)
		}
		said.Opening, said.Sure = &value, true
	}
	if sign != "" {
		if said.Opening != nil && sign != ">" {
			return said,
				malformed.Of("the play that a part needs in its opening is written behind >: drive guide 31.4 mm / 30.9 mm > 0.2 mm")
		}
		e, err := parseExpected(sign, wanted, said.Quantity)
		if err != nil {
			return said, malformed.Of("%w", err)
		}
		said.Expected, said.ByRule, said.Sure = &e, false, true
	}
	return said, nil
}

var cell = regexp.MustCompile(`(?i)^(BT|BAT|BATT)\d*$`)

// mostCellVolts is the most that a battery of a board has. A rule of thumb: a bare figure above is the number of a cell.
const mostCellVolts = 60

// isCell reports whether bare figures stand behind the designator of a battery: these are its volts.
func isCell(words []string) bool {
	if !cell.MatchString(words[0]) {
		return false
	}
	for _, word := range words[1:] {
		volts, err := strconv.ParseFloat(word, 64)
		if !number.MatchString(word) || err != nil || math.Abs(volts) > mostCellVolts {
			return false
		}
	}
	return true
}

// readings takes point, quantity and readings off the words.
func (s *Line) readings(words []string) error {
	none := malformed.Of("write what was measured, the value and its unit: BT1 2.1 V, or a rail and its volts: +5 4.93")
	if len(words) < 2 {
		return none
	}
	if e, ok := Rail(words[0]); ok {
		first := behindPlace(words)
		s.Point, s.Quantity, s.Expected = strings.Join(words[:first], " "), quantity.Volts, &e
		s.ByRule, s.Sure = true, true
		return s.take(words[first:], none)
	}
	if isCell(words) {
		s.Point, s.Quantity, s.Sure = words[0], quantity.Volts, true
		return s.take(words[1:], none)
	}
	first := len(words)
	for i := 1; i < len(words); i++ {
		if numbered.MatchString(words[i-1]) && number.MatchString(words[i]) {
			continue // the 8 of pin 8 names the point
		}
		if number.MatchString(words[i]) || numberUnit.MatchString(words[i]) {
			if s.isReadings(words[i:]) || strings.EqualFold(words[i-1], "esr") && areNumbers(words[i:]) {
				first = i
				break
			}
		}
	}
	if first == len(words) {
		return none
	}
	point := words[:first]
	if n := len(point); n > 1 && strings.EqualFold(point[n-1], "esr") {
		s.Quantity, s.Sure = quantity.ESR, true
		point = point[:n-1]
	}
	for _, word := range point {
		if _, unit, ok := quantity.Split(word); ok {
			if _, _, isUnit := quantity.UnitOf(unit); isUnit {
				return none // what is marked on a part, not what it measures
			}
		}
	}
	s.Point = strings.Join(point, " ")
	if err := s.take(words[first:], none); err != nil {
		return err
	}
	switch s.Quantity {
	case quantity.Seconds:
		s.Sure = !strings.EqualFold(strings.TrimLeft(words[len(words)-1], "0123456789."), "ns") // memories end so
	case quantity.Millimetres, quantity.Celsius, quantity.Grams, quantity.Amperes, quantity.VoltsPP:
		s.Sure = true // no line of a sheet ends so
	}
	return nil
}

func areNumbers(words []string) bool {
	return !slices.ContainsFunc(words, func(word string) bool { return !number.MatchString(word) })
}

// behindPlace is where the readings of a rail begin, behind where it was measured: +5 at J2 pin 4 4.93.
func behindPlace(words []string) int {
	if len(words) < 4 || !slices.Contains([]string{"at", "on", "behind", "before", "near"}, strings.ToLower(words[1])) {
		return 1
	}
	first := len(words)
	isReading := func(word string) bool {
		_, _, isUnit := quantity.UnitOf(word)
		return number.MatchString(word) || numberUnit.MatchString(word) || isUnit
	}
	for first > 3 && isReading(words[first-1]) && !numbered.MatchString(words[first-2]) {
		first--
	}
	return first
}

// isReadings reports whether all words are figures with their units, the last with one.
func (s *Line) isReadings(words []string) bool {
	hasUnit := false
	for _, word := range words {
		_, _, isUnit := quantity.UnitOf(word)
		switch {
		case number.MatchString(word):
			hasUnit = false
		case numberUnit.MatchString(word), isUnit:
			hasUnit = true
		default:
			return false
		}
	}
	return hasUnit
}

// take reads the words as readings of one quantity; those without a unit have the next one's.
func (s *Line) take(words []string, none error) error {
	bare := []string{}
	kind := s.Quantity
	flush := func(unitText string) error {
		for _, figure := range bare {
			value, q, err := quantity.Parse(figure+unitText, kind)
			if err != nil {
				return malformed.Of("%w", err)
			}
			kind = q
			s.Readings = append(s.Readings, value)
		}
		bare = bare[:0]
		return nil
	}
	for _, word := range words {
		if number.MatchString(word) {
			bare = append(bare, word)
			continue
		}
		unitText := word
		if figure, unit, ok := quantity.Split(word); ok && unit != "" {
			bare, unitText = append(bare, figure), unit
		}
		if _, _, ok := quantity.UnitOf(unitText); !ok {
			return none
		}
		if strings.EqualFold(unitText, "ns") && len(bare) > 1 {
			return none // 41256 120ns is a marking with its speed
		}
		if err := flush(unitText); err != nil {
			return err
		}
	}
	if len(bare) > 0 {
		if kind == "" {
			return none
		}
		if err := flush(""); err != nil {
			return err
		}
	}
	if len(s.Readings) == 0 {
		return none
	}
	if len(s.Readings) > mostReadings {
		return malformed.Of("%d readings of one point; a line takes %d", len(s.Readings), mostReadings)
	}
	s.Quantity = kind
	return nil
}

// mostReadings bounds the readings of a line.
const mostReadings = 50
