// Package quickentry has the operations about quick entry.
package quickentry

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerQuickEntry(api, actions)
}
