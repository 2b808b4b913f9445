package device

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"
)

// Current is what a device draws from a rail, in milliamperes; 0 for what is not known.
type Current struct {
	Rail    string  `json:"rail"` // as +5 or -12
	Typical float64 `json:"typical"`
	Most    float64 `json:"most"`
}

var current = regexp.MustCompile(`^([+-]\d{1,2}(?:\.\d)?)\s*V?\s+(\d+(?:\.\d+)?)(?:\s*/\s*(\d+(?:\.\d+)?))?\s*(?:mA)?$`)

// ParseCurrents reads what a device draws, rails separated by commas: "+5 180/260, +12 20" is 180 mA
// typically and 260 at most from +5 V, and 20 mA typically from +12 V.
func ParseCurrents(text string) ([]Current, error) {
	read := []Current{}
	for part := range strings.SplitSeq(text, ",") {
		part = strings.TrimSpace(part)
		if part == "" {
			continue
		}
		match := current.FindStringSubmatch(part)
		if match == nil {
			return nil, fmt.Errorf(
				"%q is no current of a rail; write it as +5 180/260, +12 20: volts, milliamperes typically and at most",
				part)
		}
		one := Current{Rail: match[1]}
		one.Typical, _ = strconv.ParseFloat(match[2], 64) // the pattern lets only figures through
		one.Most, _ = strconv.ParseFloat(match[3], 64)
		if one.Most != 0 && one.Most < one.Typical {
			return nil, fmt.Errorf("%s: at most %g mA is less than typically %g mA", one.Rail, one.Most, one.Typical)
		}
		for _, before := range read {
			if before.Rail == one.Rail {
				return nil, fmt.Errorf("%s is written twice", one.Rail)
			}
		}
		read = append(read, one)
	}
	return read, nil
}
