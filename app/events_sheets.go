package app

import (
	"fmt"

	"frugalheron/store"
)

var (
	eventSaveSheet = NewEvent(store.DeedSaveSheet, "assembly", func(s string, _, a fields) string {
		return fmt.Sprintf("saved the sheet of %s, revision %v", s, a["revision"])
	})
)
