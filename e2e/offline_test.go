package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	. "frugalheron/e2e/browser"
)

// At the bench without a connection: what is done is kept, also when the page is opened again, and sent in order when
// there is one; what the server does not take is shown with its words.
func TestOfflineAtTheBench(t *testing.T) {
	w, b := newWorld(t), open(t)
	board := w.addBoard(t, "== Main board\nBT1 NiCd 3.6V\nU1 74LS00 8501")
	line, err := NewLine(w.url)
	require.NoError(t, err)
	t.Cleanup(line.Close)
	at := func(stage string) string { return strings.Replace(w.stage(stage), w.url, line.URL, 1) }
	measure := func(what string) chromedp.Action {
		return chromedp.Tasks{Fill(Labelled("What you measured"), what),
			Click(`//section[@aria-label="Measurements"]//button[.="Save"]`),
			Until("an empty line", `document.querySelector("input[name=line]")?.value === ""`)}
	}
	require.NoError(t, b.Do(
		SignIn(line.URL, technician.Login, technician.Password), chromedp.Navigate(at("judge")),
		See(Labelled("What you measured")),
		chromedp.Evaluate(`navigator.serviceWorker.ready.then(() => true)`, nil, Awaited),
		chromedp.Navigate(at("take-stock")), SheetText("Sheet of Main board", "BT1 NiCd 3.6V\nU1 74LS00 8501"),
		verdict("Parts", "1 chip"), chromedp.Evaluate(seenIsKept, nil, Awaited),
	))
	line.Cut()
	require.NoError(t, b.Do(
		Click(editor("Main board")), Chord(kb.End, input.ModifierCtrl), Keys(kb.Enter), Keys("74LS04 8502"),
		Click(Button("Save the sheet of Main board")), See(Text("kept here; it is sent when there is a connection")),
		See(Text("1 thing kept here, waiting for a connection.")),
		Click(`//nav[@aria-label="Stages"]//a[contains(., "Judge")]`), measure("BT1 2.1 V"),
		measure("nothing of ours 3 V 4"),
		See(Text("3 things kept here, waiting for a connection.")),
		// The page is opened again: it is there, with what waits.
		chromedp.Reload(), See(Text("3 things kept here, waiting for a connection.")), measure("+12 11.9"),
		Click(Link("Show them")), See(Text("BT1 2.1 V")), See(Text("+12 11.9")),
	))
	require.Equal(t, 1, w.kept(t, board.ID).N, "nothing reached the server")
	line.Mend()
	require.NoError(t, b.Do(See(Text("1 thing was not taken.")), Gone(Text("+12 11.9")), See(Text("Not taken.")),
		See(Text("nothing of ours 3 V 4")), Click(`//button[starts-with(@aria-label, "Delete what waits of")]`),
		See(Text("Nothing waits.")), Gone(Text("not taken.")), See(Text("Nothing is begun."))))
	require.Contains(t, w.kept(t, board.ID).Body, "U2         74LS04 8502")
	measured, err := w.actions.Condition.Measurements(t.Context(), action.Actor{Role: action.Technician}, w.machine.ID)
	require.NoError(t, err)
	require.Len(t, measured, 2, "each once")
	require.Empty(t, b.Breaches())
}

// seenIsKept waits until what was seen lies on the device.
const seenIsKept = `new Promise(done => { const look = () => { const opening = indexedDB.open("heron")
	opening.onsuccess = () => { const db = opening.result, count = db.transaction("seen").objectStore("seen").count()
		count.onsuccess = () => { db.close(); if (count.result > 0) done(true); else setTimeout(look, 200) } } }
	look() })`

// Two people on one device: what one of them began waits for them, and the other neither sees nor sends it.
func TestTwoPeopleOnOneDevice(t *testing.T) {
	w, b := newWorld(t), open(t)
	w.addBoard(t, "== Main board\nU1 74LS00 8501")
	begun := chromedp.Tasks{Click(Button("Move Main board")), See(Labelled("Note"))}
	require.NoError(t, b.Do(
		SignIn(w.url, technician.Login, technician.Password), chromedp.Navigate(w.bench()), begun,
		Fill(Labelled("Note"), "asked for by Wren"), Click(Button("Sign out")), See(Text("1 thing is not sent yet")),
		Click(Button("Keep them here and sign out")), See(Labelled("Login")),
		SignIn(w.url, curator.Login, curator.Password), chromedp.Navigate(w.url+"/unsent"),
		See(Text("Nothing is begun.")),
		chromedp.Navigate(w.bench()), begun, Gone(Text("is here again")), Click(Button("Cancel")), SignOut(),
		SignIn(w.url, technician.Login, technician.Password), chromedp.Navigate(w.bench()), begun,
		See(Text("is here again")),
		Until("what was typed",
			`[...document.querySelectorAll("input,textarea")].some(x => x.value === "asked for by Wren")`),
	))
	require.Empty(t, b.Breaches())
}
