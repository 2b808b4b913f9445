package wanted

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventAddWant = action.NewEvent("add want", "want", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("wants %v", a["what"])
	})
	eventChangeWant = action.NewEvent("change want", "want", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed what is wanted, %v: %s", a["what"], action.Changes(b, a))
	})
	eventVoidWant = action.NewEvent("strike want", "want", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("deleted that %v is wanted", b["what"])
	})
	eventTakeBackVoidOfWant = action.NewEvent("take back strike of want", "want", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("took back that %v was deleted from what is wanted", a["what"])
	})
	eventAddOffer = action.NewEvent("add offer", "offer", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("noted the offer %v", a["title"])
	})
	eventChangeOffer = action.NewEvent("change offer", "offer", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed the offer %v: %s", a["title"], action.Changes(b, a))
	})
	eventTakeOffer = action.NewEvent("take offer", "offer", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("the offer %v became a lot", a["title"])
	})
	eventVoidOffer = action.NewEvent("strike offer", "offer", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("deleted the offer %v", b["title"])
	})
	eventTakeBackVoidOfOffer = action.NewEvent("take back strike of offer", "offer",
		func(_ string, _, a action.Fields) string {
			return fmt.Sprintf("took back that the offer %v was deleted", a["title"])
		})
)
