package web

import (
	"frugalheron/app"
	"frugalheron/web/accounts"
	"frugalheron/web/arrivals"
	"frugalheron/web/bench"
	"frugalheron/web/condition"
	"frugalheron/web/dating"
	"frugalheron/web/evidence"
	"frugalheron/web/files"
	"frugalheron/web/history"
	"frugalheron/web/httpx"
	"frugalheron/web/inventory"
	"frugalheron/web/library"
	"frugalheron/web/people"
	"frugalheron/web/quickentry"
	"frugalheron/web/roms"
	"frugalheron/web/sheets"
	"frugalheron/web/teardown"
	"frugalheron/web/unknowns"
)

// registerAll adds the operations of all subjects.
func registerAll(api *httpx.API, deeds *app.App, sessions *accounts.Sessions) {
	accounts.Register(api, deeds, sessions)
	inventory.Register(api, deeds)
	sheets.Register(api, deeds)
	bench.Register(api, deeds)
	library.Register(api, deeds)
	history.Register(api, deeds)
	quickentry.Register(api, deeds)
	evidence.Register(api, deeds)
	people.Register(api, deeds)
	arrivals.Register(api, deeds)
	files.Register(api, deeds)
	roms.Register(api, deeds)
	dating.Register(api, deeds)
	unknowns.Register(api, deeds)
	teardown.Register(api, deeds)
	condition.Register(api, deeds)
}
