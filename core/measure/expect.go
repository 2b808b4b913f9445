package measure

import (
	"errors"
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"

	"frugalheron/core/quantity"
)

// Expected is what a value should be. One of the limits may be missing.
type Expected struct {
	Nominal *float64 `json:"nominal,omitempty" doc:"In the unit of the quantity"`
	Low     *float64 `json:"low,omitempty"`
	High    *float64 `json:"high,omitempty"`
	From    string   `json:"from" maxLength:"300" required:"false" doc:"How one knows: a rule, the marking, or as typed"`
}

// Around is a value with a tolerance either way, in parts of it.
func Around(nominal, part float64, from string) Expected {
	off := math.Abs(nominal) * part
	return between(nominal, off, off, from)
}

// between is a value with what it may lie below and above it.
func between(nominal, below, above float64, from string) Expected {
	return Expected{&nominal, ptr(quantity.Round(nominal-below, 12)), ptr(quantity.Round(nominal+above, 12)), from}
}

func ptr(v float64) *float64 { return &v }

// Tolerances of supply rails, in parts. Source: the usual ones of supplies for logic; a model may say
// otherwise.
const (
	RailTolerance         = 0.05 // of +5, +12, +3.3
	NegativeRailTolerance = 0.10
)

var railName = regexp.MustCompile(`(?i)^([+-]\d+(?:\.\d+)?)(?:V(\d+)?)?(?:SB)?$`)

// Rail reads the name of a supply rail, as +5, -12, +3V3 or the standby rail +5VSB, and returns what it should have.
func Rail(name string) (Expected, bool) {
	m := railName.FindStringSubmatch(strings.TrimSpace(name))
	if m == nil || m[2] != "" && strings.Contains(m[1], ".") {
		return Expected{}, false
	}
	figures := m[1]
	if m[2] != "" {
		figures += "." + m[2] // 3V3
	}
	volts, err := strconv.ParseFloat(figures, 64)
	if err != nil || volts == 0 || math.Abs(volts) > 60 {
		return Expected{}, false
	}
	if volts < 0 {
		return Around(volts, NegativeRailTolerance, "a negative rail, 10 % either way"), true
	}
	return Around(volts, RailTolerance, "a supply rail, 5 % either way"), true
}

// cells are the volts of one cell at rest: what it has when good, below what it is flat, above what something
// is wrong. Rules of thumb.
var cells = []struct {
	words              *regexp.Regexp
	name               string
	nominal, low, high float64
}{
	{regexp.MustCompile(`(?i)\b(li-?ion|lithium[- ]ion|li-?po)\b`), "lithium-ion cell", 3.7, 3.0, 4.2},
	{regexp.MustCompile(`(?i)\b(li-?socl2|thionyl)\b|\blithium\b.*\b3\.6\s?V|\b3\.6\s?V.*\blithium\b`),
		"lithium thionyl cell", 3.6, 3.3, 3.7},
	{regexp.MustCompile(`(?i)\bni-?(cd|mh)\b`), "nickel cell", 1.2, 1.1, 1.5},
	{regexp.MustCompile(`(?i)\blead`), "lead cell", 2.0, 1.95, 2.3},
	{regexp.MustCompile(`(?i)\bsr\d{2,4}(sw|w)?\b|\bsilver\b`), "silver oxide cell", 1.55, 1.4, 1.65},
	{regexp.MustCompile(`(?i)\balkaline\b|\blr\d{1,4}\b`), "alkaline cell", 1.5, 1.2, 1.65},
	{regexp.MustCompile(`(?i)\b(lithium|cr\d{3,4}|br\d{3,4})\b`), "lithium cell", 3.0, 2.7, 3.4},
}

var (
	markedVolts = regexp.MustCompile(`(?i)(?:^|\s)(\d+(?:\.\d+)?)\s?V\b`)
	markedCells = regexp.MustCompile(`(?i)(?:^|\s)(\d{1,2})\s?[x×]\s?`)
	markedValue = regexp.MustCompile(
		`(?i)(?:^|\s)(\d+(?:\.\d+)?)\s?(uF|µF|μF|nF|pF|ohms?|kohm|Ω|kΩ|MHz|kHz)(?:$|[\s,;/])`)
	// 4u7, 100n, 4k7, 10k, 330R: the letter stands where the point is, or behind the figure.
	markedLetter = regexp.MustCompile(`(?:^|\s)(\d*)([pnuµμkKMR])(\d*)(?:$|[\s,;/])`)
	// 104, 104K: two figures and how many zeros follow, in pF, with the tolerance letter of IEC 60062.
	markedCode      = regexp.MustCompile(`(?:^|\s)([1-9]\d)([0-6])([FGJKMZ]?)(?:$|[\s,;/])`)
	markedTolerance = regexp.MustCompile(`(?:^|[\s±/-])(\d{1,2}(?:\.\d+)?)\s?%`)
)

