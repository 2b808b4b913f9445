package sums

import (
	"frugalheron/core/malformed"
	"math"

	"frugalheron/core/quantity"
)

// ResistorInput is a level that is too high for what it drives.
type ResistorInput struct {
	From   string `json:"from" example:"5 V"`
	To     string `json:"to" example:"0.7 V"`
	Load   string `json:"load" example:"75 ohm" doc:"Of what is driven"`
	Source string `json:"source" required:"false" example:"25 ohm" doc:"Of what drives; empty for none"`
}

// Levels are what is left of the level with the nearest resistors of two series.
type Levels struct {
	E12 float64 `json:"e12"`
	E24 float64 `json:"e24"`
}

// ResistorSum is what goes in series.
type ResistorSum struct {
	Ohms   float64 `json:"ohms"`
	E12    float64 `json:"e12" doc:"The nearest of the series, by ratio"`
	E24    float64 `json:"e24"`
	Levels Levels  `json:"levels" doc:"In volts, with each"`
}

// Preferred values within a decade. Source: IEC 60063.
var (
	e12 = []float64{10, 12, 15, 18, 22, 27, 33, 39, 47, 56, 68, 82}
	e24 = []float64{10, 11, 12, 13, 15, 16, 18, 20, 22, 24, 27, 30, 33, 36, 39, 43, 47, 51, 56, 62, 68, 75, 82, 91}
)

// ResistorOf tells which resistor in series leaves a level over a load.
func ResistorOf(in ResistorInput) (ResistorSum, error) {
	from, _, err := positive("from", in.From, quantity.Volts)
	if err != nil {
		return ResistorSum{}, err
	}
	to, _, err := positive("to", in.To, quantity.Volts)
	if err != nil {
		return ResistorSum{}, err
	}
	load, _, err := positive("load", in.Load, quantity.Ohms)
	if err != nil {
		return ResistorSum{}, err
	}
	source := 0.0
	if in.Source != "" {
		if source, _, err = read("source", in.Source, quantity.Ohms); err != nil {
			return ResistorSum{}, err
		}
	}
	if source < 0 {
		return ResistorSum{}, malformed.Named("source", "%q is below 0", in.Source)
	}
	if to > from {
		return ResistorSum{}, malformed.Named("to", "%s is above what it is made from, %s; a resistor only lowers", in.To, in.From)
	}
	ohms := load*(from/to-1) - source
	if ohms < 0 && !same(load*(from/to-1), source) {
		return ResistorSum{}, malformed.Named("source", "%s alone lowers it below %s", in.Source, in.To)
	}
	r := ResistorSum{Ohms: max(0, ohms)}
	level := func(ohms float64) float64 { return from * load / (load + source + ohms) }
	r.E12, r.E24 = nearest(r.Ohms, e12), nearest(r.Ohms, e24)
	r.Levels = Levels{level(r.E12), level(r.E24)}
	return r, nil
}

// nearest is the value of a series that is nearest by ratio; 0 for 0.
func nearest(ohms float64, series []float64) float64 {
	if ohms <= 0 {
		return 0
	}
	decade := math.Pow(10, math.Floor(math.Log10(ohms))-1)
	best, least := 0.0, math.Inf(1)
	for _, scale := range []float64{decade / 10, decade, decade * 10} {
		for _, n := range series {
			if off := math.Abs(math.Log(n * scale / ohms)); off < least-1e-12 {
				best, least = quantity.Round(n*scale, 3), off
			}
		}
	}
	return best
}
