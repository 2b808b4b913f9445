package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"

	. "frugalheron/e2e/browser"
)

// A machine that runs after three changes at once: the next trials tell which of them mattered, and what it was is written
// down. All of it by keyboard.
func TestThreeChangesAreUntangledToOne(t *testing.T) {
	w, b := newWorld(t), open(t)
	w.addBoard(t, "== Main board\nU1 74LS00")
	press := func(button string) chromedp.Action { return chromedp.Tasks{focusButton(button), Keys(kb.Enter)} }
	field := func(label, text string) chromedp.Action {
		return chromedp.Tasks{chromedp.Focus(Labelled(label), chromedp.BySearch), Keys(text)}
	}
	// tick turns a change on or off.
	tick := func(names ...string) chromedp.Action {
		all := chromedp.Tasks{}
		for _, name := range names {
			all = append(all, chromedp.Focus(`//label[normalize-space(.)="`+name+`"]/input`, chromedp.BySearch),
				Keys(" "))
		}
		return all
	}
	trial := func(fill chromedp.Action, went, says string) chromedp.Action {
		return chromedp.Tasks{press("Write down a trial"), See(Labelled("Runs")), fill, choose("How it went", went),
			press("Save"), Gone(Labelled("Runs")), See(Text(says))}
	}
	const there, well = "the symptom was there", "it went well"
	require.NoError(t, b.Do(
		SignIn(w.url, curator.Login, curator.Password), chromedp.Navigate(w.stage("set-up")),
		See(Text("No symptom is written down")), Keys("/"), Keys("cause of a symptom"), Keys(kb.Enter),
		field("What it does, or does not", "no picture"), Keys(kb.Enter), See(Text("Nothing was tried yet")),
		See(Text("1 symptom")),
		trial(chromedp.Tasks{}, there, "No trial went otherwise yet"),
		trial(field("Another change, on from now", "new cable; cell out; other ROM"), well,
			"Always on together, and so not told apart: new cable, cell out, other ROM"),
		See(Text("6 explanations are left")),
		press("It was tried so"), See(Labelled("Runs")), choose("How it went", there), press("Save"),
		Gone(Labelled("Runs")), See(Text("3 explanations are left")), See(Text("put in again other ROM")),
		trial(tick("new cable", "cell out", "other ROM"), well, "one explanation is left"),
		See(Text("other ROM cures it")), See(Text("Does not explain it: new cable, cell out")),
		press("Edit, or say what it was"), choose("How far it is", "the cause is found"),
		field("What it was", "a leg of the ROM beside its socket"), press("Save"),
		See(Text("It was: a leg of the ROM beside its socket")), Gone(Text("1 symptom")),
		chromedp.Navigate(w.stage("")), Gone(Text("no picture")),
	))
}
