package part

import (
	"math"
	"regexp"
	"strconv"
	"strings"

	"frugalheron/core/quantity"
)

// Value is the value of a capacitor in farads, or of a resistor in ohms.
type Value struct {
	Base      float64 // 0 where it is not said
	Tolerance float64 // in parts of it; 0 where it is not said
	// bare is a value without a unit, as 104 or .1: what it means depends on what it is compared with.
	bare string
	// other is what a bare value could be as well, and nobody can tell: 470 is 47, or 470.
	other float64
}

var (
	inFarads = regexp.MustCompile(`(?i)(?:^|\s)(\d*\.\d+|\d+)\s*(pF|nF|uF|mfd|mf|F)(?:\s|$)`)
	// 4n7; with more figures behind the letter it is the number of a diode or transistor: 1N4148, 2N706.
	inLetter = regexp.MustCompile(`(?i)(?:^|\s)(\d*)([pnu])(\d{1,2})F?(?:\s|$)`)
	atLetter = regexp.MustCompile(`(?i)(?:^|\s)(\d*\.\d+|\d+)\s?([pnu])(?:\s|$)`)
	inOhms   = regexp.MustCompile(`(?:^|\s)(\d*\.\d+|\d+)\s*([kKMm]?)\s*[oO][hH][mM][sS]?(?:\s|$)`)
	inPoint  = regexp.MustCompile(`(?:^|\s)(\d*)([RrkKM])(\d+)(?:\s|$)`)
	atOhms   = regexp.MustCompile(`(?:^|\s)(\d*\.\d+|\d+)\s?([RrkKM])(?:\s|$)`)
	// 104, 104K: two figures and how many zeros follow, with the tolerance letter of IEC 60062.
	coded    = regexp.MustCompile(`^([1-9]\d)([0-6])([FGJKMZ]?)$`)
	bareWord = regexp.MustCompile(`^(\d*\.\d+|\d{1,7})$`)
)

// letters of IEC 60062 for a tolerance, in parts; of an uneven one the wider side.
var letterTolerances = map[string]float64{"F": 0.01, "G": 0.02, "J": 0.05, "K": 0.1, "M": 0.2, "Z": 0.8}

// Tolerances where none is said. Rules of thumb: resistors of the time have 5 %, capacitors 20 %.
const (
	resistorTolerance  = 0.05
	capacitorTolerance = 0.20
)

var farads = map[string]float64{"p": 1e-12, "pf": 1e-12, "n": 1e-9, "nf": 1e-9, "u": 1e-6, "uf": 1e-6, "mfd": 1e-6,
	"mf": 1e-6, "f": 1}

func ohmFactor(letter string) float64 {
	switch letter {
	case "k", "K":
		return 1e3
	case "M":
		return 1e6
	case "m":
		return 1e-3
	}
	return 1
}

// takeValue reads a value with its unit and returns the words without it.
func (p *Part) takeValue(words string) string {
	farad := func(figures, unit string) {
		p.Value.Base, p.Kind = number(figures)*farads[strings.ToLower(unit)], Capacitor
	}
	ohm := func(figures, letter string) { p.Value.Base, p.Kind = number(figures)*ohmFactor(letter), Resistor }
	for _, form := range []struct {
		pattern *regexp.Regexp
		take    func(m []string) bool
	}{
		{inFarads, func(m []string) bool {
			if m[2] == "mF" {
				return false // milli today, micro then: nobody can tell
			}
			farad(m[1], m[2])
			return true
		}},
		{inLetter, func(m []string) bool { farad(m[1]+"."+m[3], m[2]); return true }},
		{atLetter, func(m []string) bool { farad(m[1], m[2]); return true }},
		{inOhms, func(m []string) bool { ohm(m[1], m[2]); return true }},
		{inPoint, func(m []string) bool { ohm(m[1]+"."+m[3], m[2]); return true }},
		{atOhms, func(m []string) bool {
			if code := coded.FindStringSubmatch(m[1] + m[2]); code != nil && p.Kind == Capacitor {
				return false // 104K of a capacitor: a tolerance letter
			}
			ohm(m[1], m[2])
			return true
		}},
	} {
		at := form.pattern.FindStringSubmatchIndex(words)
		if at == nil {
			continue
		}
		m := form.pattern.FindStringSubmatch(words)
		written := strings.TrimSpace(m[0])
		if !form.take(m) {
			continue
		}
		if code := coded.FindStringSubmatch(written); code != nil && len(code[3]) == 1 {
			p.Value.bare = written // 104K: 104 kΩ, or 100 nF with its letter beside a capacitor
		}
		return words[:at[0]] + " " + words[at[1]:]
	}
	return words
}

// takeBare takes a word that is a value without a unit; reports whether it was one.
func (p *Part) takeBare(word string) bool {
	if p.Value.Base != 0 || p.Value.bare != "" || p.Kind != Other && p.Kind != Capacitor && p.Kind != Resistor {
		return false
	}
	if !coded.MatchString(strings.ToUpper(word)) && !bareWord.MatchString(word) {
		return false
	}
	p.Value.bare = strings.ToUpper(word)
	return true
}

// resolve says what a bare value means: beside a capacitor a code is in picofarads, else in ohms.
func (p *Part) resolve(other Kind) {
	v := &p.Value
	isCapacitor := p.Kind == Capacitor || p.Kind != Resistor && other == Capacitor ||
		v.Base != 0 && other == Capacitor
	if v.bare == "" || v.Base != 0 && !isCapacitor {
		return
	}
	if !isCapacitor && p.Kind != Resistor && other != Resistor && len(p.Words) > 0 {
		p.Words = append(p.Words, strings.ToLower(v.bare)) // foam of 3 mm is no resistor
		v.bare = ""
		return
	}
	unit := 1.0
	p.Kind = Resistor
	if isCapacitor {
		unit, p.Kind = 1e-12, Capacitor
	}
	code := coded.FindStringSubmatch(v.bare)
	switch {
	case code != nil:
		v.Base = quantity.Round(number(code[1])*math.Pow10(int(number(code[2])))*unit, 9)
		if code[2] == "0" && code[3] == "" {
			v.other = number(v.bare) * unit
		}
		if code[3] != "" && v.Tolerance == 0 {
			v.Tolerance = letterTolerances[code[3]]
		}
	case isCapacitor && strings.Contains(v.bare, "."):
		v.Base = number(v.bare) * 1e-6
	default:
		v.Base = number(v.bare) * unit
	}
}

// said is a part of which the value is told. It is written only where somebody reads it, as amount and measured are.
type said Part

// String writes the value as it is read on parts.
func (p said) String() string {
	if p.Kind == Capacitor {
		switch base := p.Value.Base; {
		case base >= 0.999e-6:
			return figure(base*1e6) + " µF"
		case base >= 0.999e-9:
			return figure(base*1e9) + " nF"
		default:
			return figure(base*1e12) + " pF"
		}
	}
	return quantity.Ohms.Say(p.Value.Base)
}

func figure(value float64) string { return strconv.FormatFloat(quantity.Round(value, 4), 'f', -1, 64) }

// number reads figures that a pattern let through.
func number(figures string) float64 {
	value, _ := strconv.ParseFloat(strings.TrimSuffix(figures, "."), 64)
	return value
}

// amount is a figure that is told.
type amount float64

func (a amount) String() string { return figure(float64(a)) }

// measured is a figure with its unit.
type measured struct {
	value float64
	unit  string
}

func (m measured) String() string { return figure(m.value) + " " + m.unit }
