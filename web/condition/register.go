// Package condition has the operations about the condition of machines.
package condition

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerJudge(api, actions)
}
