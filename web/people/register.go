// Package people has the operations about people, and where texts name them.
package people

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerParties(api, actions)
	registerMentions(api, actions)
}
