// Package bench has the operations about machines as they lie on the bench.
package bench

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, deeds *app.App) {
	registerReckoning(api, deeds)
	registerExport(api, deeds)
	registerIdentified(api, deeds)
}
