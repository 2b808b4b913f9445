package memfault

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"

	"frugalheron/core/malformed"
	"frugalheron/core/sheet"
)

// Bounds of a layout that people write down.
const (
	mostLayoutBanks = 256
	mostWide        = 16 // bits of a chip
)

var (
	layoutRange = regexp.MustCompile(`(?i)^(?:0x)?([0-9a-f]{1,12})-(?:0x)?([0-9a-f]{1,12})$`)
	layoutChip  = regexp.MustCompile(`^(?:(\d{1,2}):)?([A-Za-z]+[A-Za-z0-9,-]*?)(?:x(\d{1,2}))?$`)
)

// ParseLayout reads how the memory of a machine is laid out, a bank a line:
//
//	low  0-FFFF      U40-U47
//	high 10000-1FFFF U50x4 U51x4 8:U58
//
// First what the bank is called, then its addresses in hexadecimal, both ends included and in the unit in which the machine
// names them, then its chips from bit 0 up: in a row, each so many bits wide (x4), or from a bit on (8:). Empty lines and
// those that begin with # say nothing. What cannot be read is refused by its line.
func ParseLayout(text string) ([]Bank, error) {
	banks := []Bank{}
	for n, line := range strings.Split(text, "\n") {
		if line = strings.TrimSpace(line); line == "" || strings.HasPrefix(line, "#") {
			continue
		}
		bank, err := parseBank(strings.Fields(line))
		if err != nil {
			return nil, &malformed.Error{Field: "layout", Line: n + 1, Err: err}
		}
		if banks = append(banks, bank); len(banks) > mostLayoutBanks {
			return nil, &malformed.Error{Field: "layout", Line: n + 1, Err: fmt.Errorf("more than %d banks",
				mostLayoutBanks)}
		}
	}
	// The rest is what a question has to hold, too: names of their own, no address twice.
	if _, err := newCase(Input{Banks: banks}); err != nil {
		return nil, &malformed.Error{Field: "layout", Err: err}
	}
	return banks, nil
}

func parseBank(words []string) (Bank, error) {
	if len(words) < 2 {
		return Bank{}, fmt.Errorf("a bank needs a name and its addresses, as in \"low 0-FFFF U40-U47\"")
	}
	m := layoutRange.FindStringSubmatch(words[1])
	if m == nil {
		return Bank{}, fmt.Errorf("%q is no run of addresses; write it as 0-FFFF", words[1])
	}
	from, _ := strconv.ParseUint(m[1], 16, 64) // figures, by the pattern
	to, _ := strconv.ParseUint(m[2], 16, 64)
	if to < from {
		return Bank{}, fmt.Errorf("%q ends before it begins", words[1])
	}
	bank := Bank{ID: words[0], Base: Figure(from), Size: Figure(to - from + 1), Chips: map[string]string{}}
	bit := 0
	for _, word := range words[2:] {
		m := layoutChip.FindStringSubmatch(word)
		if m == nil {
			return Bank{}, fmt.Errorf("%q names no chips; write them as U40-U47, U50x4 or 8:U58", word)
		}
		if m[1] != "" {
			bit, _ = strconv.Atoi(m[1])
		}
		wide := 1
		if m[3] != "" {
			wide, _ = strconv.Atoi(m[3])
		}
		if wide < 1 || wide > mostWide {
			return Bank{}, fmt.Errorf("%q: a chip is 1 to %d bits wide", word, mostWide)
		}
		for _, designator := range sheet.Designators(m[2], mostBits+1) {
			for range wide {
				if bit >= mostBits {
					return Bank{}, fmt.Errorf("%q: a word has no more than %d bits", word, mostBits)
				}
				key := strconv.Itoa(bit)
				if other, isTaken := bank.Chips[key]; isTaken {
					return Bank{}, fmt.Errorf("bit %d is held by %s and by %s", bit, other, designator)
				}
				bank.Chips[key] = designator
				bit++
			}
		}
	}
	return bank, nil
}
