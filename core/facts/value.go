package facts

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
	"frugalheron/core/identifier"
	"frugalheron/core/malformed"
	"frugalheron/core/memory"
	"frugalheron/core/quantity"
)

// Form is how the values of an attribute are written, and compared.
type Form string

// Forms of values.
const (
	Text       Form = "text"       // case and blanks make no difference
	Identifier Form = "identifier" // nor do strokes and points
	Quantity   Form = "quantity"   // a figure with a unit
	Range      Form = "range"      // figures from one to another
	List       Form = "list"       // several, of which one may tell a part
	Size       Form = "size"       // width x depth x height
	Moment     Form = "date"       // EDTF
	Version    Form = "version"    // a leading V or rev. makes no difference
	Address    Form = "address"    // six octets of a network card
	YesNo      Form = "yes-no"     // what follows is a note
)

var forms = []Form{Text, Identifier, Quantity, Range, List, Size, Moment, Version, Address, YesNo}

// sizeTolerance is by how much two sizes of one thing may differ, as a part of the larger: rulers of workshops. A rule
// of thumb.
const sizeTolerance = 0.03

// value is a value in its form, for comparing.
type value struct {
	text  string
	form  Form
	key   string // equal for equal values without figures
	spans []span // figures
	words []string
	day   *edtf.Date
}

// span is a figure, or those from one to another, in the unit in which its quantity is kept.
type span struct {
	from, to float64
	half     float64 // half of the last digit that is written
	unit     string  // of which kind it is: bytes, a quantity, or a unit that no table knows
	exact    bool
}

// bytes is the value as an amount of memory.
func (v value) bytes() (int64, bool) {
	if v.form != Quantity || len(v.spans) != 1 || v.spans[0].unit != inBytes {
		return 0, false
	}
	return int64(math.Round(v.spans[0].from)), true
}

// agrees reports whether both say the same, as far as each says anything.
func (v value) agrees(other value) bool {
	switch {
	case v.form != other.form && (v.spans == nil) != (other.spans == nil):
		return v.text == other.text
	case v.day != nil && other.day != nil:
		return edtf.Relate(*v.day, *other.day) == edtf.Overlaps
	case v.spans != nil && other.spans != nil && v.form == Size:
		return slices.EqualFunc(v.spans, other.spans, func(a, b span) bool {
			return a.unit == b.unit && math.Abs(a.from-b.from) <= sizeTolerance*math.Max(a.from, b.from)
		})
	case v.spans != nil && other.spans != nil && v.form == Quantity:
		return v.spans[0].equals(other.spans[0])
	case v.spans != nil && other.spans != nil:
		return within(v.spans, other.spans) || within(other.spans, v.spans)
	case v.words != nil && other.words != nil:
		return subset(v.words, other.words) || subset(other.words, v.words)
	}
	return v.key == other.key
}

func (s span) equals(other span) bool {
	if s.unit != other.unit {
		return false
	}
	if s.exact || other.exact {
		return s.from == other.from
	}
	return math.Abs(s.from-other.from) <= math.Max(s.half, other.half)*(1+1e-9)
}

// within reports whether each figure of one lies in some of the other.
func within(inner, outer []span) bool {
	for _, i := range inner {
		if !slices.ContainsFunc(outer, func(o span) bool {
			slack := math.Max(i.half, o.half)
			return i.unit == o.unit && (i.from >= o.from && i.to <= o.to ||
				i.from == i.to && o.from == o.to && math.Abs(i.from-o.from) <= slack)
		}) {
			return false
		}
	}
	return true
}

func subset(inner, outer []string) bool {
	for _, word := range inner {
		if !slices.Contains(outer, word) {
			return false
		}
	}
	return true
}

// spread is how exact a value is: the smaller, the more it says.
func (v value) spread() float64 {
	switch {
	case v.day != nil:
		return float64(v.day.Latest().Days() - v.day.Earliest().Days())
	case v.spans != nil:
		total := 0.0
		for _, s := range v.spans {
			total += s.to - s.from + 2*s.half
		}
		return total
	}
	return 0
}

// Normal writes a value in the form of the attribute, or says how such values are written.
func (a Attribute) Normal(text string) (string, error) {
	v, err := a.parse(text)
	if err != nil || v.spans == nil {
		return v.text, err
	}
	if bytes, ok := v.bytes(); ok {
		if a.Base == 1024 {
			return memory.Format(bytes), nil
		}
		return v.text, nil
	}
	of, factor, known := quantity.UnitOf(a.Unit)
	figure := func(f float64) string { return strconv.FormatFloat(quantity.Round(f/factor, 9), 'f', -1, 64) }
	parts := make([]string, len(v.spans))
	for i, s := range v.spans {
		if !known || s.unit != string(of) {
			return v.text, nil // as it was written: no table knows its unit
		}
		if parts[i] = figure(s.from); s.to != s.from {
			parts[i] += "-" + figure(s.to)
		}
	}
	divider := "/"
	if a.Form == Size {
		divider = " x "
	}
	return strings.Join(parts, divider) + " " + a.Unit, nil
}

