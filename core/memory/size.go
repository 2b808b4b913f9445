package memory

import (
	"errors"
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"

	"frugalheron/core/device"
)

// ErrNotASize is returned for text that names no amount of memory.
var ErrNotASize = errors.New("not an amount of memory; write it as 640K, 4MB or 512KiB")

var (
	size         = regexp.MustCompile(`(?i)^(\d{1,9})(?:\.(\d{1,10}))?\s*(b|bytes?|k|kb|kib|m|mb|mib|)$`)
	organisation = regexp.MustCompile(`(?i)^(\d{1,6})(k|m)x(\d{1,3})$`)
)

// ParseSize reads an amount of memory in bytes: 640K, 4MB, 512KiB, 48.125 KB, 16384. K and M are binary. A
// part of a byte is refused.
func ParseSize(text string) (int64, error) {
	m := size.FindStringSubmatch(strings.TrimSpace(text))
	if m == nil {
		return 0, fmt.Errorf("%q: %w", text, ErrNotASize)
	}
	n, err := strconv.ParseInt(m[1], 10, 64)
	if err != nil {
		return 0, fmt.Errorf("%q: %w", text, ErrNotASize)
	}
	unit := int64(1)
	switch name := strings.ToLower(m[3]); {
	case strings.HasPrefix(name, "k"):
		unit = 1 << 10
	case strings.HasPrefix(name, "m"):
		unit = 1 << 20
	}
	if m[2] == "" {
		return n * unit, nil
	}
	fraction, err := strconv.ParseInt(m[2], 10, 64)
	parts := int64(math.Pow10(len(m[2])))
	if err != nil || fraction*unit%parts != 0 {
		return 0, fmt.Errorf("%q: %w", text, ErrNotASize)
	}
	return n*unit + fraction*unit/parts, nil
}

// ParseModule reads what a memory module says of its capacity: an organisation (1Mx9, 256Kx36)
// or an amount (4MB, 512K), which is taken as that many bytes without parity.
func ParseModule(word string) (device.Organisation, bool) {
	if m := organisation.FindStringSubmatch(word); m != nil {
		words, errWords := strconv.Atoi(m[1])
		bits, errBits := strconv.Atoi(m[3])
		if errWords != nil || errBits != nil || words == 0 || bits == 0 {
			return device.Organisation{}, false
		}
		if strings.EqualFold(m[2], "m") {
			words *= 1024
		}
		return device.Organisation{Words: words * 1024, Bits: bits}, true
	}
	if !strings.ContainsAny(word, "kKmM") {
		return device.Organisation{}, false
	}
	bytes, err := ParseSize(word)
	if err != nil || bytes == 0 || bytes > math.MaxInt32 {
		return device.Organisation{}, false
	}
	return device.Organisation{Words: int(bytes), Bits: 8}, true
}
