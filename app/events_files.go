package app

import "fmt"

var (
	eventDrawPlan = NewEvent("draw plan", "assembly", func(s string, _, a fields) string {
		return fmt.Sprintf("numbered the picture of %s: %v numbers, %v outlines", s, a["callouts"], a["blocks"])
	})
	eventAttach           = NewEvent("attach", "attachment", func(_ string, _, a fields) string { return fmt.Sprintf("added the %v %v", a["kind"], a["fileName"]) })
	eventChangeAttachment = NewEvent("change attachment", "attachment", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed what is said of %v: %s", a["fileName"], changes(b, a))
	})
	eventStrikeAttachment = NewEvent("strike attachment", "attachment", func(_ string, b, _ fields) string {
		return fmt.Sprintf("struck out the %v %v", b["kind"], b["fileName"])
	})
	eventTakeBackStrikeOfAttachment = NewEvent("take back strike of attachment", "attachment", func(_ string, b, _ fields) string {
		return fmt.Sprintf("took back that %v was struck out", b["fileName"])
	})
)
