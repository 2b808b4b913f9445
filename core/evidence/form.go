package evidence

import (
	"errors"
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"frugalheron/core/edtf"
	"frugalheron/core/memory"
)

// Form is how the values of an attribute are written.
type Form string

// Forms of values.
const (
	Words       Form = "text"
	Identifier  Form = "identifier" // compared without regard to case, spaces and strokes
	Bytes       Form = "bytes"
	Volts       Form = "volts"
	Hertz       Form = "hertz"
	Amperes     Form = "amperes"
	Kilograms   Form = "kilograms"
	Millimetres Form = "millimetres" // width x depth x height
	Moment      Form = "date"        // EDTF
)

// tolerance is by how much two weights or sizes of the same thing may differ, as a part of the larger:
// scales and rulers of kitchens and workshops. A rule of thumb.
const tolerance = 0.03

// quantities are the forms that hold figures: how many, in which units.
var quantities = map[Form]struct {
	unit      string
	units     map[string]float64
	most      int
	divider   string
	tolerance float64
	example   string
}{
	Volts:       {"V", map[string]float64{"": 1, "v": 1, "volt": 1, "volts": 1}, 4, "-", 0, "220-240 V"},
	Hertz:       {"Hz", map[string]float64{"": 1, "hz": 1}, 2, "/", 0, "50/60 Hz"},
	Amperes:     {"A", map[string]float64{"": 1, "a": 1, "amp": 1, "ma": 0.001}, 2, "-", 0, "0.6 A"},
	Kilograms:   {"kg", map[string]float64{"": 1, "kg": 1, "g": 0.001}, 1, "", tolerance, "11.4 kg"},
	Millimetres: {"mm", map[string]float64{"": 1, "mm": 1, "cm": 10}, 3, " x ", tolerance, "420 x 380 x 110 mm"},
}

var figure = regexp.MustCompile(`^\d{1,7}(?:\.\d{1,3})?`)

// reading is a value in its form, for comparing.
type reading struct {
	text      string // as values of the form are written
	key       string // equal for equal values without figures
	figures   []float64
	tolerance float64
}

func (r reading) agrees(other reading) bool {
	if r.figures == nil || other.figures == nil {
		return r.key == other.key
	}
	return slices.EqualFunc(r.figures, other.figures, func(a, b float64) bool {
		return math.Abs(a-b) <= r.tolerance*math.Max(a, b)
	})
}

// Normal writes a value in the form of the attribute, or says how such values are written.
func (a Attribute) Normal(value string) (string, error) {
	read, err := a.parse(value)
	return read.text, err
}

// IdentifierKey is what two spellings of one identifier have in common: letters and figures in upper
// case. O and 0, I and 1 stay apart, as they do on plates.
func IdentifierKey(value string) string {
	return strings.Map(func(r rune) rune {
		if r >= '0' && r <= '9' || r >= 'A' && r <= 'Z' {
			return r
		}
		return -1
	}, strings.ToUpper(value))
}

// read takes a value as words where it is not written in the form.
func (a Attribute) read(value string) reading {
	read, err := a.parse(value)
	if err != nil {
		return reading{text: strings.TrimSpace(value), key: wordsKey(value)}
	}
	return read
}

func (a Attribute) parse(value string) (reading, error) {
	value = strings.TrimSpace(value)
	switch a.Form {
	case Identifier:
		if IdentifierKey(value) == "" {
			return reading{}, fmt.Errorf("an identifier has letters or figures")
		}
		return reading{text: value, key: IdentifierKey(value)}, nil
	case Bytes:
		n, err := memory.ParseSize(value)
		if err != nil {
			return reading{}, fmt.Errorf("write an amount of memory as 64K, 4MB or 65536")
		}
		return reading{text: memory.Format(n), figures: []float64{float64(n)}}, nil
	case Moment:
		d, err := edtf.Parse(value)
		var wrong *edtf.WrongError
		if errors.As(err, &wrong) {
			return reading{}, errors.New(wrong.Why)
		}
		return reading{text: d.String(), key: d.String()}, err
	case Words, "":
		return reading{text: value, key: wordsKey(value)}, nil
	}
	q := quantities[a.Form]
	figures, ok := readFigures(strings.ToLower(value), q.units, q.most)
	if !ok {
		return reading{}, fmt.Errorf("write it as %s", q.example)
	}
	texts := make([]string, len(figures))
	for i, f := range figures {
		texts[i] = strconv.FormatFloat(f, 'f', -1, 64)
	}
	return reading{text: strings.Join(texts, q.divider) + " " + q.unit, figures: figures, tolerance: q.tolerance}, nil
}

// readFigures reads figures divided by - / x or , with a unit behind the last or behind each.
func readFigures(text string, units map[string]float64, most int) ([]float64, bool) {
	parts := strings.FieldsFunc(text, func(r rune) bool { return strings.ContainsRune("-/x×,–", r) })
	figures, scale := make([]float64, len(parts)), 0.0
	for i := len(parts) - 1; i >= 0; i-- {
		part := strings.TrimSpace(parts[i])
		number := figure.FindString(part)
		unit := strings.TrimSpace(part[len(number):])
		if unit != "" || scale == 0 {
			known := false
			if scale, known = units[unit]; !known {
				return nil, false
			}
		}
		n, err := strconv.ParseFloat(number, 64)
		if err != nil {
			return nil, false
		}
		figures[i] = math.Round(n*scale*1000) / 1000
	}
	return figures, len(figures) > 0 && len(figures) <= most
}

func wordsKey(value string) string {
	return strings.ToLower(strings.Join(strings.Fields(value), " "))
}
