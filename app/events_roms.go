package app

import "fmt"

var (
	eventReadChip = NewEvent("read chip", "rom read", func(_ string, _, a fields) string {
		return fmt.Sprintf("read %v of %v %v: %v", a["designator"], a["board"], a["way"], a["content"])
	})
	eventExceptRead = NewEvent("except read", "rom read", func(_ string, _, a fields) string {
		return fmt.Sprintf("let one reading of %v count: %v", a["designator"], a["why"])
	})
	eventStrikeRead = NewEvent("strike read", "rom read", func(_ string, b, _ fields) string {
		return fmt.Sprintf("struck out a reading of %v, of %v", b["designator"], b["readOn"])
	})
	eventTakeBackStrikeOfRead = NewEvent("take back strike of read", "rom read", func(_ string, _, a fields) string {
		return fmt.Sprintf("took back that the reading of %v, of %v, was struck out", a["designator"], a["readOn"])
	})
	eventNameRom = NewEvent("name rom", "rom image", func(_ string, b, a fields) string {
		return fmt.Sprintf("said of the image %v %v: %s", a["name"], a["romVersion"], changes(b, a))
	})
	eventNameRomSet = NewEvent("name rom set", "rom set", func(_ string, _, a fields) string {
		return fmt.Sprintf("named the set %v: %v chips of %v", a["name"], a["chips"], a["board"])
	})
	eventMakeRom = NewEvent("make rom", "rom image", func(_ string, _, a fields) string {
		return fmt.Sprintf("made the image %v: %v", a["content"], a["from"])
	})
)
