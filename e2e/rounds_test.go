package e2e

import (
	"fmt"
	"image"
	"image/png"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/files"
	"frugalheron/app/inventory"
	"frugalheron/app/upkeep"
	. "frugalheron/e2e/browser"
)

// addShelf puts machines with a battery onto bays, and writes a rule by which all of them are due.
func (w world) addShelf(t *testing.T, count int) (ids []int64, rule upkeep.Rule) {
	ctx, staff := t.Context(), action.Actor{Role: action.Curator}
	for i := range count {
		m, err := w.actions.Inventory.CreateMachine(ctx, staff, inventory.MachineInput{
			Accession: fmt.Sprintf("EH-%04d", 300+i), Name: "Lantern", Place: fmt.Sprintf("Loft, bay %d", i+1)})
		require.NoError(t, err)
		_, err = w.actions.Sheets.TakeOverSheet(ctx, staff, m.ID, "== Main board\nBT1 NiCd 3.6V")
		require.NoError(t, err)
		ids = append(ids, m.ID)
	}
	rule, err := w.actions.Upkeep.AddRule(ctx, staff, upkeep.RuleInput{Task: "Measure the clock battery",
		EveryMonths: 6,
		Of:          "battery", Looks: true, Minutes: 5, Measures: "volts"})
	require.NoError(t, err)
	return ids, rule
}

// addUpkeep writes a rule by which a machine is due, one that always holds, and a plan.
func (w world) addUpkeep(t *testing.T) {
	ctx, staff := t.Context(), action.Actor{Role: action.Technician}
	for _, rule := range []upkeep.RuleInput{{Task: "Look", EveryMonths: 3, Of: "machine", Measures: "volts",
		Looks: true},
		{Task: "Store it dry", Of: "machine"}} {
		_, err := w.actions.Upkeep.AddRule(ctx, staff, rule)
		require.NoError(t, err)
	}
	_, err := w.actions.Upkeep.AddPlan(ctx, staff, upkeep.PlanInput{On: staff.Today(), What: "Fetch a lead",
		Minutes: 90})
	require.NoError(t, err)
}

// A round of ten on a phone: the connection goes after the third machine, and everything said is there when it is back.
func TestARoundOnAPhoneWithoutAConnection(t *testing.T) {
	w := newWorld(t)
	ids, _ := w.addShelf(t, 10)
	b, err := Start(390, 844)
	require.NoError(t, err)
	t.Cleanup(b.Close)
	line, err := NewLine(w.url)
	require.NoError(t, err)
	t.Cleanup(line.Close)
	photo := filepath.Join(t.TempDir(), "shelf.png")
	file, err := os.Create(photo)
	require.NoError(t, err)
	require.NoError(t, png.Encode(file, image.NewGray(image.Rect(0, 0, 8, 8))))
	require.NoError(t, file.Close())
	at := func(n int) chromedp.Action { return See(fmt.Sprintf(`//h2[.="%d. EH-%04d Lantern"]`, n, 299+n)) }
	said := func(words string) chromedp.Action { return See(Text(words)) }
	measured := func(n int, volts string) chromedp.Action {
		return chromedp.Tasks{at(n), Fill(Labelled("Measured, in volts"), volts), Click(Button("Done"))}
	}
	seen := func(n int) chromedp.Action { return chromedp.Tasks{at(n), Click(Button("Only seen"))} }
	require.NoError(t, b.Do(
		SignIn(line.URL, technician.Login, technician.Password), chromedp.Navigate(line.URL+"/diary"),
		chromedp.Evaluate(`navigator.serviceWorker.ready.then(() => true)`, nil, Awaited),
		Click(Button("Begin the round")), said("0 of 10 said"), See(Text("Caution, cells.")),
		measured(1, "3.61 V"), measured(2, "a lot"), said("the value and its unit"),
		Fill(Labelled("Measured, in volts"), "3.58"),
		Click(Button("Done")), seen(3), at(4), said("3 of 10 said"),
		chromedp.Evaluate(seenIsKept, nil, Awaited),
	))
	line.Cut()
	require.NoError(t, b.Do(
		at(4), chromedp.SetUploadFiles(`//input[@aria-label="Photo"]`, []string{photo}, chromedp.BySearch),
		See(Button("Another photo (1 taken)")), measured(4, "3.2 V"), said("1 kept on this device"),
		seen(5), at(6), Click(`//summary[.="Something is odd there"]`), Fill(Labelled("Found"), "leaking"),
		Click(Button("Done")),
		at(7), Click(`//summary[.="Something is odd there"]`), Click(Button("Could not be done")), said("Say why"),
		Fill(Labelled("Could not be done, because"), "behind the crates"), Click(Button("Could not be done")),
		at(8), Click(Button("Later")), seen(9), seen(10), at(8), Accessible("../ui/node_modules/axe-core/axe.min.js"), seen(8),
		said("10 of 10 said, 7 kept on this device"),
		// The page is opened again, still without a connection.
		chromedp.Reload(), said("10 of 10 said, 7 kept on this device"),
	))
	line.Mend()
	require.NoError(t, b.Do(
		Gone(Text("kept on this device")), said("10 of 10 said"), See(Text("behind the crates")),
		See(Text("found: leaking")),
		Click(Button("End the round")), Fill(Labelled("Hours that it took"), "0.75"), Click(Button("End it")),
		See(Text("took 45 min")), chromedp.Navigate(line.URL+"/diary"), See(Text("9 machines")),
	))
	staff := action.Actor{Role: action.Technician}
	due, err := w.actions.Upkeep.RoundsDue(t.Context(), staff)
	require.NoError(t, err)
	require.Equal(t, 1, due[0].Stops, "the one behind the crates")
	how, err := w.actions.Condition.Condition(t.Context(), staff, ids[5])
	require.NoError(t, err)
	require.Equal(t, "leaking", how.Findings[0].Kind)
	taken, err := w.actions.Files.Attachments(t.Context(), staff, files.Owner{MachineID: &ids[3]}, 0, 9)
	require.NoError(t, err)
	require.Len(t, taken.Attachments, 1)
	require.Empty(t, b.Breaches())
}
