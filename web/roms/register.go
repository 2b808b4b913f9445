// Package roms has the operations about read-only memories.
package roms

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerRoms(api, actions)
	registerChipReadings(api, actions)
}
