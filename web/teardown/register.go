// Package teardown has the operations about opening machines.
package teardown

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerOpenUp(api, actions)
}
