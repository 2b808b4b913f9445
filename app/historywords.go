package app

import (
	"fmt"
	"slices"
	"strings"
)

type fields = map[string]any

// deedWords say what was done in a curator's words: to which subject, from which state to which. White
// space is set right afterwards.
var deedWords = map[string]func(subject string, before, after fields) string{
	"create machine": func(s string, _, _ fields) string { return "entered " + s },
	"change machine": func(_ string, b, a fields) string { return "changed the record: " + changes(b, a) },
	"move machine": func(s string, b, a fields) string {
		return fmt.Sprintf("moved %s from %v to %v", s, b["where"], a["where"])
	},
	"take back machine move": func(s string, b, a fields) string {
		return fmt.Sprintf("took back the move of %s to %v; it is in %v", s, b["where"], a["where"])
	},
	"note":           func(_ string, _, a fields) string { return fmt.Sprintf("noted: %v", a["note"]) },
	"take back note": func(_ string, b, _ fields) string { return fmt.Sprintf("took back the note: %v", b["note"]) },

	"add assembly":    func(s string, _, _ fields) string { return "added " + s },
	"change assembly": func(s string, b, a fields) string { return "changed details of " + s + ": " + changes(b, a) },
	"save sheet": func(s string, _, a fields) string {
		return fmt.Sprintf("saved the sheet of %s, revision %v", s, a["revision"])
	},
	"move assembly": func(s string, b, a fields) string {
		return fmt.Sprintf("moved %s from %v to %v", s, b["where"], a["where"])
	},
	"receive assembly": func(_ string, _, a fields) string { return fmt.Sprintf("received %v from %v", a["title"], a["from"]) },
	"take back move": func(s string, b, a fields) string {
		return fmt.Sprintf("took back the move of %s to %v; it is in %v", s, b["where"], a["where"])
	},
	"strike assembly":  func(s string, _, _ fields) string { return "struck out " + s + ", entered by mistake" },
	"take back strike": func(s string, _, _ fields) string { return "took back that " + s + " was struck out" },

	"state evidence": func(_ string, _, a fields) string {
		return fmt.Sprintf("stated %v %v, by %v", a["attribute"], a["value"], a["kind"])
	},
	"withdraw statement": func(_ string, b, a fields) string {
		return fmt.Sprintf("withdrew the statement %v %v: %v", b["attribute"], b["value"], a["withdrawn"])
	},
	"let statement count": func(_ string, b, _ fields) string {
		return fmt.Sprintf("let the statement %v %v count again", b["attribute"], b["value"])
	},
	"decide meeting": func(_ string, _, a fields) string {
		return fmt.Sprintf("%v the meeting of %v with %v: %v", a["decision"], a["value"], a["other"], a["reason"])
	},
	"read chip": func(_ string, _, a fields) string {
		return fmt.Sprintf("read %v of %v %v: %v", a["designator"], a["board"], a["way"], a["content"])
	},
	"except read": func(_ string, _, a fields) string {
		return fmt.Sprintf("let one reading of %v count: %v", a["designator"], a["why"])
	},
	"strike read": func(_ string, b, _ fields) string {
		return fmt.Sprintf("struck out a reading of %v, of %v", b["designator"], b["readOn"])
	},
	"take back strike of read": func(_ string, _, a fields) string {
		return fmt.Sprintf("took back that the reading of %v, of %v, was struck out", a["designator"], a["readOn"])
	},
	"name rom": func(_ string, b, a fields) string {
		return fmt.Sprintf("said of the image %v %v: %s", a["name"], a["romVersion"], changes(b, a))
	},
	"name rom set": func(_ string, _, a fields) string {
		return fmt.Sprintf("named the set %v: %v chips of %v", a["name"], a["chips"], a["board"])
	},
	"make rom": func(_ string, _, a fields) string {
		return fmt.Sprintf("made the image %v: %v", a["content"], a["from"])
	},
	"recognise type": func(_ string, _, a fields) string {
		return fmt.Sprintf("recognised %v parts as %v: %v", a["parts"], a["number"], a["function"])
	},
	"ask": func(_ string, _, a fields) string { return fmt.Sprintf("asked about %v: %v", a["subject"], a["text"]) },
	"change question": func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the question about %v: %s", a["subject"], changes(b, a))
	},
	"guess": func(_ string, _, a fields) string {
		return fmt.Sprintf("guessed about %v: %v, because %v", a["subject"], a["guess"], a["reason"])
	},
	"answer question": func(_ string, _, a fields) string {
		return fmt.Sprintf("answered the question about %v: %v (%v)", a["subject"], a["answer"], a["source"])
	},
	"weigh mystery": func(s string, _, a fields) string { return fmt.Sprintf("weighed what %s could be: %v", s, a["why"]) },
	"decide mystery": func(s string, _, a fields) string {
		return fmt.Sprintf("decided that %s is %v (%v): %v", s, a["is"], a["sure"], a["reason"])
	},
	"draw plan": func(s string, _, a fields) string {
		return fmt.Sprintf("numbered the picture of %s: %v numbers, %v outlines", s, a["callouts"], a["blocks"])
	},
	"map connector": func(_ string, _, a fields) string { return fmt.Sprintf("put the connector %v on the map", a["name"]) },
	"change connector": func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the connector %v: %s", a["name"], changes(b, a))
	},
	"strike connector": func(_ string, b, _ fields) string { return fmt.Sprintf("took the connector %v off the map", b["name"]) },
	"take back strike of connector": func(_ string, _, a fields) string {
		return fmt.Sprintf("put the connector %v back on the map", a["name"])
	},
	"unplug connector":  func(_ string, _, a fields) string { return fmt.Sprintf("unplugged %v", a["name"]) },
	"plug in connector": func(_ string, _, a fields) string { return fmt.Sprintf("plugged in %v", a["name"]) },
	"start teardown":    func(_ string, _, a fields) string { return fmt.Sprintf("began to open it: %v", a["purpose"]) },
	"take off":          func(_ string, _, a fields) string { return fmt.Sprintf("took off %v", a["line"]) },
	"change step": func(_ string, b, a fields) string {
		return fmt.Sprintf("changed a step from %v to %v", b["line"], a["line"])
	},
	"strike step":              func(_ string, b, _ fields) string { return fmt.Sprintf("struck out the step %v", b["line"]) },
	"take back strike of step": func(_ string, _, a fields) string { return fmt.Sprintf("put the step %v back into the log", a["off"]) },
	"put back":                 func(_ string, _, a fields) string { return fmt.Sprintf("put back %v", a["off"]) },
	"leave off":                func(_ string, _, a fields) string { return fmt.Sprintf("left off %v: %v", a["off"], a["reason"]) },
	"take off again":           func(_ string, _, a fields) string { return fmt.Sprintf("took off %v again", a["off"]) },
	"end teardown": func(_ string, _, a fields) string {
		return fmt.Sprintf("ended the log, %v: %v", a["outcome"], a["why"])
	},
	"reopen teardown": func(_ string, _, a fields) string {
		return fmt.Sprintf("took back that the log ended: %v", a["purpose"])
	},
	"make procedure": func(_ string, _, a fields) string {
		return fmt.Sprintf("made the procedure %v of %v %v", a["title"], a["maker"], a["model"])
	},
	"change procedure": func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the procedure %v: %s", a["title"], changes(b, a))
	},
	"start survey": func(_ string, _, a fields) string { return fmt.Sprintf("began the survey of %v", a["on"]) },
	"inspect": func(_ string, _, a fields) string {
		return fmt.Sprintf("survey of %v, %v: %v, findings: %v", a["on"], a["subsystem"], a["look"], a["findings"])
	},
	"end survey": func(_ string, _, a fields) string {
		return fmt.Sprintf("ended the survey of %v: %v subsystems inspected", a["on"], a["inspected"])
	},
	"find":        func(_ string, _, a fields) string { return "found " + findingWords(a) },
	"see finding": func(_ string, _, a fields) string { return "saw again " + findingWords(a) },
	"finding gone": func(_ string, _, a fields) string {
		return fmt.Sprintf("said that it is gone: %v, %v", a["kind"], a["where"])
	},
	"strike finding": func(_ string, b, _ fields) string {
		return fmt.Sprintf("struck out the finding %v, %v", b["kind"], b["where"])
	},
	"take back strike of finding": func(_ string, _, a fields) string {
		return fmt.Sprintf("took back that the finding %v, %v, was struck out", a["kind"], a["where"])
	},
	"measure":    func(_ string, _, a fields) string { return measurementWords("measured", a) },
	"read meter": func(_ string, _, a fields) string { return fmt.Sprintf("read %v: %v", a["point"], a["value"]) },
	"drop reading": func(_ string, b, _ fields) string {
		return fmt.Sprintf("took out a reading of %v: %v", b["point"], b["value"])
	},
	"meter stopped": func(_ string, _, a fields) string {
		return fmt.Sprintf("the meter stopped at %v: %v", a["point"], a["why"])
	},
	"strike measurement": func(_ string, b, _ fields) string {
		return measurementWords("struck out the measurement", b)
	},
	"take back strike of measurement": func(_ string, _, a fields) string {
		return measurementWords("took back that it was struck out:", a)
	},
	"note adjuster": func(_ string, _, a fields) string {
		return fmt.Sprintf("noted the adjuster %v, which stands at %v", a["name"], a["position"])
	},
	"turn adjuster": func(_ string, b, a fields) string {
		return fmt.Sprintf("turned %v from %v to %v: %v", a["name"], b["position"], a["position"], a["why"])
	},
	"change ageing class": func(_ string, b, a fields) string {
		return fmt.Sprintf("changed how often %v is looked at: %s", a["name"], changes(b, a))
	},
	"say climate": func(_ string, b, a fields) string {
		return fmt.Sprintf("said that the climate of %v is %v; it was %v", a["place"], orNothing(a["climate"]), orNothing(b["climate"]))
	},
	"add maker": func(_ string, _, a fields) string { return fmt.Sprintf("added the maker %v", a["name"]) },
	"change maker": func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the maker %v: %s", a["name"], changes(b, a))
	},
	"add model": func(_ string, _, a fields) string {
		return fmt.Sprintf("added the model %v %v", a["maker"], a["model"])
	},
	"change model": func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the model %v %v: %s", a["maker"], a["model"], changes(b, a))
	},
	"tell custody":   func(_ string, _, a fields) string { return "told of the past: " + custodyWords(a) },
	"change custody": func(_ string, b, a fields) string { return "changed a statement about the past: " + changes(b, a) },
	"withdraw custody": func(_ string, b, a fields) string {
		return fmt.Sprintf("withdrew from the past: %s: %v", custodyWords(b), a["withdrawn"])
	},
	"let custody count": func(_ string, b, _ fields) string { return "let count again: " + custodyWords(b) },
	"note personal data": func(_ string, _, a fields) string {
		return fmt.Sprintf("noted personal data: %v on %v", a["sort"], a["medium"])
	},
	"decide personal data": func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the note of personal data on %v: %s", a["medium"], changes(b, a))
	},

	"receive lot": func(_ string, _, a fields) string { return fmt.Sprintf("received the lot %v", a["title"]) },
	"change lot": func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the lot %v: %s", a["title"], changes(b, a))
	},
	"add lot item": func(_ string, _, a fields) string { return fmt.Sprintf("added %v to a lot", a["title"]) },
	"change lot item": func(_ string, b, a fields) string {
		return fmt.Sprintf("changed %v of a lot: %s", a["title"], changes(b, a))
	},
	"strike lot item": func(_ string, b, _ fields) string {
		return fmt.Sprintf("took %v out of a lot, entered by mistake", b["title"])
	},
	"take back strike of lot item": func(_ string, _, a fields) string { return fmt.Sprintf("put %v back into its lot", a["title"]) },
	"item becomes machine": func(_ string, _, a fields) string {
		return fmt.Sprintf("took %v of the lot %v as %v", a["title"], a["lot"], a["accession"])
	},
	"unlink lot item": func(_ string, b, _ fields) string {
		return fmt.Sprintf("said that %v of a lot is not %v", b["title"], b["accession"])
	},
	"item goes to store": func(_ string, _, a fields) string {
		return fmt.Sprintf("took %v of the lot %v into store, %v", a["title"], a["lot"], a["place"])
	},
	"change collection": func(_ string, b, a fields) string { return "changed the collection: " + changes(b, a) },
	"import numbers": func(_ string, _, a fields) string {
		return fmt.Sprintf("took over %v numbers of an older register", a["count"])
	},
	"add party": func(_ string, _, a fields) string {
		return fmt.Sprintf("added %v to people and organisations", a["name"])
	},
	"change party": func(_ string, b, a fields) string { return fmt.Sprintf("changed %v: %s", a["name"], changes(b, a)) },

	"decide mention": func(_ string, _, a fields) string {
		if a["meant"] == true {
			return fmt.Sprintf("said that %v in a text is %v", a["said"], a["party"])
		}
		return fmt.Sprintf("said that %v in a text is not %v", a["said"], a["party"])
	},
	"take back decision on mention": func(_ string, _, a fields) string {
		return fmt.Sprintf("took back what was said of %v in a text", a["said"])
	},

	"attach": func(_ string, _, a fields) string { return fmt.Sprintf("added the %v %v", a["kind"], a["fileName"]) },
	"change attachment": func(_ string, b, a fields) string {
		return fmt.Sprintf("changed what is said of %v: %s", a["fileName"], changes(b, a))
	},
	"strike attachment": func(_ string, b, _ fields) string {
		return fmt.Sprintf("struck out the %v %v", b["kind"], b["fileName"])
	},
	"take back strike of attachment": func(_ string, b, _ fields) string {
		return fmt.Sprintf("took back that %v was struck out", b["fileName"])
	},

	"name type": func(_ string, _, a fields) string {
		return fmt.Sprintf("named the type %v: %v", a["number"], a["function"])
	},
	"change type": func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the type %v: %s", a["number"], changes(b, a))
	},
	"forget type": func(_ string, b, _ fields) string {
		return fmt.Sprintf("took the type %v out of the library", b["number"])
	},

	"change password": func(_ string, _, _ fields) string { return "changed the password of the account" },
	"set password":    func(_ string, _, _ fields) string { return "set the password of the account" },
	"invite account":  func(_ string, _, a fields) string { return fmt.Sprintf("invited %v (%v)", a["login"], a["role"]) },
	"reset account": func(_ string, _, a fields) string {
		return fmt.Sprintf("made a link to reset the password of %v", a["login"])
	},
	"change account": func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the account %v: %s", a["login"], changes(b, a))
	},
	"add account": func(_ string, _, a fields) string {
		return fmt.Sprintf("added the account %v (%v)", a["login"], a["role"])
	},
}

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
