// Package evidence has the operations about what sources say of machines.
package evidence

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerEvidence(api, actions)
}
