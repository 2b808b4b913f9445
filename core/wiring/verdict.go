package wiring

import (
	"fmt"

	"frugalheron/core/verdict"
)

var unplugged = verdict.NewSentence("connector-unplugged", "{name}, from {from} to {to}, is unplugged")

// OpenVerdict says in one line of the reckoning which connectors are open. Its value is empty when none is.
func OpenVerdict(connectors []Placed) verdict.Verdict {
	v := verdict.Verdict{Key: "open-connectors", Label: "Connectors", State: verdict.Attention}
	for _, c := range connectors {
		if c.Open {
			v.Why = append(v.Why, unplugged.Because(c.Name, c.FromBoard, c.ToBoard))
		}
	}
	if n := len(v.Why); n > 0 {
		v.Value = fmt.Sprintf("%d open", n)
	}
	return v
}
