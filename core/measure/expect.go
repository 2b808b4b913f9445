package measure

import (
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
	return Expected{&nominal, ptr(nominal - off), ptr(nominal + off), from}
}

func ptr(v float64) *float64 { return &v }

// Tolerances of supply rails, in parts. Source: the usual ones of supplies for logic; a model may say
// otherwise.
const (
	RailTolerance         = 0.05 // of +5, +12, +3.3
	NegativeRailTolerance = 0.10
)

var railName = regexp.MustCompile(`^([+-]\d+(?:\.\d+)?)V?$`)

// Rail reads the name of a supply rail, as +5 or -12, and returns what it should have.
func Rail(name string) (Expected, bool) {
	m := railName.FindStringSubmatch(strings.TrimSpace(name))
	if m == nil {
		return Expected{}, false
	}
	volts, err := strconv.ParseFloat(m[1], 64)
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
	{regexp.MustCompile(`(?i)\bni-?(cd|mh)\b`), "nickel cell", 1.2, 1.1, 1.5},
	{regexp.MustCompile(`(?i)\blead`), "lead cell", 2.0, 1.95, 2.3},
	{regexp.MustCompile(`(?i)\balkaline\b`), "alkaline cell", 1.5, 1.2, 1.65},
	{regexp.MustCompile(`(?i)\b(lithium|cr\d{3,4}|br\d{3,4})\b`), "lithium cell", 3.0, 2.7, 3.4},
}

var (
	markedVolts = regexp.MustCompile(`(?i)(?:^|\s)(\d+(?:\.\d+)?)\s?V\b`)
	markedValue = regexp.MustCompile(`(?i)(?:^|\s)(\d+(?:\.\d+)?)\s?(uF|µF|μF|nF|pF|ohms?|kohm|Ω|kΩ|MHz|kHz)\b`)
)

// FromMarking says what a part should have by what is printed on it: a battery by its chemistry and volts, a
// capacitor, resistor or crystal by its value.
func FromMarking(marking string, of quantity.Quantity) (Expected, bool) {
	if of == quantity.Volts {
		return batteryVolts(marking)
	}
	m := markedValue.FindStringSubmatch(marking)
	if m == nil {
		return Expected{}, false
	}
	value, kind, err := quantity.Parse(m[1]+m[2], "")
	if err != nil || kind != of || value == 0 {
		return Expected{}, false
	}
	switch of {
	case quantity.Microfarads:
		return Around(value, 0.20, "marked "+m[1]+" "+m[2]+"; 20 % either way is usual"), true
	case quantity.Ohms:
		return Around(value, 0.10, "marked "+m[1]+" "+m[2]+"; 10 % either way is usual"), true
	case quantity.Hertz:
		return Around(value, 0.0005, "marked "+m[1]+" "+m[2]+"; a crystal is good to 0.05 % in its circuit"), true
	}
	return Expected{}, false
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

// parseExpected reads what stands behind = or < or >: "47 uF +/- 20 %", "5 V", "1 ohm".
func parseExpected(sign, text string, of quantity.Quantity) (Expected, error) {
	text = strings.ReplaceAll(text, "±", "+/-")
	nominalText, offText, hasOff := strings.Cut(text, "+/-")
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
	return Expected{&value, ptr(value - off), ptr(value + off), from}, nil
}
