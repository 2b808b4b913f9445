package gate

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"frugalheron/core/measure"
)

// warmFrom is from how many watts a machine without a fan is felt for heat early: a rule of thumb.
const warmFrom = 30.0

// Before tells what is said before power is applied, whatever the state: what starts by itself, what may be charged that
// must not, and how the heat leaves. Draw is what the sheets say, a rule of thumb.
func Before(in Input) []string {
	told := []string{}
	for _, s := range in.Supplies {
		if s.StartsWithMains {
			told = append(told, fmt.Sprintf("%s starts as soon as mains arrives: all is in place before its lead goes in, and a "+
				"switched outlet is in reach", s.ID))
		}
	}
	for _, b := range in.Batteries {
		mayBeCharged := (b.Primary || b.Unknown) && (b.Charged == nil || *b.Charged)
		if mayBeCharged && b.State != "out" {
			told = append(told, fmt.Sprintf("%s may be a primary cell in a circuit that charges it: it is out before power comes",
				b.ID))
		}
	}
	if heat := heatOf(in); heat != "" {
		told = append(told, heat)
	}
	return told
}

func heatOf(in Input) string {
	watts := 0.0
	for _, s := range in.Supplies {
		for rail, amperes := range s.Draw {
			if e, ok := measure.Rail(railKey(rail)); ok {
				watts += math.Abs(*e.Nominal) * amperes
			}
		}
	}
	dead, turning := []string{}, false
	for _, c := range in.Cooling {
		switch {
		case c.State == "turns":
			turning = true
		case c.Needed:
			dead = append(dead, c.ID)
		}
	}
	slices.Sort(dead)
	drawn := "what it draws is not known"
	if watts > 0 {
		drawn = fmt.Sprintf("about %.0f W are drawn by the sheets of its boards", watts)
	}
	switch {
	case len(dead) > 0:
		return fmt.Sprintf("Heat: %s, and %s is not known to turn. Short tries, with time to cool between", drawn,
			strings.Join(dead, ", "))
	case turning:
		return fmt.Sprintf("Heat: %s; look that the fan turns as soon as it is on", drawn)
	case watts >= warmFrom:
		return fmt.Sprintf("Heat: %s, and no fan is on them. After a minute: off, lead out, and feel what got warm", drawn)
	}
	return ""
}
