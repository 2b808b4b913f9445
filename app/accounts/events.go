package accounts

import (
	"fmt"

	"frugalheron/app/action"
)

// Events that the history keeps, each with what it was done to and what was done in a curator's words: to which
// subject, from which state to which. White space is set right afterwards.
var (
	eventChangePassword = action.NewEvent("change password", "account", func(_ string, _, _ action.Fields) string {
		return "changed the password of the account"
	})
	eventSetPassword = action.NewEvent("set password", "account", func(_ string, _, _ action.Fields) string {
		return "set the password of the account"
	})
	eventInviteAccount = action.NewEvent("invite account", "account", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("invited %v (%v)", a["login"], a["role"])
	})
	eventResetAccount = action.NewEvent("reset account", "account", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("made a link to reset the password of %v", a["login"])
	})
	eventChangeAccount = action.NewEvent("change account", "account", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed the account %v: %s", a["login"], action.Changes(b, a))
	})
	eventAddAccount = action.NewEvent("add account", "account", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("added the account %v (%v)", a["login"], a["role"])
	})
)
