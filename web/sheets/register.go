// Package sheets has the operations about sheets.
package sheets

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerSheets(api, actions)
}
