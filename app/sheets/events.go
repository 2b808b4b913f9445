package sheets

import (
	"fmt"

	"frugalheron/app/action"
	"frugalheron/store/history"
)

var (
	eventSaveSheet = action.NewEvent(history.ActionSaveSheet, "assembly", func(s string, _, a action.Fields) string {
		return fmt.Sprintf("saved the sheet of %s, revision %v", s, a["revision"])
	})
)
