package reckoning

import (
	"fmt"
	"strings"

	"frugalheron/core/memory"
	"frugalheron/core/verdict"
)

// What the lines of the reckoning are explained by.
var (
	problemAt      = verdict.NewSentence("problem", "{message}")
	ramPart        = verdict.NewSentence("ram-part", "{designators}: {capacity}, {purpose}")
	ramCounting    = verdict.NewSentence("ram-counting", "1 KB is 1,024 bytes; parity is not in the sum")
	romPart        = verdict.NewSentence("rom-part", "{designators}: {count} x {type} of {size}")
	romCounting    = verdict.NewSentence("rom-counting", "1 KB is 1,024 bytes; EPROM, EEPROM, mask ROM and PROM together")
	firstOrLast    = verdict.NewSentence("date-end", "{designators}: the {end}, {date}")
	datesReadOn    = verdict.NewSentence("dates-read", "read on {chips}; year and week as ISO 8601 counts them")
	unreadChip     = verdict.NewSentence("chip-unread", "{designators}: nothing read")
	unknownChip    = verdict.NewSentence("chip-unknown", "{designators}: {marking}")
	partsOfBoard   = verdict.NewSentence("parts-of-board", "{board}: {count}")
	emptySocket    = verdict.NewSentence("socket-empty", "{designators}: empty")
	socketFor      = verdict.NewSentence("socket-empty-for", "{designators}: empty, takes {marking}")
	drawOfBoard    = verdict.NewSentence("draw-of-board", "{board}: {amperes} A")
	drawEstimate   = verdict.NewSentence("draw-estimate", "{note}")
	worthKnowing   = verdict.NewSentence("note", "{note}")
	findingOfPart  = verdict.NewSentence("part-finding", "{designators}: {findings}")
	batteryOfBoard = verdict.NewSentence("battery-fitted", "{designators}: fitted, {marking}")
)

// The lines of the reckoning, each from all boards and their common totals. A line with an empty
// value is left out.

func problems(boards []Board) verdict.Verdict {
	v := verdict.Verdict{Key: "problems", Label: "To put right", State: verdict.Attention, Why: []verdict.Reason{}}
	for _, b := range boards {
		for _, p := range b.Result.Problems {
			v.Why = append(v.Why, problemAt.Because(p.Message).At(b.Assembly, p.Line))
		}
	}
	v.Value = verdict.Counted(len(v.Why), "problem", "problems")
	return v
}