func (a Attribute) parse(text string) (value, error) {
	text = strings.TrimSpace(text)
	v := value{text: text, form: a.Form}
	if text == "" {
		return v, errors.New("nothing is said")
	}
	switch a.Form {
	case Identifier:
		if v.key = identifier.Key(text); v.key == "" {
			return v, errors.New("an identifier has letters or figures")
		}
	case Moment:
		day, err := edtf.Parse(text)
		var wrong *malformed.Error
		if errors.As(err, &wrong) {
			return v, errors.New(wrong.Err.Error())
		}
		if err != nil {
			return v, err
		}
		v.day, v.key = &day, day.String()
	case Version:
		v.key = versionKey(text)
	case Address:
		octets, err := octetsOf(text)
		if err != nil {
			return v, err
		}
		v.key = octets
	case YesNo:
		if v.key = strings.ToLower(yesNo.FindString(text)); v.key == "" {
			return v, errors.New("begin with yes or no; what follows is a note")
		}
	case Quantity, Range, List, Size:
		return a.figures(v)
	default:
		v.key = folded(text)
	}
	return v, nil
}

func folded(text string) string { return strings.ToLower(strings.Join(strings.Fields(text), " ")) }

var (
	versionWord = regexp.MustCompile(`^(?:(?:version|vers|ver|revision|rev|release|v)\b[.: ]*|v)`)
	yesNo       = regexp.MustCompile(`(?i)^(?:yes|no)\b`)
)

// versionKey leaves out the word before a version, unless it is all that there is, or the beginning of another word.
func versionKey(text string) string {
	key := folded(text)
	word := versionWord.FindString(key)
	rest := strings.TrimSpace(key[len(word):])
	if rest == "" || len(word) == 1 && (rest[0] < '0' || rest[0] > '9') {
		return key
	}
	return rest
}

// ErrLost is an address that is none any more: what kept it has forgotten it, which is worth noting.
var ErrLost = errors.New("is no address: it is lost; look at the label, and in old records")

var octet = regexp.MustCompile(`^[0-9A-Fa-f]{1,2}$`)

// octetsOf reads the address of a network card.
func octetsOf(text string) (string, error) {
	parts := strings.FieldsFunc(text, func(r rune) bool { return strings.ContainsRune(":-. ", r) })
	joined := strings.Join(parts, "")
	if len(parts) < 6 && len(joined) == 12 {
		parts = parts[:0]
		for i := 0; i < 12; i += 2 {
			parts = append(parts, joined[i:i+2])
		}
	}
	if len(parts) != 6 || slices.ContainsFunc(parts, func(p string) bool { return !octet.MatchString(p) }) {
		return "", errors.New("an address of a network card has six octets, as 02:60:8C:1A:2B:3C")
	}
	for i, p := range parts {
		parts[i] = strings.ToUpper(strings.Repeat("0", 2-len(p)) + p)
	}
	address := strings.Join(parts, ":")
	first, _ := strconv.ParseUint(parts[0], 16, 8)
	switch {
	case strings.Trim(address, "0:") == "" || strings.Trim(address, "F:") == "":
		return "", fmt.Errorf("%s %w", address, ErrLost)
	case first&1 == 1:
		return "", fmt.Errorf("%s is the address of a group: the last bit of its first octet is set, which no card has",
			address)
	}
	return address, nil
}

// inBytes is the unit of amounts of memory.
const inBytes = "bytes"

var (
	decimalComma = regexp.MustCompile(`^[+-]?\d+,(?:\d{1,2}|\d{4,})$`)
	number       = regexp.MustCompile(`^[+-]?(?:\d{1,3}(?:,\d{3})+(?:\.\d+)?|\d+(?:[.,]\d+)?|\.\d+)`)
	byteUnit     = regexp.MustCompile(`^(?i)(k|m|g|t)?(i)?(?:(?:ilo|ega|iga|era)?-?bytes?|b|o)?$`)
)

