package reckoning

import (
	"fmt"
	"strings"

	"frugalheron/core/datecode"
	"frugalheron/core/memory"
)

// The lines of the reckoning, each from all boards and their common totals. A line with an empty
// value is left out.

func problems(boards []Board) Verdict {
	v := Verdict{Key: "problems", Label: "To put right", State: Attention, Why: []Reason{}}
	for _, b := range boards {
		for _, p := range b.Result.Problems {
			v.Why = append(v.Why, at(b, p.Line, p.Message))
		}
	}
	v.Value = counted(len(v.Why), "problem", "problems")
	return v
}

func ram(boards []Board, t Totals) Verdict {
	v := Verdict{Key: "ram", Label: "RAM"}
	v.Why = reasons(boards, func(e *Entry) string {
		if e.Empty || e.Type == nil || !e.Type.Class.IsRAM() {
			return ""
		}
		return e.capacity() + ", " + string(ramPurpose(e.Purpose))
	})
	if t.RAMBytes == 0 && t.ParityBits == 0 {
		return v
	}
	v.Value = memory.Format(t.RAMBytes)
	// The parts are written in the unit of the sum, so that one sees them add up.
	format := memory.Format
	if strings.HasSuffix(v.Value, " KB") {
		format = memory.FormatKB
	}
	split := []string{}
	for _, p := range memory.Purposes() {
		if n := t.RAMBy.Of(p); n > 0 && n != t.RAMBytes {
			split = append(split, format(n)+" "+string(p))
		}
	}
	if t.ParityBits > 0 {
		split = append(split, "and parity")
	}
	if len(split) > 0 {
		v.Value += ", " + strings.Join(split, ", ")
	}
	v.Why = append(v.Why, Reason{Text: "1 KB is 1,024 bytes; parity is not in the sum"})
	return v
}

func rom(boards []Board, t Totals) Verdict {
	v := Verdict{Key: "rom", Label: "ROM"}
	v.Why = reasons(boards, func(e *Entry) string {
		if e.Empty || e.Type == nil || !e.Type.Class.IsROM() {
			return ""
		}
		return fmt.Sprintf("%d x %s of %s", e.Count, e.Type.Number, memory.Format(e.Type.TotalBits()/8))
	})
	if t.ROMs > 0 {
		v.Value = fmt.Sprintf("%s in %s", memory.Format(t.ROMBytes), counted(t.ROMs, "chip", "chips"))
		v.Why = append(v.Why, Reason{Text: "1 KB is 1,024 bytes; EPROM, EEPROM, mask ROM and PROM together"})
	}
	return v
}

func dates(boards []Board, t Totals) Verdict {
	v := Verdict{Key: "dates", Label: "Date codes"}
	if t.Dates == nil {
		return v
	}
	v.Value = t.Dates.Earliest.Text
	if t.Dates.Latest != t.Dates.Earliest {
		v.Value += " to " + t.Dates.Latest.Text
	}
	isEnd := func(d *datecode.DateCode) string {
		switch {
		case d == nil:
			return ""
		case *d == t.Dates.Earliest:
			return "the earliest, " + d.Text
		case *d == t.Dates.Latest:
			return "the latest, " + d.Text
		}
		return ""
	}
	v.Why = reasons(boards, func(e *Entry) string {
		if e.Kind != Chip || e.Empty {
			return ""
		}
		return isEnd(e.Date)
	})
	v.Why = append(v.Why,
		Reason{Text: fmt.Sprintf("read on %s; year and week as ISO 8601 counts them",
			counted(t.Dates.Count, "chip", "chips"))})
	return v
}

func unidentified(boards []Board, t Totals) Verdict {
	return Verdict{
		Key: "unidentified", Label: "Unknown", State: Attention, Value: counted(t.Unidentified, "chip", "chips"),
		Why: reasons(boards, func(e *Entry) string {
			switch {
			case !e.IsUnidentified():
				return ""
			case e.Marking == "" || e.Marking == "?":
				return "nothing read"
			}
			return e.Marking
		}),
	}
}

func parts(boards []Board, t Totals) Verdict {
	v := Verdict{Key: "parts", Label: "Parts", Value: counted(t.Chips, "chip", "chips"), Why: []Reason{}}
	if t.Modules > 0 {
		if v.Value != "" {
			v.Value += ", "
		}
		v.Value += counted(t.Modules, "module", "modules")
	}
	for _, b := range boards {
		if n := b.Result.Totals.Chips + b.Result.Totals.Modules; n > 0 {
			v.Why = append(v.Why, Reason{Text: fmt.Sprintf("%s: %d", b.Title, n)})
		}
	}
	return v
}

func emptySockets(boards []Board, t Totals) Verdict {
	return Verdict{
		Key: "sockets", Label: "Empty sockets", Value: number(t.EmptySockets),
		Why: reasons(boards, func(e *Entry) string {
			switch {
			case !e.Empty:
				return ""
			case e.Marking == "":
				return "empty"
			}
			return "empty, takes " + e.Marking
		}),
	}
}

func draw(boards []Board, t Totals) Verdict {
	d := t.Draw[fiveVolts]
	v := Verdict{Key: "draw", Label: "+5 V draw", Why: []Reason{}}
	if d.Counted == 0 {
		return v
	}
	v.Value = fmt.Sprintf("about %.1f A", d.TypicalA)
	if d.TypicalA < 1 {
		v.Value = fmt.Sprintf("about %.0f mA", d.TypicalA*1000)
	}
	for _, b := range boards {
		if own := b.Result.Totals.Draw[fiveVolts]; own.Counted > 0 {
			v.Why = append(v.Why, Reason{Text: fmt.Sprintf("%s: %.2f A", b.Title, own.TypicalA)})
		}
	}
	v.Why = append(v.Why, Reason{Text: drawNote(d, t.Modules)})
	return v
}

func notes(boards []Board) Verdict {
	v := Verdict{Key: "notes", Label: "Worth knowing", Why: []Reason{}}
	for _, b := range boards {
		for _, n := range b.Result.Notes {
			if n.estimate {
				continue
			}
			v.Why = append(v.Why, at(b, n.Line, n.Text))
		}
	}
	v.Value = counted(len(v.Why), "note", "notes")
	return v
}
