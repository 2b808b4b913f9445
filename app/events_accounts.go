package app

import "fmt"

// Events that the history keeps, each with what it was done to and what was done in a curator's words: to which subject,
// from which state to which. White space is set right afterwards.
var (
	eventChangePassword = NewEvent("change password", "account", func(_ string, _, _ fields) string { return "changed the password of the account" })
	eventSetPassword    = NewEvent("set password", "account", func(_ string, _, _ fields) string { return "set the password of the account" })
	eventInviteAccount  = NewEvent("invite account", "account", func(_ string, _, a fields) string { return fmt.Sprintf("invited %v (%v)", a["login"], a["role"]) })
	eventResetAccount   = NewEvent("reset account", "account", func(_ string, _, a fields) string {
		return fmt.Sprintf("made a link to reset the password of %v", a["login"])
	})
	eventChangeAccount = NewEvent("change account", "account", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the account %v: %s", a["login"], changes(b, a))
	})
	eventAddAccount = NewEvent("add account", "account", func(_ string, _, a fields) string {
		return fmt.Sprintf("added the account %v (%v)", a["login"], a["role"])
	})
)
