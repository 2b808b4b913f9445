package e2e

import (
	"context"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	. "frugalheron/e2e/browser"

	"frugalheron/core/quantity"
	"frugalheron/instruments/meter"
)

// From a leaking battery to a cleared gate, by keyboard: the job from the finding, done; the local mains, what feeds the
// machine, a rail by the meter, the ladder rung by rung; then a step that is not as expected closes the gate again.
func TestFirstPower(t *testing.T) {
	w, b := newWorld(t), open(t)
	w.addBoard(t, "== Main board\nU1 74LS00\nBT1 battery NiCd 3.6V !leaking: crust\n== Disk card | slot 2\nU1 74LS245")
	standIn, err := meter.NewStandIn(0, map[string]meter.Values{"EH-0900 +5": {quantity.Volts: 5.02}})
	require.NoError(t, err)
	t.Cleanup(func() { standIn.Close() })
	w.actions.WithInstruments(app.Instruments{Meter: standIn.Address()})
	gate := func(words string) chromedp.Action { return See(`//a[contains(., "gate: ` + words + `")]`) }
	field := func(label, text string) chromedp.Action {
		return chromedp.Tasks{chromedp.Focus(Labelled(label), chromedp.BySearch), Keys(text)}
	}
	press := func(button string) chromedp.Action { return chromedp.Tasks{focusButton(button), Keys(kb.Enter)} }
	named := func(label string) chromedp.Action {
		return chromedp.Tasks{focusOn(`button[aria-label="` + label + `"]`), Keys(kb.Enter)}
	}
	tick := func(label string) chromedp.Action {
		return chromedp.Tasks{chromedp.Focus(`//label[contains(., "`+label+`")]/input`, chromedp.BySearch), Keys(" ")}
	}
	require.NoError(t, b.Do(
		SignIn(w.url, curator.Login, curator.Password), chromedp.Navigate(w.stage("make-good")),
		gate("hold, 4 missing"),
		press("Replace the battery"), See(Text("Easily forgotten:")), named("Edit Replace the battery"),
		field("Waits for these parts", "NiMH 3.6V"), press("Save"), See(Link("Where they are")),
		// Nothing is there: it is ordered, comes, and is set aside; the job cannot end with its part on order.
		focusOn(`a[href*="/stores/needs?job"]`), Keys(kb.Enter), See(Text("short, 1 missing")),
		press("Write down this order"),
		field("Ordered of", "Reed & Rush"), press("Save"), See(Text("Lets go on:")),
		chromedp.Navigate(w.url+"/stores/needs"),
		named("Set 1 aside: NiMH 3.6V of the order, for EH-0900"), See(Text("1 set aside, of an order")),
		chromedp.Navigate(w.stage("make-good")), press("Take in hand"), See(Text("Caution, cells.")),
		press("Done"), field("What is in now at BT1", "battery NiMH 3.6V"), press("Save"),
		See(Text("is still on order")),
		chromedp.Navigate(w.url+"/stores/orders"), named("Book what came: NiMH 3.6V"), field("Where they lie now",
			"Store, box 4"),
		press("Save"), See(Text("all is here")), chromedp.Navigate(w.stage("make-good")), press("Done"),
		See(Labelled("What is in now at BT1")), press("Begin anew"), field("What is in now at BT1",
			"battery NiMH 3.6V"), field("Minutes spent now", "25"),
		tick("Tested:"), field("What the test said", "3.9 V in place"), press("Save"), See(Text("1 job is ended")),
		See(Text("can be undone")), gate("hold, 2 missing"),
		chromedp.Navigate(w.url+"/stores/parts"), See(Text("Reed & Rush")), See(Text("Store, box 4")),
	))
	require.NoError(t, b.Do(
		chromedp.Navigate(w.url+"/account?open=collection"),
		field("Mains here, in volts", "230"), field("Mains here, in hertz", "50"), press("Save"),
		See(Text("230 V, 50 Hz")),
		chromedp.Navigate(w.stage("power-up")), See(Text("nobody said what feeds it")), gate("hold, 2 missing"),
		// By name, from anywhere.
		Keys("/"), Keys("say what feeds"), Keys(kb.Enter), See(Labelled("Volts on its plate")),
		field("Name", "built in"), field("Volts on its plate", "220-240"), field("Frequency on its plate", "50"),
		field("Rails that the machine needs", "+5"), field("What each rail can give, in amperes", "10"), Keys(kb.Enter),
		See(Text(`"10" cannot be read`)), field("What each rail can give, in amperes", kb.Home+"+5 "), Keys(kb.Enter),
		gate("hold, 3 missing"), See(Text("it was neither inspected nor seen running")),
		press("Edit"), field("Inspected on", w.today()), Keys(kb.Enter), gate("supply only, 2 missing"),
		press("Read"), See(Text("5.02")), gate("staged, 1 missing"),
		press("Build this ladder"), See(Text("1. Main board alone; out: Disk card")), gate("staged, 2 missing"),
	))
	require.NoError(t, b.Do(
		press("Record that power was applied"), See(Labelled("What was seen, heard, smelt")), press("Save"),
		See(Text("Main board alone; out: Disk card: as expected.")), gate("staged, 1 missing"),
		press("Record that power was applied"), See(Labelled("What was seen, heard, smelt")), press("Save"),
		gate("cleared"), See(Text("nothing is missing")),
	))

	// Not as expected: the gate closes, says since when it worked, and the last word can be taken back.
	require.NoError(t, b.Do(
		press("Record that power was applied"), choose("Result", "not as expected"),
		field("What was seen, heard, smelt", "no lamp"), press("Save"), gate("supply only, 1 missing"),
		See(Text("It worked last on")), press("Undo"), gate("cleared"),
		// It stands in the head of every stage, and leads here.
		chromedp.Navigate(w.stage("judge")), gate("cleared"), focusOn(`a[href$="/power-up"][title]`), Keys(kb.Enter),
		See(Text("It permits nothing")),
	))
	history, err := w.actions.Power.Power(context.Background(), action.Actor{Role: action.Viewer}, w.machine.ID)
	require.NoError(t, err)
	require.Len(t, history.Ups, 2)
	require.Equal(t, "replaced", history.Parts[0].State)
}

func (w world) today() string { return action.Actor{}.Today() }
