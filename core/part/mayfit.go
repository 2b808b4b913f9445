package part

import (
	"math"
	"strings"
)

// MayFit is false where it is plain at once that a part is No for a need: it spares long lists the whole comparison.
func MayFit(need, have *Part) bool {
	if have.beside && !need.beside {
		return false
	}
	if need.Kind == Other && need.Value.bare == "" {
		// Compared by its words, of which each has to be there.
		for _, word := range need.Words {
			if strings.Contains(need.lower, word) && !strings.Contains(have.lower, word) {
				return false
			}
		}
		return true
	}
	if need.Kind != have.Kind {
		return need.Kind == Other || have.Kind == Other
	}
	switch need.Kind {
	case Capacitor, Resistor:
		return mayHaveValue(&need.Value, &have.Value, need.Kind)
	case Memory:
		return need.Bits == 0 || have.Bits == 0 || need.Organisation == have.Organisation
	case Chip:
		return need.Number == "" || have.Number == "" || need.Number == have.Number ||
			need.Function != "" && need.Function == have.Function
	case Battery:
		return need.Volts == 0 || have.Volts == 0 || math.Abs(need.Volts-have.Volts) <= 2*cellPlay*need.Volts
	case Other:
	}
	return true
}

func mayHaveValue(need, have *Value, kind Kind) bool {
	if need.Base == 0 || have.Base == 0 || need.bare != "" || have.bare != "" || need.other != 0 || have.other != 0 {
		return true
	}
	within := need.Tolerance
	if within == 0 {
		within = capacitorTolerance
		if kind == Resistor {
			within = resistorTolerance
		}
	}
	return math.Abs(have.Base-need.Base) <= max(within, 1e-3)*math.Max(need.Base, have.Base)*(1+1e-6)
}
