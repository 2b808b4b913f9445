// Package inventory has the operations about machines, assemblies and their lists.
package inventory

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerMachines(api, actions)
	registerAssemblies(api, actions)
	registerCollection(api, actions)
	registerPlaces(api, actions)
}
