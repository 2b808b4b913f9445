package app

import "fmt"

var (
	eventMapConnector    = NewEvent("map connector", "connector", func(_ string, _, a fields) string { return fmt.Sprintf("put the connector %v on the map", a["name"]) })
	eventChangeConnector = NewEvent("change connector", "connector", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the connector %v: %s", a["name"], changes(b, a))
	})
	eventStrikeConnector           = NewEvent("strike connector", "connector", func(_ string, b, _ fields) string { return fmt.Sprintf("took the connector %v off the map", b["name"]) })
	eventTakeBackStrikeOfConnector = NewEvent("take back strike of connector", "connector", func(_ string, _, a fields) string {
		return fmt.Sprintf("put the connector %v back on the map", a["name"])
	})
	eventUnplugConnector = NewEvent("unplug connector", "connector", func(_ string, _, a fields) string { return fmt.Sprintf("unplugged %v", a["name"]) })
	eventPlugInConnector = NewEvent("plug in connector", "connector", func(_ string, _, a fields) string { return fmt.Sprintf("plugged in %v", a["name"]) })
	eventStartTeardown   = NewEvent("start teardown", "teardown", func(_ string, _, a fields) string { return fmt.Sprintf("began to open it: %v", a["purpose"]) })
	eventTakeOff         = NewEvent("take off", "teardown step", func(_ string, _, a fields) string { return fmt.Sprintf("took off %v", a["line"]) })
	eventChangeStep      = NewEvent("change step", "teardown step", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed a step from %v to %v", b["line"], a["line"])
	})
	eventStrikeStep           = NewEvent("strike step", "teardown step", func(_ string, b, _ fields) string { return fmt.Sprintf("struck out the step %v", b["line"]) })
	eventTakeBackStrikeOfStep = NewEvent("take back strike of step", "teardown step", func(_ string, _, a fields) string { return fmt.Sprintf("put the step %v back into the log", a["off"]) })
	eventPutBack              = NewEvent("put back", "teardown step", func(_ string, _, a fields) string { return fmt.Sprintf("put back %v", a["off"]) })
	eventLeaveOff             = NewEvent("leave off", "teardown step", func(_ string, _, a fields) string { return fmt.Sprintf("left off %v: %v", a["off"], a["reason"]) })
	eventTakeOffAgain         = NewEvent("take off again", "teardown step", func(_ string, _, a fields) string { return fmt.Sprintf("took off %v again", a["off"]) })
	eventEndTeardown          = NewEvent("end teardown", "teardown", func(_ string, _, a fields) string {
		return fmt.Sprintf("ended the log, %v: %v", a["outcome"], a["why"])
	})
	eventReopenTeardown = NewEvent("reopen teardown", "teardown", func(_ string, _, a fields) string {
		return fmt.Sprintf("took back that the log ended: %v", a["purpose"])
	})
	eventMakeProcedure = NewEvent("make procedure", "procedure", func(_ string, _, a fields) string {
		return fmt.Sprintf("made the procedure %v of %v %v", a["title"], a["maker"], a["model"])
	})
	eventChangeProcedure = NewEvent("change procedure", "procedure", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the procedure %v: %s", a["title"], changes(b, a))
	})
)
