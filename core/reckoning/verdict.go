package reckoning

import (
	"fmt"
	"strings"

	"frugalheron/core/datecode"
	"frugalheron/core/memory"
)

// Board is a reckoned sheet and the assembly it belongs to.
type Board struct {
	Assembly int64 // the id under which the assembly is kept
	Title    string
	Result   Result
}

// Verdict is one line of the reckoning: what something amounts to, and why.
type Verdict struct {
	Key   string   `json:"key" doc:"Stable name of the line"`
	Label string   `json:"label"`
	Value string   `json:"value"`
	State State    `json:"state" enum:"plain,attention,stop"`
	Why   []Reason `json:"why"`
}

// State says how much a verdict matters.
type State string

// States of a verdict.
const (
	Plain     State = "plain"
	Attention State = "attention"
	Stop      State = "stop" // something that can hurt people or eat the machine
)

// Reason is a piece of evidence or a rule, with the line it comes from where there is one.
type Reason struct {
	Text string `json:"text"`
	Spot *Spot  `json:"spot" doc:"The line this comes from, or null"`
}

// Spot is a line of an assembly's sheet.
type Spot struct {
	Assembly int64 `json:"assembly"`
	Line     int   `json:"line"`
}

// Stage says how far taking stock of a machine has come.
type Stage struct {
	State StageState `json:"state" enum:"untouched,in hand,needs attention,settled"`
	Count int        `json:"count" doc:"What needs attention: problems and unknown chips"`
}

// StageState is one of four words.
type StageState string

// States of a stage.
const (
	Untouched      StageState = "untouched"
	InHand         StageState = "in hand"
	NeedsAttention StageState = "needs attention"
	Settled        StageState = "settled"
)

// StageOf judges taking stock: untouched without a board, in hand while a board has an empty
// sheet, and settled when every line was read and every chip named.
func StageOf(boards []Board) Stage {
	s := Stage{State: Untouched}
	for _, b := range boards {
		entries := 0
		for _, a := range b.Result.Assemblies {
			entries += len(a.Entries)
		}
		s.Count += len(b.Result.Problems) + b.Result.Totals.Unidentified
		if entries == 0 {
			s.State = InHand
		} else if s.State == Untouched {
			s.State = Settled
		}
	}
	if s.Count > 0 {
		s.State = NeedsAttention
	}
	return s
}

// mostReasons bounds a why: a list of thousands explains nothing.
const mostReasons = 60

// Verdicts reckons all boards of a machine together, the largest consequence first. Lines that
// would say nothing are left out.
func Verdicts(boards []Board) []Verdict {
	t := Combine(boards)
	verdicts := []Verdict{
		findings(boards), batteries(boards), problems(boards), ram(boards, t), rom(boards, t),
		dates(boards, t), unidentified(boards, t), parts(boards, t), emptySockets(boards, t), draw(boards, t), notes(boards),
	}
	kept := []Verdict{}
	for _, v := range verdicts {
		if v.Value == "" {
			continue
		}
		if v.State == "" {
			v.State = Plain
		}
		if len(v.Why) > mostReasons {
			rest := len(v.Why) - mostReasons
			v.Why = append(v.Why[:mostReasons:mostReasons], Reason{Text: fmt.Sprintf("and %d more", rest)})
		}
		kept = append(kept, v)
	}
	return kept
}

// Combine adds up the totals of several boards.
func Combine(boards []Board) Totals {
	var t Totals
	sum := Draw{}
	for _, b := range boards {
		o := b.Result.Totals
		t.Chips += o.Chips
		t.Modules += o.Modules
		t.Unidentified += o.Unidentified
		t.RAMBytes += o.RAMBytes
		for _, p := range memory.Purposes {
			*t.RAMBy.slot(p) += o.RAMBy.Of(p)
		}
		t.ParityBits += o.ParityBits
		t.ROMBytes += o.ROMBytes
		t.ROMs += o.ROMs
		t.EmptySockets += o.EmptySockets
		t.Findings += o.Findings
		d := o.Draw[fiveVolts]
		sum.TypicalA += d.TypicalA
		sum.Counted += d.Counted
		sum.Uncounted += d.Uncounted
		t.Dates = t.Dates.with(o.Dates)
	}
	t.Draw = map[string]Draw{fiveVolts: sum}
	return t
}

func (r *DateRange) with(o *DateRange) *DateRange {
	if r == nil || o == nil {
		if r == nil {
			return o
		}
		return r
	}
	wider := DateRange{Earliest: r.Earliest, Latest: r.Latest, Count: r.Count + o.Count}
	if o.Earliest.From.Before(wider.Earliest.From) {
		wider.Earliest = o.Earliest
	}
	if wider.Latest.To.Before(o.Latest.To) {
		wider.Latest = o.Latest
	}
	return &wider
}

// reasons collects what say has to tell of each entry; nothing is left out.
func reasons(boards []Board, say func(e *Entry) string) []Reason {
	why := []Reason{}
	for _, b := range boards {
		for _, a := range b.Result.Assemblies {
			for i := range a.Entries {
				if text := say(&a.Entries[i]); text != "" {
					why = append(why, at(b, a.Entries[i].Line, a.Entries[i].names()+": "+text))
				}
			}
		}
	}
	return why
}

func at(b Board, line int, text string) Reason {
	return Reason{Text: text, Spot: &Spot{Assembly: b.Assembly, Line: line}}
}

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
	for _, p := range memory.Purposes {
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
	v.Why = append(v.Why, Reason{Text: fmt.Sprintf("read on %s; year and week as ISO 8601 counts them", counted(t.Dates.Count, "chip", "chips"))})
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

func counted(n int, one, many string) string {
	switch n {
	case 0:
		return ""
	case 1:
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

func number(n int) string {
	if n == 0 {
		return ""
	}
	return fmt.Sprint(n)
}