// figures reads a value that has figures.
func (a Attribute) figures(v value) (value, error) {
	divider := map[Form]string{Quantity: "\n", Range: "/", List: "/,;", Size: "xX×*"}[a.Form]
	parts := strings.FieldsFunc(withoutNote(v.text), func(r rune) bool { return strings.ContainsRune(divider, r) })
	if a.Form == List &&
		!slices.ContainsFunc(parts, func(p string) bool { return number.MatchString(strings.TrimSpace(p)) }) {
		for _, part := range parts {
			v.words = append(v.words, folded(part))
		}
		v.key = strings.Join(v.words, ",")
		return v, nil
	}
	spans, unit := make([]span, len(parts)), ""
	for i := len(parts) - 1; i >= 0; i-- {
		ends := []string{strings.TrimSpace(parts[i])}
		if a.Form == Range || a.Form == List {
			ends = upTo.Split(ends[0], 2)
		}
		last, own, err := a.figure(ends[len(ends)-1], unit)
		if err != nil {
			return v, err
		}
		unit, spans[i] = cmp.Or(own, unit), last
		if len(ends) == 2 {
			first, _, err := a.figure(ends[0], unit)
			if err != nil {
				return v, err
			}
			spans[i].from, spans[i].to = min(first.from, last.from), max(first.from, last.from)
		}
	}
	if len(spans) == 0 || a.Form == Quantity && len(spans) != 1 || a.Form == Size && len(spans) > 3 {
		return v, a.example()
	}
	v.spans = spans
	for _, s := range spans {
		v.key += fmt.Sprintf("%g-%g±%g %s/", s.from, s.to, s.half, s.unit)
	}
	return v, nil
}

var upTo = regexp.MustCompile(`\s*(?:-|–|—|\.\.|\bto\b)\s*`)

// withoutNote leaves out what stands behind a figure as a note.
func withoutNote(text string) string {
	if at := strings.IndexAny(text, "(;"); at > 0 {
		text = text[:at]
	}
	return strings.TrimSpace(text)
}

// figure reads one figure with its unit; without one it has the unit of the figure behind it, or that of the attribute.
func (a Attribute) figure(text, behind string) (s span, unit string, err error) {
	written := number.FindString(text)
	if written == "" {
		return s, "", a.example()
	}
	unit = strings.TrimSpace(text[len(written):])
	used := cmp.Or(unit, behind, a.Unit)
	plain := strings.ReplaceAll(written, ",", "")
	if decimalComma.MatchString(written) {
		plain = strings.Replace(written, ",", ".", 1)
	}
	n, err := strconv.ParseFloat(plain, 64)
	if err != nil || math.Abs(n) > 1e15 {
		return s, "", a.example()
	}
	decimals := 0
	if at := strings.IndexByte(plain, '.'); at >= 0 {
		decimals = len(plain) - at - 1
	}
	half := 0.5 * math.Pow(10, -float64(decimals))
	s.unit, n, half, err = a.scaled(n, half, used)
	if err != nil {
		return s, "", err
	}
	s.from, s.to, s.half = n, n, half
	// Counting is exact: memory comes in powers of two, and somebody who writes 64K means no byte less.
	s.exact = s.unit == inBytes && a.Base == 1024
	return s, unit, nil
}

// scaled brings a figure into the unit in which its kind is kept.
func (a Attribute) scaled(n, half float64, unit string) (kind string, figure, halfDigit float64, err error) {
	if a.isOfBytes() || a.Unit == "" && isByteUnit(unit) {
		m := byteUnit.FindStringSubmatch(strings.ReplaceAll(unit, " ", ""))
		if m == nil {
			return "", 0, 0, a.example()
		}
		base := float64(cmp.Or(a.Base, 1000))
		if m[2] != "" {
			base = 1024
		}
		factor := math.Pow(base, float64(strings.IndexByte(" kmgt", strings.ToLower(m[1] + " ")[0])))
		return inBytes, n * factor, half * factor, nil
	}
	trimmed := strings.TrimRight(unit, "~ ")
	of, factor, known := quantity.UnitOf(trimmed)
	switch {
	case trimmed == "":
		return "", n, half, nil
	case !known:
		return folded(trimmed), n, half, nil
	case of == quantity.VoltsAC:
		of = quantity.Volts // a plate says which of both in other ways, too
	}
	return string(of), n * factor, half * factor, nil
}

func (a Attribute) isOfBytes() bool { return a.Unit == inBytes }

func isByteUnit(unit string) bool {
	unit = strings.ReplaceAll(unit, " ", "")
	return unit != "" && len(unit) > 1 && byteUnit.MatchString(unit)
}

var examples = map[Form]string{Quantity: "2.5 m", Range: "220-240 V", List: "50/60 Hz",
	Size: "420 x 380 x 110 mm"}

func (a Attribute) example() error {
	if a.isOfBytes() {
		return errors.New("write an amount of memory as 64K, 4 MB or 65536")
	}
	example := examples[a.Form]
	if a.Form == Quantity && a.Unit != "" {
		example = "11.4 " + a.Unit
	}
	return fmt.Errorf("write it as %s", example)
}
