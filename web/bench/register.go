// Package bench has the operations about machines as they lie on the bench.
package bench

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerReckoning(api, actions)
	registerExport(api, actions)
	registerIdentified(api, actions)
}
