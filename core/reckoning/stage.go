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