// letterFactors are the letters in a value and what they stand for, in µF or Ω.
var letterFactors = map[string]struct {
	of     quantity.Quantity
	factor float64
}{
	"p": {quantity.Microfarads, 1e-6}, "n": {quantity.Microfarads, 1e-3}, "u": {quantity.Microfarads, 1},
	"µ": {quantity.Microfarads, 1}, "μ": {quantity.Microfarads, 1}, "R": {quantity.Ohms, 1}, "k": {quantity.Ohms, 1e3},
	"K": {quantity.Ohms, 1e3}, "M": {quantity.Ohms, 1e6},
}

// codeTolerances are the letters of IEC 60062 for the tolerance of a capacitor, below and above its value.
var codeTolerances = map[string][2]float64{"F": {0.01, 0.01}, "G": {0.02, 0.02}, "J": {0.05, 0.05}, "K": {0.1, 0.1},
	"M": {0.2, 0.2}, "Z": {0.2, 0.8}}

// usualTolerances hold where none is printed; rules of thumb. A crystal is meant in its circuit.
var usualTolerances = map[quantity.Quantity]float64{quantity.Microfarads: 0.20, quantity.Ohms: 0.10,
	quantity.Hertz: 0.0005}

// FromMarking says what a part should have by what is printed on it: a battery by its chemistry and volts, a
// capacitor, resistor or crystal by its value and its tolerance.
func FromMarking(marking string, of quantity.Quantity) (Expected, bool) {
	if of == quantity.Volts {
		return batteryVolts(marking)
	}
	value, said, limits, ok := markedAs(marking, of)
	if !ok {
		return Expected{}, false
	}
	how := "marked " + said
	if m := markedTolerance.FindStringSubmatch(marking); m != nil {
		percent, _ := strconv.ParseFloat(m[1], 64) // figures, by the pattern
		limits, how = [2]float64{percent / 100, percent / 100}, how+fmt.Sprintf("; %s %% is printed", m[1])
	} else if limits != [2]float64{} {
		how += "; the letter is its tolerance"
	} else {
		usual := usualTolerances[of]
		limits, how = [2]float64{usual, usual}, how+fmt.Sprintf("; %g %% either way is usual", usual*100)
	}
	return between(value, value*limits[0], value*limits[1], how), true
}

// markedAs reads the value that is printed on a part. Limits are those of a tolerance letter, or zero.
func markedAs(marking string, of quantity.Quantity) (value float64, said string, limits [2]float64, ok bool) {
	if m := markedValue.FindStringSubmatch(marking); m != nil {
		value, kind, err := quantity.Parse(m[1]+m[2], "")
		return value, m[1] + " " + m[2], limits, err == nil && kind == of && value != 0
	}
	for _, m := range markedLetter.FindAllStringSubmatch(marking, -1) {
		letter := letterFactors[m[2]]
		if letter.of != of || m[1]+m[3] == "" {
			continue
		}
		figures := m[1] + "." + m[3]
		if value, err := strconv.ParseFloat(strings.TrimSuffix(figures, "."), 64); err == nil && value != 0 {
			return quantity.Round(value*letter.factor, 9), m[1] + m[2] + m[3], limits, true
		}
	}
	if m := markedCode.FindStringSubmatch(marking); m != nil && of == quantity.Microfarads {
		figures, _ := strconv.ParseFloat(m[1], 64) // figures, by the pattern
		zeros, _ := strconv.Atoi(m[2])
		return quantity.Round(figures*math.Pow10(zeros)*1e-6, 9), m[1] + m[2] + m[3], codeTolerances[m[3]], true
	}
	return 0, "", limits, false
}

