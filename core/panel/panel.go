// Package panel answers: what do the lamps of a front panel show at each step of a procedure by hand?
package panel

import (
	"strconv"
	"strings"

	"frugalheron/core/malformed"
)

// Radix is how the papers of a machine write its words.
type Radix string

// Radixes in which panels are written.
const (
	Octal  Radix = "octal"
	Hex    Radix = "hex"
	Split  Radix = "split octal" // each byte by itself
	Binary Radix = "binary"
)

// Panel is what a front panel has.
type Panel struct {
	Radix       Radix `json:"radix" enum:"octal,hex,split octal,binary"`
	AddressBits int   `json:"addressBits" minimum:"1" maximum:"64"`
	DataBits    int   `json:"dataBits" minimum:"1" maximum:"64"`
	Advance     int   `json:"advance" minimum:"0" maximum:"8" doc:"By how much a deposit or an examine goes on; 0 where it stays"`
}

// Shown is a step of a procedure, with what the lamps show after it.
type Shown struct {
	Line    int    `json:"line" doc:"Of the text, from 1"`
	Verb    string `json:"verb" enum:"address,deposit,examine,press,note"`
	Said    string `json:"said" says:"text" doc:"What stands behind the verb"`
	Address *Lamps `json:"address" doc:"Where it is done; null where no address was set before"`
	Data    *Lamps `json:"data" doc:"Null where the step has none, or it is not told"`
}

// Lamps are a word as a row of them.
type Lamps struct {
	Value   string `json:"value" doc:"In the radix of the machine, with all its digits"`
	Lit     []bool `json:"lit" doc:"The high bit first"`
	Grouped int    `json:"grouped" doc:"How many stand together, counted from the low end"`
	Bytes   bool   `json:"bytes" doc:"They are grouped within each byte by itself"`
}

// verbs are what a line begins with.
const howToWrite = "begin with address, deposit, examine, press or note, as in deposit 016701"

// Read reads a procedure, a step a line: address 0100, deposit 016701, examine 0100 = 016701 or examine, press start, note to wait.
// A *malformed.Error names the line of what cannot be, and the column of a digit that the radix does not have.
func (p Panel) Read(text string) ([]Shown, error) {
	if err := p.check(); err != nil {
		return nil, err
	}
	steps := []Shown{}
	var at *uint64
	for i, line := range strings.Split(text, "\n") {
		if before, _, isNoted := strings.Cut(" "+line, " #"); isNoted {
			line = before
		}
		if strings.TrimSpace(line) == "" {
			continue
		}
		s, next, err := p.step(i+1, line, at)
		if err != nil {
			return nil, err
		}
		at = next
		steps = append(steps, s)
	}
	return steps, nil
}

func (p Panel) check() error {
	switch {
	case p.Radix != Octal && p.Radix != Hex && p.Radix != Split && p.Radix != Binary:
		return malformed.Named("radix", "%q is none of octal, hex, split octal, binary", p.Radix)
	case p.AddressBits < 1 || p.AddressBits > 64:
		return malformed.Named("addressBits", "%d; it is 1 to 64", p.AddressBits)
	case p.DataBits < 1 || p.DataBits > 64:
		return malformed.Named("dataBits", "%d; it is 1 to 64", p.DataBits)
	case p.Advance < 0 || p.Advance > 8:
		return malformed.Named("advance", "%d; it is 0 to 8", p.Advance)
	}
	return nil
}

