package population

import (
	"regexp"
	"strconv"
	"strings"

	"frugalheron/core/device"
	"frugalheron/core/memory"
)

// module is what the text of one says.
type module struct {
	text  string
	size  int // among the sizes of the machine; -1 where it is none of them
	org   device.Organisation
	ns    int // 0 where nobody says
	chips int // words of the deepest chip on it; 0 where nobody says
}

var (
	speedOf = regexp.MustCompile(`(?i)^-?(\d{2,3})\s*ns$`)
	apart   = regexp.MustCompile(`(?i)\b(\d{2,3})\s+ns\b`)                                 // 70 ns
	sized   = regexp.MustCompile(`(?i)^(\d+(?:[km]x\d+|[km]i?b?))(?:-(\d{2,3})(?:ns)?)?$`) // 1Mx9, 1Mx9-70, 4MB
	aChip   = regexp.MustCompile(`(?i)^(?:\d{1,3}x)?(\d+[km]x\d+)(?:-\d+)?$`)              // 1Mx1, 8x1Mx1
)

// read takes a module's text apart: its size is the first word that is one, its chips stand behind. The word between a
// count and its chip, as in "8x 1Mx1", says nothing by itself.
func (m *machine) read(text string) module {
	one := module{text: text, size: -1}
	hasSize := false
	text = apart.ReplaceAllString(text, "${1}ns")
	for _, word := range strings.FieldsFunc(text, func(r rune) bool { return strings.ContainsRune(" \t,;()", r) }) {
		if s := speedOf.FindStringSubmatch(word); s != nil {
			one.ns, _ = strconv.Atoi(s[1])
			continue
		}
		if hasSize {
			one.chips = max(one.chips, m.depthOf(word))
			continue
		}
		s := sized.FindStringSubmatch(word)
		if s == nil {
			continue
		}
		if one.org, hasSize = memory.ParseModule(s[1]); hasSize {
			one.size = m.sizeOf(one.org, !strings.ContainsAny(s[1], "xX"))
			if s[2] != "" {
				one.ns, _ = strconv.Atoi(s[2])
			}
		}
	}
	if one.size >= 0 {
		one.org = m.sizes[one.size].org
	}
	return one
}

// depthOf is how many words a chip has that a word names; 0 where it names none.
func (m *machine) depthOf(word string) int {
	if s := aChip.FindStringSubmatch(word); s != nil {
		org, _ := memory.ParseModule(s[1])
		return org.Words
	}
	if found, known := m.library.Recognise(word); known && found.Type.Class.IsRAM() {
		return found.Type.Words
	}
	return 0
}

// size is one that sockets take.
type size struct {
	name string // as it is written
	org  device.Organisation
}

// sizeOf finds a size of the machine; what is told in bytes is the first one with as much data. It is -1 for none.
func (m *machine) sizeOf(org device.Organisation, isAmount bool) int {
	for i, s := range m.sizes {
		if s.org == org || isAmount && dataBytes(s.org) == dataBytes(org) {
			return i
		}
	}
	return -1
}

func dataBytes(org device.Organisation) int64 {
	return memory.Of(memory.Bank{Organisation: org, Count: 1}).DataBits / 8
}

func hasParity(org device.Organisation) bool {
	return memory.Of(memory.Bank{Organisation: org, Count: 1}).ParityBits > 0
}

// IsModule reports whether a text names a memory module: its size is a word of it, as 1Mx9 or 4MB. A bare 10K is a resistor.
func IsModule(text string) bool {
	for _, word := range strings.FieldsFunc(text, func(r rune) bool { return strings.ContainsRune(" \t,;()", r) }) {
		if s := sized.FindStringSubmatch(word); s != nil {
			isTold := strings.ContainsAny(s[1], "xXbB")
			if _, isSize := memory.ParseModule(s[1]); isSize && isTold {
				return true
			}
		}
	}
	return false
}
