// Package measure answers what was measured, whether that is as it should be, and why.
package measure

import (
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"
)

// Quantity is what is measured.
type Quantity string

// Quantities, each with the unit in which it is kept.
const (
	Volts       Quantity = "volts"       // V, direct
	VoltsAC     Quantity = "volts-ac"    // V, alternating, root mean square
	Amperes     Quantity = "amperes"     // A
	Ohms        Quantity = "ohms"        // Ω
	Microfarads Quantity = "microfarads" // µF
	ESR         Quantity = "esr"         // Ω, equivalent series resistance
	Hertz       Quantity = "hertz"       // Hz
	Seconds     Quantity = "seconds"     // s
	Millimetres Quantity = "millimetres" // mm
	Celsius     Quantity = "celsius"     // °C
	Grams       Quantity = "grams"       // g
)

type unit struct {
	written  string // in lower case
	quantity Quantity
	factor   float64 // to the unit in which it is kept
}

// units as they are written, in any case: only with ohms do m for milli and M for mega both occur.
var units = []unit{
	{"vac", VoltsAC, 1}, {"mvac", VoltsAC, 1e-3}, {"v", Volts, 1}, {"vdc", Volts, 1}, {"mv", Volts, 1e-3},
	{"kv", Volts, 1e3}, {"volts", Volts, 1},
	{"a", Amperes, 1}, {"ma", Amperes, 1e-3}, {"ua", Amperes, 1e-6}, {"µa", Amperes, 1e-6}, {"amps", Amperes, 1},
	{"ohm", Ohms, 1}, {"ohms", Ohms, 1}, {"ω", Ohms, 1}, {"kohm", Ohms, 1e3}, {"kω", Ohms, 1e3}, {"mohm", Ohms, 1e-3},
	{"mω", Ohms, 1e-3},
	{"uf", Microfarads, 1}, {"µf", Microfarads, 1}, {"μf", Microfarads, 1}, {"nf", Microfarads, 1e-3},
	{"pf", Microfarads, 1e-6}, {"mf", Microfarads, 1e3},
	{"hz", Hertz, 1}, {"khz", Hertz, 1e3}, {"mhz", Hertz, 1e6},
	{"s", Seconds, 1}, {"ms", Seconds, 1e-3}, {"us", Seconds, 1e-6}, {"µs", Seconds, 1e-6}, {"sec", Seconds, 1},
	{"mm", Millimetres, 1}, {"cm", Millimetres, 10}, {"°c", Celsius, 1}, {"degc", Celsius, 1}, {"g", Grams, 1},
	{"kg", Grams, 1000},
}

// kept is the unit in which a quantity is kept and shown.
var kept = map[Quantity]string{Volts: "V", VoltsAC: "V AC", Amperes: "A", Ohms: "Ω", Microfarads: "µF", ESR: "Ω ESR",
	Hertz: "Hz", Seconds: "s", Millimetres: "mm", Celsius: "°C", Grams: "g"}

// Quantities lists all, in the order in which they are offered.
func Quantities() []Quantity {
	return []Quantity{Volts, VoltsAC, Amperes, Ohms, Microfarads, ESR, Hertz, Seconds, Millimetres, Celsius, Grams}
}

// ranges are the least and the highest value that is believed of a quantity, in its unit: far beyond what is met
// at a bench, so that only slips and nonsense lie outside. Rules of thumb.
var ranges = map[Quantity][2]float64{
	Volts: {-100_000, 100_000}, VoltsAC: {0, 100_000}, Amperes: {-10_000, 10_000}, Ohms: {0, 1e15},
	Microfarads: {0, 1e9}, ESR: {0, 1e9},
	Hertz: {0, 1e12}, Seconds: {0, 1e9}, Millimetres: {-100_000, 100_000}, Celsius: {-273.15, 5_000}, Grams: {0, 1e8},
}

