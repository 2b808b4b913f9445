// Package sums is the small arithmetic of setting up: clocks, disk limits, series resistors, mains abroad and rails. Each
// takes figures with their units as people write them, and answers in base units.
package sums

import (
	"math"
	"strconv"
	"strings"

	"frugalheron/core/malformed"
	"frugalheron/core/quantity"
)

// read takes a figure of a quantity, in the unit in which that is kept; digit is how much its last written digit stands for.
func read(field, text string, of quantity.Quantity) (value, digit float64, err error) {
	figure, unit, ok := quantity.Split(text)
	if !ok {
		return 0, 0, malformed.Named(field, "%q is no figure with its unit, as %s", text, of.Say(5))
	}
	factor := 1.0
	if unit != "" {
		found, by, known := quantity.UnitOf(unit)
		if !known || found != of {
			return 0, 0, malformed.Named(field, "%q has no unit of it; write it as %s", text, of.Say(5))
		}
		factor = by
	}
	value, err = strconv.ParseFloat(figure, 64)
	if err != nil || math.Abs(value) > 1e15 {
		return 0, 0, malformed.Named(field, "%q is no figure that can be", text)
	}
	_, decimals, _ := strings.Cut(figure, ".")
	return value * factor, factor / math.Pow10(len(decimals)), nil
}

// positive reads a figure above 0.
func positive(field, text string, of quantity.Quantity) (value, digit float64, err error) {
	value, digit, err = read(field, text, of)
	if err == nil && value <= 0 {
		err = malformed.Named(field, "%q is not above 0", text)
	}
	return value, digit, err
}

// or is a figure, or what is meant where it is left out.
func or(figure *float64, usual float64) float64 {
	if figure == nil {
		return usual
	}
	return *figure
}

func inShort(value float64) string { return strconv.FormatFloat(quantity.Round(value, 5), 'f', -1, 64) }

func same(a, b float64) bool { return math.Abs(a-b) <= 1e-9*max(math.Abs(a), math.Abs(b)) }
