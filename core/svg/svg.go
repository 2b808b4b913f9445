// Package svg writes words into drawings.
package svg

import (
	"encoding/xml"
	"strings"
)

// Escaped is a text as it stands in a drawing.
func Escaped(text string) string {
	var out strings.Builder
	xml.EscapeText(&out, []byte(text)) //nolint:errcheck // a builder never fails
	return out.String()
}

// Clipped is the start of a text, of at most so many characters, with a sign that it goes on.
func Clipped(text string, most int) string {
	if runes := []rune(text); len(runes) > most {
		return string(runes[:most-1]) + "…"
	}
	return text
}