func ram(boards []Board, t Totals) verdict.Verdict {
	v := verdict.Verdict{Key: "ram", Label: "RAM"}
	v.Why = reasons(boards, func(e *Entry) (verdict.Reason, bool) {
		if e.Empty || e.Type == nil || !e.Type.Class.IsRAM() {
			return verdict.Reason{}, false
		}
		return ramPart.Because(e.names(), verdict.Word(e.capacity()), verdict.Word(ramPurpose(e.Purpose))), true
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
	v.Why = append(v.Why, ramCounting.Because())
	return v
}

func rom(boards []Board, t Totals) verdict.Verdict {
	v := verdict.Verdict{Key: "rom", Label: "ROM"}
	v.Why = reasons(boards, func(e *Entry) (verdict.Reason, bool) {
		if e.Empty || e.Type == nil || !e.Type.Class.IsROM() {
			return verdict.Reason{}, false
		}
		return romPart.Because(e.names(), e.Count, verdict.Word(e.Type.Number),
			verdict.Word(memory.Format(e.Type.TotalBits()/8))), true
	})
	if t.ROMs > 0 {
		v.Value = fmt.Sprintf("%s in %s", memory.Format(t.ROMBytes), verdict.Counted(t.ROMs, "chip", "chips"))
		v.Why = append(v.Why, romCounting.Because())
	}
	return v
}

func dates(boards []Board, t Totals) verdict.Verdict {
	v := verdict.Verdict{Key: "dates", Label: "Date codes"}
	if t.Dates == nil {
		return v
	}
	v.Value = t.Dates.Earliest.Text
	if t.Dates.Latest != t.Dates.Earliest {
		v.Value += " to " + t.Dates.Latest.Text
	}
	v.Why = reasons(boards, func(e *Entry) (verdict.Reason, bool) {
		switch {
		case e.Kind != Chip || e.Empty || e.Date == nil:
		case *e.Date == t.Dates.Earliest:
			return firstOrLast.Because(e.names(), verdict.Word("earliest"), verdict.Word(e.Date.Text)), true
		case *e.Date == t.Dates.Latest:
			return firstOrLast.Because(e.names(), verdict.Word("latest"), verdict.Word(e.Date.Text)), true
		}
		return verdict.Reason{}, false
	})
	v.Why = append(v.Why, datesReadOn.Because(verdict.Word(verdict.Counted(t.Dates.Count, "chip", "chips"))))
	return v
}

func unidentified(boards []Board, t Totals) verdict.Verdict {
	chips := 0
	v := verdict.Verdict{
		Key: "unidentified", Label: "Unknown", State: verdict.Attention,
		Value: verdict.Counted(t.Unidentified, "part", "parts"),
		Why: reasons(boards, func(e *Entry) (verdict.Reason, bool) {
			if !e.IsUnidentified() {
				return verdict.Reason{}, false
			}
			if e.Kind == Chip {
				chips += e.Count
			}
			switch {
			case e.Marking == "" || e.Marking == "?":
				return unreadChip.Because(e.names()), true
			}
			return unknownChip.Because(e.names(), e.Marking), true
		}),
	}
	if chips == t.Unidentified {
		v.Value = verdict.Counted(chips, "chip", "chips")
	}
	return v
}

func parts(boards []Board, t Totals) verdict.Verdict {
	v := verdict.Verdict{Key: "parts", Label: "Parts", Value: verdict.Counted(t.Chips, "chip", "chips")}
	if t.Modules > 0 {
		if v.Value != "" {
			v.Value += ", "
		}
		v.Value += verdict.Counted(t.Modules, "module", "modules")
	}
	for _, b := range boards {
		if n := b.Result.Totals.Chips + b.Result.Totals.Modules; n > 0 {
			v.Why = append(v.Why, partsOfBoard.Because(b.Title, n))
		}
	}
	return v
}

func emptySockets(boards []Board, t Totals) verdict.Verdict {
	return verdict.Verdict{
		Key: "sockets", Label: "Empty sockets", Value: number(t.EmptySockets),
		Why: reasons(boards, func(e *Entry) (verdict.Reason, bool) {
			switch {
			case !e.Empty:
				return verdict.Reason{}, false
			case e.Marking == "":
				return emptySocket.Because(e.names()), true
			}
			return socketFor.Because(e.names(), e.Marking), true
		}),
	}
}

func draw(boards []Board, t Totals) verdict.Verdict {
	d := t.Draw[fiveVolts]
	v := verdict.Verdict{Key: "draw", Label: "+5 V draw", Why: []verdict.Reason{}}
	if d.Counted == 0 {
		return v
	}
	v.Value = fmt.Sprintf("about %.1f A", d.TypicalA)
	if d.TypicalA < 1 {
		v.Value = fmt.Sprintf("about %.0f mA", d.TypicalA*1000)
	}
	for _, b := range boards {
		if own := b.Result.Totals.Draw[fiveVolts]; own.Counted > 0 {
			v.Why = append(v.Why, drawOfBoard.Because(b.Title, verdict.Word(fmt.Sprintf("%.2f", own.TypicalA))))
		}
	}
	v.Why = append(v.Why, drawEstimate.Because(verdict.Word(drawNote(d, t.Modules))))
	return v
}

func notes(boards []Board) verdict.Verdict {
	v := verdict.Verdict{Key: "notes", Label: "Worth knowing", Why: []verdict.Reason{}}
	for _, b := range boards {
		for _, n := range b.Result.Notes {
			if n.estimate {
				continue
			}
			v.Why = append(v.Why, worthKnowing.Because(n.Text).At(b.Assembly, n.Line))
		}
	}
	v.Value = verdict.Counted(len(v.Why), "note", "notes")
	return v
}
