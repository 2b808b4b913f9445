package app

import "fmt"

var (
	eventNotePersonalData = NewEvent("note personal data", "personal data", func(_ string, _, a fields) string {
		return fmt.Sprintf("noted personal data: %v on %v", a["sort"], a["medium"])
	})
	eventDecidePersonalData = NewEvent("decide personal data", "personal data", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the note of personal data on %v: %s", a["medium"], changes(b, a))
	})
	eventAddParty = NewEvent("add party", "party", func(_ string, _, a fields) string {
		return fmt.Sprintf("added %v to people and organisations", a["name"])
	})
	eventChangeParty   = NewEvent("change party", "party", func(_ string, b, a fields) string { return fmt.Sprintf("changed %v: %s", a["name"], changes(b, a)) })
	eventDecideMention = NewEvent("decide mention", "mention", func(_ string, _, a fields) string {
		if a["meant"] == true {
			return fmt.Sprintf("said that %v in a text is %v", a["said"], a["party"])
		}
		return fmt.Sprintf("said that %v in a text is not %v", a["said"], a["party"])
	})
	eventTakeBackDecisionOnMention = NewEvent("take back decision on mention", "mention", func(_ string, _, a fields) string {
		return fmt.Sprintf("took back what was said of %v in a text", a["said"])
	})
)
