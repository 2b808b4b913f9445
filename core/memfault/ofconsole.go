package memfault

import (
	"fmt"
	"frugalheron/core/malformed"
	"strconv"
	"strings"

	"frugalheron/core/console"
)

// OfConsole leads places of memory that failed on a console, or on a screen, to suspects. A place whose address or bits the
// text leaves open leads nowhere, and is told as a problem of its line there.
func OfConsole(banks []Bank, syndromes map[string]int, failed []console.Failure) (Output, error) {
	in := Input{Banks: banks, Syndromes: syndromes}
	lines, unread := []int{}, []Useless{}
	for _, f := range failed {
		one, why := ofConsole(f)
		if why != "" {
			unread = append(unread, Useless{f.Line, why})
			continue
		}
		in.Failures, lines = append(in.Failures, one), append(lines, f.Line)
	}
	out, err := Judge(in)
	if err != nil {
		return out, err
	}
	for i := range out.Problems {
		out.Problems[i].Line = lines[out.Problems[i].Line-1]
	}
	out.Problems = append(out.Problems, unread...)
	return out, nil
}

func ofConsole(f console.Failure) (one Failure, why string) {
	if strings.Contains(f.Address, ":") {
		return one, fmt.Sprintf("%s has two parts: how they make an address is not told", f.Address)
	}
	if f.Radix == 0 {
		return one, fmt.Sprintf("%s may be octal or hexadecimal", f.Address)
	}
	written := strings.ToLower(f.Address)
	if f.Radix == 16 {
		written = strings.TrimSuffix(strings.TrimPrefix(strings.TrimPrefix(written, "0x"), "$"), "h")
	}
	address, err := strconv.ParseUint(written, f.Radix, 64)
	switch {
	case err != nil:
		return one, fmt.Sprintf("%s is no address", f.Address)
	case len(f.Bits) == 0:
		return one, fmt.Sprintf("which bits failed at %s is not told", f.Address)
	}
	var differ, none Figure
	for _, bit := range f.Bits {
		if bit < 0 || bit >= mostBits {
			return one, fmt.Sprintf("bit %d at %s is in no word", bit, f.Address)
		}
		differ |= 1 << bit
	}
	return Failure{Address: Figure(address), Expected: &differ, Actual: &none}, ""
}

// ParseSyndromes reads which bit each syndrome means: a syndrome in hexadecimal and a bit a line.
func ParseSyndromes(text string) (map[string]int, error) {
	known := map[string]int{}
	for n, line := range strings.Split(text, "\n") {
		if line = strings.TrimSpace(line); line == "" {
			continue
		}
		written, number, _ := strings.Cut(line, " ")
		bit, err := strconv.Atoi(strings.TrimSpace(number))
		if _, wrongFigure := syndrome(written); wrongFigure != nil || err != nil || bit < 0 || bit >= mostBits {
			return nil, malformed.Named("syndromes", "line %d: %q is no syndrome with its bit; write it as 0b 3", n+1, line)
		}
		known[written] = bit
	}
	return known, nil
}
