package app

import (
	"fmt"
	"strings"
)

var (
	eventTellCustody     = NewEvent("tell custody", "custody", func(_ string, _, a fields) string { return "told of the past: " + custodyWords(a) })
	eventChangeCustody   = NewEvent("change custody", "custody", func(_ string, b, a fields) string { return "changed a statement about the past: " + changes(b, a) })
	eventWithdrawCustody = NewEvent("withdraw custody", "custody", func(_ string, b, a fields) string {
		return fmt.Sprintf("withdrew from the past: %s: %v", custodyWords(b), a["withdrawn"])
	})
	eventLetCustodyCount = NewEvent("let custody count", "custody", func(_ string, b, _ fields) string { return "let count again: " + custodyWords(b) })
	eventReceiveLot      = NewEvent("receive lot", "acquisition", func(_ string, _, a fields) string { return fmt.Sprintf("received the lot %v", a["title"]) })
	eventChangeLot       = NewEvent("change lot", "acquisition", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed the lot %v: %s", a["title"], changes(b, a))
	})
	eventAddLotItem    = NewEvent("add lot item", "lot item", func(_ string, _, a fields) string { return fmt.Sprintf("added %v to a lot", a["title"]) })
	eventChangeLotItem = NewEvent("change lot item", "lot item", func(_ string, b, a fields) string {
		return fmt.Sprintf("changed %v of a lot: %s", a["title"], changes(b, a))
	})
	eventStrikeLotItem = NewEvent("strike lot item", "lot item", func(_ string, b, _ fields) string {
		return fmt.Sprintf("took %v out of a lot, entered by mistake", b["title"])
	})
	eventTakeBackStrikeOfLotItem = NewEvent("take back strike of lot item", "lot item", func(_ string, _, a fields) string { return fmt.Sprintf("put %v back into its lot", a["title"]) })
	eventItemBecomesMachine      = NewEvent("item becomes machine", "lot item", func(_ string, _, a fields) string {
		return fmt.Sprintf("took %v of the lot %v as %v", a["title"], a["lot"], a["accession"])
	})
	eventUnlinkLotItem = NewEvent("unlink lot item", "lot item", func(_ string, b, _ fields) string {
		return fmt.Sprintf("said that %v of a lot is not %v", b["title"], b["accession"])
	})
	eventItemGoesToStore = NewEvent("item goes to store", "lot item", func(_ string, _, a fields) string {
		return fmt.Sprintf("took %v of the lot %v into store, %v", a["title"], a["lot"], a["place"])
	})
)

// custodyWords say a statement about the past in a few words.
func custodyWords(f fields) string {
	whom := orNothing(f["party"])
	if f["party"] == nil || f["party"] == "" {
		whom = orNothing(f["who"])
	}
	return fmt.Sprintf("%s %s %s", strings.ReplaceAll(fmt.Sprint(f["role"]), "-", " "), whom, orEmpty(f["dates"]))
}
