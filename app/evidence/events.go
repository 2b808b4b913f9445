package evidence

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventStateEvidence = action.NewEvent("state evidence", "statement", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("stated %v %v, by %v", a["attribute"], a["value"], a["kind"])
	})
	eventRetractStatement = action.NewEvent("withdraw statement", "statement",
		func(_ string, b, a action.Fields) string {
			return fmt.Sprintf("withdrew the statement %v %v: %v", b["attribute"], b["value"], a["retracted"])
		})
	eventLetStatementCount = action.NewEvent("let statement count", "statement",
		func(_ string, b, _ action.Fields) string {
			return fmt.Sprintf("let the statement %v %v count again", b["attribute"], b["value"])
		})
	eventDecideSharedIdentifier = action.NewEvent("decide meeting", "machine", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("%v the meeting of %v with %v: %v", a["decision"], a["value"], a["other"], a["reason"])
	}).AlsoOf("assembly", "acquisition").ForStaff()
)
