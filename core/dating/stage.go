package dating

import "frugalheron/core/reckoning"

// Identified is how far the identifying of a machine has come.
type Identified struct {
	Chips     int // on all sheets
	Unknown   int // of them without a type
	Dated     int // lines with a date
	Conflicts int // of dates
	Sockets   int // for read-only memories
	Read      int // of them whose content counts
	Fading    int // of them that lose their charge, or whose readings differ
	Open      int // boards that somebody puzzles over still
}

// StageOf says how far: what does not go together or fades needs attention; what is unknown, unread or
// puzzled over is in hand.
func StageOf(i Identified) reckoning.Stage {
	switch {
	case i.Conflicts+i.Fading > 0:
		return reckoning.Stage{State: reckoning.NeedsAttention, Count: i.Conflicts + i.Fading}
	case i.Chips == 0:
		return reckoning.Stage{State: reckoning.Untouched}
	case i.Unknown+i.Open > 0 || i.Read < i.Sockets || i.Dated == 0:
		return reckoning.Stage{State: reckoning.InHand, Count: i.Unknown + i.Open + i.Sockets - i.Read}
	}
	return reckoning.Stage{State: reckoning.Settled}
}
