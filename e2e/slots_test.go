package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/parts"
	. "frugalheron/e2e/browser"
)

// A serpentine backplane with a filler, two cards that meet by how their switches were found, and the card that is set
// otherwise: written down, thought and done by keyboard.
func TestASerpentineBackplaneAndASwitchBlock(t *testing.T) {
	w, b, keeper := newWorld(t), open(t), action.Actor{Role: action.Curator}
	for _, one := range []library.KnownInput{{Kind: "card", Name: "Serial card", Numbers: "OP-7",
		Details: "needs slot | quad\nchain passes\nuses irq | 3"}, {Kind: "card", Name: "Disk card", Numbers: "OP-9",
		Details: "needs slot | quad\nchain passes\nswitch SW1.1-2 | on on = irq 3 | off on = irq 4\n" +
			"switch SW1.3 | on = parity checked | off = no parity"}} {
		_, err := w.actions.Library.NameKnown(t.Context(), keeper, one)
		require.NoError(t, err)
	}
	for title, slot := range map[string]string{"Serial card": "1", "Disk card": "5"} {
		_, err := w.actions.Inventory.AddAssembly(t.Context(), keeper, w.machine.ID,
			inventory.AssemblyInput{Title: title,
				Kind: "card", Slot: slot, Part: map[string]string{"1": "OP-7", "5": "OP-9"}[slot]})
		require.NoError(t, err)
	}
	press := func(button string) chromedp.Action { return chromedp.Tasks{focusButton(button), Keys(kb.Enter)} }
	write := func(label, text string) chromedp.Action {
		return chromedp.Tasks{chromedp.Focus(Labelled(label), chromedp.BySearch), Paste(text)}
	}
	const layout = "row top | quad | 1 2 3\nrow bottom | quad | 4 5 6\nchain 1 2 3 6 5"
	require.NoError(t, b.Do(
		SignIn(w.url, curator.Login, curator.Password), chromedp.Navigate(w.stage("set-up")),
		See(Text("Nothing that is known speaks against it")),
		press("Write the backplane down"), write("Backplane", layout+" 5"), press("Save"),
		See(Text("Line 3: the chain comes to slot 5 twice")), // and what was typed is there
		chromedp.Focus(Labelled("Backplane"), chromedp.BySearch), Keys(kb.Backspace), Keys("4"), press("Save"),
		See(Text("the bus runs ←")), See(Text("needs a filler")), See(Text("the chain needs a filler in slot 2, 3, 6")),
		Until("the filler in the reckoning", `document.body.innerText.includes("fillers are missing")`),

		press("Write a configuration down"), write("What it is called", "As found"),
		write("Settings of Disk card, slot 5", "SW1 on on off"), See(Text("no parity")), See(Text("irq 3")),
		press("Save"),
		See(Text("As it stands: the Serial card")), See(Text("SW1.1-2 at off on")),
		See(Text("1 thing does not go together")),

		chromedp.Focus(`//button[.//b[.="Serial card"]]`, chromedp.BySearch), Keys(kb.Enter),
		See(Button("Think it out")), press("Think it out"), See(Text("1 card is thought elsewhere")),
		Gone(Text("As it stands: the Serial card")), press("As it stands again"),
		See(Text("As it stands: the Serial card")),
		press("It is done so"), Gone(Text("As it stands: the Serial card")),
		Until("the configuration", `document.body.innerText.includes("as the slots were planned changed")`),
		Gone(Text("1 thing does not go together")),
		chromedp.Navigate(w.stage("slot-sheet")), See(Text("Rails, once it is done")),
	))
	told, err := w.actions.Setup.Setup(t.Context(), keeper, w.machine.ID)
	require.NoError(t, err)
	require.Equal(t, "As found", told.Configurations[1].Title)
	for _, card := range told.Configurations[0].Cards {
		if card.Title == "Disk card" {
			require.Equal(t, "SW1.3 off\nSW1.1-2 off on", card.Settings)
		}
	}
}

// A card for beside the machine, with the lamps of its panel; modules that may not stand and what could; a secret that is seen by
// those who may, and nowhere else. By keyboard.
func TestHowAMachineIsOperatedAndWhatMemoryItTakes(t *testing.T) {
	w, b, keeper := newWorld(t), open(t), action.Actor{Role: action.Curator}
	w.addBoard(t, "== Main board\nM1 SIMM 30-pin 1Mx9 120ns\nM2 SIMM 30-pin @empty")
	_, err := w.actions.Parts.AddStock(t.Context(), keeper, parts.StockInput{What: "SIMM 30-pin 1Mx9 80ns", Count: 2})
	require.NoError(t, err)
	press := func(button string) chromedp.Action { return chromedp.Tasks{focusButton(button), Keys(kb.Enter)} }
	write := func(label, text string) chromedp.Action {
		return chromedp.Tasks{chromedp.Focus(Labelled(label), chromedp.BySearch), Paste(text)}
	}
	const secret = "neap-tide"
	shown := func(text string, is bool) chromedp.Action {
		return Until(text, fmt.Sprintf(`document.body.innerText.includes(%q) === %t`, text, is))
	}
	require.NoError(t, b.Do(
		SignIn(w.url, curator.Login, curator.Password), chromedp.Navigate(w.stage("set-up")),
		See(Text("Nobody wrote down yet which modules it takes, and in which banks.")),
		press("Say which modules it takes"), write("Rules", "bank 0 | M1-M2\nsizes 1Mx9\nrule full\nmost 100 ns"), press("Save"),
		See(Text("2 modules lie free in the stores.")), shown("1 MB fitted; the bank 0 is filled in full or not at all", true),
		shown("they are slower than 100 ns", true), write("How much is wanted", "max"), shown("2 sockets change", true),

		press("Write its operating card"), write("Start", "Key to the right"),
		chromedp.Focus(`//summary[.="Front panel"]`, chromedp.BySearch), Keys(kb.Enter),
		write("At the panel", "address 0100\ndeposit 8"), shown("is no digit in octal", true),
		chromedp.Focus(Labelled("At the panel"), chromedp.BySearch), Keys(kb.Backspace), Keys("7"),
		See(`//*[@aria-label="data lamps: 000007"]`), press("Save"), See(Text("At the panel, in octal")),
		See(`//*[@aria-label="address lamps: 000100"]`),

		press("Put a credential away"), write("What it is for", "sign-on of the operator"), write("What is typed",
			secret),
		press("Save"), See(Text("sign-on of the operator")), shown(secret, false), press("Look at it"), shown(secret,
			true),
		press("Hide it again"), shown(secret, false),
		chromedp.Navigate(w.stage("operating-card")), See(Text("Key to the right")), shown(secret, false),
		chromedp.Navigate(w.url+"/bench/1/at-a-glance"), shown("looked at the credential", true),
	))
	kept := ""
	require.NoError(t, b.Do(Evaluate(`JSON.stringify(Object.entries(localStorage)) + JSON.stringify(Object.entries(sessionStorage))`, &kept)))
	require.NotContains(t, kept, secret)
	population, err := w.actions.Setup.Population(t.Context(), keeper, w.machine.ID, "")
	require.NoError(t, err)
	require.False(t, population.Legal)
}
