// Package condition has the operations about the condition of machines.
package condition

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, deeds *app.App) {
	registerJudge(api, deeds)
}
