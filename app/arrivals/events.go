package arrivals

import (
	"fmt"
	"strings"

	"frugalheron/app/action"
)

var (
	eventTellCustody = action.NewEvent("tell custody", "custody", func(_ string, _, a action.Fields) string {
		return "told of the past: " + custodyWords(a)
	})
	eventChangeCustody = action.NewEvent("change custody", "custody", func(_ string, b, a action.Fields) string {
		return "changed a statement about the past: " + action.Changes(b, a)
	})
	eventRetractCustody = action.NewEvent("withdraw custody", "custody", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("withdrew from the past: %s: %v", custodyWords(b), a["retracted"])
	})
	eventLetCustodyCount = action.NewEvent("let custody count", "custody", func(_ string, b, _ action.Fields) string {
		return "let count again: " + custodyWords(b)
	})
	eventReceiveLot = action.NewEvent("receive lot", "acquisition", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("received the lot %v", a["title"])
	})
	eventChangeLot = action.NewEvent("change lot", "acquisition", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed the lot %v: %s", a["title"], action.Changes(b, a))
	})
	eventAddLotItem = action.NewEvent("add lot item", "lot item", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("added %v to a lot", a["title"])
	})
	eventChangeLotItem = action.NewEvent("change lot item", "lot item", func(_ string, b, a action.Fields) string {
		return fmt.Sprintf("changed %v of a lot: %s", a["title"], action.Changes(b, a))
	})
	eventVoidLotItem = action.NewEvent("strike lot item", "lot item", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("took %v out of a lot, entered by mistake", b["title"])
	})
	eventTakeBackVoidOfLotItem = action.NewEvent("take back strike of lot item", "lot item",
		func(_ string, _, a action.Fields) string { return fmt.Sprintf("put %v back into its lot", a["title"]) })
	eventItemBecomesMachine = action.NewEvent("item becomes machine", "lot item",
		func(_ string, _, a action.Fields) string {
			return fmt.Sprintf("took %v of the lot %v as %v", a["title"], a["lot"], a["accession"])
		})
	eventUnlinkLotItem = action.NewEvent("unlink lot item", "lot item", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("said that %v of a lot is not %v", b["title"], b["accession"])
	})
	eventItemGoesToStore = action.NewEvent("item goes to store", "lot item", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("took %v of the lot %v into store, %v", a["title"], a["lot"], a["place"])
	})
)

// custodyWords say a statement about the past in a few words.
func custodyWords(f action.Fields) string {
	whom := action.OrNothing(f["party"])
	if f["party"] == nil || f["party"] == "" {
		whom = action.OrNothing(f["who"])
	}
	return fmt.Sprintf("%s %s %s", strings.ReplaceAll(fmt.Sprint(f["role"]), "-", " "), whom,
		action.OrEmpty(f["dates"]))
}
