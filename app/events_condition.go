package app

import "fmt"

var (
	eventStartSurvey = NewEvent("start survey", "survey", func(_ string, _, a fields) string { return fmt.Sprintf("began the survey of %v", a["on"]) })
	eventInspect     = NewEvent("inspect", "survey", func(_ string, _, a fields) string {
		return fmt.Sprintf("survey of %v, %v: %v, findings: %v", a["on"], a["subsystem"], a["look"], a["findings"])
	})
	eventEndSurvey = NewEvent("end survey", "survey", func(_ string, _, a fields) string {
		return fmt.Sprintf("ended the survey of %v: %v subsystems inspected", a["on"], a["inspected"])
	})
	eventFind        = NewEvent("find", "finding", func(_ string, _, a fields) string { return "found " + findingWords(a) })
	eventSeeFinding  = NewEvent("see finding", "finding", func(_ string, _, a fields) string { return "saw again " + findingWords(a) })
	eventFindingGone = NewEvent("finding gone", "finding", func(_ string, _, a fields) string {
		return fmt.Sprintf("said that it is gone: %v, %v", a["kind"], a["where"])
	})
	eventStrikeFinding = NewEvent("strike finding", "finding", func(_ string, b, _ fields) string {
		return fmt.Sprintf("struck out the finding %v, %v", b["kind"], b["where"])
	})
	eventTakeBackStrikeOfFinding = NewEvent("take back strike of finding", "finding", func(_ string, _, a fields) string {
		return fmt.Sprintf("took back that the finding %v, %v, was struck out", a["kind"], a["where"])
	})
	eventMeasure     = NewEvent("measure", "measurement", func(_ string, _, a fields) string { return measurementWords("measured", a) })
	eventReadMeter   = NewEvent("read meter", "measurement", func(_ string, _, a fields) string { return fmt.Sprintf("read %v: %v", a["point"], a["value"]) })
	eventDropReading = NewEvent("drop reading", "measurement", func(_ string, b, _ fields) string {
		return fmt.Sprintf("took out a reading of %v: %v", b["point"], b["value"])
	})
	eventMeterStopped = NewEvent("meter stopped", "measurement", func(_ string, _, a fields) string {
		return fmt.Sprintf("the meter stopped at %v: %v", a["point"], a["why"])
	})
	eventStrikeMeasurement = NewEvent("strike measurement", "measurement", func(_ string, b, _ fields) string {
		return measurementWords("struck out the measurement", b)
	})
	eventTakeBackStrikeOfMeasurement = NewEvent("take back strike of measurement", "measurement", func(_ string, _, a fields) string {
		return measurementWords("took back that it was struck out:", a)
	})
	eventNoteAdjuster = NewEvent("note adjuster", "adjuster", func(_ string, _, a fields) string {
		return fmt.Sprintf("noted the adjuster %v, which stands at %v", a["name"], a["position"])
	})
	eventTurnAdjuster = NewEvent("turn adjuster", "adjuster", func(_ string, b, a fields) string {
		return fmt.Sprintf("turned %v from %v to %v: %v", a["name"], b["position"], a["position"], a["why"])
	})
	eventChangeAgeingClass = NewEvent("change ageing class", "ageing class", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed how often %v is looked at: %s", a["name"], changes(b, a))
	})
	eventSayClimate = NewEvent("say climate", "place", func(_ string, b, a fields) string {
		return fmt.Sprintf("said that the climate of %v is %v; it was %v", a["place"], orNothing(a["climate"]), orNothing(b["climate"]))
	})
)

func findingWords(a fields) string {
	return fmt.Sprintf("%v, %v: %v on %v", a["kind"], a["where"], a["severity"], a["on"])
}

func measurementWords(deed string, f fields) string {
	return fmt.Sprintf("%s %v: %v, %v", deed, f["point"], f["said"], f["verdict"])
}
