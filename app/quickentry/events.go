package quickentry

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventNote = action.NewEvent("note", "machine", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("noted: %v", a["note"])
	})
	eventTakeBackNote = action.NewEvent("take back note", "machine", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("took back the note: %v", b["note"])
	})
)
