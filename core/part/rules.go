package part

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"frugalheron/core/device"
)

// voltSteps are the steps in which electrolytic capacitors are made, in volts. Source: the series of IEC 60063 as makers
// use it. One that is made for much more than it gets forms badly: more than two steps up is told.
var voltSteps = []float64{6.3, 10, 16, 25, 35, 50, 63, 100, 160, 200, 250, 315, 350, 400, 450}

const mostSteps = 2

// electrolyticFrom is from how many farads a capacitor is an electrolytic unless it says otherwise: rule of thumb.
const electrolyticFrom = 1e-6

// peak is the peak of an alternating voltage over its root mean square.
const peak = math.Sqrt2

func (c *comparison) capacitor(need, have Part) {
	c.safety(need, have)
	isElectrolytic := have.Dielectric == "electrolytic" || have.Dielectric == "" && !have.Unpolar &&
		need.Value.Base >= electrolyticFrom*(1-1e-9)
	switch asked, got := need.Volts, have.Volts; {
	case asked > 0 && got > asked && !same(asked, got) && isElectrolytic && steps(asked, got) > mostSteps:
		c.is(noted, "%s V where %s is asked for: an electrolytic made for so much more forms badly", amount(got), amount(asked))
	case asked > 0 && got == 0 && have.VoltsAC > 0 && have.VoltsAC*peak >= asked:
		c.is(better, "%s V~ where %s V is asked for", amount(have.VoltsAC), amount(asked))
	default:
		c.atLeast("volts", "V", asked, got)
	}
	if need.VoltsAC > 0 && have.VoltsAC == 0 && have.Volts > 0 {
		c.is(broken, "%s V~ is asked for, and the part says direct volts only", amount(need.VoltsAC))
	} else {
		c.atLeast("alternating volts", "V~", need.VoltsAC, have.VoltsAC)
	}
	c.atLeast("temperature", "°C", need.Celsius, have.Celsius)
	switch {
	case need.Unpolar && !have.Unpolar && (have.Dielectric == "electrolytic" || have.Dielectric == "tantalum"):
		c.is(broken, "one without polarity is asked for, and this one has it")
	case need.Unpolar && !have.Unpolar && have.Dielectric == "":
		c.unsaid("polarity", "none")
	}
	switch {
	case need.Dielectric == "":
	case have.Dielectric == "":
		c.unsaid("sort", need.Dielectric)
	case need.Dielectric == have.Dielectric:
		c.is(equal, "%s on both", have.Dielectric)
	default:
		c.is(noted, "%s where %s is asked for: compare what the circuit needs", have.Dielectric, need.Dielectric)
	}
}

// steps counts the steps of the series from above one voltage up to another.
func steps(from, to float64) int {
	n := 0
	for _, step := range voltSteps {
		if step > from*(1+1e-3) && step <= to*(1+1e-3) {
			n++
		}
	}
	return n
}

// safety compares classes of IEC 60384-14: a lower figure is the higher class, and Y stands for X, never X for Y.
func (c *comparison) safety(need, have Part) {
	for _, asked := range need.Safety {
		if len(have.Safety) == 0 {
			c.is(broken, "safety class %s is asked for, and the part says none", asked)
			continue
		}
		best := broken
		for _, got := range have.Safety {
			best = min(best, compareClass(asked, got))
		}
		got := strings.Join(have.Safety, "/")
		switch best {
		case equal:
			c.is(equal, "safety class %s on both", asked)
		case better:
			c.is(better, "safety class %s where %s is asked for", got, asked)
		default:
			c.is(broken, "safety class %s where %s is asked for", got, asked)
		}
	}
}

func compareClass(asked, got string) finding {
	switch {
	case asked == got:
		return equal
	case asked[0] == 'X' && got[0] == 'Y', asked[0] == got[0] && got[1] < asked[1]:
		return better
	}
	return broken
}

