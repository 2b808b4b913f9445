package condition

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventStartSurvey = action.NewEvent("start survey", "survey", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("began the survey of %v", a["on"])
	})
	eventInspect = action.NewEvent("inspect", "survey", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("survey of %v, %v: %v, findings: %v", a["on"], a["subsystem"], a["look"], a["findings"])
	})
	eventEndSurvey = action.NewEvent("end survey", "survey", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("ended the survey of %v: %v subsystems inspected", a["on"], a["inspected"])
	})
	eventFind = action.NewEvent("find", "finding", func(_ string, _, a action.Fields) string {
		return "found " + findingWords(a)
	})
	eventSeeFinding = action.NewEvent("see finding", "finding", func(_ string, _, a action.Fields) string {
		return "saw again " + findingWords(a)
	})
	eventFindingGone = action.NewEvent("finding gone", "finding", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("said that it is gone: %v, %v", a["kind"], a["where"])
	})
	eventVoidFinding = action.NewEvent("strike finding", "finding", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("deleted the finding %v, %v", b["kind"], b["where"])
	})
	eventTakeBackVoidOfFinding = action.NewEvent("take back strike of finding", "finding",
		func(_ string, _, a action.Fields) string {
			return fmt.Sprintf("took back that the finding %v, %v, was deleted", a["kind"], a["where"])
		})
	eventCheckFault = action.NewEvent("check fault", "assembly", func(s string, _, a action.Fields) string {
		if a["hasIt"] == true {
			return fmt.Sprintf("found out that %s has what %v are known for: %v", s, a["known"], a["fault"])
		}
		return fmt.Sprintf("found out that %s does not have what %v are known for: %v", s, a["known"], a["fault"])
	})
	eventMeasure = action.NewEvent("measure", "measurement", func(_ string, _, a action.Fields) string {
		return measurementWords("measured", a)
	})
	eventReadMeter = action.NewEvent("read meter", "measurement", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("read %v: %v", a["point"], a["value"])
	})
	eventDropReading = action.NewEvent("drop reading", "measurement", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("took out a reading of %v: %v", b["point"], b["value"])
	})
	eventMeterStopped = action.NewEvent("meter stopped", "measurement", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("the meter stopped at %v: %v", a["point"], a["why"])
	})
	eventVoidMeasurement = action.NewEvent("strike measurement", "measurement",
		func(_ string, b, _ action.Fields) string {
			return measurementWords("deleted the measurement", b)
		})
	eventTakeBackVoidOfMeasurement = action.NewEvent("take back strike of measurement", "measurement",
		func(_ string, _, a action.Fields) string {
			return measurementWords("took back that it was deleted:", a)
		})
	eventNoteAdjuster = action.NewEvent("note adjuster", "adjuster", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("noted the adjuster %v, which stands at %v", a["name"], a["position"])
	})
	eventTurnAdjuster = action.NewEvent("turn adjuster", "adjuster", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("turned %v from %v to %v: %v", a["name"], b["position"], a["position"], a["why"])
	})
	eventChangeMaintenanceClass = action.NewEvent("change ageing class", "ageing class",
		func(_ string, b, a action.Fields) string {
			return fmt.Sprintf("changed how often %v is looked at: %s", a["name"], action.Changes(b, a))
		})
	eventSetClimate = action.NewEvent("say climate", "place", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("said that the climate of %v is %v; it was %v", a["place"], action.OrNothing(a["climate"]),
			action.OrNothing(b["climate"]))
	})
)

func findingWords(a action.Fields) string {
	return fmt.Sprintf("%v, %v: %v on %v", a["kind"], a["where"], a["severity"], a["on"])
}

func measurementWords(action string, f action.Fields) string {
	return fmt.Sprintf("%s %v: %v, %v", action, f["point"], f["said"], f["verdict"])
}
