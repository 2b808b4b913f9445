package app

import "fmt"

var (
	eventStateEvidence = NewEvent("state evidence", "statement", func(_ string, _, a fields) string {
		return fmt.Sprintf("stated %v %v, by %v", a["attribute"], a["value"], a["kind"])
	})
	eventWithdrawStatement = NewEvent("withdraw statement", "statement", func(_ string, b, a fields) string {
		return fmt.Sprintf("withdrew the statement %v %v: %v", b["attribute"], b["value"], a["withdrawn"])
	})
	eventLetStatementCount = NewEvent("let statement count", "statement", func(_ string, b, _ fields) string {
		return fmt.Sprintf("let the statement %v %v count again", b["attribute"], b["value"])
	})
	eventDecideMeeting = NewEvent("decide meeting", "machine", func(_ string, _, a fields) string {
		return fmt.Sprintf("%v the meeting of %v with %v: %v", a["decision"], a["value"], a["other"], a["reason"])
	}).alsoOf("assembly", "acquisition").forStaff()
)
