package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"

	. "frugalheron/e2e/browser"
)

// The first evening, by keyboard alone: from signed in to the cursor in the first sheet in at most twelve keys beside
// the words that are typed.
func TestFirstEvening(t *testing.T) {
	w, b := newWorld(t), open(t)
	pressed := 0
	key := func(keys string) chromedp.Action {
		pressed++
		return Keys(keys)
	}
	require.NoError(t, b.Do(
		SignIn(w.url, curator.Login, curator.Password), See(Text("What asks for somebody today.")),
		key("/"), Keys("enter a machine"), key(kb.Enter), See(Text("Enter and take onto the bench")),
		Until("focus in the form", `["accession", "name"].includes(document.activeElement.name)`),
	))
	var isProposed bool
	require.NoError(t, b.Do(Evaluate(`document.activeElement.name === "name"`, &isProposed)))
	if !isProposed { // the number is typed where none can be proposed
		require.NoError(t, b.Do(Keys("EH-0990"), key(kb.Tab)))
	}
	require.NoError(t, b.Do(
		Keys("Estuary evening"), key(kb.Enter), See(Text("Start with the main board")),
		key("/"), Keys("add a board"), key(kb.Enter), See(Button("Add the board")),
		Until("focus in the form",
			`document.activeElement.tagName === "INPUT" && document.activeElement.name !== "find"`),
		key(kb.Enter), See(editor("Main board")),
		Until("focus in the sheet", `document.activeElement.ariaLabel === "Sheet of Main board"`),
		Keys("U1 74LS00"), See(Text("74LS00")),
	))
	require.LessOrEqual(t, pressed, 12)

	// An address that somebody sends leads another to the same line, and to the same finding.
	board := w.addJudgedBoard(t)
	line := fmt.Sprintf("%s/bench/%d/take-stock?at=%d.2", w.url, w.machine.ID, board)
	other := open(t)
	require.NoError(t, other.Do(
		SignIn(w.url, technician.Login, technician.Password), chromedp.Navigate(line), onLine("BT1"),
		chromedp.Navigate(w.stage("judge")), Click(`//tr[starts-with(@id, "finding-")]//a[.="leaking"]`),
		Until("the finding is named",
			`location.search.startsWith("?finding=") && document.querySelector("tr[data-named]") !== null`),
		chromedp.Reload(), Until("and has the focus", `document.activeElement.matches("tr[data-named]")`),
	))

	// Nothing sticks out sideways, from a small phone to a large screen.
	for _, width := range []int64{320, 1920} {
		for _, path := range []string{"/start", "/collection", fmt.Sprintf("/bench/%d/judge", w.machine.ID),
			fmt.Sprintf("/bench/%d/take-stock", w.machine.ID), "/library/unknowns", "/try", "/instruments"} {
			var sideways int
			require.NoError(t, other.Do(chromedp.EmulateViewport(width, 900), chromedp.Navigate(w.url+path),
				See(`//h1`), Evaluate(`document.documentElement.scrollWidth - innerWidth`, &sideways)))
			require.LessOrEqual(t, sideways, 0, "%d %s", width, path)
		}
	}
}

// addJudgedBoard adds a board with a finding on its second line.
func (w world) addJudgedBoard(t *testing.T) int64 {
	return w.addBoard(t, "== Seen board\nU1 74LS00\nBT1 NiCd !leaking: crust").ID
}
