package evidence

import (
	"cmp"
	"errors"
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"frugalheron/core/edtf"
	"frugalheron/core/malformed"
	"frugalheron/core/memory"
	"frugalheron/core/quantity"
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

// figured are the forms that hold figures.
type figured struct {
	of        quantity.Quantity
	unit      string // in which they are kept, and which a figure has that stands alone
	most      int    // figures
	divider   string
	tolerance float64
	example   string
}

var withFigures = map[Form]figured{
	Volts:       {quantity.Volts, "V", 4, "-", 0, "220-240 V"},
	Hertz:       {quantity.Hertz, "Hz", 2, "/", 0, "50/60 Hz"},
	Amperes:     {quantity.Amperes, "A", 2, "-", 0, "0.6 A"},
	Kilograms:   {quantity.Grams, "kg", 1, "", tolerance, "11.4 kg"},
	Millimetres: {quantity.Millimetres, "mm", 3, " x ", tolerance, "420 x 380 x 110 mm"},
}

// scale is by what a figure with a unit is to be multiplied.
func (f figured) scale(unit string) (float64, bool) {
	_, kept, _ := quantity.UnitOf(f.unit)
	of, factor, known := quantity.UnitOf(cmp.Or(unit, f.unit))
	return factor / kept, known && (of == f.of || of == quantity.VoltsAC && f.of == quantity.Volts)
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
		var wrong *malformed.Error
		if errors.As(err, &wrong) {
			return reading{}, errors.New(wrong.Err.Error())
		}
		return reading{text: d.String(), key: d.String()}, err
	case Words, "":
		return reading{text: value, key: wordsKey(value)}, nil
	}
	q := withFigures[a.Form]
	figures, ok := q.read(value)
	if !ok {
		return reading{}, fmt.Errorf("write it as %s", q.example)
	}
	texts := make([]string, len(figures))
	for i, f := range figures {
		texts[i] = strconv.FormatFloat(f, 'f', -1, 64)
	}
	return reading{text: strings.Join(texts, q.divider) + " " + q.unit, figures: figures, tolerance: q.tolerance}, nil
}

// read reads figures divided by - / x or , with a unit behind the last or behind each.
func (f figured) read(text string) ([]float64, bool) {
	parts := strings.FieldsFunc(text, func(r rune) bool { return strings.ContainsRune("-/xX×,–", r) })
	figures, scale := make([]float64, len(parts)), 0.0
	for i := len(parts) - 1; i >= 0; i-- {
		part := strings.TrimSpace(parts[i])
		number := figure.FindString(part)
		unit := strings.TrimSpace(part[len(number):])
		if unit != "" || scale == 0 {
			known := false
			if scale, known = f.scale(unit); !known {
				return nil, false
			}
		}
		n, err := strconv.ParseFloat(number, 64)
		if err != nil {
			return nil, false
		}
		figures[i] = math.Round(n*scale*1000) / 1000
	}
	return figures, len(figures) > 0 && len(figures) <= f.most
}

func wordsKey(value string) string {
	return strings.ToLower(strings.Join(strings.Fields(value), " "))
}
