// Package arrivals has the operations about how things came.
package arrivals

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerArrivals(api, actions)
}
