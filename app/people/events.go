package people

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventNotePersonalData = action.NewEvent("note personal data", "personal data",
		func(_ string, _, a action.Fields) string {
			return fmt.Sprintf("noted personal data: %v on %v", a["sort"], a["medium"])
		})
	eventDecidePersonalData = action.NewEvent("decide personal data", "personal data",
		func(_ string, b, a action.Fields) string {
			return fmt.Sprintf("changed the note of personal data on %v: %s", a["medium"], action.Changes(b, a))
		})
	eventAddParty = action.NewEvent("add party", "party", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("added %v to people and organisations", a["name"])
	})
	eventChangeParty = action.NewEvent("change party", "party", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed %v: %s", a["name"], action.Changes(b, a))
	})
	eventDecideMention = action.NewEvent("decide mention", "mention", func(_ string, _, a action.Fields) string {
		if a["meant"] == true {
			return fmt.Sprintf("said that %v in a text is %v", a["said"], a["party"])
		}
		return fmt.Sprintf("said that %v in a text is not %v", a["said"], a["party"])
	})
	eventTakeBackDecisionOnMention = action.NewEvent("take back decision on mention", "mention",
		func(_ string, _, a action.Fields) string {
			return fmt.Sprintf("took back what was said of %v in a text", a["said"])
		})
)
