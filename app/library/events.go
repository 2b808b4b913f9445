package library

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventRecogniseType = action.NewEvent("recognise type", "recognition", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("recognised %v parts as %v: %v", a["parts"], a["number"], a["function"])
	})
	eventAddMaker = action.NewEvent("add maker", "maker", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("added the maker %v", a["name"])
	})
	eventChangeMaker = action.NewEvent("change maker", "maker", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed the maker %v: %s", a["name"], action.Changes(b, a))
	})
	eventAddModel = action.NewEvent("add model", "model", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("added the model %v %v", a["maker"], a["model"])
	})
	eventChangeModel = action.NewEvent("change model", "model", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed the model %v %v: %s", a["maker"], a["model"], action.Changes(b, a))
	})
	EventNameType = action.NewEvent("name type", "own type", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("named the type %v: %v", a["number"], a["function"])
	})
	eventChangeType = action.NewEvent("change type", "own type", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed the type %v: %s", a["number"], action.Changes(b, a))
	})
	eventNameKnown = action.NewEvent("name known assembly", "known assembly", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("named the %v %v", a["kind"], a["name"])
	})
	eventChangeKnown = action.NewEvent("change known assembly", "known assembly",
		func(_ string, b, a action.Fields) string {
			return fmt.Sprintf("changed what is known of the %v %v: %s", a["kind"], a["name"], action.Changes(b, a))
		})
	eventStrikeKnown = action.NewEvent("strike known assembly", "known assembly",
		func(_ string, b, _ action.Fields) string {
			return fmt.Sprintf("took the %v %v out of what is recognised", b["kind"], b["name"])
		})
	eventForgetType = action.NewEvent("forget type", "own type", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("took the type %v out of the library", b["number"])
	})
)
