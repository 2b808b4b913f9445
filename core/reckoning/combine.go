package reckoning

import "frugalheron/core/memory"

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
		for _, p := range memory.Purposes() {
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
