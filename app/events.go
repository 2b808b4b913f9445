package app

import (
	"fmt"
	"slices"
	"strings"
)

type fields = map[string]any

// Events that the history keeps, each with what it was done to and what was done in a curator's words: to which subject,
// from which state to which. White space is set right afterwards.
var (
	eventCreateMachine = newEvent("create machine", "machine", func(s string, _, _ fields) string { return "entered " + s })
	eventChangeMachine = newEvent("change machine", "machine", func(_ string, b, a fields) string { return "changed the record: " + changes(b, a) })
	eventMoveMachine   = newEvent("move machine", "machine", func(s string, b, a fields) string {
		return fmt.Sprintf("moved %s from %v to %v", s, b["where"], a["where"])
	})
	eventTakeBackMachineMove = newEvent("take back machine move", "machine", func(s string, b, a fields) string {
		return fmt.Sprintf("took back the move of %s to %v; it is in %v", s, b["where"], a["where"])
	})
	eventNote         = newEvent("note", "machine", func(_ string, _, a fields) string { return fmt.Sprintf("noted: %v", a["note"]) })
	eventTakeBackNote = newEvent("take back note", "machine", func(_ string, b, _ fields) string { return fmt.Sprintf("took back the note: %v", b["note"]) })

	eventAddAssembly    = newEvent("add assembly", "assembly", func(s string, _, _ fields) string { return "added " + s })
	eventChangeAssembly = newEvent("change assembly", "assembly", func(s string, b, a fields) string { return "changed details of " + s + ": " + changes(b, a) })
	eventSaveSheet      = newEvent("save sheet", "assembly", func(s string, _, a fields) string {
		return fmt.Sprintf("saved the sheet of %s, revision %v", s, a["revision"])
	})
	eventMoveAssembly = newEvent("move assembly", "assembly", func(s string, b, a fields) string {
		return fmt.Sprintf("moved %s from %v to %v", s, b["where"], a["where"])
	})
	eventReceiveAssembly = newEvent("receive assembly", "fitting", func(_ string, _, a fields) string { return fmt.Sprintf("received %v from %v", a["title"], a["from"]) })
	eventTakeBackMove    = newEvent("take back move", "assembly", func(s string, b, a fields) string {
		return fmt.Sprintf("took back the move of %s to %v; it is in %v", s, b["where"], a["where"])
	}).alsoOf("fitting")
	eventStrikeAssembly = newEvent("strike assembly", "assembly", func(s string, _, _ fields) string { return "struck out " + s + ", entered by mistake" })
	eventTakeBackStrike = newEvent("take back strike", "assembly", func(s string, _, _ fields) string { return "took back that " + s + " was struck out" }).alsoOf("fitting")

	eventStateEvidence = newEvent("state evidence", "statement", func(_ string, _, a fields) string {
		return fmt.Sprintf("stated %v %v, by %v", a["attribute"], a["value"], a["kind"])
	})
	eventWithdrawStatement = newEvent("withdraw statement", "statement", func(_ string, b, a fields) string {
		return fmt.Sprintf("withdrew the statement %v %v: %v", b["attribute"], b["value"], a["withdrawn"])
	})
	eventLetStatementCount = newEvent("let statement count", "statement", func(_ string, b, _ fields) string {
		return fmt.Sprintf("let the statement %v %v count again", b["attribute"], b["value"])
	})
	eventDecideMeeting = newEvent("decide meeting", "machine", func(_ string, _, a fields) string {
		return fmt.Sprintf("%v the meeting of %v with %v: %v", a["decision"], a["value"], a["other"], a["reason"])
	}).alsoOf("assembly", "acquisition").forStaff()
	eventReadChip = newEvent("read chip", "rom read", func(_ string, _, a fields) string {
		return fmt.Sprintf("read %v of %v %v: %v", a["designator"], a["board"], a["way"], a["content"])
	})
	eventExceptRead = newEvent("except read", "rom read", func(_ string, _, a fields) string {
		return fmt.Sprintf("let one reading of %v count: %v", a["designator"], a["why"])
	})
	eventStrikeRead = newEvent("strike read", "rom read", func(_ string, b, _ fields) string {
		return fmt.Sprintf("struck out a reading of %v, of %v", b["designator"], b["readOn"])
	})
	eventTakeBackStrikeOfRead = newEvent("take back strike of read", "rom read", func(_ string, _, a fields) string {
		return fmt.Sprintf("took back that the reading of %v, of %v, was struck out", a["designator"], a["readOn"])
	})
	eventNameRom = newEvent("name rom", "rom image", func(_ string, b, a fields) string {
		return fmt.Sprintf("said of the image %v %v: %s", a["name"], a["romVersion"], changes(b, a))
	})
	eventNameRomSet = newEvent("name rom set", "rom set", func(_ string, _, a fields) string {
		return fmt.Sprintf("named the set %v: %v chips of %v", a["name"], a["chips"], a["board"])
	})
	eventMakeRom = newEvent("make rom", "rom image", func(_ string, _, a fields) string {
		return fmt.Sprintf("made the image %v: %v", a["content"], a["from"])
	})
	eventRecogniseType = newEvent("recognise type", "recognition", func(_ string, _, a fields) string {
		return fmt.Sprintf("recognised %v parts as %v: %v", a["parts"], a["number"], a["function"])
	})
	eventAsk            = newEvent("ask", "question", func(_ string, _, a fields) string { return fmt.Sprintf("asked about %v: %v", a["subject"], a["text"]) })
	eventChangeQuestion = newEvent("change question", "question", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the question about %v: %s", a["subject"], changes(b, a))
	})
	eventGuess = newEvent("guess", "question", func(_ string, _, a fields) string {
		return fmt.Sprintf("guessed about %v: %v, because %v", a["subject"], a["guess"], a["reason"])
	})
	eventAnswerQuestion = newEvent("answer question", "question", func(_ string, _, a fields) string {
		return fmt.Sprintf("answered the question about %v: %v (%v)", a["subject"], a["answer"], a["source"])
	})
	eventWeighMystery  = newEvent("weigh mystery", "assembly", func(s string, _, a fields) string { return fmt.Sprintf("weighed what %s could be: %v", s, a["why"]) })
	eventDecideMystery = newEvent("decide mystery", "assembly", func(s string, _, a fields) string {
		return fmt.Sprintf("decided that %s is %v (%v): %v", s, a["is"], a["sure"], a["reason"])
	})
	eventDrawPlan = newEvent("draw plan", "assembly", func(s string, _, a fields) string {
		return fmt.Sprintf("numbered the picture of %s: %v numbers, %v outlines", s, a["callouts"], a["blocks"])
	})
	eventMapConnector    = newEvent("map connector", "connector", func(_ string, _, a fields) string { return fmt.Sprintf("put the connector %v on the map", a["name"]) })
	eventChangeConnector = newEvent("change connector", "connector", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the connector %v: %s", a["name"], changes(b, a))
	})
	eventStrikeConnector           = newEvent("strike connector", "connector", func(_ string, b, _ fields) string { return fmt.Sprintf("took the connector %v off the map", b["name"]) })
	eventTakeBackStrikeOfConnector = newEvent("take back strike of connector", "connector", func(_ string, _, a fields) string {
		return fmt.Sprintf("put the connector %v back on the map", a["name"])
	})
	eventUnplugConnector = newEvent("unplug connector", "connector", func(_ string, _, a fields) string { return fmt.Sprintf("unplugged %v", a["name"]) })
	eventPlugInConnector = newEvent("plug in connector", "connector", func(_ string, _, a fields) string { return fmt.Sprintf("plugged in %v", a["name"]) })
	eventStartTeardown   = newEvent("start teardown", "teardown", func(_ string, _, a fields) string { return fmt.Sprintf("began to open it: %v", a["purpose"]) })
	eventTakeOff         = newEvent("take off", "teardown step", func(_ string, _, a fields) string { return fmt.Sprintf("took off %v", a["line"]) })
	eventChangeStep      = newEvent("change step", "teardown step", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed a step from %v to %v", b["line"], a["line"])
	})
	eventStrikeStep           = newEvent("strike step", "teardown step", func(_ string, b, _ fields) string { return fmt.Sprintf("struck out the step %v", b["line"]) })
	eventTakeBackStrikeOfStep = newEvent("take back strike of step", "teardown step", func(_ string, _, a fields) string { return fmt.Sprintf("put the step %v back into the log", a["off"]) })
	eventPutBack              = newEvent("put back", "teardown step", func(_ string, _, a fields) string { return fmt.Sprintf("put back %v", a["off"]) })
	eventLeaveOff             = newEvent("leave off", "teardown step", func(_ string, _, a fields) string { return fmt.Sprintf("left off %v: %v", a["off"], a["reason"]) })
	eventTakeOffAgain         = newEvent("take off again", "teardown step", func(_ string, _, a fields) string { return fmt.Sprintf("took off %v again", a["off"]) })
	eventEndTeardown          = newEvent("end teardown", "teardown", func(_ string, _, a fields) string {
		return fmt.Sprintf("ended the log, %v: %v", a["outcome"], a["why"])
	})
	eventReopenTeardown = newEvent("reopen teardown", "teardown", func(_ string, _, a fields) string {
		return fmt.Sprintf("took back that the log ended: %v", a["purpose"])
	})
	eventMakeProcedure = newEvent("make procedure", "procedure", func(_ string, _, a fields) string {
		return fmt.Sprintf("made the procedure %v of %v %v", a["title"], a["maker"], a["model"])
	})
	eventChangeProcedure = newEvent("change procedure", "procedure", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the procedure %v: %s", a["title"], changes(b, a))
	})
	eventStartSurvey = newEvent("start survey", "survey", func(_ string, _, a fields) string { return fmt.Sprintf("began the survey of %v", a["on"]) })
	eventInspect     = newEvent("inspect", "survey", func(_ string, _, a fields) string {
		return fmt.Sprintf("survey of %v, %v: %v, findings: %v", a["on"], a["subsystem"], a["look"], a["findings"])
	})
	eventEndSurvey = newEvent("end survey", "survey", func(_ string, _, a fields) string {
		return fmt.Sprintf("ended the survey of %v: %v subsystems inspected", a["on"], a["inspected"])
	})
	eventFind        = newEvent("find", "finding", func(_ string, _, a fields) string { return "found " + findingWords(a) })
	eventSeeFinding  = newEvent("see finding", "finding", func(_ string, _, a fields) string { return "saw again " + findingWords(a) })
	eventFindingGone = newEvent("finding gone", "finding", func(_ string, _, a fields) string {
		return fmt.Sprintf("said that it is gone: %v, %v", a["kind"], a["where"])
	})
	eventStrikeFinding = newEvent("strike finding", "finding", func(_ string, b, _ fields) string {
		return fmt.Sprintf("struck out the finding %v, %v", b["kind"], b["where"])
	})
	eventTakeBackStrikeOfFinding = newEvent("take back strike of finding", "finding", func(_ string, _, a fields) string {
		return fmt.Sprintf("took back that the finding %v, %v, was struck out", a["kind"], a["where"])
	})
	eventMeasure     = newEvent("measure", "measurement", func(_ string, _, a fields) string { return measurementWords("measured", a) })
	eventReadMeter   = newEvent("read meter", "measurement", func(_ string, _, a fields) string { return fmt.Sprintf("read %v: %v", a["point"], a["value"]) })
	eventDropReading = newEvent("drop reading", "measurement", func(_ string, b, _ fields) string {
		return fmt.Sprintf("took out a reading of %v: %v", b["point"], b["value"])
	})
	eventMeterStopped = newEvent("meter stopped", "measurement", func(_ string, _, a fields) string {
		return fmt.Sprintf("the meter stopped at %v: %v", a["point"], a["why"])
	})
	eventStrikeMeasurement = newEvent("strike measurement", "measurement", func(_ string, b, _ fields) string {
		return measurementWords("struck out the measurement", b)
	})
	eventTakeBackStrikeOfMeasurement = newEvent("take back strike of measurement", "measurement", func(_ string, _, a fields) string {
		return measurementWords("took back that it was struck out:", a)
	})
	eventNoteAdjuster = newEvent("note adjuster", "adjuster", func(_ string, _, a fields) string {
		return fmt.Sprintf("noted the adjuster %v, which stands at %v", a["name"], a["position"])
	})
	eventTurnAdjuster = newEvent("turn adjuster", "adjuster", func(_ string, b, a fields) string {
		return fmt.Sprintf("turned %v from %v to %v: %v", a["name"], b["position"], a["position"], a["why"])
	})
	eventChangeAgeingClass = newEvent("change ageing class", "ageing class", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed how often %v is looked at: %s", a["name"], changes(b, a))
	})
	eventSayClimate = newEvent("say climate", "place", func(_ string, b, a fields) string {
		return fmt.Sprintf("said that the climate of %v is %v; it was %v", a["place"], orNothing(a["climate"]), orNothing(b["climate"]))
	})
	eventAddMaker    = newEvent("add maker", "maker", func(_ string, _, a fields) string { return fmt.Sprintf("added the maker %v", a["name"]) })
	eventChangeMaker = newEvent("change maker", "maker", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the maker %v: %s", a["name"], changes(b, a))
	})
	eventAddModel = newEvent("add model", "model", func(_ string, _, a fields) string {
		return fmt.Sprintf("added the model %v %v", a["maker"], a["model"])
	})
	eventChangeModel = newEvent("change model", "model", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the model %v %v: %s", a["maker"], a["model"], changes(b, a))
	})
	eventTellCustody     = newEvent("tell custody", "custody", func(_ string, _, a fields) string { return "told of the past: " + custodyWords(a) })
	eventChangeCustody   = newEvent("change custody", "custody", func(_ string, b, a fields) string { return "changed a statement about the past: " + changes(b, a) })
	eventWithdrawCustody = newEvent("withdraw custody", "custody", func(_ string, b, a fields) string {
		return fmt.Sprintf("withdrew from the past: %s: %v", custodyWords(b), a["withdrawn"])
	})
	eventLetCustodyCount  = newEvent("let custody count", "custody", func(_ string, b, _ fields) string { return "let count again: " + custodyWords(b) })
	eventNotePersonalData = newEvent("note personal data", "personal data", func(_ string, _, a fields) string {
		return fmt.Sprintf("noted personal data: %v on %v", a["sort"], a["medium"])
	})
	eventDecidePersonalData = newEvent("decide personal data", "personal data", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the note of personal data on %v: %s", a["medium"], changes(b, a))
	})

	eventReceiveLot = newEvent("receive lot", "acquisition", func(_ string, _, a fields) string { return fmt.Sprintf("received the lot %v", a["title"]) })
	eventChangeLot  = newEvent("change lot", "acquisition", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the lot %v: %s", a["title"], changes(b, a))
	})
	eventAddLotItem    = newEvent("add lot item", "lot item", func(_ string, _, a fields) string { return fmt.Sprintf("added %v to a lot", a["title"]) })
	eventChangeLotItem = newEvent("change lot item", "lot item", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed %v of a lot: %s", a["title"], changes(b, a))
	})
	eventStrikeLotItem = newEvent("strike lot item", "lot item", func(_ string, b, _ fields) string {
		return fmt.Sprintf("took %v out of a lot, entered by mistake", b["title"])
	})
	eventTakeBackStrikeOfLotItem = newEvent("take back strike of lot item", "lot item", func(_ string, _, a fields) string { return fmt.Sprintf("put %v back into its lot", a["title"]) })
	eventItemBecomesMachine      = newEvent("item becomes machine", "lot item", func(_ string, _, a fields) string {
		return fmt.Sprintf("took %v of the lot %v as %v", a["title"], a["lot"], a["accession"])
	})
	eventUnlinkLotItem = newEvent("unlink lot item", "lot item", func(_ string, b, _ fields) string {
		return fmt.Sprintf("said that %v of a lot is not %v", b["title"], b["accession"])
	})
	eventItemGoesToStore = newEvent("item goes to store", "lot item", func(_ string, _, a fields) string {
		return fmt.Sprintf("took %v of the lot %v into store, %v", a["title"], a["lot"], a["place"])
	})
	eventChangeCollection = newEvent("change collection", "collection", func(_ string, b, a fields) string { return "changed the collection: " + changes(b, a) })
	eventImportNumbers    = newEvent("import numbers", "collection", func(_ string, _, a fields) string {
		return fmt.Sprintf("took over %v numbers of an older register", a["count"])
	})
	eventAddParty = newEvent("add party", "party", func(_ string, _, a fields) string {
		return fmt.Sprintf("added %v to people and organisations", a["name"])
	})
	eventChangeParty = newEvent("change party", "party", func(_ string, b, a fields) string { return fmt.Sprintf("changed %v: %s", a["name"], changes(b, a)) })

	eventDecideMention = newEvent("decide mention", "mention", func(_ string, _, a fields) string {
		if a["meant"] == true {
			return fmt.Sprintf("said that %v in a text is %v", a["said"], a["party"])
		}
		return fmt.Sprintf("said that %v in a text is not %v", a["said"], a["party"])
	})
	eventTakeBackDecisionOnMention = newEvent("take back decision on mention", "mention", func(_ string, _, a fields) string {
		return fmt.Sprintf("took back what was said of %v in a text", a["said"])
	})

	eventAttach           = newEvent("attach", "attachment", func(_ string, _, a fields) string { return fmt.Sprintf("added the %v %v", a["kind"], a["fileName"]) })
	eventChangeAttachment = newEvent("change attachment", "attachment", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed what is said of %v: %s", a["fileName"], changes(b, a))
	})
	eventStrikeAttachment = newEvent("strike attachment", "attachment", func(_ string, b, _ fields) string {
		return fmt.Sprintf("struck out the %v %v", b["kind"], b["fileName"])
	})
	eventTakeBackStrikeOfAttachment = newEvent("take back strike of attachment", "attachment", func(_ string, b, _ fields) string {
		return fmt.Sprintf("took back that %v was struck out", b["fileName"])
	})

	eventNameType = newEvent("name type", "own type", func(_ string, _, a fields) string {
		return fmt.Sprintf("named the type %v: %v", a["number"], a["function"])
	})
	eventChangeType = newEvent("change type", "own type", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the type %v: %s", a["number"], changes(b, a))
	})
	eventForgetType = newEvent("forget type", "own type", func(_ string, b, _ fields) string {
		return fmt.Sprintf("took the type %v out of the library", b["number"])
	})

	eventChangePassword = newEvent("change password", "account", func(_ string, _, _ fields) string { return "changed the password of the account" })
	eventSetPassword    = newEvent("set password", "account", func(_ string, _, _ fields) string { return "set the password of the account" })
	eventInviteAccount  = newEvent("invite account", "account", func(_ string, _, a fields) string { return fmt.Sprintf("invited %v (%v)", a["login"], a["role"]) })
	eventResetAccount   = newEvent("reset account", "account", func(_ string, _, a fields) string {
		return fmt.Sprintf("made a link to reset the password of %v", a["login"])
	})
	eventChangeAccount = newEvent("change account", "account", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the account %v: %s", a["login"], changes(b, a))
	})
	eventAddAccount = newEvent("add account", "account", func(_ string, _, a fields) string {
		return fmt.Sprintf("added the account %v (%v)", a["login"], a["role"])
	})
)

