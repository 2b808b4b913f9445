package memory

import (
	"errors"
	"fmt"
)

// Screen is what is to be shown: points, or cells of text.
type Screen struct {
	Width, Height, BitsPerPixel int // a screen of points
	Columns, Rows, CellBytes    int // a screen of text; CellBytes for character and attributes
	GlyphBytes, Glyphs          int // the character generator's ROM: bytes of one glyph, and their number
}

// Demand is what a screen needs and how that compares with what is fitted.
type Demand struct {
	NeededBytes int64 `json:"neededBytes"`
	FontBytes   int64 `json:"fontBytes"` // ROM of the character generator, beside picture memory
	FittedBytes int64 `json:"fittedBytes"`
	LeftBytes   int64 `json:"leftBytes"` // negative when memory is short
	// Verdict is enough or short; unknown when nothing is said of what is fitted.
	Verdict string `json:"verdict"`
	Why     string `json:"why"`
}

// ErrScreen is returned for a screen that has no size or an impossible one.
var ErrScreen = errors.New(
	"a screen needs width, height and bits per pixel, or columns, rows and bytes per cell, each above zero and at most 65,536")

const mostPerSide = 1 << 16

// Video computes the picture memory of a screen and compares it with what is fitted; fitted 0
// means that nothing is known. The bits of all points are added up and rounded up to bytes.
func Video(s Screen, fitted int64) (Demand, error) {
	d := Demand{FittedBytes: fitted, FontBytes: int64(s.GlyphBytes) * int64(s.Glyphs)}
	points := possible(s.Width, s.Height, s.BitsPerPixel)
	text := possible(s.Columns, s.Rows, s.CellBytes)
	if points == text || fitted < 0 || s.GlyphBytes < 0 || s.Glyphs < 0 {
		return Demand{}, ErrScreen
	}
	if points {
		bits := int64(s.Width) * int64(s.Height) * int64(s.BitsPerPixel)
		d.NeededBytes = (bits + 7) / 8
		d.Why = fmt.Sprintf("%d x %d points x %d bits / 8 = %d bytes", s.Width, s.Height, s.BitsPerPixel, d.NeededBytes)
	} else {
		d.NeededBytes = int64(s.Columns) * int64(s.Rows) * int64(s.CellBytes)
		d.Why = fmt.Sprintf("%d columns x %d rows x %d bytes = %d bytes", s.Columns, s.Rows, s.CellBytes, d.NeededBytes)
	}
	d.LeftBytes = fitted - d.NeededBytes
	switch {
	case fitted == 0:
		d.Verdict, d.LeftBytes = "unknown", 0
	case d.LeftBytes < 0:
		d.Verdict = "short"
		d.Why += fmt.Sprintf("; fitted are %d, so %d are missing", fitted, -d.LeftBytes)
	default:
		d.Verdict = "enough"
		d.Why += fmt.Sprintf("; fitted are %d, so %d are left over", fitted, d.LeftBytes)
	}
	return d, nil
}

func possible(sizes ...int) bool {
	for _, n := range sizes {
		if n < 1 || n > mostPerSide {
			return false
		}
	}
	return true
}