func (c *comparison) battery(need, have Part) {
	switch asked, got := need.Chemistry, have.Chemistry; {
	case asked == "":
	case got == "":
		c.unsaid("chemistry", asked)
	case asked == got:
		c.is(equal, "%s on both", got)
	case asked == "NiCd" && got == "NiMH":
		c.is(noted, "NiMH where NiCd is asked for: it stands less charging without a pause")
	default:
		c.is(broken, "%s where %s is asked for", got, asked)
	}
	isPrimary := have.Charge == primary || isPrimaryCell(have.Chemistry)
	switch {
	case need.Charge == charged && isPrimary:
		c.is(broken, "it is charged where it sits, and this is a primary cell: charged, it may burst")
	case need.Charge == charged && have.Chemistry == "" && have.Charge == unsaid:
		c.is(noted, "it is charged where it sits, and the part does not say whether it may be")
	case need.Charge == primary && !isPrimary && have.Chemistry != "":
		c.is(noted, "nothing charges it where it sits: it goes flat")
	}
	switch {
	case need.Volts == 0:
	case have.Volts == 0:
		c.unsaid("volts", measured{need.Volts, "V"})
	case math.Abs(need.Volts-have.Volts) <= cellPlay*need.Volts:
		c.is(equal, "%s V on both", amount(have.Volts))
	default:
		c.is(broken, "%s V where %s is asked for", amount(have.Volts), amount(need.Volts))
	}
	switch {
	case need.MAh == 0 || have.MAh >= need.MAh:
		c.atLeast("capacity", "mAh", need.MAh, have.MAh)
	case have.MAh == 0:
		c.unsaid("capacity", measured{need.MAh, "mAh"})
	default:
		c.is(noted, "%s mAh where %s is asked for: it lasts less long", amount(have.MAh), amount(need.MAh))
	}
}

// Cell says whether the words of a cell name one that is not to be charged; known is false where they do not say.
func Cell(words string) (isPrimary, known bool) {
	p := Read(noTypes, words)
	switch {
	case p.Charge == primary || isPrimaryCell(p.Chemistry):
		return true, true
	case p.Chemistry != "" || p.Charge == charged:
		return false, true
	}
	return false, false
}

// noTypes is a library for words in which no type is looked for.
var noTypes = &device.Library{}

func isPrimaryCell(chemistry string) bool {
	return slices.ContainsFunc(chemistries,
		func(one chemistryWords) bool { return one.primary && one.name == chemistry })
}

// cellPlay is by how much volts of cells differ that are written for one: 3.6 and 3.65.
const cellPlay = 0.03

// chip compares memories by organisation, speed and class, and other chips by their number.
func (c *comparison) chip(need, have Part) {
	if need.organised() != have.organised() && need.organised() != "" {
		if have.organised() == "" {
			c.unsaid("organisation", need.organised())
		} else {
			c.is(broken, "%s where %s is asked for", have.organised(), need.organised())
		}
	} else if need.organised() != "" {
		c.is(equal, "%s on both", have.organised())
	}
	switch {
	case need.Class == "" || need.Class == have.Class:
	case have.Class == "":
		c.unsaid("sort", string(need.Class))
	default:
		c.is(broken, "%s where %s is asked for", have.Class, need.Class)
	}
	switch {
	case need.Number == "":
	case need.Number == have.Number:
		c.is(equal, "%s on both", have.Number)
	case have.Number == "":
		c.unsaid("number", need.Number)
	case need.Kind == Memory || need.Function != "" && need.Function == have.Function:
		c.is(noted, "%s does what %s does: compare pins, levels and speed", have.Number, need.Number)
	default:
		c.is(broken, "%s where %s is asked for", have.Number, need.Number)
	}
	switch asked, got := need.Nanoseconds, have.Nanoseconds; {
	case asked == 0:
	case got == 0:
		c.is(noted, "the part does not say its speed; %d ns is asked for", asked)
	case got == asked:
		c.is(equal, "%d ns on both", got)
	case got < asked:
		c.is(better, "%d ns where %d is asked for", got, asked)
	default:
		c.is(broken, "%d ns where %d is asked for: slower", got, asked)
	}
	c.atLeast("clock", "MHz", need.MHz, have.MHz)
}

// organised writes the organisation of a memory, as 256K x 1; empty where it is not said.
func (p Part) organised() string {
	if p.Bits == 0 {
		return ""
	}
	return fmt.Sprintf("%gK x %d", float64(p.Organisation.Words)/1024, p.Bits)
}
