package diagnosis

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventAdd = action.NewEvent("begin diagnosis", "diagnosis", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("began to look for the cause of: %v", a["symptom"])
	})
	eventChange = action.NewEvent("change diagnosis", "diagnosis", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("looked for the cause of %v: %s", a["symptom"], action.Changes(b, a))
	})
	eventVoid = action.NewEvent("strike diagnosis", "diagnosis", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("deleted that a cause was looked for: %v", b["symptom"])
	})
	eventTakeBackVoid = action.NewEvent("take back strike of diagnosis", "diagnosis",
		func(_ string, _, a action.Fields) string {
			return fmt.Sprintf("took back that the diagnosis of %v was deleted", a["symptom"])
		})
	eventChangeLayout = action.NewEvent("lay out memory", "memory layout", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("wrote down how its memory is laid out: %s", action.Changes(b, a))
	})
)
