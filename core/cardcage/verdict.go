package cardcage

import (
	"frugalheron/core/slotplan"
	"frugalheron/core/verdict"
)

var saySlots = verdict.NewSentence("slots", "{what}")

// Verdict is the line of the reckoning that follows from what sits in the slots: only what is known to be wrong is told.
func (c Cage) Verdict() verdict.Verdict {
	v := verdict.Verdict{Key: "slots", Label: "Slots"}
	if len(c.In.Cards) == 0 {
		return v
	}
	problems, err := slotplan.Problems(c.In)
	if err != nil {
		return v // its page says why there is no plan
	}
	fillers := 0
	for _, p := range problems {
		v.Why = append(v.Why, saySlots.Because(verdict.Word(p.Detail)))
		if p.IsFiller() {
			fillers++
		}
	}
	switch wrong := len(problems) - fillers; {
	case wrong > 0:
		v.Value, v.State = verdict.Counted(wrong, "thing does", "things do")+" not go together", verdict.Attention
	case fillers > 0:
		v.Value, v.State = verdict.Counted(fillers, "filler is", "fillers are")+" missing", verdict.Attention
	}
	return v
}
