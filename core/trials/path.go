package trials

// Counted is how a trial went that was run so many times, of which some failed. It has at least one run, and no more fail
// than there are.
func Counted(runs, failed int) Result {
	switch failed {
	case 0:
		return OK
	case runs:
		return Fail
	}
	return Sometimes
}

// Left is how many explanations were left after each trial: the path to the cause.
func Left(in Input) ([]int, error) {
	if err := in.check(); err != nil {
		return nil, err
	}
	path := make([]int, len(in.Trials))
	for i := range in.Trials {
		so := in
		so.Trials = in.Trials[:i+1]
		_, _, explained := explain(so)
		path[i] = len(explained)
	}
	return path, nil
}

// WayBack leads from the last trial back to the newest that went well.
type WayBack struct {
	Trial    int      `json:"trial" doc:"That went well, from 1"`
	TakeBack []string `json:"takeBack" says:"text" doc:"Factors that are on now and were off then"`
	PutBack  []string `json:"putBack" says:"text" doc:"Factors that were on then and are off now"`
}

// LastGood tells what leads back to the newest trial that went well. It is nil while none did, or the last one itself.
func LastGood(in Input) *WayBack {
	n := len(in.Trials)
	for i := n - 1; i >= 0; i-- {
		if in.Trials[i].Result != OK {
			continue
		}
		if i == n-1 {
			return nil
		}
		c := newCase(in)
		now, then := c.trials[n-1].on, c.trials[i].on
		return &WayBack{Trial: i + 1, TakeBack: c.names(now &^ then), PutBack: c.names(then &^ now)}
	}
	return nil
}

// Tried is how a part did in one machine, over all trials in which it was in.
type Tried struct {
	Machine   int64
	OK, Fails int
	Sometimes int
}

// Pairing is what trials of one part in several machines tell.
type Pairing string

// What they can tell.
const (
	NotTold    Pairing = ""            // it was in one machine alone, or nothing went either way
	BadPart    Pairing = "bad part"    // it never went well, in two machines or more
	BadPairing Pairing = "bad pairing" // it goes well in one machine, and never in another
	GoodPart   Pairing = "good part"   // it went well in two machines or more, and failed in none
	ComesGoes  Pairing = "comes and goes"
)

// PairingOf tells a bad part from a bad pairing. A part that went well and failed in the same machine comes and goes: that
// tells neither.
func PairingOf(tried []Tried) Pairing {
	well, never, swings := 0, 0, 0
	for _, t := range tried {
		switch {
		case t.Sometimes > 0 || t.OK > 0 && t.Fails > 0:
			swings++
		case t.OK > 0:
			well++
		case t.Fails > 0:
			never++
		}
	}
	switch {
	case well > 0 && never > 0:
		return BadPairing
	case swings > 0:
		return ComesGoes
	case never > 1:
		return BadPart
	case well > 1:
		return GoodPart
	}
	return NotTold
}
