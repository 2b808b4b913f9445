package web

import (
	"frugalheron/app"
	"frugalheron/web/httpx"
)

func registerAll(api *httpx.API, deeds *app.App, sessions *Sessions) {
	registerSession(api, deeds, sessions)
	registerSessions(api, deeds, sessions)
	registerPeople(api, deeds, sessions)
	registerMachines(api, deeds)
	registerAssemblies(api, deeds)
	registerSheets(api, deeds)
	registerReckoning(api, deeds)
	registerLibrary(api, deeds)
	registerExport(api, deeds)
	registerHistory(api, deeds)
	registerSay(api, deeds)
	registerEvidence(api, deeds)
	registerParties(api, deeds)
	registerMentions(api, deeds)
	registerArrivals(api, deeds)
	registerCollection(api, deeds)
	registerAttachments(api, deeds)
	registerRoms(api, deeds)
	registerChipReadings(api, deeds)
	registerDating(api, deeds)
	registerIdentified(api, deeds)
	registerModels(api, deeds)
	registerQuestions(api, deeds)
	registerMysteries(api, deeds)
	registerPlans(api, deeds)
	registerMakers(api, deeds)
	registerOpenUp(api, deeds)
	registerJudge(api, deeds)
}
