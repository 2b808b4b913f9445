package upkeep

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventAddRule = action.NewEvent("add upkeep rule", "upkeep rule", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("wrote the upkeep rule %v, %v", a["task"], a["when"])
	})
	eventChangeRule = action.NewEvent("change upkeep rule", "upkeep rule", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed the upkeep rule %v: %s", a["task"], action.Changes(b, a))
	})
	eventVoidRule = action.NewEvent("void upkeep rule", "upkeep rule", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("deleted the upkeep rule %v", b["task"])
	})
	eventTakeBackVoidOfRule = action.NewEvent("take back void of upkeep rule", "upkeep rule",
		func(_ string, _, a action.Fields) string {
			return fmt.Sprintf("took back that the upkeep rule %v was deleted", a["task"])
		})
	eventBeginRound = action.NewEvent("begin round", "round", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("began the round %v with %v stops", a["task"], a["stops"])
	})
	eventEndRound = action.NewEvent("end round", "round", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("ended the round %v: %v of %v stops%s", a["task"], a["done"], a["stops"], action.Said("; ",
			a["note"]))
	})
	eventTakeBackEndOfRound = action.NewEvent("take back end of round", "round", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("went on with the round %v", a["task"])
	})
	eventAnswerStop = action.NewEvent("answer stop", "deed", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("%v: %v on %v%s", a["task"], hows[fmt.Sprint(a["how"])], a["on"], action.Said(", ",
			a["why"])+
			action.Said("; ", a["note"]))
	})
	eventChangeAnswer = action.NewEvent("change answer", "deed", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed what was said of %v: %s", a["task"], action.Changes(b, a))
	})
	eventTakeBackAnswer = action.NewEvent("take back answer", "deed", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("took back that %v was %v on %v", a["task"], hows[fmt.Sprint(a["how"])], a["on"])
	})
	eventAddPlan = action.NewEvent("add plan", "plan", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("planned %v for %v", a["what"], a["on"])
	})
	eventChangePlan = action.NewEvent("change plan", "plan", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed the plan %v: %s", a["what"], action.Changes(b, a))
	})
	eventVoidPlan = action.NewEvent("void plan", "plan", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("deleted the plan %v for %v", b["what"], b["on"])
	})
	eventTakeBackVoidOfPlan = action.NewEvent("take back void of plan", "plan", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("took back that the plan %v was deleted", a["what"])
	})
	eventMakeFeed = action.NewEvent("make calendar address", "calendar address", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("made a new secret address for the calendar of %v", a["login"])
	}).ForStaff()
	eventDropFeed = action.NewEvent("drop calendar address", "calendar address", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("took the secret address of the calendar of %v away", b["login"])
	}).ForStaff()
)

// hows say in words how something was dealt with.
var hows = map[string]string{"did": "done", "seen": "seen", "not": "not done"}
