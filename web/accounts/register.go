// Package accounts has the operations about accounts, sessions and sign-in.
package accounts

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, deeds *app.App, sessions *Sessions) {
	registerSession(api, deeds, sessions)
	registerSessions(api, deeds, sessions)
	registerPeople(api, deeds, sessions)
}
