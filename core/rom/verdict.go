package rom

import (
	"fmt"

	"frugalheron/core/verdict"
)

// Fade is a socket whose readings say that the chip in it loses its content.
type Fade struct {
	Designator string
	Why        string
	Assembly   int64 // on whose sheet it stands
	Line       int
}

var fadingChip = verdict.NewSentence("rom-fading", "{designator}: {why}")

// FadingVerdict says in one line of the reckoning which chips have to be read again before it is too late. Its value is
// empty when none has.
func FadingVerdict(fades []Fade) verdict.Verdict {
	v := verdict.Verdict{Key: "fading", Label: "Read-only memories", State: verdict.Attention}
	if len(fades) > 0 {
		v.Value = fmt.Sprintf("%d fading: read again now", len(fades))
	}
	for _, f := range fades {
		v.Why = append(v.Why, fadingChip.Because(verdict.Word(f.Designator), f.Why).At(f.Assembly, max(1, f.Line)))
	}
	return v
}