func batteryVolts(marking string) (Expected, bool) {
	for _, c := range cells {
		if !c.words.MatchString(marking) {
			continue
		}
		n := 1.0
		if m := markedVolts.FindStringSubmatch(marking); m != nil {
			volts, _ := strconv.ParseFloat(m[1], 64) // figures, by the pattern
			n = max(1, math.Round(volts/c.nominal))
		}
		if m := markedCells.FindStringSubmatch(marking); m != nil && n == 1 {
			n, _ = strconv.ParseFloat(m[1], 64) // 3x 1.2 V: the volts are those of one
		}
		count := c.name
		if n > 1 {
			count = fmt.Sprintf("%g %ss in a row", n, c.name)
		}
		low, high := quantity.Round(n*c.low, 5), quantity.Round(n*c.high, 5)
		return Expected{ptr(quantity.Round(n*c.nominal, 5)), &low, &high,
			fmt.Sprintf("%s: at rest between %g and %g V, a rule of thumb", count, low, high)}, true
	}
	return Expected{}, false
}

var limitsBetween = regexp.MustCompile(`^(.+?)\s*(?:\.\.+|…| to )\s*(.+)$`)

// parseLimits reads "7.5 V .. 11 V" or "7.5 to 11 V"; the first may have the unit of the second.
func parseLimits(text string, of quantity.Quantity) (e Expected, isLimits bool, err error) {
	m := limitsBetween.FindStringSubmatch(text)
	if m == nil {
		return e, false, nil
	}
	high, _, err := quantity.Parse(m[2], of)
	if err != nil {
		return e, true, err
	}
	if _, unit, ok := quantity.Split(m[1]); ok && unit == "" {
		_, unit, _ = quantity.Split(m[2])
		m[1] += unit
	}
	low, _, err := quantity.Parse(m[1], of)
	if err != nil {
		return e, true, err
	}
	e = Expected{Low: &low, High: &high, From: "as typed"}
	return e, true, e.Check()
}

// Expect reads what a point should have, as "4.9 .. 5.2 V" or "47 ohm 5 %". Its unit says of which quantity it is; a rail
// has volts.
func Expect(point, text string) (of quantity.Quantity, e Expected, err error) {
	if _, isRail := Rail(point); isRail {
		of = quantity.Volts
	}
	for _, word := range strings.Fields(text) {
		if _, unit, ok := quantity.Split(word); ok && unit != "" {
			word = unit
		}
		if kind, _, known := quantity.UnitOf(word); known && of == "" {
			of = kind
		}
	}
	if of == "" {
		return of, e, errors.New("write the unit behind the figures: +5 = 4.9 .. 5.2 V")
	}
	e, err = parseExpected("=", text, of)
	return of, e, err
}

// parseExpected reads what stands behind = or < or >: "47 uF +/- 20 %", "47 ohm 5 %", "7.5 V .. 11 V", "1 ohm".
func parseExpected(sign, text string, of quantity.Quantity) (Expected, error) {
	if e, isLimits, err := parseLimits(text, of); isLimits && sign == "=" {
		if err != nil {
			return e, fmt.Errorf("what is expected: %w", err)
		}
		return e, nil
	}
	text = strings.ReplaceAll(text, "±", "+/-")
	nominalText, offText, hasOff := strings.Cut(text, "+/-")
	if m := markedTolerance.FindStringSubmatchIndex(text); m != nil && !hasOff {
		nominalText, offText, hasOff = text[:m[2]], text[m[2]:], true
	}
	value, _, err := quantity.Parse(nominalText, of)
	if err != nil {
		return Expected{}, fmt.Errorf("what is expected: %w", err)
	}
	switch sign {
	case "<":
		return Expected{High: &value, From: "as typed"}, nil
	case ">":
		return Expected{Low: &value, From: "as typed"}, nil
	}
	off := 0.05 * math.Abs(value)
	from := "as typed; 5 % either way, as nothing else was said"
	if hasOff {
		from = "as typed"
		offText = strings.TrimSpace(offText)
		if percent, ok := strings.CutSuffix(offText, "%"); ok {
			part, err := strconv.ParseFloat(strings.TrimSpace(percent), 64)
			if err != nil || part < 0 || part > 100 {
				return Expected{}, fmt.Errorf("%q is no tolerance; write it as +/- 20 %%", offText)
			}
			off = math.Abs(value) * part / 100
		} else if off, _, err = quantity.Parse(offText, of); err != nil || off < 0 {
			return Expected{}, fmt.Errorf("%q is no tolerance; write it as +/- 20 %% or +/- 0.1", offText)
		}
	}
	return between(value, off, off, from), nil
}
