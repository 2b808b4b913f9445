package reckoning

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

// Counts is what the stage depends on, for one board.
type Counts struct {
	Entries      int
	Problems     int
	Unidentified int
}

// Counts counts the result of one board.
func (r *Result) Counts() Counts {
	c := Counts{Problems: len(r.Problems), Unidentified: r.Totals.Unidentified}
	for _, a := range r.Assemblies {
		c.Entries += len(a.Entries)
	}
	return c
}

// StageOf judges taking stock: untouched without a board, in hand while a board has an empty
// sheet, and settled when every line was read and every chip named.
func StageOf(boards []Counts) Stage {
	s := Stage{State: Untouched}
	for _, b := range boards {
		s.Count += b.Problems + b.Unidentified
		if b.Entries == 0 {
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
