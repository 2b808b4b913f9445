package rom

import (
	"bytes"
	"fmt"
	"math/bits"
	"slices"
	"strings"
)

// LengthMatch says whether an image fills the device that it is said to come from.
type LengthMatch string

// Of a device that an image is laid beside.
const (
	Exact LengthMatch = "exact"
	Short LengthMatch = "short" // the image holds less than the device
	Long  LengthMatch = "long"  // it holds more: it cannot come from it
)

// Device is the memory that an image is said to come from.
type Device struct {
	Number      string      `json:"number"`
	Bytes       int         `json:"bytes"`
	LengthMatch LengthMatch `json:"fits" enum:"exact,short,long"`
}

// Inspection is what is found in an image.
type Inspection struct {
	Bytes int `json:"bytes"`
	Sums
	Device              *Device `json:"device"`
	EffectiveBytes      int     `json:"effectiveBytes"` // one copy of what repeats
	Repeats             int     `json:"repeats"`
	BlankBytes          int     `json:"blankBytes"`
	BlankRuns           []Run   `json:"blankRuns"`
	Texts               []Text  `json:"texts"`
	Years               []int   `json:"years"`
	StuckDataBits       []int   `json:"stuckDataBits"`       // the same in every byte, from 0
	IgnoredAddressLines []int   `json:"ignoredAddressLines"` // that make no difference, from 0
	// NearRepeat is set where one copy of what repeats is the same twice but for a few bits; else nil.
	NearRepeat *NearRepeat `json:"nearRepeat"`
	Warnings   []string    `json:"warnings"`
}

// Inspect reads an image. The device may be nil; of it, number and size are taken.
func Inspect(data []byte, device *Device) Inspection {
	i := Inspection{
		Bytes: len(data), Sums: SumsOf(data), EffectiveBytes: len(data), Repeats: 1, BlankRuns: blankRuns(data),
		StuckDataBits: []int{}, IgnoredAddressLines: []int{}, Warnings: []string{},
	}
	i.BlankBytes = lengthOf(i.BlankRuns)
	i.Texts = textsIn(data, filled(i.BlankRuns, len(data)))
	i.Years = yearsIn(data, i.Texts)
	if device != nil {
		i.fit(*device)
	}
	if len(data) == 0 {
		i.warn("The file is empty.")
		return i
	}
	if isConstant(data) {
		i.warn("Every byte is %02X: the device is blank, or was not read at all.", data[0])
		return i
	}
	i.repeat(data)
	i.stuck(data)
	return i
}

func (i *Inspection) warn(format string, args ...any) {
	i.Warnings = append(i.Warnings, fmt.Sprintf(format, args...))
}

func (i *Inspection) fit(device Device) {
	switch {
	case i.Bytes == device.Bytes:
		device.LengthMatch = Exact
	case i.Bytes < device.Bytes:
		device.LengthMatch = Short
		i.warn("A %s holds %d bytes; these are %d: %d are missing.", device.Number, device.Bytes, i.Bytes,
			device.Bytes-i.Bytes)
	default:
		device.LengthMatch = Long
		i.warn("A %s holds %d bytes; these are %d: the device is another one, or the file holds more than one read.",
			device.Number, device.Bytes, i.Bytes)
	}
	i.Device = &device
}

// isConstant reports whether all bytes are the same.
func isConstant(data []byte) bool { return bytes.Equal(data[1:], data[:len(data)-1]) }

// repeat finds copies behind each other, and lines within one copy that make no difference.
func (i *Inspection) repeat(data []byte) {
	i.Repeats = repeatsOf(data)
	one := data[:len(data)/i.Repeats]
	if i.Repeats > 1 {
		i.warn("The content stands there %s: it is %d bytes long. Either the device was too large for it, or %s.",
			times(i.Repeats), len(one), linesBeyond(len(one), len(data)))
	}
	// Where all but a few bytes are blank, any line seems to make no difference.
	i.IgnoredAddressLines = ignoredLines(one)
	if n := len(i.IgnoredAddressLines); n > 0 {
		i.Repeats <<= n
		i.warn("Address line%s made no difference while it was read: %s. Check the contact and read it again.",
			plural(n), names("A", i.IgnoredAddressLines))
	}
	i.EffectiveBytes = len(data) / i.Repeats
	if len(i.IgnoredAddressLines) > 0 {
		return
	}
	if i.NearRepeat = nearRepeatIn(one, len(one)-lengthOf(blankRuns(one))); i.NearRepeat != nil {
		n := i.NearRepeat
		i.warn("With A%d low and high the content is the same but for %d byte%s (%d bit%s), the first at %X and %X. "+
			"Either it is there twice and was not read well, so read it again and compare; or these are two versions.",
			n.Line, n.DifferingBytes, plural(n.DifferingBytes), n.DifferingBits, plural(n.DifferingBits),
			n.FirstOffset, n.FirstOffset+1<<n.Line)
	}
}

func times(n int) string {
	if n == 2 {
		return "twice"
	}
	return fmt.Sprintf("%d times", n)
}

// linesBeyond names the address lines that only tell one copy from the other.
func linesBeyond(one, all int) string {
	if bits.OnesCount(uint(one)) != 1 || bits.OnesCount(uint(all)) != 1 { //nolint:gosec // lengths
		return "the upper address lines were not connected"
	}
	lines := []int{}
	for line := bits.TrailingZeros(uint(one)); 1<<line < all; line++ { //nolint:gosec // lengths
		lines = append(lines, line)
	}
	if len(lines) == 1 {
		return names("A", lines) + " was not connected while it was read"
	}
	return names("A", lines) + " were not connected while it was read"
}

func (i *Inspection) stuck(data []byte) {
	always0, always1 := constantBits(data)
	i.StuckDataBits = append(append(i.StuckDataBits, always0...), always1...)
	slices.Sort(i.StuckDataBits)
	if len(always0) > 0 {
		i.warn("%s is 0 in every byte: that is so in pure text, in character patterns and in a memory that is not eight bits wide; else a data line has no contact.", names("D", always0))
	}
	if len(always1) > 0 {
		i.warn("%s is 1 in every byte: a data line has no contact, unless the memory is not eight bits wide.",
			names("D", always1))
	}
}

func names(letter string, numbers []int) string {
	words := make([]string, len(numbers))
	for i, n := range numbers {
		words[i] = fmt.Sprintf("%s%d", letter, n)
	}
	return strings.Join(words, ", ")
}

func plural(n int) string {
	if n == 1 {
		return ""
	}
	return "s"
}
