package population

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"frugalheron/core/malformed"
	"frugalheron/core/memory"
)

const howRules = "write bank, sizes, rule, most, depth or allowed, as in bank 0 | M1 M2 M3 M4"

// ParseRules reads which memory modules a machine takes, a line each:
//
//	bank 0 | M1-M4
//	bank 1 | M5-M8 | after 0
//	sizes 256Kx9 1Mx9
//	rule full
//	rule same size
//	rule parity
//	most 120 ns
//	most 16 MB
//	depth 1M
//	allowed 0 = 1Mx9, 1 = 256Kx9 | JP3 at 2-3, JP4 at on
//
// Sockets are called as on the sheets. Where there are lines that begin with allowed, nothing else may stand. A *malformed.Error
// names the line of what cannot be read.
func ParseRules(text string) (Input, error) {
	in := Input{Banks: []Bank{}, Sizes: []string{}}
	allowed := map[int]string{}
	for i, line := range strings.Split(text, "\n") {
		if before, _, isNoted := strings.Cut(" "+line, " #"); isNoted {
			line = before
		}
		word, rest, _ := strings.Cut(strings.TrimSpace(line), " ")
		if word == "" {
			continue
		}
		cells := strings.Split(rest, "|")
		for n := range cells {
			cells[n] = strings.Join(strings.Fields(cells[n]), " ")
		}
		var err error
		switch strings.ToLower(word) {
		case "bank":
			err = in.bankLine(cells)
		case "sizes":
			in.Sizes = append(in.Sizes, strings.Fields(strings.ReplaceAll(rest, ",", " "))...)
		case "rule":
			err = in.ruleLine(cells[0])
		case "most":
			err = in.mostLine(cells[0])
		case "depth":
			var words int64
			if words, err = memory.ParseSize(cells[0]); err == nil {
				in.Rules.Organisation = &Depth{int(words)}
			}
		case "allowed":
			allowed[i+1] = rest
		default:
			err = malformed.Of("begins with %q; %s", word, howRules)
		}
		if err != nil {
			return Input{}, malformed.At(i+1, "%w", err)
		}
	}
	for _, line := range sortedLines(allowed) {
		row, err := in.allowedLine(allowed[line])
		if err != nil {
			return Input{}, malformed.At(line, "%w", err)
		}
		in.Allowed = append(in.Allowed, row)
	}
	if _, err := newMachine(nil, in); err != nil && len(in.Banks) > 0 {
		return Input{}, err
	}
	return in, nil
}

func sortedLines(of map[int]string) []int {
	lines := []int{}
	for line := range of {
		lines = append(lines, line)
	}
	slices.Sort(lines)
	return lines
}

func (in *Input) bankLine(cells []string) error {
	if cells[0] == "" || len(cells) < 2 || len(cells) > 3 {
		return malformed.Of("is no bank; write bank 1 | M5-M8, or bank 1 | M5-M8 | after 0")
	}
	b := Bank{ID: cells[0], Sockets: []string{}}
	for name := range strings.FieldsSeq(strings.ReplaceAll(cells[1], ",", " ")) {
		sockets, err := runOf(name)
		if err != nil {
			return err
		}
		b.Sockets = append(b.Sockets, sockets...)
	}
	if len(b.Sockets) == 0 {
		return malformed.Of("names no socket of the bank %s", b.ID)
	}
	if len(cells) == 3 {
		before, ok := strings.CutPrefix(strings.ToLower(cells[2]), "after ")
		if !ok {
			return malformed.Of("%q does not say behind which bank; write after 0", cells[2])
		}
		before = cells[2][len(cells[2])-len(before):]
		b.After = &before
	}
	in.Banks = append(in.Banks, b)
	return nil
}

// runOf is a socket, or a row of them: M1-M4.
func runOf(name string) ([]string, error) {
	first, last, isRun := strings.Cut(name, "-")
	if !isRun {
		return []string{name}, nil
	}
	stem := strings.TrimRight(first, "0123456789")
	from, errFrom := strconv.Atoi(first[len(stem):])
	to, errTo := strconv.Atoi(strings.TrimPrefix(last, stem))
	if errFrom != nil || errTo != nil || to < from || to-from >= mostSockets {
		return nil, malformed.Of("%q is no row of sockets; write M1-M4", name)
	}
	sockets := []string{}
	for n := from; n <= to; n++ {
		sockets = append(sockets, fmt.Sprintf("%s%d", stem, n))
	}
	return sockets, nil
}

func (in *Input) ruleLine(rule string) error {
	switch strings.ToLower(rule) {
	case "full":
		in.Rules.Full = true
	case "same size":
		in.Rules.SameInBank = true
	case "parity":
		in.Rules.Parity = true
	default:
		return malformed.Of("there is no rule %q; write full, same size or parity", rule)
	}
	return nil
}

func (in *Input) mostLine(most string) error {
	if ns, ok := strings.CutSuffix(strings.ToLower(most), "ns"); ok {
		n, err := strconv.Atoi(strings.TrimSpace(ns))
		if err != nil || n < 1 {
			return malformed.Of("%q is no time; write most 120 ns", most)
		}
		in.Rules.MaxNs = &n
		return nil
	}
	bytes, err := memory.ParseSize(most)
	if err != nil {
		return err
	}
	in.Rules.MaxBytes = &bytes
	return nil
}

// allowedLine is a population of the maker's list, with its jumpers.
func (in *Input) allowedLine(text string) (Row, error) {
	fills, jumpers, _ := strings.Cut(text, "|")
	row := Row{Fill: map[string]*string{}, Jumpers: map[string]any{}}
	for one := range strings.SplitSeq(fills, ",") {
		bank, size, ok := strings.Cut(one, "=")
		bank, size = strings.TrimSpace(bank), strings.TrimSpace(size)
		at := slices.IndexFunc(in.Banks, func(b Bank) bool { return b.ID == bank })
		org, isSize := memory.ParseModule(size)
		switch {
		case !ok || size == "":
			return row, malformed.Of("%q fills no bank; write 0 = 1Mx9, or 0 = empty", strings.TrimSpace(one))
		case at < 0:
			return row, malformed.Of("there is no bank %q", bank)
		case strings.EqualFold(size, "empty"):
			row.Fill[bank] = nil
		case !isSize:
			return row, malformed.Of("%q is no size of a module; write it as 1Mx9", size)
		default:
			row.Fill[bank] = &size
			row.Bytes += dataBytes(org) * int64(len(in.Banks[at].Sockets))
		}
	}
	for one := range strings.SplitSeq(jumpers, ",") {
		name, at, ok := strings.Cut(one, " at ")
		if strings.TrimSpace(one) == "" {
			continue
		}
		if !ok {
			return row, malformed.Of("%q sets no jumper; write JP3 at 2-3", strings.TrimSpace(one))
		}
		row.Jumpers[strings.TrimSpace(name)] = strings.TrimSpace(at)
	}
	return row, nil
}
