package parts

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventAddStock = action.NewEvent("add stock", "stock", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("put %v x %v into the stores", a["count"], a["what"])
	})
	eventKeepPart = action.NewEvent("keep part", "stock", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("kept the part that was taken out: %v", a["what"])
	})
	eventChangeStock = action.NewEvent("change stock", "stock", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed %v in the stores: %s", a["what"], action.Changes(b, a))
	})
	eventUseStock = action.NewEvent("use stock", "stock", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("used %v for a job: %v are left of %v", a["what"], a["count"], b["count"])
	})
	eventVoidStock = action.NewEvent("void stock", "stock", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("deleted %v from the stores", b["what"])
	})
	eventTakeBackVoidOfStock = action.NewEvent("take back void of stock", "stock",
		func(_ string, _, a action.Fields) string {
			return fmt.Sprintf("took back that %v was deleted from the stores", a["what"])
		})

	eventAddOrder = action.NewEvent("add order", "order", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("ordered of %v: %v", a["supplier"], a["lines"])
	})
	eventChangeOrder = action.NewEvent("change order", "order", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed the order of %v: %s", a["supplier"], action.Changes(b, a))
	})
	eventBookArrival = action.NewEvent("book arrival", "order", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("booked what arrived of %v: %s", a["supplier"], action.Changes(b, a))
	})
	eventVoidOrder = action.NewEvent("void order", "order", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("deleted the order of %v", b["supplier"])
	})
	eventTakeBackVoidOfOrder = action.NewEvent("take back void of order", "order",
		func(_ string, _, a action.Fields) string {
			return fmt.Sprintf("took back that the order of %v was deleted", a["supplier"])
		})

	eventSetAside = action.NewEvent("set aside", "job", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("set %v x %v aside for the job %v", a["count"], a["part"], a["job"])
	})
	eventRelease = action.NewEvent("release", "job", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("no longer set aside for the job %v: %v x %v", b["job"], b["count"], b["part"])
	})
)
