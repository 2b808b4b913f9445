package console

import (
	"fmt"
	"math/bits"
	"strings"
	"unicode"
	"unicode/utf8"
)

// TextLine is a line of what came, as a terminal would show it.
type TextLine struct {
	Number int    `json:"number" doc:"From 1"`
	Text   string `json:"text" says:"text"`
}

// Screen is what a terminal would show of the bytes that came.
type Screen struct {
	Lines  []TextLine
	IsOpen bool     // the last line has no end: the machine waits behind it, or stopped there
	Bells  int      // how often it beeped
	Doubts []string // what had to be supposed
	odd    int      // characters that no text has
	shown  int      // characters
	usual  int      // letters, figures and blanks
}

// Bounds of what is kept and read: MostBytes of a capture, mostLine of a line without an end.
const (
	MostBytes = 256 << 10
	mostLine  = 1000
)

// ScreenOf reads bytes as a terminal does: a carriage return writes over the line, control sequences are no text, and a
// parity bit is none of a character.
func ScreenOf(raw []byte) Screen {
	s := Screen{Lines: []TextLine{}, Doubts: []string{}}
	text, doubt := charactersOf(raw)
	if doubt != "" {
		s.Doubts = append(s.Doubts, doubt)
	}
	p := page{screen: &s}
	for i := 0; i < len(text); {
		i += p.take(text[i:])
	}
	s.IsOpen = len(p.line) > 0
	if s.IsOpen {
		p.end()
	}
	if p.cut > 0 {
		s.Doubts = append(s.Doubts, fmt.Sprintf("a line did not end after %d characters; it was cut there", mostLine))
	}
	return s
}

// page is the line that is being written.
type page struct {
	screen *Screen
	line   []rune
	at     int
	cut    int
}

func (p *page) end() {
	p.screen.Lines = append(p.screen.Lines, TextLine{len(p.screen.Lines) + 1, strings.TrimRight(string(p.line), " ")})
	p.line, p.at = p.line[:0], 0
}

// take reads the next character or control sequence, and says how long it is.
func (p *page) take(text []rune) int {
	switch r := text[0]; {
	case r == '\r' && len(text) > 1 && text[1] == '\n':
		p.end()
		return 2
	case r == '\n' || r == '\f' || r == '\v':
		p.end()
	case r == '\r':
		p.at = 0
	case r == '\b':
		p.at = max(0, p.at-1)
	case r == '\a':
		p.screen.Bells++
	case r == '\t':
		p.write(' ')
	case r == 0 || r == 0x7f: // what slow printers were given time with
	case r == 0x1b:
		return p.escape(text)
	case r == utf8.RuneError || unicode.IsControl(r) || !unicode.IsPrint(r):
		p.screen.odd++
		p.write('\uFFFD')
	default:
		p.write(r)
	}
	return 1
}

func (p *page) write(r rune) {
	p.screen.shown++
	if unicode.IsLetter(r) || unicode.IsDigit(r) || r == ' ' {
		p.screen.usual++
	}
	if p.at < len(p.line) {
		p.line[p.at] = r
	} else {
		p.line = append(p.line, r)
	}
	if p.at++; len(p.line) >= mostLine {
		p.cut++
		p.end()
	}
}

// escape reads a control sequence (ECMA-48). One that moves to another place of the screen ends the line.
func (p *page) escape(text []rune) int {
	if len(text) < 2 {
		return 1
	}
	if text[1] != '[' {
		if strings.ContainsRune("()#", text[1]) {
			return min(3, len(text))
		}
		return 2
	}
	for i := 2; i < len(text); i++ {
		if text[i] < 0x40 || text[i] > 0x7e {
			continue
		}
		if strings.ContainsRune("HfABEFJ", text[i]) && len(p.line) > 0 {
			p.end()
		}
		return i + 1
	}
	return len(text)
}

// leastForParity is from how many bytes on a parity bit is believed.
const leastForParity = 8

// charactersOf reads bytes as text: as UTF-8, or as seven bits with a parity bit, else byte by byte.
func charactersOf(raw []byte) (text []rune, doubt string) {
	if utf8.Valid(raw) {
		return []rune(string(raw)), ""
	}
	even, odd, mark, readable := 0, 0, 0, 0
	for _, b := range raw {
		if bits.OnesCount8(b)%2 == 0 {
			even++
		} else {
			odd++
		}
		if b >= 0x80 {
			mark++
		}
		if low := b & 0x7f; low >= 0x20 && low < 0x7f || low == '\r' || low == '\n' || low == 0 {
			readable++
		}
	}
	name := ""
	switch n := len(raw); {
	case n < leastForParity || readable*100 < n*97:
	case even == n:
		name = "even"
	case odd == n:
		name = "odd"
	case mark == n:
		name = "mark"
	}
	text = make([]rune, len(raw))
	for i, b := range raw {
		switch {
		case name != "":
			text[i] = rune(b & 0x7f)
		case b < utf8.RuneSelf:
			text[i] = rune(b)
		default:
			text[i] = utf8.RuneError
		}
	}
	if name != "" {
		doubt = "it came as seven bits with " + name + " parity; the parity bit was taken off"
	}
	return text, doubt
}
