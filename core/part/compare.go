package part

import (
	"fmt"
	"math"
	"slices"
	"strings"
)

// Compare says how a part stands for a need: property by property of what the need says.
func Compare(need, have Part) Fit { return compare(need, have, &comparison{}) }

// GradeOf is the grade alone, for long lists.
func GradeOf(need, have Part) Grade { return compare(need, have, &comparison{quiet: true}).Grade }

func compare(need, have Part, c *comparison) Fit {
	if have.beside && !need.beside {
		c.is(broken, "this holds or serves such a part, and is none itself")
		return c.fit()
	}
	given := need.Kind
	need.resolve(have.Kind)
	have.resolve(given)
	if need.Kind != have.Kind {
		if need.Kind != Other && have.Kind != Other {
			c.is(broken, "a %s is asked for, and this is a %s", need.Kind, have.Kind)
			return c.fit()
		}
		c.words(need, have, true)
		return c.fit()
	}
	switch need.Kind {
	case Capacitor:
		c.value(need, have, capacitorTolerance)
		c.capacitor(need, have)
	case Resistor:
		c.value(need, have, resistorTolerance)
		c.atLeast("watts", "W", need.Watts, have.Watts)
		c.atLeast("volts", "V", need.Volts, have.Volts)
	case Battery:
		c.battery(need, have)
	case Memory, Chip:
		c.chip(need, have)
	case Other:
	}
	c.form(need, have)
	c.words(need, have, need.Kind == Other)
	return c.fit()
}

// same reports whether two figures are one, to what is written on parts.
func same(a, b float64) bool { return math.Abs(a-b) <= 1e-3*math.Max(math.Abs(a), math.Abs(b)) }

func (c *comparison) value(need, have Part, usual float64) {
	if need.Value.Base == 0 {
		return
	}
	if have.Value.Base == 0 {
		c.unsaid("value", said(need))
		return
	}
	within := need.Value.Tolerance
	if within == 0 {
		within = usual
	}
	fits := func(value float64) bool {
		return math.Abs(value-need.Value.Base) <= within*need.Value.Base*(1+1e-9)
	}
	other := have
	other.Value.Base = have.Value.other
	switch {
	case same(need.Value.Base, have.Value.Base):
		c.is(equal, "%s on both", said(need))
		if need.Value.other+have.Value.other > 0 && need.Value.bare != have.Value.bare {
			c.is(noted, "a bare figure that ends in 0 may be meant as it stands, or as a code: measure it")
		}
	case have.Value.other > 0 && fits(have.Value.other), need.Value.other > 0 && same(need.Value.other,
		have.Value.Base):
		c.is(noted, "a bare figure that ends in 0 may be meant as it stands, or as a code: measure it")
	case fits(have.Value.Base):
		c.is(noted, "%s where %s is asked for, within %s %%", said(have), said(need), amount(within*100))
	default:
		c.is(broken, "%s where %s is asked for, further off than %s %%", said(have), said(need), amount(within*100))
	}
	switch asked, got := need.Value.Tolerance, have.Value.Tolerance; {
	case asked == 0:
	case got == 0:
		c.unsaid("tolerance", measured{asked * 100, "%"})
	case same(asked, got):
		c.is(equal, "%s %% on both", amount(got*100))
	case got < asked:
		c.is(better, "%s %% where %s %% is asked for", amount(got*100), amount(asked*100))
	default:
		c.is(noted, "%s %% where %s %% is asked for: measure this one", amount(got*100), amount(asked*100))
	}
}

// unsaid notes what the part does not say: it is never taken for granted.
func (c *comparison) unsaid(what string, asked any) {
	c.is(noted, "the part does not say its %s; %s is asked for", what, asked)
}

// atLeast compares a figure of which more is better.
func (c *comparison) atLeast(what, unit string, asked, got float64) {
	switch {
	case asked == 0:
	case got == 0:
		c.unsaid(what, measured{asked, unit})
	case same(asked, got):
		c.is(equal, "%s %s on both", amount(got), unit)
	case got > asked:
		c.is(better, "%s %s where %s is asked for", amount(got), unit, amount(asked))
	default:
		c.is(broken, "%s %s where %s is asked for", amount(got), unit, amount(asked))
	}
}

// form compares size, pitch and package: whether it fits where the other sat.
func (c *comparison) form(need, have Part) {
	for _, size := range []struct {
		what        string
		asked, have float64
	}{{"width", need.Diameter, have.Diameter}, {"height", need.Height, have.Height}} {
		switch {
		case size.asked == 0:
		case size.have == 0:
			c.unsaid(size.what, measured{size.asked, "mm"})
		case same(size.asked, size.have):
			c.is(equal, "%s mm %s on both", amount(size.have), size.what)
		case size.have < size.asked:
			c.is(better, "%s mm %s fits where there are %s", amount(size.have), size.what, amount(size.asked))
		default:
			c.is(broken, "%s mm %s does not fit where there are %s", amount(size.have), size.what, amount(size.asked))
		}
	}
	switch {
	case need.Pitch == 0:
	case have.Pitch == 0:
		c.unsaid("pitch", measured{need.Pitch, "mm"})
	case math.Abs(need.Pitch-have.Pitch) <= pitchPlay:
		c.is(equal, "%s mm between the leads on both", amount(need.Pitch))
	default:
		c.is(broken, "%s mm between the leads where the holes are %s apart", amount(have.Pitch), amount(need.Pitch))
	}
	switch {
	case need.Package == "":
	case have.Package == "":
		c.is(broken, "the part does not say its package; %s is asked for", need.Package)
	case strings.EqualFold(need.Package, have.Package):
		c.is(equal, "%s on both", have.Package)
	default:
		c.is(broken, "%s where %s is asked for", have.Package, need.Package)
	}
}

// pitchPlay is by how much holes and leads may differ, in mm: 5 and 5.08 are one.
const pitchPlay = 0.1

// words compares what nobody could read as a property, word by word.
func (c *comparison) words(need, have Part, alone bool) {
	left := func(p Part) []string {
		if alone {
			return strings.FieldsFunc(strings.ToLower(p.Text),
				func(r rune) bool { return strings.ContainsRune(" ,;/()=", r) })
		}
		return p.Words
	}
	asked, got := left(need), left(have)
	missing := []string{}
	for _, word := range asked {
		if !slices.Contains(got, word) {
			missing = append(missing, fmt.Sprintf("%q", word))
		}
	}
	switch {
	case len(asked) == 0:
	case len(missing) == 0:
		c.is(equal, "compared by its words: %s", strings.Join(asked, " "))
	case alone:
		c.is(broken, "compared by its words: it does not say %s", strings.Join(missing, ", "))
	default:
		c.is(noted, "nobody can read %s as a value, and the part does not say it: compare that yourself",
			strings.Join(missing, ", "))
	}
}
