package console

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventListen = action.NewEvent("listen to console", "console", func(_ string, _, a action.Fields) string {
		return "began to listen to its console" + duringOf(a)
	})
	eventHeard = action.NewEvent("console heard", "console", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("heard its console, %v: %v%s", a["bytes"], a["ended"], duringOf(a))
	})
	eventType = action.NewEvent("type on console", "console", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("typed on its console: %v", a["typed"])
	})
	eventTypedOff = action.NewEvent("keep console text", "console", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("typed off what it showed, %v%s", a["bytes"], duringOf(a))
	})
	eventVoid = action.NewEvent("strike console text", "console", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("deleted what its console said on %v", b["on"])
	})
	eventTakeBackVoid = action.NewEvent("take back strike of console text", "console",
		func(_ string, _, a action.Fields) string {
			return fmt.Sprintf("took back that what its console said on %v was deleted", a["on"])
		})
)

func duringOf(f action.Fields) string {
	if during, ok := f["during"].(string); ok && during != "" {
		return ", during " + during
	}
	return ""
}
