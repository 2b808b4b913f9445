package reckoning

import (
	"fmt"
	"math"
	"slices"

	"frugalheron/core/memory"
	"frugalheron/core/sheet"
)

const fiveVolts = "+5"

// sum adds up all entries and notes what is worth knowing about single lines.
func sum(r *Result) Totals {
	t := Totals{Draw: map[string]Draw{}}
	var s sums
	for _, a := range r.Assemblies {
		for i := range a.Entries {
			e := &a.Entries[i]
			t.Findings += len(e.Findings)
			if e.Empty {
				t.EmptySockets += e.Count
				continue
			}
			if e.IsUnidentified() {
				t.Unidentified += e.Count
			}
			switch e.Kind {
			case Chip:
				t.chip(e, &s)
			case Module:
				t.Modules += e.Count
			}
			if note := t.memory(e, &s); note != "" {
				r.Notes = append(r.Notes, Note{Line: e.Line, Text: note})
			}
		}
	}
	r.Notes = append(r.Notes, s.together(r.Assemblies)...)
	t.ParityBits, t.ROMBytes = s.parityBits, s.romBits/8
	for _, p := range memory.Purposes() {
		*t.RAMBy.slot(p) = s.ramBits[p] / 8
		t.RAMBytes += s.ramBits[p] / 8
	}
	s.draw.TypicalA = math.Round(s.milliamps) / 1000
	t.Draw[fiveVolts] = s.draw
	if s.draw.Counted > 0 {
		r.Notes = append(r.Notes, Note{Line: s.firstDrawn, Text: drawNote(s.draw, t.Modules), estimate: true})
	}
	return t
}

// sums holds what is only converted to bytes and amperes once all parts are added.
type sums struct {
	ramBits             map[memory.Purpose]int64
	romBits, parityBits int64
	milliamps           float64
	draw                Draw
	firstDrawn          int // line
}

// depth is what chips have in common that can make whole bytes together.
type depth struct {
	assembly, words int
	purpose         memory.Purpose
}

// together counts memory chips of one depth and purpose on a board as one, where a line of them makes no whole bytes by
// itself: eight of one bit with one more below for parity, or two of four bits and one of one.
func (s *sums) together(assemblies []Assembly) (notes []Note) {
	lines, order := map[depth][]*Entry{}, []depth{}
	for n, a := range assemblies {
		for i := range a.Entries {
			e := &a.Entries[i]
			if e.Kind != Chip || e.Empty || e.Type == nil || !e.Type.Class.IsRAM() || e.bank().AllParity {
				continue
			}
			d := depth{n, e.Type.Words, ramPurpose(e.Purpose)}
			if lines[d] == nil {
				order = append(order, d)
			}
			lines[d] = append(lines[d], e)
		}
	}
	for _, d := range order {
		if !slices.ContainsFunc(lines[d], func(e *Entry) bool { return !e.bank().IsWhole() }) {
			continue
		}
		width, last := 0, 0
		for _, e := range lines[d] {
			alone := memory.Of(e.bank())
			s.ramBits[d.purpose] -= alone.DataBits
			s.parityBits -= alone.ParityBits
			width, last = width+e.Type.Bits*e.Count, e.Line
		}
		c := memory.Together(d.words, width)
		s.ramBits[d.purpose] += c.DataBits
		s.parityBits += c.ParityBits
		if c.Note != "" {
			notes = append(notes, Note{Line: last, Text: c.Note})
		}
	}
	return notes
}

func (t *Totals) chip(e *Entry, s *sums) {
	t.Chips += e.Count
	if e.Type != nil && e.Type.TypicalMilliamps > 0 {
		if s.draw.Counted == 0 {
			s.firstDrawn = e.Line
		}
		s.milliamps += e.Type.TypicalMilliamps * float64(e.Count)
		s.draw.Counted += e.Count
	} else {
		s.draw.Uncounted += e.Count
	}
	if e.Date == nil {
		return
	}
	if t.Dates == nil {
		t.Dates = &DateRange{Earliest: *e.Date, Latest: *e.Date}
	}
	t.Dates.Count += e.Count
	if e.Date.From.Before(t.Dates.Earliest.From) {
		t.Dates.Earliest = *e.Date
	}
	if t.Dates.Latest.To.Before(e.Date.To) {
		t.Dates.Latest = *e.Date
	}
}

// memory adds an entry's capacity and returns a note on how it was counted, if any is due.
func (t *Totals) memory(e *Entry, s *sums) string {
	if e.Type == nil {
		if e.Kind == Module {
			return "the module's capacity is not written as 4MB or 1Mx9, so it is not counted"
		}
		return ""
	}
	if s.ramBits == nil {
		s.ramBits = map[memory.Purpose]int64{}
	}
	switch {
	case e.Type.Class.IsRAM():
		c := memory.Of(e.bank())
		s.ramBits[ramPurpose(e.Purpose)] += c.DataBits
		s.parityBits += c.ParityBits
		return c.Note
	case e.Type.Class.IsROM():
		t.ROMs += e.Count
		s.romBits += e.Type.TotalBits() * int64(e.Count)
	}
	return ""
}

func (e *Entry) bank() memory.Bank {
	return memory.Bank{Organisation: e.Type.Organisation, Count: e.Count, AllParity: e.Purpose == sheet.Parity}
}

func ramPurpose(p sheet.Purpose) memory.Purpose {
	if p == sheet.Unsaid || p == sheet.Parity {
		return memory.Main
	}
	return memory.Purpose(p)
}

func drawNote(d Draw, modules int) string {
	text := fmt.Sprintf("+5 V: estimate from typical currents of %d chips, a rule of thumb for their families",
		d.Counted)
	if d.Uncounted > 0 {
		text += fmt.Sprintf("; %d chips have no known current and are not in it", d.Uncounted)
	}
	if modules > 0 {
		text += fmt.Sprintf("; the %d modules are not in it", modules)
	}
	return text
}
