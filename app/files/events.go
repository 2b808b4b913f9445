package files

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventDrawAnnotation = action.NewEvent("draw plan", "assembly", func(s string, _, a action.Fields) string {
		return fmt.Sprintf("numbered the picture of %s: %v numbers, %v outlines", s, a["callouts"], a["blocks"])
	})
	eventAttach = action.NewEvent("attach", "attachment", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("added the %v %v", a["kind"], a["fileName"])
	})
	eventChangeAttachment = action.NewEvent("change attachment", "attachment",
		func(_ string, b, a action.Fields) string {
			return fmt.Sprintf("changed what is said of %v: %s", a["fileName"], action.Changes(b, a))
		})
	eventVoidAttachment = action.NewEvent("strike attachment", "attachment",
		func(_ string, b, _ action.Fields) string {
			return fmt.Sprintf("deleted the %v %v", b["kind"], b["fileName"])
		})
	eventTakeBackVoidOfAttachment = action.NewEvent("take back strike of attachment", "attachment",
		func(_ string, b, _ action.Fields) string {
			return fmt.Sprintf("took back that %v was deleted", b["fileName"])
		})
)
