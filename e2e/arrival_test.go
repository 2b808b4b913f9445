package e2e

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/png"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	"frugalheron/app/people"
	. "frugalheron/e2e/browser"
)

// choose sets a drop-down by its label to an option.
func choose(label, option string) chromedp.Action {
	return Until(label+": "+option, fmt.Sprintf(`(() => {
		const label = Array.from(document.querySelectorAll("label")).find(x => x.firstChild?.textContent === %q);
		const option = Array.from(label?.querySelectorAll("option") ?? []).find(x => x.textContent.includes(%q));
		if (!option) return false;
		const drop = label.querySelector("select");
		if (drop.dataset.chosen !== option.value) { // once, however long the answer takes
			drop.dataset.chosen = option.value;
			Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, "value").set.call(drop, option.value);
			drop.dispatchEvent(new Event("change", {bubbles: true}));
		}
		return drop.value === option.value })()`, label, option))
}

// thing adds a thing to the lot whose page is open.
func thing(title, estimate, value string) chromedp.Action {
	return chromedp.Tasks{
		Fill(Labelled("What it is"), title), Fill(Labelled("Estimate when it came"), estimate),
		Fill(Labelled("Worth today"), value), Keys(kb.Enter),
		See(`//td[.="` + title + `"]`),
		Until("an empty form", `document.querySelector("input[name=title]")?.value === ""`),
	}
}

// A lot comes in, is spread, and one thing of it becomes a machine; its chain is told, its outside walked
// round by keyboard, and its serial number cited on a photograph.
func TestArriveAndLookOver(t *testing.T) {
	w, b := newWorld(t), open(t)
	photo := filepath.Join(t.TempDir(), "rear of it.png")
	var file bytes.Buffer
	require.NoError(t, png.Encode(&file, image.NewGray(image.Rect(0, 0, 800, 600))))
	require.NoError(t, os.WriteFile(photo, file.Bytes(), 0o600))

	require.NoError(t, b.Do(
		SignIn(w.url, curator.Login, curator.Password),
		Click(Link("Collection")), Click(Button("Arrivals")), Click(Button("Receive a lot")),
		Fill(Labelled("What arrived"), "Chattels of the pilot office"), choose("How", "auction"),
		Click(Button("Add somebody new: From")), Fill(Labelled("Name"), "Marten Holloway"), choose("Kind", "person"),
		Click(`//*[@role="dialog"]//label[contains(., "A private person")]`),
		Fill(Labelled("What everybody may know in place of the name"), "a former pilot"),
		Click(Button("Add to the list")), Gone(`//*[@role="dialog"]`),
		Fill(Labelled("When"), "1985-W07"), Fill(Labelled("Price, without extra costs"), "371"),
		Fill(Labelled("Amount"), "48,50"), Keys(kb.Enter),
		See(Text("Weeks are written by their days: 1985-02-11/1985-02-17.")), // what was typed is kept
		Fill(Labelled("When"), "2025-03-14"), Keys(kb.Enter),
		See(Text("419.50 EUR")), Click(Button("Add a thing")),
		thing("Meridian 2", "180.00", ""), thing("Memory card", "60", "520.00"), thing("Lead", "12.34", ""),
		See(Text("Memory card alone outweighs the whole lot: 520.00 against 419.50")),
	))
	var shares []string
	require.NoError(t, b.Do(
		Evaluate(`Array.from(document.querySelectorAll("table tr > :nth-child(4)")).map(x => x.textContent).slice(1)`,
			&shares)))
	require.Equal(t, []string{"299.24", "99.75", "20.51", "419.50"}, shares) // 419.50 to the cent

	require.NoError(t, b.Do(
		Click(Button("Place Meridian 2")), choose("Meridian 2 ...", "becomes a machine"),
		Until("the next number", `document.querySelector("input[name=accession]")?.value === "2025.1.1"`),
		Click(Button("Enter it and take it onto the bench")), See(Text("auction, from Marten Holloway")),
		See(Text("299.24 EUR")),
	))
	tell := func(role, whom, when string) chromedp.Action {
		return chromedp.Tasks{
			focusButton("Add to the chain"), Keys(kb.Enter), choose("It was", role),
			Fill(Labelled("By or to whom"), whom), Fill(Labelled("When"), when),
			Click(Button("Add it to the chain")), Gone(Button("Add it to the chain")),
		}
	}
	require.NoError(t, b.Do(
		tell("made by", "Tarn & Vole", "1985"), tell("sold to", "Merchant in Eel Street", "1983"),
		tell("used by", "Pilot office", "1986/1991"), tell("stored by", "A barn", "1995/2024"),
		See(Text("lies before it was made")), See(Text("nothing is known from 1992-01-01 to 1994-12-31, 3 years")),
		verdict("Provenance", "1 impossible statement, 1 gap"),
	))

	// Round the machine by keyboard alone.
	require.NoError(t, b.Do(
		chromedp.Evaluate(`document.activeElement?.blur()`, nil), Keys("]"), See(Text("not seen")),
		chromedp.Focus(`//button[@aria-label="Write it: front"]`, chromedp.BySearch), Keys(kb.Enter),
		Until("the side to be begun",
			`document.activeElement.ariaLabel === "Sheet of Outside" && document.activeElement.textContent.includes("== front")`),
		Keys("badge model \"Meridian 2\""+kb.Enter+"== rear"+kb.Enter+"plate 220-240V 50Hz 0.9A earth"+kb.Enter+
			"port D-sub 25 \"SERIAL\""),
		See(Text("say which gender the port is")), Keys(" female"+kb.Enter+"weight 11.4 kg"),
		Chord("s", input.ModifierCtrl),
		See(Text("saved, revision 1")), See(Text("not looked at: left, right, top, underside")),
		Until("the rating to be known",
			`Array.from(document.querySelectorAll("li[data-state=settled]"))
				.some(x => x.textContent.includes("220-240 V"))`),
	))

	// The serial number, cited where it stands on a picture.
	require.NoError(t, b.Do(
		chromedp.SetUploadFiles(`input[aria-label="Files to add"]`, []string{photo}, chromedp.ByQuery,
			chromedp.NodeReady), See(Text("1 of 1 kept")),
		Click(Button("Open rear of it.png")),
		Until("the picture in focus", `document.activeElement.ariaLabel?.startsWith("Picture; arrow keys")`),
		Keys(kb.ArrowRight+kb.ArrowDown), Click(Button("Cite the marked part")),
		Fill(Labelled("What the source says"), "TV2-02218"), Click(Button("Save")),
		Click(Button("place on the picture")), See(Text("cited 1x")),
	))
	var x float64
	require.NoError(t, w.db.Get(&x,
		`SELECT CAST(region->>'x' AS double precision) FROM statement WHERE value = 'TV2-02218'`))
	require.InDelta(t, 0.42, x, 0.001)

	// Whoever only looks is told the role, not the name.
	require.NoError(t, b.Do(SignOut(), SignIn(w.url, viewer.Login, viewer.Password),
		chromedp.Navigate(w.url+"/collection/arrivals"), See(Text("a former pilot")), Gone(Text("Marten Holloway"))))
}

