package demo

import (
	"frugalheron/core/quantity"
)

// MeterPoints are where the stand-in of the meter can be held to, and what is there.
func MeterPoints() map[string]map[quantity.Quantity]float64 {
	return map[string]map[quantity.Quantity]float64{
		"EH-0142 +5":     {quantity.Volts: 4.93, quantity.Ohms: 180},
		"EH-0142 +12":    {quantity.Volts: 12.31, quantity.Ohms: 820},
		"EH-0142 -12":    {quantity.Volts: -10.6, quantity.Ohms: 1500},
		"EH-0142 BT1":    {quantity.Volts: 2.1},
		"EH-0142 C12":    {quantity.Microfarads: 38.4, quantity.Volts: 4.9},
		"EH-0142 X1":     {quantity.Hertz: 14_745_120},
		"EH-0107 BT1":    {quantity.Volts: 2.94},
		"EH-0133 +5":     {quantity.Volts: 5.31, quantity.Celsius: 41.5},
		"EH-0133 heater": {quantity.VoltsAC: 6.4, quantity.Amperes: 0.29},
		"EH-0150 reset":  {quantity.Seconds: 0.22, quantity.Volts: 4.97},
	}
}
