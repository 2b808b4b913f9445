package teardown

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventMapConnector = action.NewEvent("map connector", "connector", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("put the connector %v on the map", a["name"])
	})
	eventChangeConnector = action.NewEvent("change connector", "connector", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed the connector %v: %s", a["name"], action.Changes(b, a))
	})
	eventVoidConnector = action.NewEvent("strike connector", "connector", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("took the connector %v off the map", b["name"])
	})
	eventTakeBackVoidOfConnector = action.NewEvent("take back strike of connector", "connector",
		func(_ string, _, a action.Fields) string {
			return fmt.Sprintf("put the connector %v back on the map", a["name"])
		})
	eventUnplugConnector = action.NewEvent("unplug connector", "connector", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("unplugged %v", a["name"])
	})
	eventPlugInConnector = action.NewEvent("plug in connector", "connector", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("plugged in %v", a["name"])
	})
	eventStartTeardown = action.NewEvent("start teardown", "teardown", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("began to open it: %v", a["purpose"])
	})
	eventTakeOff = action.NewEvent("take off", "teardown step", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("took off %v", a["line"])
	})
	eventChangeStep = action.NewEvent("change step", "teardown step", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed a step from %v to %v", b["line"], a["line"])
	})
	eventVoidStep = action.NewEvent("strike step", "teardown step",
		func(_ string, b, _ action.Fields) string { return fmt.Sprintf("deleted the step %v", b["line"]) })
	eventTakeBackVoidOfStep = action.NewEvent("take back strike of step", "teardown step",
		func(_ string, _, a action.Fields) string {
			return fmt.Sprintf("put the step %v back into the log", a["off"])
		})
	eventPutBack = action.NewEvent("put back", "teardown step", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("put back %v", a["off"])
	})
	eventLeaveOff = action.NewEvent("leave off", "teardown step", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("left off %v: %v", a["off"], a["reason"])
	})
	eventTakeOffAgain = action.NewEvent("take off again", "teardown step", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("took off %v again", a["off"])
	})
	eventEndTeardown = action.NewEvent("end teardown", "teardown", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("ended the log, %v: %v", a["outcome"], a["why"])
	})
	eventReopenTeardown = action.NewEvent("reopen teardown", "teardown", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("took back that the log ended: %v", a["purpose"])
	})
	eventMakeProcedure = action.NewEvent("make procedure", "procedure", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("made the procedure %v of %v %v", a["title"], a["maker"], a["model"])
	})
	eventChangeProcedure = action.NewEvent("change procedure", "procedure", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed the procedure %v: %s", a["title"], action.Changes(b, a))
	})
)