// step reads one, and tells at which address the next one is.
func (p Panel) step(number int, line string, at *uint64) (s Shown, next *uint64, err error) {
	trimmed := strings.TrimSpace(line)
	word, rest, _ := strings.Cut(trimmed, " ")
	rest = strings.TrimSpace(rest)
	s = Shown{Line: number, Verb: strings.ToLower(word), Said: rest}
	value := func(text string, bits int) (uint64, error) {
		trimmed := strings.TrimSpace(text)
		return p.value(trimmed, bits, number, strings.LastIndex(line, text)+strings.Index(text, trimmed)+1)
	}
	switch s.Verb {
	case "address":
		n, err := value(rest, p.AddressBits)
		if err != nil {
			return s, at, err
		}
		s.Address = p.lamps(n, p.AddressBits)
		return s, &n, nil
	case "deposit":
		n, err := value(rest, p.DataBits)
		if err != nil {
			return s, at, err
		}
		s.Data = p.lamps(n, p.DataBits)
	case "examine":
		where, holds, hasData := strings.Cut(rest, "=")
		if strings.TrimSpace(where) != "" {
			n, err := value(where, p.AddressBits)
			if err != nil {
				return s, at, err
			}
			at = &n
		}
		if hasData {
			n, err := value(holds, p.DataBits)
			if err != nil {
				return s, at, err
			}
			s.Data = p.lamps(n, p.DataBits)
		}
	case "press", "note":
		if rest == "" {
			return s, at, malformed.At(number, "does not say what to %s", s.Verb)
		}
		return s, at, nil
	default:
		return s, at, malformed.At(number, "begins with %q; steps %s", word, howToWrite)
	}
	if at == nil {
		return s, nil, nil
	}
	s.Address = p.lamps(*at, p.AddressBits)
	on := *at + uint64(p.Advance)
	if p.AddressBits < 64 {
		on &= 1<<p.AddressBits - 1 // as a counter of that many bits does
	}
	return s, &on, nil
}

// value reads one in the radix of the machine.
func (p Panel) value(text string, bits, line, column int) (uint64, error) {
	if text == "" {
		return 0, malformed.At(line, "says no value in %s", p.Radix)
	}
	digits, perDigit := text, map[Radix]int{Octal: 3, Hex: 4, Binary: 1}[p.Radix]
	if p.Radix == Split {
		return split(text, bits, line, column)
	}
	n := uint64(0)
	for i, r := range digits {
		d, err := strconv.ParseUint(string(r), 36, 8)
		if err != nil || d >= 1<<perDigit {
			return 0, &malformed.Error{Line: line, Column: column + i, Text: string(r),
				Err: malformed.Of("is no digit in %s", p.Radix)}
		}
		if n>>(64-perDigit) != 0 {
			return 0, tooLarge(text, bits, line)
		}
		n = n<<perDigit | d
	}
	if bits < 64 && n>>bits != 0 {
		return 0, tooLarge(text, bits, line)
	}
	return n, nil
}

func tooLarge(text string, bits, line int) error {
	return malformed.At(line, "%s does not go into %d bits", text, bits)
}

// split reads each byte by itself, divided by dots or as three digits a byte.
func split(text string, bits, line, column int) (uint64, error) {
	parts := strings.Split(text, ".")
	if len(parts) == 1 && len(text)%3 == 0 {
		parts = nil
		for i := 0; i < len(text); i += 3 {
			parts = append(parts, text[i:i+3])
		}
	}
	n := uint64(0)
	for i, part := range parts {
		b, err := strconv.ParseUint(part, 8, 8)
		if err != nil || i > 7 {
			return 0, &malformed.Error{Line: line, Column: column, Text: text,
				Err: malformed.Of("is not split octal; each byte is 000 to 377, as 377.250")}
		}
		n = n<<8 | b
	}
	if bits < 64 && n>>bits != 0 {
		return 0, tooLarge(text, bits, line)
	}
	return n, nil
}

// lamps shows a value.
func (p Panel) lamps(n uint64, bits int) *Lamps {
	l := &Lamps{Lit: make([]bool, bits), Bytes: p.Radix == Split}
	for i := range bits {
		l.Lit[i] = n>>(bits-1-i)&1 == 1
	}
	switch p.Radix {
	case Octal:
		l.Grouped, l.Value = 3, padded(n, 8, (bits+2)/3)
	case Hex:
		l.Grouped, l.Value = 4, strings.ToUpper(padded(n, 16, (bits+3)/4))
	case Binary:
		l.Grouped, l.Value = 4, padded(n, 2, bits)
	case Split:
		l.Grouped = 3
		bytes := []string{}
		for at := (bits+7)/8 - 1; at >= 0; at-- {
			bytes = append(bytes, padded(n>>(8*at)&0xFF, 8, 3))
		}
		l.Value = strings.Join(bytes, ".")
	}
	return l
}

func padded(n uint64, radix, digits int) string {
	text := strconv.FormatUint(n, radix)
	return strings.Repeat("0", max(0, digits-len(text))) + text
}
