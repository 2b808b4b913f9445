package power

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventAddSupply = action.NewEvent("add supply", "supply", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("said what feeds it: %v, %v", a["name"], a["kind"])
	})
	eventChangeSupply = action.NewEvent("change supply", "supply", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed the supply %v: %s", a["name"], action.Changes(b, a))
	})
	eventVoidSupply = action.NewEvent("void supply", "supply", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("deleted the supply %v", b["name"])
	})
	eventTakeBackVoidOfSupply = action.NewEvent("take back void of supply", "supply",
		func(_ string, _, a action.Fields) string {
			return fmt.Sprintf("took back that the supply %v was deleted", a["name"])
		})
	eventBuildLadder = action.NewEvent("build ladder", "machine", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("built the ladder for first power: %v rungs", a["rungs"])
	})
	eventAddRung = action.NewEvent("add rung", "rung", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("put a rung on the ladder: %v", a["step"])
	})
	eventChangeRung = action.NewEvent("change rung", "rung", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed the rung %v: %s", a["step"], action.Changes(b, a))
	})
	eventVoidRung = action.NewEvent("void rung", "rung", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("took the rung %v off the ladder", b["step"])
	})
	eventTakeBackVoidOfRung = action.NewEvent("take back void of rung", "rung",
		func(_ string, _, a action.Fields) string {
			return fmt.Sprintf("took back that the rung %v was taken off", a["step"])
		})
	eventPowerUp = action.NewEvent("power up", "power-up", func(_ string, _, a action.Fields) string {
		return powerUpWords("power was applied", a)
	})
	eventVoidPowerUp = action.NewEvent("void power-up", "power-up", func(_ string, b, _ action.Fields) string {
		return powerUpWords("deleted that power was applied", b)
	})
	eventTakeBackVoidOfPowerUp = action.NewEvent("take back void of power-up", "power-up",
		func(_ string, _, a action.Fields) string {
			return powerUpWords("took back that it was deleted:", a)
		})
	eventSayPart = action.NewEvent("say of part before power", "assembly", func(s string, _, a action.Fields) string {
		return fmt.Sprintf("said of %v on %s what matters before power: %v", a["place"], s, a["said"])
	})
)

func powerUpWords(how string, a action.Fields) string {
	words := fmt.Sprintf("%s on %v: %v; %v", how, a["on"], a["rungs"], a["result"])
	if state := a["gate"]; state != nil && a["decidedBy"] != nil && a["decidedBy"] != "" {
		words += fmt.Sprintf("; the gate stood at %v, decided by %v: %v", state, a["decidedBy"], a["why"])
	}
	return words
}
