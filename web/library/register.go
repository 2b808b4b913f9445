// Package library has the operations about types, makers and models.
package library

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, deeds *app.App) {
	registerLibrary(api, deeds)
	registerModels(api, deeds)
	registerMakers(api, deeds)
}
