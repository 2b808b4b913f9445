package condition

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"frugalheron/core/lives"
	"frugalheron/core/measure"
	"frugalheron/core/quantity"
	"frugalheron/core/sheet"
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

// Measured is one measurement of a point.
type Measured struct {
	Assembly int64 // on which the point is; 0 for none
	Board    string
	Point    string // as BT1, U3 pin 8, +5, drive guide
	Tells    string // what sort of part it is, where the point begins with its designator
	Quantity quantity.Quantity
	Expected *measure.Expected
	Judged   measure.Judged
	On       string // YYYY-MM-DD
	At       time.Time
	By       string
}

// Designator is that of the part which a point on a board begins with; empty where it names none.
func (m Measured) Designator() string {
	first, _, _ := strings.Cut(m.Point, " ")
	if m.Assembly == 0 || !sheet.IsDesignator(first) {
		return ""
	}
	return first
}

// kind is that of the failure; empty where the reading is as it should be.
func (m Measured) kind() string {
	if m.Judged.Verdict != measure.Fail {
		return ""
	}
	return FailureKind(m.Quantity, m.Expected != nil && m.Expected.IsLow(m.Judged.Stats.Average))
}

// said says where it was measured: a rail is the supply's, a part belongs where it does on the sheet, and other points are
// told by how they are called.
func (m Measured) said() Said {
	one := Said{Assembly: m.Assembly, Board: m.Board, Parts: m.Designator(), Place: m.Point, Tells: m.Tells}
	first, rest, _ := strings.Cut(m.Point, " ")
	if one.Parts != "" {
		one.Place = rest
	}
	_, isRail := measure.Rail(first)
	switch {
	case isRail:
		one.Subsystem = "supply"
	case one.Tells != "":
		one.Subsystem = SubsystemFor(one.Tells, "")
	default:
		one.Subsystem = SubsystemOfPlace(m.Point, "")
	}
	return one
}

// Failures are the findings that measurements make, given the oldest first: for each point, while one part was there, one
// for each kind of failure. A reading that is otherwise ends it; one of which nothing is expected says nothing.
func Failures(measured []Measured, stories map[int64]lives.Story) []Said {
	points, order := map[string][]Measured{}, []string{}
	for _, m := range measured {
		if m.Judged.Verdict == measure.Noted {
			continue
		}
		nth, _ := stories[m.Assembly].Occupant(m.Designator(), m.On, m.At)
		key := strings.ToLower(fmt.Sprintf("%d %s %s %d", m.Assembly, m.Point, m.Quantity, nth))
		if points[key] == nil {
			order = append(order, key)
		}
		points[key] = append(points[key], m)
	}
	said := []Said{}
	for _, key := range order {
		said = append(said, failuresOfPoint(points[key])...)
	}
	return said
}

func failuresOfPoint(series []Measured) []Said {
	kinds, said := []string{}, []Said{}
	for _, first := range series {
		kind := first.kind()
		if kind == "" || slices.Contains(kinds, kind) {
			continue
		}
		kinds = append(kinds, kind)
		one := series[0].said()
		one.Kind = kind
		for _, m := range series {
			isGone := m.kind() != kind
			if len(one.Observations) > 0 || !isGone {
				one.Observations = append(one.Observations, Observation{On: m.On, At: m.At, Gone: isGone, By: m.By,
					Note: "measured " + m.Judged.InWords, Source: FromMeasurement})
			}
		}
		said = append(said, one)
	}
	return said
}