// Check says what is wrong with a value that the quantity cannot have; nil for one that it can.
func (q Quantity) Check(value float64) error {
	limits, ok := ranges[q]
	if !ok {
		return fmt.Errorf("%q is nothing that is measured", string(q))
	}
	if math.IsNaN(value) || value < limits[0] || value > limits[1] {
		return fmt.Errorf("%g %s is outside of what can be, %g to %g", value, q.Unit(), limits[0], limits[1])
	}
	return nil
}

// Unit is the unit in which a quantity is kept; empty for one that is not known.
func (q Quantity) Unit() string { return kept[q] }

func unitOf(text string) (unit, bool) {
	text = strings.TrimSpace(text)
	for _, u := range units {
		if u.written != strings.ToLower(text) {
			continue
		}
		if u.quantity == Ohms && strings.HasPrefix(text, "M") {
			u.factor = 1e6
		}
		return u, true
	}
	return unit{}, false
}

// Say writes a value with its unit, to as many figures as a meter of the bench gives.
func (q Quantity) Say(value float64) string {
	switch {
	case q == Amperes && math.Abs(value) < 1 && value != 0:
		return figure(value*1e3) + " mA"
	case q == Hertz && math.Abs(value) >= 1e6:
		return figure(value/1e6) + " MHz"
	case q == Hertz && math.Abs(value) >= 1e3:
		return figure(value/1e3) + " kHz"
	case q == Ohms && math.Abs(value) >= 1e6:
		return figure(value/1e6) + " MΩ"
	case q == Ohms && math.Abs(value) >= 1e3:
		return figure(value/1e3) + " kΩ"
	case q == Seconds && math.Abs(value) < 1 && value != 0:
		return figure(value*1e3) + " ms"
	case q == Microfarads && math.Abs(value) < 0.01 && value != 0:
		return figure(value*1e3) + " nF"
	}
	return figure(value) + " " + q.Unit()
}

func figure(value float64) string {
	return strconv.FormatFloat(roundTo(value, 5), 'f', -1, 64)
}

// roundTo rounds to so many significant figures.
func roundTo(value float64, figures int) float64 {
	if value == 0 || math.IsInf(value, 0) || math.IsNaN(value) {
		return value
	}
	scale := math.Pow(10, float64(figures-1)-math.Floor(math.Log10(math.Abs(value))))
	if math.IsInf(scale, 0) || scale == 0 {
		return value
	}
	return math.Round(value*scale) / scale
}

var written = regexp.MustCompile(`^([+-]?\d+(?:\.\d+)?)\s*([A-Za-zµμΩ°ω]*)$`)

// parseValue reads "2.1 V" or "47uF"; the unit may be left out where a quantity is given.
func parseValue(text string, of Quantity) (float64, Quantity, error) {
	m := written.FindStringSubmatch(strings.TrimSpace(text))
	if m == nil {
		return 0, "", fmt.Errorf("%q is no value; write a figure and its unit, as 2.1 V", text)
	}
	value, err := strconv.ParseFloat(m[1], 64)
	if err != nil || math.Abs(value) > 1e12 {
		return 0, "", fmt.Errorf("%q is no value that can be measured", text)
	}
	if m[2] == "" {
		if of == "" {
			return 0, "", fmt.Errorf("%q has no unit; write it as 2.1 V", text)
		}
		return value, of, nil
	}
	u, ok := unitOf(m[2])
	switch {
	case !ok:
		return 0, "", fmt.Errorf("%q is no unit that is known here", m[2])
	case of == ESR && u.quantity == Ohms:
		return value * u.factor, ESR, nil
	case of == VoltsAC && u.quantity == Volts:
		return value * u.factor, VoltsAC, nil
	case of != "" && of != u.quantity:
		return 0, "", fmt.Errorf("%q is in %s, the rest in %s", text, u.quantity.Unit(), of.Unit())
	}
	return value * u.factor, u.quantity, nil
}
