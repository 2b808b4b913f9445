package signs

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventSeeSign = action.NewEvent("see sign", "sighting", func(_ string, _, a action.Fields) string {
		return signWords("saw", a)
	})
	eventVoidSighting = action.NewEvent("strike sighting", "sighting", func(_ string, b, _ action.Fields) string {
		return signWords("deleted that it showed", b)
	})
	eventTakeBackVoidOfSighting = action.NewEvent("take back strike of sighting", "sighting",
		func(_ string, _, a action.Fields) string {
			return signWords("took back that it was deleted that it showed", a)
		})
)

func signWords(did string, f action.Fields) string {
	words := fmt.Sprintf("%s %v: %v", did, f["kind"], f["shown"])
	if during, ok := f["during"].(string); ok && during != "" {
		words += ", during " + during
	}
	return fmt.Sprintf("%s, on %v", words, f["on"])
}
