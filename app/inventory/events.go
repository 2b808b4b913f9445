package inventory

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventRenamePlace = action.NewEvent("rename place", "place", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("renamed the place %v to %v", b["place"], a["place"])
	})
	eventCreateMachine = action.NewEvent("create machine", "machine", func(s string, _, _ action.Fields) string {
		return "entered " + s
	})
	eventChangeMachine = action.NewEvent("change machine", "machine", func(_ string, b, a action.Fields) string {
		return "changed the record: " + action.Changes(b, a)
	})
	eventMoveMachine = action.NewEvent("move machine", "machine", func(s string, b, a action.Fields) string {
		return fmt.Sprintf("moved %s from %v to %v", s, b["where"], a["where"])
	})
	eventTakeBackMachineMove = action.NewEvent("take back machine move", "machine",
		func(s string, b, a action.Fields) string {
			return fmt.Sprintf("took back the move of %s to %v; it is in %v", s, b["where"], a["where"])
		})
	eventAddAssembly = action.NewEvent("add assembly", "assembly", func(s string, _, _ action.Fields) string {
		return "added " + s
	})
	eventChangeAssembly = action.NewEvent("change assembly", "assembly", func(s string, b, a action.Fields) string {
		return "changed details of " + s + ": " + action.Changes(b, a)
	})
	eventMoveAssembly = action.NewEvent("move assembly", "assembly", func(s string, b, a action.Fields) string {
		return fmt.Sprintf("moved %s from %v to %v", s, b["where"], a["where"])
	})
	eventTellPastFitting = action.NewEvent("tell past fitting", "assembly", func(s string, _, a action.Fields) string {
		return fmt.Sprintf("said that %s was in %v until %v", s, a["where"], a["until"])
	})
	eventTakeBackPastFitting = action.NewEvent("take back past fitting", "assembly",
		func(s string, b, _ action.Fields) string {
			return fmt.Sprintf("took back that %s was in %v until %v", s, b["where"], b["until"])
		})
	eventReceiveAssembly = action.NewEvent("receive assembly", "fitting", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("received %v from %v", a["title"], a["from"])
	})
	eventTakeBackMove = action.NewEvent("take back move", "assembly", func(s string, b, a action.Fields) string {
		return fmt.Sprintf("took back the move of %s to %v; it is in %v", s, b["where"], a["where"])
	}).AlsoOf("fitting")
	eventVoidAssembly = action.NewEvent("strike assembly", "assembly", func(s string, _, _ action.Fields) string {
		return "deleted " + s + ", entered by mistake"
	})
	eventTakeBackVoid = action.NewEvent("take back strike", "assembly", func(s string, _, _ action.Fields) string {
		return "took back that " + s + " was deleted"
	}).AlsoOf("fitting")
	eventChangeCollection = action.NewEvent("change collection", "collection",
		func(_ string, b, a action.Fields) string { return "changed the collection: " + action.Changes(b, a) })
	eventImportNumbers = action.NewEvent("import numbers", "collection", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("took over %v numbers of an older register", a["count"])
	})
)
