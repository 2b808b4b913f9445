package wiring

import (
	"fmt"
	"strings"

	"frugalheron/core/verdict"
)

var unplugged = verdict.NewSentence("connector-unplugged", "{name}, from {from} to {to}, is unplugged")

var foundOpen = verdict.NewSentence("connector-found-open",
	"{name}, from {from}, was found open; where it goes is not known")

// IsFoundOpen reports whether it is open since before anybody took the machine apart: nothing waits for it.
func (p Placed) IsFoundOpen() bool { return p.Open && p.FoundOpen }

// OpenVerdict says in one line of the reckoning which connectors are open. Its value is empty when none is.
func OpenVerdict(connectors []Placed) verdict.Verdict {
	v := verdict.Verdict{Key: "open-connectors", Label: "Connectors", State: verdict.Attention}
	found := []verdict.Reason{}
	for _, c := range connectors {
		switch {
		case c.IsFoundOpen():
			found = append(found, foundOpen.Because(c.Name, c.FromBoard))
		case c.Open:
			v.Why = append(v.Why, unplugged.Because(c.Name, c.FromBoard, c.ToBoard))
		}
	}
	told := []string{}
	if n := len(v.Why); n > 0 {
		told = append(told, fmt.Sprintf("%d open", n))
	} else {
		v.State = verdict.Plain
	}
	if n := len(found); n > 0 {
		told = append(told, fmt.Sprintf("%d found open", n))
	}
	v.Value, v.Why = strings.Join(told, ", "), append(v.Why, found...)
	return v
}
