// Package library has the operations about types, makers, models and known assemblies.
package library

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerLibrary(api, actions)
	registerModels(api, actions)
	registerMakers(api, actions)
	registerKnown(api, actions)
}
