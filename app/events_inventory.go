package app

import "fmt"

var (
	eventCreateMachine = NewEvent("create machine", "machine", func(s string, _, _ fields) string { return "entered " + s })
	eventChangeMachine = NewEvent("change machine", "machine", func(_ string, b, a fields) string { return "changed the record: " + changes(b, a) })
	eventMoveMachine   = NewEvent("move machine", "machine", func(s string, b, a fields) string {
		return fmt.Sprintf("moved %s from %v to %v", s, b["where"], a["where"])
	})
	eventTakeBackMachineMove = NewEvent("take back machine move", "machine", func(s string, b, a fields) string {
		return fmt.Sprintf("took back the move of %s to %v; it is in %v", s, b["where"], a["where"])
	})
	eventAddAssembly    = NewEvent("add assembly", "assembly", func(s string, _, _ fields) string { return "added " + s })
	eventChangeAssembly = NewEvent("change assembly", "assembly", func(s string, b, a fields) string { return "changed details of " + s + ": " + changes(b, a) })
	eventMoveAssembly   = NewEvent("move assembly", "assembly", func(s string, b, a fields) string {
		return fmt.Sprintf("moved %s from %v to %v", s, b["where"], a["where"])
	})
	eventReceiveAssembly = NewEvent("receive assembly", "fitting", func(_ string, _, a fields) string { return fmt.Sprintf("received %v from %v", a["title"], a["from"]) })
	eventTakeBackMove    = NewEvent("take back move", "assembly", func(s string, b, a fields) string {
		return fmt.Sprintf("took back the move of %s to %v; it is in %v", s, b["where"], a["where"])
	}).alsoOf("fitting")
	eventStrikeAssembly   = NewEvent("strike assembly", "assembly", func(s string, _, _ fields) string { return "struck out " + s + ", entered by mistake" })
	eventTakeBackStrike   = NewEvent("take back strike", "assembly", func(s string, _, _ fields) string { return "took back that " + s + " was struck out" }).alsoOf("fitting")
	eventChangeCollection = NewEvent("change collection", "collection", func(_ string, b, a fields) string { return "changed the collection: " + changes(b, a) })
	eventImportNumbers    = NewEvent("import numbers", "collection", func(_ string, _, a fields) string {
		return fmt.Sprintf("took over %v numbers of an older register", a["count"])
	})
)
