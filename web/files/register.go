// Package files has the operations about pictures and documents.
package files

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerAttachments(api, actions)
	registerAnnotations(api, actions)
}
