package app

import "fmt"

var (
	eventNote         = NewEvent("note", "machine", func(_ string, _, a fields) string { return fmt.Sprintf("noted: %v", a["note"]) })
	eventTakeBackNote = NewEvent("take back note", "machine", func(_ string, b, _ fields) string { return fmt.Sprintf("took back the note: %v", b["note"]) })
)