// What a museum decides beside the machine itself: data of former owners, where things stand, how numbers
// are written; and two curators on one lot.
func TestDecisionsOfAMuseum(t *testing.T) {
	w, b := newWorld(t), open(t)
	arrive := fmt.Sprintf("%s/bench/%d/arrive", w.url, w.machine.ID)
	require.NoError(t, b.Do(
		SignIn(w.url, technician.Login, technician.Password), chromedp.Navigate(arrive),
		Click(Button("Note that there is some")), See(Text("Image the medium before anything on it is deleted")),
		Fill(Labelled("Where it is"), "hard disk, second half"), Fill(Labelled("What kind of data"), "letters"),
		Keys(kb.Enter),
		See(Text("1 to decide or to carry out")),
		Gone(Button("Decide about hard disk, second half")), // that is a curator's
		Click(Button("Move the machine")), Fill(Labelled("Place"), "Rope walk, bay 4, shelf 2"), Keys(kb.Enter),
		See(Text("EH-0900 is moved: Rope walk, bay 4, shelf 2.")), Click(Button("Move the machine")),
		choose("It goes", "on loan"),
		Fill(Labelled("Lent to"), "Saltmarsh Repair Club"), Fill(Labelled("To be back by"), "soon"), Keys(kb.Enter),
		See(Text("Write the day as 2026-11-25.")),
		Fill(Labelled("To be back by"), "2099-05-01"), Keys(kb.Enter),
		See(Text("on loan to Saltmarsh Repair Club, to be back by 2099-05-01")),
		chromedp.Evaluate(`document.activeElement?.blur()`, nil), Keys("u"),
		Gone(Text("on loan to Saltmarsh Repair Club, to be back by 2099-05-01")),
		Click(Link("Stores")), Click(Button("Places")), See(`//tr[td[1][.="shelf 2"] and td[3][.="1"]]`),
		See(`//tr[td[1][.="Rope walk"] and td[3][.="1"]]`),
		Click(Link("Diary")), See(Text("hard disk, second half: to be decided")),
		SignOut(),
	))
	require.NoError(t, b.Do(
		SignIn(w.url, curator.Login, curator.Password), chromedp.Navigate(arrive),
		Click(Button("Decide about hard disk, second half")), choose("Decision", "keep sealed"),
		Fill(Labelled("Reason"), "until the owner answers"), Fill(Labelled("Carried out on"), "2026-01-02"),
		Click(Button("Save")), See(Text("Lies before the day of the decision.")),
		Fill(Labelled("Carried out on"), ""), Keys(kb.Enter),
		Gone(Button("Save")), See(Text("keep sealed")), See(Text("not yet")),

		Click(Link(curator.Name+", curator")), Click(Button("Edit the collection")),
		Fill(Labelled("Accession numbers"), "EH-{serial}"), Keys(kb.Enter),
		See(Text("There is no field {serial}; there are {number}, {year}, {lot} and {item}.")),
		Fill(Labelled("Accession numbers"), "EH-{number:4}"),
		Fill(Labelled("Name of the collection"), "Estuary Heritage Collection"), Keys(kb.Enter),
		See(Text("EH-{number:4}")),
		Click(Button("Explain gaps, or take over a register")),
		Fill(Labelled("Numbers, a line each, with what is known of them behind a semicolon"),
			"EH-0898; given back in 1999\nEH-0900; ours"),
		Click(Button("See what would happen")),
		See(Text("line 2, EH-0900: a machine of the collection has it, or had it")),
		Click(Button("Take over 1 numbers")), See(Text("EH-0899")), See(Text("2 given, none of them ever again")),
		Click(Link("Collection")), Click(Button("Enter a machine")),
		Until("the next number", `document.querySelector("input[name=accession]")?.value === "EH-0901"`),
	))

	// Somebody else changes the lot while it is being edited: theirs is shown, and nothing is overwritten.
	lot, err := w.actions.Arrivals.Receive(context.Background(), action.Actor{Role: action.Curator},
		arrivals.AcquisitionInput{Title: "Clear-out", Method: "gift", Condition: "dusty"}, nil)
	require.NoError(t, err)
	require.NoError(t, b.Do(chromedp.Navigate(fmt.Sprintf("%s/collection/arrivals/%d", w.url, lot.ID)),
		Click(Button("Edit")), Fill(Labelled("Condition as received"), "clean"),
		Fill(Labelled("Note"), "in two crates")))
	fields := lot.AcquisitionInput
	fields.Condition = "dusty, and a mouse lived in it"
	_, err = w.actions.Arrivals.ChangeAcquisition(context.Background(), action.Actor{Role: action.Curator}, lot.ID,
		lot.Version, fields)
	require.NoError(t, err)
	require.NoError(t, b.Do(
		Click(Button("Save")), See(Text("condition: dusty, and a mouse lived in it")),
		Click(Button("Go on with mine over theirs")), Gone(Text("Changed meanwhile.")), Click(Button("Save")),
		See(Text("in two crates")), See(Text("clean")),
		Click(Button("Show the history")), See(Text("condition from dusty, and a mouse lived in it to clean")),
	))
}

