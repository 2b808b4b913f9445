package web

import (
	"frugalheron/app"
	"frugalheron/web/accounts"
	"frugalheron/web/arrivals"
	"frugalheron/web/bench"
	"frugalheron/web/condition"
	"frugalheron/web/console"
	"frugalheron/web/dating"
	"frugalheron/web/diagnosis"
	"frugalheron/web/engines"
	"frugalheron/web/evidence"
	"frugalheron/web/files"
	"frugalheron/web/history"
	"frugalheron/web/httpx"
	"frugalheron/web/inventory"
	"frugalheron/web/library"
	"frugalheron/web/packs"
	"frugalheron/web/parts"
	"frugalheron/web/people"
	"frugalheron/web/power"
	"frugalheron/web/practice"
	"frugalheron/web/quickentry"
	"frugalheron/web/roms"
	"frugalheron/web/setup"
	"frugalheron/web/sharing"
	"frugalheron/web/sheets"
	"frugalheron/web/signs"
	"frugalheron/web/teardown"
	"frugalheron/web/unknowns"
	"frugalheron/web/upkeep"
	"frugalheron/web/wanted"
	"frugalheron/web/work"
)

// registerAll adds the operations of all subjects.
func registerAll(api *httpx.API, actions *app.App, sessions *accounts.Sessions) {
	accounts.Register(api, actions, sessions)
	inventory.Register(api, actions)
	sheets.Register(api, actions)
	bench.Register(api, actions)
	library.Register(api, actions)
	history.Register(api, actions)
	quickentry.Register(api, actions)
	evidence.Register(api, actions)
	people.Register(api, actions)
	arrivals.Register(api, actions)
	files.Register(api, actions)
	roms.Register(api, actions)
	dating.Register(api, actions)
	unknowns.Register(api, actions)
	teardown.Register(api, actions)
	condition.Register(api, actions)
	signs.Register(api, actions)
	packs.Register(api, actions)
	sharing.Register(api, actions)
	power.Register(api, actions)
	console.Register(api, actions)
	diagnosis.Register(api, actions)
	setup.Register(api, actions)
	engines.Register(api, actions)
	practice.Register(api, actions)
	work.Register(api, actions)
	parts.Register(api, actions)
	upkeep.Register(api, actions)
	wanted.Register(api, actions)
}
