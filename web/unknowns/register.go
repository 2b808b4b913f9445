// Package unknowns has the operations about what nobody knows yet.
package unknowns

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerQuestions(api, actions)
	registerIdentifications(api, actions)
}
