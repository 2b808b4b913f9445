// Package history has the operations about the history.
package history

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerHistory(api, actions)
}
