package demo

import (
	"frugalheron/core/measure"
)

// MeterPoints are where the stand-in of the meter can be held to, and what is there.
func MeterPoints() map[string]map[measure.Quantity]float64 {
	return map[string]map[measure.Quantity]float64{
		"EH-0142 +5":     {measure.Volts: 4.93, measure.Ohms: 180},
		"EH-0142 +12":    {measure.Volts: 12.31, measure.Ohms: 820},
		"EH-0142 -12":    {measure.Volts: -10.6, measure.Ohms: 1500},
		"EH-0142 BT1":    {measure.Volts: 2.1},
		"EH-0142 C12":    {measure.Microfarads: 38.4, measure.Volts: 4.9},
		"EH-0142 X1":     {measure.Hertz: 14_745_120},
		"EH-0107 BT1":    {measure.Volts: 2.94},
		"EH-0133 +5":     {measure.Volts: 5.31, measure.Celsius: 41.5},
		"EH-0133 heater": {measure.VoltsAC: 6.4, measure.Amperes: 0.29},
		"EH-0150 reset":  {measure.Seconds: 0.22, measure.Volts: 4.97},
	}
}