func findingWords(a fields) string {
	return fmt.Sprintf("%v, %v: %v on %v", a["kind"], a["where"], a["severity"], a["on"])
}

func measurementWords(deed string, f fields) string {
	return fmt.Sprintf("%s %v: %v, %v", deed, f["point"], f["said"], f["verdict"])
}

// custodyWords say a statement about the past in a few words.
func custodyWords(f fields) string {
	whom := orNothing(f["party"])
	if f["party"] == nil || f["party"] == "" {
		whom = orNothing(f["who"])
	}
	return fmt.Sprintf("%s %s %s", strings.ReplaceAll(fmt.Sprint(f["role"]), "-", " "), whom, orEmpty(f["dates"]))
}

func orEmpty(value any) string {
	if value == nil {
		return ""
	}
	return fmt.Sprint(value)
}

// fieldWords says fields by the words that forms use, in the order of the alphabet.
var fieldWords = map[string]string{
	"accession": "accession number", "eraFrom": "parts from", "eraTo": "parts to", "rev": "revision", "part": "part number",
	"serial": "serial number", "fit": "fitted", "purpose": "memory is for", "title": "name", "clockMHz": "rated clock, MHz",
	"typicalMilliamps": "current, mA", "function": "what it does",
	"priceCents": "price, cents", "estimateCents": "estimate, cents", "valueCents": "value, cents", "handCents": "share, cents", "usedFor": "used for",
	"partyId": "party", "pictureId": "picture", "saidOn": "said on", "decidedBy": "decided by", "decidedOn": "decided on", "doneOn": "carried out on",
	"accessionPattern": "pattern of accession numbers", "staffOnly": "for staff only", "cameWith": "came with", "passedOn": "passed on",
}

func changes(before, after fields) string {
	parts := []string{}
	for field, now := range after {
		was := before[field]
		if fmt.Sprint(was) == fmt.Sprint(now) {
			continue
		}
		name := fieldWords[field]
		if name == "" {
			name = field
		}
		parts = append(parts, fmt.Sprintf("%s from %s to %s", name, orNothing(was), orNothing(now)))
	}
	if len(parts) == 0 {
		return "nothing"
	}
	slices.Sort(parts)
	return strings.Join(parts, "; ")
}

func orNothing(value any) string {
	if value == nil || value == "" {
		return "nothing"
	}
	return fmt.Sprint(value)
}
