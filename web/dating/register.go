// Package dating has the operations about when machines were built.
package dating

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerDating(api, actions)
}
