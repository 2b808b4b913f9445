package work

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventAddJob = action.NewEvent("add job", "job", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("put down the job %v", a["title"])
	})
	eventChangeJob = action.NewEvent("change job", "job", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed the job %v: %s", a["title"], action.Changes(b, a))
	})
	eventWorkOnJob = action.NewEvent("work on job", "job", func(_ string, b, a action.Fields) string {
		words := fmt.Sprintf("the job %v: %v, it was %v", a["title"], a["state"], b["state"])
		return words + action.Said("; left: ", a["left"]) + action.Said("; because ", a["why"])
	})
	eventFinishJob = action.NewEvent("finish job", "job", func(_ string, _, a action.Fields) string {
		words := fmt.Sprintf("did the job %v on %v", a["title"], a["on"])
		if a["proven"] == false {
			words += ", unproven"
		}
		return words + action.Said("; now in: ", a["new"]) + action.Said("; the old part was ", a["oldPart"])
	})
	eventProveJob = action.NewEvent("prove job", "job", func(_ string, _, a action.Fields) string {
		words := fmt.Sprintf("made the test of the job %v on %v: ", a["title"], a["tested"])
		if a["passed"] == true {
			words += "it is proven"
		} else {
			words += "it did not pass"
		}
		return words + action.Said("; ", a["testSaid"])
	})
	eventVoidJob = action.NewEvent("void job", "job", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("deleted the job %v", b["title"])
	})
	eventTakeBackVoidOfJob = action.NewEvent("take back void of job", "job", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("took back that the job %v was deleted", a["title"])
	})
)
