package roms

import (
	"fmt"

	"frugalheron/app/action"
)

var (
	eventReadChip = action.NewEvent("read chip", "rom read", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("read %v of %v %v: %v", a["designator"], a["board"], a["way"], a["content"])
	})
	eventExceptRead = action.NewEvent("except read", "rom read", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("let one reading of %v count: %v", a["designator"], a["why"])
	})
	eventVoidRead = action.NewEvent("strike read", "rom read", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("deleted a reading of %v, of %v", b["designator"], b["readOn"])
	})
	eventTakeBackVoidOfRead = action.NewEvent("take back strike of read", "rom read",
		func(_ string, _, a action.Fields) string {
			return fmt.Sprintf("took back that the reading of %v, of %v, was deleted", a["designator"], a["readOn"])
		})
	eventNameRom = action.NewEvent("name rom", "rom image", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("said of the image %v %v: %s", a["name"], a["romVersion"], action.Changes(b, a))
	})
	eventNameRomSet = action.NewEvent("name rom set", "rom set", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("named the set %v: %v chips of %v", a["name"], a["chips"], a["board"])
	})
	eventMakeRom = action.NewEvent("make rom", "rom image", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("made the image %v: %v", a["content"], a["from"])
	})
)
