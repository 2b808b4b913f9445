// Package accounts has the operations about accounts, sessions and sign-in.
package accounts

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App, sessions *Sessions) {
	registerSession(api, actions, sessions)
	registerSessions(api, actions, sessions)
	registerPeople(api, actions, sessions)
}
