package condition

import (
	"frugalheron/core/quantity"
)

// FailureKind is the kind of finding that a reading out of its limits is: as sheets and surveys would write it.
func FailureKind(of quantity.Quantity, isLow bool) string {
	switch of {
	case quantity.Volts, quantity.VoltsAC:
		if isLow {
			return "low voltage"
		}
		return "high voltage"
	case quantity.ESR:
		if !isLow {
			return "high esr"
		}
	case quantity.Microfarads:
		if isLow {
			return "low capacitance"
		}
	}
	return "out of tolerance"
}
