package marking

import (
	"regexp"
	"strings"
)

// passiveValue matches capacitance and resistance in the usual spellings: 0.1uF, 100n, 4n7,
// 470u/16V, 4k7, 0R22, 330R, 10k. A bare number is no value here: it could be anything.
var passiveValue = regexp.MustCompile(
	`(?i)^(\d*[.,]?\d+(\s?[pnuµμm]f|[pnuµμ])|\d+[pnuµμ]\d{1,2}|\d*[.,]?\d+(k|r|meg|ohms?|[kmΩω]?[Ωω])|\d{1,3}[kr]\d{1,2}|r\d{1,3})(/\d+v)?$`)

// IsPassiveValue reports whether a word is the value of a capacitor or a resistor.
func IsPassiveValue(word string) bool {
	return spelledLikeValue(word) && passiveValue.MatchString(word)
}

// spelledLikeValue is a quick look at the characters: most words of a sheet are no values, and
// the pattern is slow to say so.
func spelledLikeValue(word string) bool {
	figures, letters := 0, 0
	for _, c := range word {
		switch {
		case '0' <= c && c <= '9':
			figures++
		case strings.ContainsRune("pnuµμfkregohmsΩωPNUFKREGOHMSvV", c):
			letters++
		case c != '.' && c != ',' && c != '/':
			return false
		}
	}
	return figures > 0 && letters > 0
}

// units stand behind a figure that is then no date.
var units = map[string]bool{
	"hz": true, "khz": true, "mhz": true, "v": true, "vac": true, "vdc": true, "a": true, "ma": true, "mah": true,
	"w": true, "va": true, "rpm": true, "b": true, "bytes": true, "k": true, "kb": true, "mb": true, "mm": true,
	"g": true,

	"pins": true, "cylinders": true, "sectors": true, "tracks": true,
}

// isMeasure reports whether a word is a figure with its unit behind it, or the size of a coin cell (CR 2032).
func isMeasure(words []string, i int) bool {
	if i+1 < len(words) && units[strings.ToLower(words[i+1])] {
		return true
	}
	if i == 0 {
		return false
	}
	switch strings.ToUpper(words[i-1]) {
	case "CR", "BR", "LR", "SR":
		return true
	}
	return false
}
