package app

import "fmt"

var (
	eventRecogniseType = NewEvent("recognise type", "recognition", func(_ string, _, a fields) string {
		return fmt.Sprintf("recognised %v parts as %v: %v", a["parts"], a["number"], a["function"])
	})
	eventAddMaker    = NewEvent("add maker", "maker", func(_ string, _, a fields) string { return fmt.Sprintf("added the maker %v", a["name"]) })
	eventChangeMaker = NewEvent("change maker", "maker", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the maker %v: %s", a["name"], changes(b, a))
	})
	eventAddModel = NewEvent("add model", "model", func(_ string, _, a fields) string {
		return fmt.Sprintf("added the model %v %v", a["maker"], a["model"])
	})
	eventChangeModel = NewEvent("change model", "model", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the model %v %v: %s", a["maker"], a["model"], changes(b, a))
	})
	eventNameType = NewEvent("name type", "own type", func(_ string, _, a fields) string {
		return fmt.Sprintf("named the type %v: %v", a["number"], a["function"])
	})
	eventChangeType = NewEvent("change type", "own type", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the type %v: %s", a["number"], changes(b, a))
	})
	eventForgetType = NewEvent("forget type", "own type", func(_ string, b, _ fields) string {
		return fmt.Sprintf("took the type %v out of the library", b["number"])
	})
)
