package setup

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventAdd = action.NewEvent("keep configuration", "configuration", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("wrote down how it is set up: %v, %v", a["title"], a["kind"])
	})
	eventChange = action.NewEvent("change configuration", "configuration", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed what is written of its setup %v: %s", a["title"], action.Changes(b, a))
	})
	eventVoid = action.NewEvent("strike configuration", "configuration", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("deleted how it was set up: %v", b["title"])
	})
	eventTakeBackVoid = action.NewEvent("take back strike of configuration", "configuration",
		func(_ string, _, a action.Fields) string {
			return fmt.Sprintf("took back that the setup %v was deleted", a["title"])
		})
	eventChangeCard = action.NewEvent("write operating card", "operating card", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("wrote its operating card: %s", action.Changes(b, a))
	})
	eventChangeBackplane = action.NewEvent("lay out slots", "backplane", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("wrote down how its slots stand: %s", action.Changes(b, a))
	})
	eventChangeRules = action.NewEvent("write memory rules", "memory rules", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("wrote down which memory it takes: %s", action.Changes(b, a))
	})
	eventAddCredential = action.NewEvent("keep credential", "credential", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("put away a credential: %v", a["what"])
	})
	eventChangeCredential = action.NewEvent("change credential", "credential",
		func(_ string, b, a action.Fields) string {
			return fmt.Sprintf("changed the credential %v: %s", a["what"], action.Changes(b, a))
		})
	eventSeeCredential = action.NewEvent("see credential", "credential", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("looked at the credential: %v", a["what"])
	})
	eventVoidCredential = action.NewEvent("strike credential", "credential", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("deleted the credential: %v", b["what"])
	})
	eventTakeBackVoidCredential = action.NewEvent("take back strike of credential", "credential",
		func(_ string, _, a action.Fields) string {
			return fmt.Sprintf("took back that the credential %v was deleted", a["what"])
		})
)
