package sheet

import (
	"bytes"
	"fmt"
	"strings"
	"unicode"
	"unicode/utf8"

	"frugalheron/core/malformed"
)

// Mode says what the text is.
type Mode int

const (
	// Whole text may hold several assemblies, each under its heading.
	Whole Mode = iota
	// Body text belongs to one assembly whose heading is kept elsewhere: a heading in it is
	// a problem.
	Body
)

// Parse reads a text. It returns a *malformed.Error when the text as a whole cannot be a sheet;
// anything else that is wrong becomes a Problem, and the line is kept as text.
func Parse(text []byte, mode Mode) (Sheet, error) {
	if err := check(text); err != nil {
		return Sheet{}, err
	}
	text = dropByteOrderMarks(text)
	lines := splitLines(string(text))
	p := parser{mode: mode}
	for number, line := range lines {
		p.line(number+1, line)
	}
	if p.sheet.Problems == nil {
		p.sheet.Problems = []Problem{}
	}
	return p.sheet, nil
}

// dropByteOrderMarks takes out the marks that some editors put before the text.
func dropByteOrderMarks(text []byte) []byte {
	const mark = '\ufeff'
	rest := bytes.TrimLeftFunc(text, func(r rune) bool { return r == mark || unicode.IsSpace(r) })
	leading := bytes.ReplaceAll(text[:len(text)-len(rest)], []byte(string(mark)), nil)
	return append(leading, rest...)
}

func check(text []byte) error {
	if len(text) > MaxBytes {
		return malformed.Of("%w: more than %d bytes (1 MiB); split it", ErrTooLong, MaxBytes)
	}
	refuse := func(offset int, detail string) error {
		line := bytes.Count(text[:offset], []byte("\n")) + 1
		column := offset - bytes.LastIndexByte(text[:offset], '\n')
		return &malformed.Error{Line: line, Column: column, Err: fmt.Errorf("%w: %s", ErrNotText, detail)}
	}
	for at := 0; at < len(text); {
		if text[at] == 0 {
			return refuse(at, "a zero byte; is this a binary file?")
		}
		if text[at] < utf8.RuneSelf {
			at++
			continue
		}
		r, size := utf8.DecodeRune(text[at:])
		if r == utf8.RuneError && size == 1 {
			return refuse(at, fmt.Sprintf("byte %02x is no UTF-8; save the file as UTF-8", text[at]))
		}
		at += size
	}
	return nil
}

// splitLines cuts at LF, CRLF and CR, as editors do. An end of line at the end of the text does
// not open another line.
func splitLines(text string) []string {
	text = strings.ReplaceAll(text, "\r\n", "\n")
	text = strings.ReplaceAll(text, "\r", "\n")
	text = strings.TrimSuffix(text, "\n")
	if text == "" {
		return nil
	}
	return strings.Split(text, "\n")
}

type parser struct {
	mode  Mode
	sheet Sheet
	taken taken // in this assembly
	parts int
	// What the line in hand holds: its words, and the runs that it is about.
	buffer []token
	runs   []run
}

func (p *parser) assembly() *Assembly {
	if len(p.sheet.Assemblies) == 0 {
		p.sheet.Assemblies = append(p.sheet.Assemblies, Assembly{})
	}
	return &p.sheet.Assemblies[len(p.sheet.Assemblies)-1]
}

func (p *parser) problem(number int, line string, offset int, format string, args ...any) {
	p.sheet.Problems = append(p.sheet.Problems, Problem{
		Line: number, Column: utf16Length(line[:offset]) + 1, Message: fmt.Sprintf(format, args...),
	})
}

// ColumnOf is where a word stands in a line, from 1, in the units that editors count; 1 where it does not.
func ColumnOf(line, word string) int {
	return utf16Length(line[:max(0, strings.Index(line, word))]) + 1
}

func (p *parser) line(number int, text string) {
	content := strings.TrimLeftFunc(text, unicode.IsSpace)
	if strings.HasPrefix(content, "==") && p.mode == Whole {
		p.heading(number, text)
		return
	}
	line := Line{Number: number, Text: text}
	switch {
	case content == "" || strings.HasPrefix(content, "#"):
	case strings.HasPrefix(content, "=="):
		p.problem(number, text, len(text)-len(content),
			"a heading starts another board, and this is the text of one; add the other as a board of its own")
	default:
		if at := controlCharacter(text); at >= 0 {
			p.problem(number, text, at, "a control character (code %d); take it out", text[at])
			break
		}
		line.Entry = p.entry(number, text)
	}
	// Empty lines above the first heading need no assembly to hold them.
	if len(p.sheet.Assemblies) == 0 && content == "" {
		return
	}
	assembly := p.assembly()
	assembly.Lines = append(assembly.Lines, line)
}

func (p *parser) heading(number int, text string) {
	p.taken.clear()
	if at := controlCharacter(text); at >= 0 {
		p.problem(number, text, at, "a control character (code %d); take it out", text[at])
	}
	start := strings.Index(text, "==") + 2
	content, comment := cutComment(text)
	content = content[min(start, len(content)):]
	h := &Heading{Line: number, Attributes: []Attribute{}, Comment: comment}
	offset := start
	for i, part := range strings.Split(content, "|") {
		trimmed := strings.Join(strings.Fields(part), " ")
		if i == 0 {
			h.Title = trimmed
		} else if trimmed != "" {
			at := offset + len(part) - len(strings.TrimLeftFunc(part, unicode.IsSpace))
			h.Attributes = append(h.Attributes, p.attribute(number, text, at, trimmed))
		}
		offset += len(part) + 1
	}
	p.sheet.Assemblies = append(p.sheet.Assemblies, Assembly{Heading: h})
}

// attribute reads "rev C" or "for:picture". A wrong value is a problem and is kept.
func (p *parser) attribute(number int, line string, offset int, text string) Attribute {
	key, value, _ := strings.Cut(text, " ")
	if len(text) >= len("for:") && strings.EqualFold(text[:len("for:")], "for:") {
		key, value = "for", strings.TrimSpace(text[len("for:"):])
	}
	key = strings.ToLower(key)
	switch key {
	case "fit":
		switch value {
		case "factory", "period", "later", "modern", "unknown":
		default:
			p.problem(number, line, offset, "fit %q is none of factory, period, later, modern, unknown", value)
		}
	case "for":
		if purpose, ok := purposeOf(value); !ok || purpose == Parity {
			p.problem(number, line, offset, "for:%s is none of main, picture, cache, shared, card", value)
		}
	}
	return Attribute{Key: key, Value: value}
}

// cutComment cuts a line at the first # that stands at its start or after white space.
func cutComment(line string) (content, comment string) {
	blank := true
	for i, r := range line {
		if blank && r == '#' {
			return line[:i], strings.TrimRightFunc(line[i:], unicode.IsSpace)
		}
		blank = unicode.IsSpace(r)
	}
	return line, ""
}

func controlCharacter(line string) int {
	plain := true // tabs and printable ASCII, as nearly all lines are
	for i := range len(line) {
		plain = plain && (line[i] >= ' ' || line[i] == '\t') && line[i] < 0x7f
	}
	if plain {
		return -1
	}
	return strings.IndexFunc(line, func(r rune) bool {
		return r != '\t' && unicode.IsControl(r)
	})
}

func utf16Length(s string) int {
	n := 0
	for _, r := range s {
		n++
		if r > 0xffff {
			n++
		}
	}
	return n
}