// A word that is also somebody's name: whoever saved it is asked, and says by keyboard that it is only a word.
func TestNamesInTextsAreAskedAbout(t *testing.T) {
	w, b := newWorld(t), open(t)
	_, err := w.actions.People.AddParty(context.Background(), action.Actor{Role: action.Curator},
		people.PartyInput{Name: "Rose Tregear", Spellings: "Rose", Kind: "person", Private: true, Role: "a neighbour"})
	require.NoError(t, err)
	say := func(text string) chromedp.Action {
		return chromedp.Tasks{Fill(Labelled("Say or find"), text), See(Text("Keep as a note")), Keys(kb.Enter)}
	}
	require.NoError(t, b.Do(
		SignIn(w.url, technician.Login, technician.Password), chromedp.Navigate(w.bench()),
		say("note the voltage rose"), See(Text("Viewers read “a neighbour” there.")),
		chromedp.Focus(`//button[.="No, leave the word"]`), Keys(kb.Enter), Gone(Button("No, leave the word")),
		say("note given by Tregear, Rose"), See(Text("“Tregear, Rose” stands in a text.")),
		Click(Link("All names found")),
		Gone(Link("All names found")),
		See(`//td[contains(., "given by")]`), Accessible("../ui/node_modules/axe-core/axe.min.js"),
		Click(Button("It is Rose Tregear")), Gone(Text("Names found in texts")),
		SignOut(), SignIn(w.url, viewer.Login, viewer.Password), chromedp.Navigate(w.url+"/diary"),
		See(Text("noted: the voltage rose")), See(Text("noted: given by a neighbour")),
	))
}
