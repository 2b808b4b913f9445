package configuration

import (
	"fmt"

	"frugalheron/core/verdict"
)

var (
	sayUnlike = verdict.NewSentence("set-up-unlike", "{card}: {was} then, {is} now")
	sayKept   = verdict.NewSentence("set-up-battery",
		"{part} may keep settings; what the firmware shows is written down nowhere")
)

// Kept is how far it is written down how a machine is set up.
type Kept struct {
	On          string   // day of the newest configuration; empty where there is none
	HasFirmware bool     // any configuration holds what the firmware keeps
	Since       []Change // in which cards the machine is not as the newest one says
	Batteries   []string // where the sheets have one
}

// VerdictOf is the line of the reckoning that follows from it.
func VerdictOf(k Kept) verdict.Verdict {
	v := verdict.Verdict{Key: "set-up", Label: "Set up"}
	if k.On != "" {
		v.Value, v.State = "noted on "+k.On, verdict.Plain
	}
	for _, c := range k.Since {
		was, is := c.From, c.To
		if was == "" {
			was = "not there"
		}
		if is == "" {
			is = "not there"
		}
		v.Why = append(v.Why, sayUnlike.Because(c.Card, was, is))
	}
	if !k.HasFirmware && len(k.Batteries) > 0 {
		if v.Value == "" {
			v.Value, v.State = "not written down", verdict.Plain
		}
		for _, b := range k.Batteries {
			v.Why = append(v.Why, sayKept.Because(b))
		}
	}
	if n := len(k.Since); n > 0 {
		v.Value += fmt.Sprintf("; %s since", verdict.Counted(n, "change", "changes"))
	}
	return v
}

// Unsure makes meanings ones that may be: it is not sure that the card is the one of the record.
func Unsure(meanings []Meaning, record string) []Meaning {
	for i := range meanings {
		if m := &meanings[i]; m.State == Known {
			m.State, m.Why = Several, "it is not sure that this is a "+record
		}
	}
	return meanings
}
