// Package quantity answers: of which kind is a measured value, in which unit is it written, and can it be? All engines
// read and say figures by its two tables.
package quantity

import (
	_ "embed"
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"

	"frugalheron/core/table"
)

// Quantity is what is measured.
type Quantity string

// Quantities, each with the unit in which it is kept.
const (
	Volts       Quantity = "volts"       // V, direct
	VoltsAC     Quantity = "volts-ac"    // V, alternating, root mean square
	VoltsPP     Quantity = "volts-pp"    // V from peak to peak, as an oscilloscope shows it
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

//go:embed quantities.tsv
var quantitiesText string

//go:embed units.tsv
var unitsText string

type bounds struct {
	unit            string // in which it is kept and shown
	lowest, highest float64
}

var tables = sync.OnceValue(func() (read struct {
	order      []Quantity
	quantities map[Quantity]bounds
	units      map[string]unit
}) {
	number := func(text string) float64 {
		n, err := strconv.ParseFloat(text, 64)
		if err != nil {
			panic(fmt.Sprintf("a table of quantities holds %q, which is no figure", text))
		}
		return n
	}
	read.quantities, read.units = map[Quantity]bounds{}, map[string]unit{}
	for _, row := range table.Reference("quantities", quantitiesText, "quantity", "unit", "lowest", "highest",
		"source") {
		read.order = append(read.order, Quantity(row[0]))
		read.quantities[Quantity(row[0])] = bounds{row[1], number(row[2]), number(row[3])}
	}
	for _, row := range table.Reference("units", unitsText, "written", "quantity", "factor", "source") {
		if _, known := read.quantities[Quantity(row[1])]; !known {
			panic(fmt.Sprintf("the unit %s is of no quantity", row[0]))
		}
		read.units[row[0]] = unit{Quantity(row[1]), number(row[2])}
	}
	return read
})

type unit struct {
	quantity Quantity
	factor   float64 // to the unit in which it is kept
}

// All lists the quantities, in the order in which they are offered.
func All() []Quantity { return slices.Clone(tables().order) }

// Check says what is wrong with a value that the quantity cannot have; nil for one that it can.
func (q Quantity) Check(value float64) error {
	can, ok := tables().quantities[q]
	if !ok {
		return fmt.Errorf("%q is nothing that is measured", string(q))
	}
	if math.IsNaN(value) || value < can.lowest || value > can.highest {
		return fmt.Errorf("%g %s is outside of what can be, %g to %g", value, can.unit, can.lowest, can.highest)
	}
	return nil
}

// Unit is the unit in which a quantity is kept; empty for one that is not known.
func (q Quantity) Unit() string { return tables().quantities[q].unit }

// UnitOf reads a unit as it is written: of which quantity it is, and by what a figure is to be multiplied to be in the
// unit in which that is kept.
func UnitOf(text string) (of Quantity, factor float64, known bool) {
	text = strings.TrimSpace(text)
	u, known := tables().units[strings.ToLower(text)]
	if u.quantity == Ohms && strings.HasPrefix(text, "M") {
		u.factor = 1e6
	}
	return u.quantity, u.factor, known
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
	case q == Seconds && math.Abs(value) < 1e-6 && value != 0:
		return figure(value*1e9) + " ns"
	case q == Seconds && math.Abs(value) < 1e-3 && value != 0:
		return figure(value*1e6) + " µs"
	case q == Seconds && math.Abs(value) < 1 && value != 0:
		return figure(value*1e3) + " ms"
	case q == Microfarads && math.Abs(value) < 0.01 && value != 0:
		return figure(value*1e3) + " nF"
	}
	return figure(value) + " " + q.Unit()
}

func figure(value float64) string {
	return strconv.FormatFloat(Round(value, 5), 'f', -1, 64)
}

// Round rounds to so many significant figures.
func Round(value float64, figures int) float64 {
	if value == 0 || math.IsInf(value, 0) || math.IsNaN(value) {
		return value
	}
	scale := math.Pow(10, float64(figures-1)-math.Floor(math.Log10(math.Abs(value))))
	if math.IsInf(scale, 0) || scale == 0 {
		return value
	}
	return math.Round(value*scale) / scale
}

// Billionth rounds to a billionth: sums of figures that people wrote are compared with figures that people wrote.
func Billionth(value float64) float64 { return math.Round(value*1e9) / 1e9 }

var written = regexp.MustCompile(`^([+-]?\d+(?:\.\d+)?)\s*([A-Za-zµμΩ°ω]*)$`)

// Split divides "47uF" into its figure and its unit, which may be missing.
func Split(text string) (figure, unit string, ok bool) {
	m := written.FindStringSubmatch(strings.TrimSpace(text))
	if m == nil {
		return "", "", false
	}
	return m[1], m[2], true
}

// Parse reads "2.1 V" or "47uF"; the unit may be left out where a quantity is given.
func Parse(text string, of Quantity) (float64, Quantity, error) {
	figure, unit, ok := Split(text)
	if !ok {
		return 0, "", fmt.Errorf("%q is no value; write a figure and its unit, as 2.1 V", text)
	}
	value, err := strconv.ParseFloat(figure, 64)
	if err != nil || math.Abs(value) > 1e12 {
		return 0, "", fmt.Errorf("%q is no value that can be measured", text)
	}
	if unit == "" {
		if of == "" {
			return 0, "", fmt.Errorf("%q has no unit; write it as 2.1 V", text)
		}
		return value, of, nil
	}
	quantity, factor, known := UnitOf(unit)
	switch {
	case !known:
		return 0, "", fmt.Errorf("%q is no unit that is known here", unit)
	case of == ESR && quantity == Ohms:
		return value * factor, ESR, nil
	case of == VoltsAC && quantity == Volts:
		return value * factor, VoltsAC, nil
	case of != "" && of != quantity:
		return 0, "", fmt.Errorf("%q is in %s, the rest in %s", text, quantity.Unit(), of.Unit())
	}
	return value * factor, quantity, nil
}
