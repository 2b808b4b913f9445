// Package inventory has the operations about machines, assemblies and their lists.
package inventory

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, deeds *app.App) {
	registerMachines(api, deeds)
	registerAssemblies(api, deeds)
	registerCollection(api, deeds)
	registerPlaces(api, deeds)
}
