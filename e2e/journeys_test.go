// Package e2e walks whole journeys through the real interface in a headless browser, against the
// embedded application on a throwaway database.
package e2e

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/png"
	"net"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	"frugalheron/app/evidence"
	"frugalheron/app/files"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/roms"
	"frugalheron/app/signs"
	"frugalheron/core/sign"
	"frugalheron/demo"
	. "frugalheron/e2e/browser"
	"frugalheron/instruments/romreader"
	"frugalheron/jobs"
	"frugalheron/store/blobs"
	"frugalheron/store/sheets"
	"frugalheron/store/storetest"
	"frugalheron/web"
)

func TestMain(m *testing.M) { storetest.Main(m) }

var curator, technician, viewer = demo.Accounts[0], demo.Accounts[1], demo.Accounts[2]

// world is a served application with the sample accounts and one machine.
type world struct {
	url     string
	actions *app.App
	db      *sqlx.DB
	machine inventory.Machine
}

func newWorld(t *testing.T) world {
	ctx := context.Background()
	db := storetest.New(t)
	kept, err := blobs.Open(ctx, t.TempDir())
	require.NoError(t, err)
	actions := app.New(db).WithBlobs(kept)
	for _, account := range demo.Accounts {
		_, err := actions.Accounts.AddAccount(ctx, account.Login, account.Name, account.Role, account.Password)
		require.NoError(t, err)
	}
	machine, err := actions.Inventory.CreateMachine(ctx, action.Actor{Role: action.Curator},
		inventory.MachineInput{Accession: "EH-0900", Name: "Estuary test bench", Maker: "Tarn & Vole"})
	require.NoError(t, err)
	endJobs, err := jobs.Start(ctx, actions.Kernel)
	require.NoError(t, err)
	t.Cleanup(endJobs)
	server := httptest.NewServer(web.New(db, actions, web.Config{}))
	t.Cleanup(server.Close)
	return world{server.URL, actions, db, machine}
}

// addBoard gives the machine a board with a sheet.
func (w world) addBoard(t *testing.T, text string) inventory.Assembly {
	added, err := w.actions.Sheets.TakeOverSheet(context.Background(), action.Actor{Role: action.Technician},
		w.machine.ID, text)
	require.NoError(t, err)
	return added[0]
}

// addKnown adds what the library knows: two models, a machine of one, and a card.
func (w world) addKnown(t *testing.T) {
	ctx, curator := context.Background(), action.Actor{Role: action.Curator}
	for i, told := range []string{"picture memory = 64 KB (eight 4416) | handbook", "slots = 5 | handbook"} {
		_, err := w.actions.Library.AddModel(ctx, curator, library.ModelInput{Maker: "Tarn & Vole",
			Model: fmt.Sprintf("Lantern %d", i+1), Made: "1984/1987", Expected: "Main board | part 4410-2",
			Facts: told})
		require.NoError(t, err)
	}
	_, err := w.actions.Library.NameKnown(ctx, curator, library.KnownInput{Kind: "board", Name: "Board of the Lantern",
		Numbers: "4410-2",
		Details: "connector J7 | 5-pin round socket | keyboard\nfault U1 hot | feel U1 after ten minutes",
		Signs:   "row power, fault\nfields 7-4 bank\nexpect lamps power | ready | waits\ncode 0x4? | any | a chip"})
	require.NoError(t, err)
	_, err = w.actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: "EH-0902", Name: "Lamp",
		Maker: "Tarn & Vole", Model: "Lantern 1"})
	require.NoError(t, err)
	for kind, shown := range map[sign.Kind]string{sign.Lamps: "fault*", sign.Code: "0x47"} {
		_, err = w.actions.Signs.SeeSign(ctx, curator, w.machine.ID, signs.SightingInput{Kind: kind, Shown: shown})
		require.NoError(t, err)
	}
}

// addStory gives the machine a lot, a past, an outside that meets another machine's, and a picture.
func (w world) addStory(t *testing.T) {
	ctx, curator := context.Background(), action.Actor{Role: action.Curator}
	price := int64(371_00)
	_, err := w.actions.Arrivals.Receive(ctx, curator,
		arrivals.AcquisitionInput{Title: "Clear-out", Method: "purchase", Arrived: "2025", PriceCents: &price},
		[]arrivals.LotItemInput{{Kind: "machine", Title: "Terminal"}})
	require.NoError(t, err)
	for i, dates := range []string{"1984", "1990/1992"} {
		_, err := w.actions.Arrivals.TellCustody(ctx, curator, w.machine.ID,
			arrivals.CustodyInput{Role: []string{"made-by", "used-by"}[i], Who: "Tarn & Vole", Dates: dates,
				Citation: evidence.Citation{Kind: "recalled"}})
		require.NoError(t, err)
	}
	other, err := w.actions.Inventory.CreateMachine(ctx, curator,
		inventory.MachineInput{Accession: "EH-0901", Name: "Neighbour", Serial: "TV1-00417"})
	require.NoError(t, err)
	require.NotZero(t, other.ID)
	for _, value := range []string{"64K", "128K"} {
		_, err = w.actions.Evidence.StateEvidence(ctx, curator, w.machine.ID,
			evidence.StatementInput{Attribute: "memory", Value: value,
				Citation: evidence.Citation{Kind: "firmware", Cited: "start screen"}})
		require.NoError(t, err)
	}
	_, err = w.actions.Evidence.StateEvidence(ctx, curator, w.machine.ID,
		evidence.StatementInput{Attribute: "serial", Value: "TV1 00417", Citation: evidence.Citation{Kind: "label"}})
	require.NoError(t, err)
	var file bytes.Buffer
	require.NoError(t, png.Encode(&file, image.NewGray(image.Rect(0, 0, 320, 200))))
	_, err = w.actions.Files.Attach(ctx, curator, files.Owner{MachineID: &w.machine.ID}, "rear.png", file.Bytes())
	require.NoError(t, err)
}

func (w world) bench() string { return fmt.Sprintf("%s/bench/%d/take-stock", w.url, w.machine.ID) }

func (w world) kept(t *testing.T, assembly int64) sheets.Revision {
	revision, err := sheets.NewestRevision(context.Background(), w.db, assembly)
	require.NoError(t, err)
	return revision
}

// open starts a browser whose pages must neither breach the security policy nor throw.
func open(t *testing.T) *Browser {
	b, err := Start(1280, 800)
	require.NoError(t, err)
	t.Cleanup(func() {
		if t.Failed() {
			var page string
			if b.Do(Evaluate(`document.body.innerText`, &page)) == nil {
				t.Logf("the page when it failed:\n%s", page)
			}
		}
		require.Empty(t, b.Breaches())
		b.Close()
	})
	return b
}

// verdict reads a line of the reckoning once it says what is wanted.
func verdict(label, value string) chromedp.Action {
	return See(fmt.Sprintf(`//aside//button[span[contains(., "%s")] and span[.="%s"]]`, label, value))
}

// onLine waits until the cursor of the sheet in focus stands on a line.
func onLine(text string) chromedp.Action {
	return Until("the cursor on "+text,
		fmt.Sprintf(`document.querySelector(".cm-focused .cm-activeLine")?.textContent.includes(%q)`, text))
}

func editor(board string) string { return `//*[@aria-label="Sheet of ` + board + `"]` }

func TestSignIn(t *testing.T) {
	w, b := newWorld(t), open(t)
	require.NoError(t, b.Do(
		chromedp.Navigate(w.bench()),
		Fill(Labelled("Login"), curator.Login), Fill(Labelled("Password"), "not the password"), Keys(kb.Enter),
		See(Text("Login or password is wrong.")),
		Fill(Labelled("Password"), curator.Password), Keys(kb.Enter),
		See(Text("Estuary test bench")), // where one wanted to go
		Click(Link(curator.Name+", curator")), Click(Button("Change your password")),
		Fill(Labelled("Current password"), curator.Password), Fill(Labelled("New password"), "a new one, long enough"),
		Fill(Labelled("New password once more"), "another"), Keys(kb.Enter), See(Text("The two new passwords differ.")),
		Fill(Labelled("New password once more"), "a new one, long enough"), Keys(kb.Enter),
		See(Text("Your password is changed.")),
		SignOut(),
		chromedp.Navigate(w.bench()), See(Button("Sign in")),
		Fill(Labelled("Login"), curator.Login), Fill(Labelled("Password"), "a new one, long enough"), Keys(kb.Enter),
		See(Text("Estuary test bench")),
	))
	// The curator invites somebody, who sets a password by the link.
	var link string
	require.NoError(t, b.Do(
		Click(Link(curator.Name+", curator")), See(Text("this one")), Click(Button("Invite somebody")),
		Fill(Labelled("Login"), "ida"), Fill(Labelled("Name"), "Ida Reed"), Keys(kb.Enter),
		See(Text("Pass this on now")), Evaluate(`document.querySelector('[aria-label="Link"]').textContent`, &link),
		See(Text("invited, no password set yet")),
		SignOut(), chromedp.Navigate("about:blank"),
	))
	require.NoError(t, b.Do(
		chromedp.Navigate(link), See(Text("Welcome, Ida Reed.")),
		Fill(Labelled("Password"), "a reed in the wind"), Fill(Labelled("Password once more"), "a reed"),
		Keys(kb.Enter), See(Text("The two passwords differ.")),
		Fill(Labelled("Password once more"), "a reed in the wind"), Keys(kb.Enter), See(Link("Ida Reed, technician")),
		Click(Link("Ida Reed, technician")), See(Text("this one")), Gone(Button("Invite somebody")),
	))
}

func TestCatalogueABoard(t *testing.T) {
	w, b := newWorld(t), open(t)
	sheet := sixtyLines()
	require.NoError(t, b.Do(
		SignIn(w.url, curator.Login, curator.Password),
		Click(Link("Collection")), Click(Button("Enter a machine")),
		Click(Button("Enter and take onto the bench")), See(Text("Give the machine a name")),
		Fill(Labelled("Accession number"), "EH-0901"),
		Fill(Labelled("Name"), `<b>Meridian</b> "2"; DROP TABLE machine`),
		Fill(Labelled("Parts from (year)"), "mid"), Keys(kb.Enter), See(Text("Write a year in figures")),
		Fill(Labelled("Parts from (year)"), "1984"), Fill(Labelled("Parts to (year)"), "1988"), Keys(kb.Enter),
		See(Text(`<b>Meridian</b> "2"; DROP TABLE machine`)),
		Click(Button("Add a board")), Click(Button("Add the board")),
		See(editor("Main board")),
		Until("focus in the sheet", `document.activeElement.ariaLabel === "Sheet of Main board"`),
		Paste(sheet),
		verdict("RAM", "288 KB, 256 KB main, 32 KB picture, and parity"), verdict("ROM", "32 KB in 2 chips"),
		verdict("Unknown", "2 chips"), verdict("To put right", "2 problems"),
		verdict("Date codes", "1984-W20 to 1985-W33"),
		See(Text("U40 stands on line 3 already; each designator once in an assembly")),
		See(Text("kept here, not yet saved")),
		Click(Button("Save the sheet of Main board")), See(Text("saved, revision 1")),
		chromedp.Reload(), See(Text("27128-25 8533 @socket")), verdict("To put right", "2 problems"),
		// A reason leads to its line.
		Click(`//aside//button[contains(., "To put right")]`), Click(`//aside//li[contains(., "counts down")]//a`),
		onLine("U9-U1"),
		// Two keys name what is unknown, here and everywhere.
		Click(`//aside//button[contains(., "Unknown")]`), Click(`//aside//li[contains(., "HX9040")]//a`),
		onLine("HX9040-2"),
		Chord("n", input.ModifierAlt), See(Labelled("Device number")), Keys("processor, 8 bits"+kb.Enter),
		verdict("Unknown", "2 chips"), See(Text("HX9040 processor, 8 bits, 1984-W31")), onLine("HX9040-2"),
		Keys("\x1b"), Click(Link("Library")), Click(Button("HX9040")), See(Text("Main board, line 2: 1 x")),
	))
	var body string
	require.NoError(t, w.db.Get(&body, `SELECT body FROM sheet_revision`))
	require.Equal(t, sheet, body)
	// A text with headings says what would come of it before it is taken over.
	require.NoError(t, b.Do(
		Click(Link("Bench")), Click(Button("Paste a sheet with headings")),
		Fill(Labelled("Sheet with headings"),
			"== Video card | slot 3\nU1 6845 8436\nU1 6845\n== Memory card\n8x 4164-15"),
		See(Text("Would add 2 boards: Video card (1 lines read), Memory card (1 lines read).")),
		See(Text("line 3, column 1: U1 stands on line 2 already")),
		Click(Button("Add the boards")), See(editor("Memory card")),
		verdict("RAM", "352 KB, 320 KB main, 32 KB picture, and parity"),
	))
	// The card goes into store, comes back by undo, goes to store again and into another machine. Sums follow, and its
	// past is told.
	toStore := chromedp.Tasks{
		Click(Button("Move Memory card")), Fill(Labelled("Place"), "Store, shelf B"), Click(Button("Take it there")),
		See(Text("Memory card is moved: Store, shelf B.")),
		verdict("RAM", "288 KB, 256 KB main, 32 KB picture, and parity"),
	}
	require.NoError(t, b.Do(
		toStore, Click(Button("Undo")), verdict("RAM", "352 KB, 320 KB main, 32 KB picture, and parity"), toStore,
		chromedp.Navigate(w.bench()), Click(Button("Fit one from store")), See(Text("What is in store or lent")),
		Keys("mem"),
		// By keyboard: the list may be read anew between the two halves of a click.
		See(`//*[@role="option" and contains(., "Memory card, Store, shelf B")]`), Keys(kb.ArrowDown),
		See(`//*[@role="option" and @data-focused and contains(., "Memory card, Store, shelf B")]`), Keys(kb.Enter),
		Gone(`//*[@role="option"]`), Fill(Labelled("Slot"), "2"), Click(Button("Put it into EH-0900")),
		verdict("RAM", "64 KB"), Click(Button("History of Memory card")), See(Text("EH-0901")),
		See(`//li[contains(., "EH-0900") and contains(., "slot 2")]`),
		See(`//li[contains(., "Store, shelf B")]`), Click(Button("History")),
		See(Text("moved Memory card from Store, shelf B to EH-0900, slot 2")),
	))
}

// sixtyLines is a board of 60 lines with two problems at its end.
func sixtyLines() string {
	lines := []string{
		"# seen from the component side", "U1         HX9040-2 8431", "U40-U48    41256-15 8512",
		"U20,U22    27128-25 8533 @socket",
		"U30        ?", "X1         18.432 MHz", "BT1        NiCd 3.6V 60mAh !leaking: green crust on the anode",
		"U50-U53    4416-15 8420 for:picture",
	}
	for n := 100; len(lines) < 58; n++ {
		lines = append(lines, fmt.Sprintf("U%d       SN74LS245N 8440", n))
	}
	return strings.Join(append(lines, "U40        74LS00", "U9-U1      74LS04"), "\n")
}

func TestKeyboardOnly(t *testing.T) {
	w, b := newWorld(t), open(t)
	require.NoError(t, b.Do(
		chromedp.Navigate(w.url), See(Button("Sign in")),
		Keys(curator.Login+"\t"+curator.Password+kb.Enter), See(Button("Sign out")),
		// Find the machine, walk the stages and come back.
		Keys("/"), Keys("estuary"), See(Text("Show 1 machine with these words")), Keys(kb.Enter),
		See(Text("1 machine;")),
		Keys("/"), Keys("eh-0900"), See(Text("Take it onto the bench")), Keys(kb.Enter),
		See(Text("Nothing is written down about its inside yet")),
		Keys("]"), See(Button("Write down how it came")), Keys("]"), See(Text("Still to be looked at")),
		Keys("]"), See(Text("Way to a part")), Keys("]"), See(Text("Start with the main board")),
		Keys("]"), See(Text("Nothing is dated yet")), Keys("["), See(Text("Start with the main board")),
		Keys("?"), See(Text("new line with the next designator")), Keys(kb.Escape),
		Gone(Text("new line with the next designator")),
		Until("the button to take the focus",
			`(Array.from(document.querySelectorAll("button"))
				.find(x => x.textContent === "Add a board").focus(), true)`),
		Keys(kb.Enter), See(Labelled("Name of the board")), Keys(kb.Enter), See(editor("Main board")),
		Until("focus in the sheet", `document.activeElement.ariaLabel === "Sheet of Main board"`),
		// Enter proposes the next designator, Alt+Enter repeats the line above.
		Keys("U40-U47    41256-15 8512"), Keys(kb.Enter), Keys("41256-15 8513"), Keys(kb.Enter),
		Chord(kb.Enter, input.ModifierAlt), Keys(kb.Enter), Keys(kb.Enter), Keys("X1 18.432 MHz"),
		SheetText("Sheet of Main board",
			"U40-U47    41256-15 8512\nU48        41256-15 8513\nU49        41256-15 8513\nX1 18.432 MHz"),
	))
	// A board of 60 chips: how many keys does a printed character take?
	board, keys, printed := sixtyChips()
	require.NoError(t, b.Do(Chord("a", input.ModifierCtrl), Keys(kb.Delete)))
	require.NoError(t, b.Do(board...))
	require.NoError(t, b.Do(verdict("Parts", "60 chips"), verdict("RAM", "320 KB, and parity")))
	t.Logf("a board of 60 chips: %d keys for %d printed characters, %.2f keys each", keys, printed,
		float64(keys)/float64(printed))
	require.LessOrEqual(t, float64(keys)/float64(printed), 1.3)
	require.NoError(t, b.Do(
		Chord("a", input.ModifierCtrl), Keys(kb.Delete), Keys("U40-U47    41256-15 8512"), Keys(kb.Enter),
		Keys("41256-15 8513"), Keys(kb.Enter),
		Chord(kb.Enter, input.ModifierAlt), Keys(kb.Enter), Keys(kb.Enter), Keys("X1 18.432 MHz"),
		verdict("Parts", "10 chips"),
		Chord("s", input.ModifierCtrl), See(Text("saved, revision 1")),
		// Said in passing: a line of the sheet and a note, each shown before it is kept.
		Keys(kb.Tab), Keys("/"), Keys("u50 74ls00 8514"),
		See(Text("Main board, line 5, new. Taken for: 74LS00 four 2-input NAND gates, 1985-W14")), Keys(kb.Enter),
		See(Text("saved, revision 2")), verdict("Parts", "11 chips"),
		See(Text("U50 74ls00 8514 stands on Main board, line 5.")), Keys("u"), See(Text("saved, revision 3")),
		Gone(Text("U50 74ls00 8514 stands on Main board, line 5.")), verdict("Parts", "10 chips"),
		Keys("/"), Until("the focus where one says", `document.activeElement.tagName === "INPUT"`),
		Keys("note hinge cracked"), See(Text("Keep as a note")), Keys(kb.Enter),
		See(Text("Noted for EH-0900.")),
		Click(editor("Main board")),
		// Tab leaves the sheet; w goes to the reckoning, Enter opens its first why.
		Keys(kb.Tab), Until("the focus outside the sheet", `!document.activeElement.closest(".cm-editor")`),
		Keys("w"), Keys(kb.Enter), See(Text("1 KB is 1,024 bytes")),
		Keys("e"), Until("the record to take the focus", `document.activeElement.name === "accession"`),
	))
}

// sixtyChips types a board line by line, the way the sheet helps: Enter proposes the designator that
// follows, Alt+Enter repeats the line above. It counts keys, a modifier as one, and the characters
// that stand on the sheet in the end, without the blanks that line them up.
func sixtyChips() (typing chromedp.Tasks, keys, printed int) {
	lines := [][2]string{{"U1", "HX9040-2 8536 @socket"}, {"U2", "D8259AC-2 8537"}, {"U3", "D8253C-5 8537"},
		{"U4", "D8255AC-5 8534"}, {"U5", "D8237AC-5 8529"},
		{"U6", "27128-25 8534 @socket"}, {"U7", "27128-25 8534 @socket"}, {"U10-U18", "41256-15 8512"},
		{"U19", "41464-12 8601"}, {"U20", "41464-12 8601"}}
	for n, number := range strings.Fields(
		"00 00 04 08 14 32 32 74 74 74 86 138 138 139 157 157 161 161 163 164 166 174 175 175 240 244 244 245 245 245 273 373 373 374 374 393 393 125 125 153 153 257") {
		lines = append(lines, [2]string{fmt.Sprintf("U%d", 21+n), fmt.Sprintf("SN74LS%sN 85%02d", number, 20+n/9)})
	}
	press := func(pressed int, step chromedp.Action) {
		keys += pressed
		typing = append(typing, step)
	}
	for i, line := range lines {
		text := line[0] + " " + line[1]
		printed += len(text) + 1
		follows := i > 0 && line[0] != "U10-U18" && lines[i-1][0] != "U10-U18" || line[0] == "U19"
		switch {
		case follows && lines[i-1][1] == line[1]:
			press(2, Chord(kb.Enter, input.ModifierAlt))
		case follows:
			press(1+len(line[1]), Keys(kb.Enter+line[1]))
		case i > 0:
			press(2+len(text), Keys(kb.Enter+kb.Enter+text))
		default:
			press(len(text), Keys(text))
		}
	}
	return typing, keys, printed
}

func TestTableAndTextAgree(t *testing.T) {
	w, b := newWorld(t), open(t)
	board := w.addBoard(t,
		"== Main board\n# kept\nU1         74LS00 8501\nU2-U9      4164-15 8440 @socket # fast ones\nno designator here")
	require.NoError(t, b.Do(
		SignIn(w.url, technician.Login, technician.Password), chromedp.Navigate(w.bench()),
		verdict("RAM", "64 KB"), Click(`//*[@role="radio" and .="Table"]`),
		See(Text("1 line stands only in the text")),
		Fill(Labelled("Marking, line 2"), "74LS04 8502"), Keys(kb.Enter), See(Text("74LS04 six inverters, 1985-W02")),
		// What cannot be written as a line is said, and stays typed.
		Fill(Labelled("Parts, line 3"), "U9-U2"), Keys(kb.Enter), See(Text("U9-U2 counts down; write U2-U9")),
		Fill(Labelled("Parts, line 3"), "U2-U17"), Keys(kb.Enter), verdict("RAM", "128 KB"),
		Fill(Labelled("Parts of a new line"), "U30"), Fill(Labelled("Marking of a new line"), "27128-25"),
		Keys(kb.Enter),
		verdict("ROM", "16 KB in 1 chip"),
		Click(Button("Save the sheet of Main board")), See(Text("saved, revision 2")),
		Click(`//*[@role="radio" and .="Text"]`),
		SheetText("Sheet of Main board",
			"# kept\nU1         74LS04 8502\nU2-U17     4164-15 8440 @socket  # fast ones\nno designator here\nU30        27128-25"),
	))
	require.Equal(t,
		"# kept\nU1         74LS04 8502\nU2-U17     4164-15 8440 @socket  # fast ones\nno designator here\nU30        27128-25", w.kept(t, board.ID).Body)
	// The history shows the difference and brings the first revision back as a third.
	require.NoError(t, b.Do(
		Click(Button("History of Main board")), See(Text("- U1 74LS00 8501")), See(Text("+ U30 27128-25")),
		Click(Button("Bring revision 1 back into the sheet")), See(Text("kept here, not yet saved")),
		Click(Button("Save the sheet of Main board")), See(Text("saved, revision 3")),
		Click(Button("History")), See(Text("saved the sheet of Main board, revision 3")),
		Click(Link("Diary")), See(Text("saved the sheet of Main board, revision 2")),
		See(Text("entered Estuary test bench")),
	))
	require.Equal(t, "# kept\nU1         74LS00 8501\nU2-U9      4164-15 8440 @socket # fast ones\nno designator here",
		w.kept(t, board.ID).Body)
}

func TestViewerChangesNothing(t *testing.T) {
	w, b := newWorld(t), open(t)
	board := w.addBoard(t, "== Main board\nU1 74LS00 8501")
	var buttons, fields []string
	var status int
	require.NoError(t, b.Do(
		SignIn(w.url, viewer.Login, viewer.Password), chromedp.Navigate(w.bench()),
		SheetText("Sheet of Main board", "U1 74LS00 8501"), verdict("Parts", "1 chip"),
		Click(editor("Main board")), Keys("x"), Chord("s", input.ModifierCtrl), Chord(kb.Enter, input.ModifierAlt),
		Keys("e"),
		SheetText("Sheet of Main board", "U1 74LS00 8501"),
		Click(`//*[@role="radio" and .="Table"]`), See(Labelled("Marking, line 1")),
		Evaluate(`Array.from(document.querySelectorAll("table input:not([readonly]), table select:not([disabled])")).map(x => x.ariaLabel)`, &fields),
		Evaluate(`Array.from(document.querySelectorAll("main button, section button, div > button")).map(x => x.textContent).filter(x => /add|paste|edit|save|enter/i.test(x))`, &buttons),
		chromedp.Evaluate(
			fmt.Sprintf(
				`fetch("/api/assemblies/%d/sheet", {method: "PUT", headers: {"Content-Type": "application/json"},
					body: '{"base":1,"body":"U2 7400"}'}).then(r => r.status)`, board.ID), &status, Awaited),
	))
	require.Empty(t, buttons)
	require.Empty(t, fields)
	require.Equal(t, 403, status)
	require.Equal(t, 1, w.kept(t, board.ID).N)
}

// Two people change different lines of a sheet, then the same one. In between the tab is closed.
func TestTwoPeopleOnOneSheet(t *testing.T) {
	w, b := newWorld(t), open(t)
	board := w.addBoard(t, "== Main board\nU1 74LS00 8501\nU2 74LS04\nU3 74LS08")
	other := func(base int, text string) {
		_, err := w.actions.Sheets.SaveSheet(context.Background(), action.Actor{Role: action.Curator}, board.ID, base,
			text)
		require.NoError(t, err)
	}
	save := Click(Button("Save the sheet of Main board"))
	require.NoError(t, b.Do(
		SignIn(w.url, technician.Login, technician.Password), chromedp.Navigate(w.bench()),
		SheetText("Sheet of Main board", "U1 74LS00 8501\nU2 74LS04\nU3 74LS08"), Click(editor("Main board")),
		Chord(kb.End, input.ModifierCtrl), Keys(" 8503"),
	))
	other(1, "U1 74LS00 8501\nU2 74LS04 8502\nU3 74LS08")
	require.NoError(t, b.Do(
		save, See(Text("Changed meanwhile.")), See(Text("You changed different lines, so both stay.")),
		See(Text("+ U2 74LS04 8502")),
		Click(Button("Save both together")), See(Text("saved, revision 3")),
		SheetText("Sheet of Main board", "U1 74LS00 8501\nU2 74LS04 8502\nU3 74LS08 8503"),
		Click(editor("Main board")), Chord(kb.End, input.ModifierCtrl), Keys(" @socket"),
		See(Text("kept here, not yet saved")),
	))
	require.Equal(t, "U1 74LS00 8501\nU2 74LS04 8502\nU3 74LS08 8503", w.kept(t, board.ID).Body)
	other(3, "U1 74LS00 8501\nU2 74LS04 8502\nU3 74LS32 8503\nU4 7400")
	require.NoError(t, b.Do(
		chromedp.Reload(),
		SheetText("Sheet of Main board",
			"U1 74LS00 8501\nU2 74LS04 8502\nU3 74LS08 8503 @socket"), // the draft outlives the tab
		save, See(Text("Was: U3 74LS08 8503")), See(Text("1 choice to make")),
		Click(`//label[contains(., "Both, yours first")]`), Click(Button("Save both together")),
		See(Text("saved, revision 5")),
		See(Text("U3 stands on line 3 already")),
	))
	require.Equal(t, "U1 74LS00 8501\nU2 74LS04 8502\nU3 74LS08 8503 @socket\nU3 74LS32 8503\nU4 7400",
		w.kept(t, board.ID).Body)
}

// The server dies while somebody types: typing goes on, the state is said in words, and the text
// arrives once the server is back. Nor is it lost when the session ends meanwhile.
func TestServerDiesWhileTyping(t *testing.T) {
	w, b := newWorld(t), open(t)
	board := w.addBoard(t, "== Main board\nU1 74LS00 8501")
	server := serveAt(t, "127.0.0.1:0", w)
	url := "http://" + server.Addr
	bench := strings.Replace(w.bench(), w.url, url, 1)
	require.NoError(t, b.Do(
		SignIn(url, technician.Login, technician.Password), chromedp.Navigate(bench),
		SheetText("Sheet of Main board", "U1 74LS00 8501"), verdict("Parts", "1 chip"),
	))
	require.NoError(t, server.Close())
	require.NoError(t, b.Do(
		Click(editor("Main board")), Chord(kb.End, input.ModifierCtrl), Keys(kb.Enter), Keys("74LS04 8502"),
		Click(Button("Save the sheet of Main board")), See(Text("kept here; it is sent when there is a connection")),
		See(Text("1 thing kept here, waiting for a connection.")), Keys("\t"),
	))
	serveAt(t, server.Addr, w)
	_, err := w.db.Exec(`DELETE FROM sessions`)
	require.NoError(t, err)
	require.NoError(t, b.Do(
		// It tries by itself, and finds that nobody is signed in any more.
		See(Text("Your session has ended.")),
		Fill(Labelled("Login"), technician.Login), Fill(Labelled("Password"), technician.Password), Keys(kb.Enter),
		Gone(Text("Your session has ended.")),
		SheetText("Sheet of Main board", "U1 74LS00 8501\nU2         74LS04 8502"), verdict("Parts", "2 chips"),
		See(Text("saved, revision 2")), Gone(Text("1 thing kept here")),
	))
	require.Equal(t, "U1 74LS00 8501\nU2         74LS04 8502", w.kept(t, board.ID).Body)
}

// serveAt serves the world at an address of its own, which a later call may take again.
func serveAt(t *testing.T, address string, w world) *http.Server {
	listener, err := net.Listen("tcp", address)
	require.NoError(t, err)
	server := &http.Server{Addr: listener.Addr().String(), Handler: web.New(w.db, w.actions, web.Config{})}
	go server.Serve(listener) //nolint:errcheck // closed by the test
	t.Cleanup(func() { server.Close() })
	return server
}

// Every view on a phone beside the open case, in both themes: nothing sticks out sideways, what is
// pressed is large enough for a thumb, and the accessibility rules find nothing wrong.
func TestEveryViewOnAPhone(t *testing.T) {
	for _, theme := range []string{"light", "dark"} {
		t.Run(theme, func(t *testing.T) {
			t.Parallel()
			everyViewOnAPhone(t, theme)
		})
	}
}

func everyViewOnAPhone(t *testing.T, theme string) {
	w := newWorld(t)
	board := w.addBoard(t,
		"== Main board | part 4410-2 | rev C\nU1 HX9040-2 8431\nU40-U48 41256-15 8512 # a comment that is longer than the screen is wide\n"+
			"U1 74LS00\nBT1 NiCd !leaking: crust\nC5 0.1uF X2 !cracked\nfree text")
	_, err := w.actions.Inventory.AddLooseAssembly(context.Background(), action.Actor{Role: action.Technician}, "Store",
		inventory.AssemblyInput{Title: "Spare supply", Kind: "supply"})
	require.NoError(t, err)
	w.addStory(t)
	w.addKnown(t)
	standIn, err := romreader.NewStandIn(0, map[string]romreader.Chip{"monitor": {Device: "27128", Data: firmware()}},
		func(string) int { return 16384 })
	require.NoError(t, err)
	t.Cleanup(func() { standIn.Close() })
	eprom := w.addBoard(t, "== Old card\nU9 27128-25 8533\nU10 HX7200 8102")
	for range 2 {
		_, err = w.actions.Roms.AddRomFile(context.Background(), action.Actor{Role: action.Technician}, eprom.ID,
			roms.RomReading{Designator: "U9", Label: "V1.1"}, "u9.bin", firmware())
		require.NoError(t, err)
	}
	log := w.addJudged(t)
	w.addBench(t, standIn.Address())
	b, err := Start(390, 844)
	require.NoError(t, err)
	t.Cleanup(b.Close)
	look := func(view string, steps ...chromedp.Action) {
		var sideways int
		var small []string
		require.NoError(t, b.Do(append(steps,
			Evaluate(`document.documentElement.scrollWidth - innerWidth`, &sideways),
			Evaluate(`Array.from(document.querySelectorAll("button:not([tabindex=\"-1\"]), main input:not([type=file]), select")).filter(x => x.offsetWidth > 1 && (x.closest("label") ?? x).offsetHeight < 44).map(x => x.textContent || x.name || x.outerHTML.slice(0, 120))`, &small),
			Accessible("../ui/node_modules/axe-core/axe.min.js"),
		)...), view)
		require.LessOrEqual(t, sideways, 0, view)
		require.Empty(t, small, view)
	}
	at := func(path string) chromedp.Action { return chromedp.Navigate(w.url + path) }
	look("sign in", at("/"), See(Button("Sign in")))
	look("a link that has ended", at("/welcome#none"), See(Text("This link has ended")))
	require.NoError(t, b.Do(SignIn(w.url, curator.Login, curator.Password)))
	require.NoError(t,
		b.Do(emulation.SetEmulatedMedia().WithFeatures([]*emulation.MediaFeature{
			{Name: "prefers-color-scheme", Value: theme},
		})))
	look(theme+" start", at("/start"), See(Text("Condition over the years")))
	look(theme+" unsent", at("/unsent"), See(Text("Nothing waits.")))
	look(theme+" collection", at("/collection"), See(Text("EH-0900")))
	look(theme+" form with errors", at("/collection/new"), Click(Button("Enter and take onto the bench")),
		See(Text("Give the machine a name")))
	look(theme+" bench", chromedp.Navigate(w.bench()), See(editor("Main board")),
		Click(`//aside[@aria-label="Reckoning"]/button`), verdict("To put right", "1 problem"),
		Click(`//aside//h3/button[contains(., "Findings")]`), Click(`//aside[@aria-label="Reckoning"]/button`))
	look(theme+" move", Click(Button("Move Main board")), See(Labelled("Place")),
		chromedp.SetValue(`//select[option[.="into a machine"]]`, "machine", chromedp.BySearch))
	look(theme+" histories", Click(Button("History of Main board")), See(Text("+ U1 HX9040")),
		Click(Button("History")), See(Text("entered Estuary")))
	look(theme+" details and table", Click(Button("Edit details")), See(Labelled("Slot")),
		Click(`//*[@role="radio" and .="Table"]`), See(Labelled("Marking, line 1")))
	look(theme+" paste", Click(Button("Paste a sheet with headings")),
		Fill(Labelled("Sheet with headings"), "U9-U1"), See(Text("Would add 1 board")))
	look(theme+" at a glance", chromedp.Navigate(w.stage("")), See(Text("As it sits")),
		See(Text("Through whose hands")))
	look(theme+" reckoning", Click(`//aside[@aria-label="Reckoning"]/button`), See(`//aside//h3/button`))
	look(theme+" arrive", chromedp.Navigate(strings.Replace(w.bench(), "take-stock", "arrive", 1)),
		Click(Button("Write down how it came")), Click(Button("Add to the chain")),
		Click(Button("Move the machine")), Click(Button("Note that there is some")),
		See(Labelled("What kind of data")))
	look(theme+" look over", chromedp.Navigate(strings.Replace(w.bench(), "take-stock", "look-over", 1)),
		See(Text("Met twice")), Click(Button("Note a statement")), See(Labelled("What the source says")),
		Click(Button("Open rear.png")), Click(Button("Say what it shows")), See(Labelled("Caption")))
	look(theme+" make good", chromedp.Navigate(w.stage("make-good")), Click(Button("Put down a job")),
		See(Labelled("What is to be done")), Click(Button("Cancel")), Click(Button("Replace the battery")),
		Click(Button("Take in hand")), Click(Button("Done")), See(Labelled("What is in now at BT1")))
	look(theme+" power up", chromedp.Navigate(w.stage("power-up")), Click(Button("Build this ladder")),
		Click(Button("Record that power was applied")), See(Labelled("Who decided it")),
		Click(Button("Edit rung 1")), See(Labelled("Expected sign")))
	look(theme+" console", chromedp.Navigate(w.stage("power-up")+"?open=text"),
		Fill(Labelled("What stands there"), "MONITOR V2.3\nMEMORY 64K OK\nADDR 0A01 EXP FF ACT FB\n"),
		See(Text("It says: firmware 2.3")), Click(Button("Save")), See(Button("Take as statement")))
	look(theme+" set up", chromedp.Navigate(w.stage("set-up")+"?open=symptom"),
		Fill(Labelled("What it does, or does not"), "no picture"), Click(Button("Save")),
		Click(Button("Write down a trial")),
		Fill(Labelled("Another change, on from now"), "new cable"), Click(Button("Save")), Click(Button("new cable")),
		See(Labelled("What is changed")))
	look(theme+" wanted", at("/stores/wanted"), Click(Button("Write down what is wanted")),
		Fill(Labelled("What is looked for"), "Service handbook"), Click(Button("Save")), See(Text("1 open")),
		Click(Button("Note an offer")), Fill(Labelled("What is offered"), "A box with a service handbook"),
		See(Text("by Service handbook")), Click(Button("Save")), Click(Button("It is here")),
		See(Button("Enter the lot")))
	look(theme+" practice", at("/practice"), Click(Button("Begin")), Click(Button("Switch on")),
		See(Text("stood at hold")),
		Click(Button("Listen to the console")), Click(Button("Measure")), See(Text("dummy load")))
	look(theme+" supply", chromedp.Navigate(w.stage("power-up")+"?open=supply"), See(Labelled("Volts on its plate")),
		Fill(Labelled("Name"), "built in"), Fill(Labelled("Rails that the machine needs"), "+5 -12"),
		Click(Button("Save")), See(Text("not read")))
	look(theme+" identify", chromedp.Navigate(w.identify()), See(Text("the label says version 1.1")),
		Click(Button("Read out U9 of Old card")), See(Labelled("Device in the reader")),
		Click(Button("Describe the model")), See(Labelled("Model")),
		Click(Button("Ask about something else")), See(Labelled("What it is called")),
		Click(Button("Guess what HX7200 is")), See(Labelled("Because")))
	look(theme+" rom", Click(`//section[@aria-label="Read-only memories"]//tr//a[contains(., "U9 of ")]`),
		See(Text("Byte map")), Click(Button("Name it")), See(Labelled("Version")))
	look(theme+" roms", at("/library/roms"), See(Text("CRC-32")))
	look(theme+" makers", at("/library/makers"), Click(Button("Add a maker")), See(Labelled("Founded")))
	look(theme+" pack", at("/library"), Click(Button("Take over a pack")),
		Fill(Labelled("Reference pack, CSV"), "number,class,function\nHX,own,x"),
		Click(Button("See what it would do")), See(Text("1 lines are wrong")))
	look(theme+" models", at("/library/models"), Click(Button("Add a model")), See(Labelled("Maker")))
	look(theme+" one model", at("/library/models"), Click(Link("Lantern 1")), See(Text("eight 4416")), Keys("\t"),
		chromedp.SetValue(`//select[option[.="choose"]]`, "model 2", chromedp.BySearch),
		See(Text("nobody has said it")))
	look(theme+" cards", at("/library/known"), Click(Button("Name one")), See(Labelled("What it is")))
	look(theme+" one card", Click(Button("Cancel")), Click(Link("Board of the Lantern")),
		See(Text("Known to suffer from")),
		Click(Button("It does not")), See(Labelled("What was seen")))
	look(theme+" packs of a library", at("/library/packs"), Fill(Labelled("Pack of another collection, JSON"),
		`{"format": "heron-library", "version": 1, "models": [{"maker": "Vole", "model": "Lido", "signs": "blink"}]}`),
		Click(Button("See what it would do")), See(Text("1 unreadable")))
	look(theme+" signs", at("/library/signs"), See(Text("waits")))
	look(theme+" unknowns", at("/library/unknowns"), See(Text("HX7200")))
	look(theme+" board picture", chromedp.Navigate(w.identify()),
		Click(`//section[@aria-label="Board pictures"]//a[contains(., "rear.png")]`),
		Until("the picture", `document.querySelector("[role=group] img")?.complete`))
	look(theme+" arrivals", at("/collection/arrivals"), See(Text("Clear-out")))
	look(theme+" lot", Click(Link("Clear-out")), Click(Button("Edit")), Click(Button("Change Terminal")),
		Click(Button("Place Terminal")), See(Labelled("Accession number")))
	look(theme+" places", at("/stores/places"), See(Text("Store")))
	w.addStores(t)
	look(theme+" parts", at("/stores/parts?open=part"), See(Labelled("What it is")), Click(Button("Edit fuse 2A")),
		See(Button("Delete fuse 2A")))
	look(theme+" needs", at("/stores/needs"), See(Text("short, 1 missing")),
		See(Button("Set 1 aside: fuse 2A for EH-0900")),
		Click(Button("Which boards hold it? 2 x 41256-15")), See(Text("missing there")))
	look(theme+" orders", at("/stores/orders?open=order"), See(Labelled("Ordered of")), Click(Button("Add a line")),
		Click(Button("Book what came: fuse 4A")), See(Labelled("Dead on arrival")))
	w.addUpkeep(t)
	look(theme+" diary", at("/diary?open=plan"), See(Labelled("In words")), See(Text("Due")),
		See(Button("Begin the round: Look")),
		Click(Button("Edit the plan Fetch a lead")), See(Labelled("Done on")))
	look(theme+" upkeep rules", at("/diary/upkeep?open=rule"), See(Labelled("Every so many months")),
		Click(Button("Edit Look")), See(Button("Delete Look")))
	look(theme+" policies", at("/collection/policies"), Click(Button("Decide: Capacitors")),
		See(Labelled("Decided by")))
	look(theme+" round", at("/diary"), Click(Button("Begin the round: Look")), See(Text("0 of ")),
		Click(`//summary[.="Something is odd there"]`), Click(Button("End the round")),
		See(Labelled("Hours that it took")))
	look(theme+" people", at("/library/people"), Click(Button("Add somebody")), See(Labelled("Name")))
	look(theme+" open up", chromedp.Navigate(w.stage("open-up")), See(Text("Easily mistaken.")),
		Click(Button("Map a connector")), See(Labelled("Pins of the plug")), Click(Button("Edit J1")),
		Click(Button("Change step 1")), See(Labelled("What comes off")), Click(Button("Add other fasteners")))
	look(theme+" put together", chromedp.Navigate(w.stage("open-up")), Click(Button("Put together")),
		See(Text("Plugged in again")), Click(Button("It stays off")), See(Labelled("Why it stays off")))
	look(theme+" way on paper", chromedp.Navigate(w.stage("way?to=U1")), See(Text("Before the first step of anything")))
	look(theme+" tray labels",
		chromedp.Navigate(fmt.Sprintf("%s/bench/%d/tray-labels/%d", w.url, w.machine.ID, log.ID)),
		See(Text("step 1: Lid")))
	look(theme+" judge", chromedp.Navigate(w.stage("judge")), See(Text("Over the years")),
		Click(Button("Begin a survey")), Click(Button("Found something")), See(Labelled("Where, in words")),
		Click(Button("Note an adjuster")), See(Labelled("Where it stands now")),
		Click(Button("More readings of BT1")), See(Text("Take a reading (F9)")),
		Click(Button("Note what it shows")), See(Button("power: dark")), See(Text("nearest:")))
	look(theme+" end of a survey", Click(Button("End the survey here")), See(Text("That stays visible")),
		Click(Button("Look at more")), Click(Button("Inspected, nothing new found")),
		See(`//section[@aria-label="Batteries"]//h3`), Click(Button("End the survey here")),
		focusButton("End the survey"), Keys(kb.Enter), Gone(Button("End the survey")))
	look(theme+" condition on paper",
		chromedp.Navigate(w.url+fmt.Sprintf("/bench/%d/condition-report", w.machine.ID)),
		See(Text("What the grades mean")))
	look(theme+" what to open first", at("/diary/open-first"), See(Text("The whole order")), See(Text("EH-0900")))
	look(theme+" how often", at("/diary/ageing"), Click(Button("Edit Foam contacts")),
		See(Labelled("Minutes to look at one")))
	look(theme+" procedures", at("/library/procedures"), Click(Button("Edit To the board of Bench")),
		See(Labelled("Steps, one a line")))
	look(theme+" stage not open", chromedp.Navigate(w.stage("keep")), See(Text("Not open yet")))
	look(theme+" library", at("/library?start=41&type=41256"), See(Text("9 x")))
	look(theme+" naming", Click(Button("Name a type")), See(Labelled("Device number")))
	look(theme+" account", at("/account"), Click(Button("Change your password")), See(Labelled("Current password")),
		Click(Button("Invite somebody")), See(Labelled("Login")), Click(Button("Edit "+viewer.Name)))
	look(theme+" paper", chromedp.Navigate(strings.Replace(w.bench(), "take-stock", "print", 1)),
		See(Text("problem: ")))
	look(theme+" say or find", Keys("/"), Keys("u7 74ls00"), See(Text("new. Taken for: 74LS00")),
		Until("what Enter takes to be one of those shown",
			`document.getElementById(document.activeElement.getAttribute("aria-activedescendant"))?.textContent.includes("Taken for")`))
	look(theme+" stores", at("/stores"), See(Text("Spare supply")))
	look(theme+" loose", Click(Link("Spare supply")), See(Button("Move Spare supply")),
		Click(Button("Say what it serves")), See(Labelled("What it does not do without one")),
		Click(Button("History of Spare supply")), See(Text("Where it has been")))
	look(theme+" diary", at("/diary"), Click(Button("Show earlier")), Until("the oldest event, which is drawn when it comes into sight",
		`scrollTo(0, 1e6), document.body.innerText.includes("entered Estuary")`))
	look(theme+" keys", Keys("?"), See(Text("In a sheet")))
	// What comes up while one works.
	require.NoError(t, b.Do(chromedp.Navigate(w.bench()), See(editor("Main board")), Click(editor("Main board")),
		Chord(kb.Home, input.ModifierCtrl), Keys(kb.End+" @socket"), See(Text("kept here, not yet saved"))))
	_, err = w.actions.Sheets.SaveSheet(context.Background(), action.Actor{Role: action.Curator}, board.ID, 1,
		"U1 HX9040-2 8432")
	require.NoError(t, err)
	look("merge", Click(Button("Save the sheet of Main board")), See(Text("choice to make")),
		Click(`//label[contains(., "Yours")]`))
	look("undo", Click(Button("Drop yours, take revision 2")), Click(Button("Move Main board")),
		Click(Button("Begin anew")), // it was begun above, and not sent
		Fill(Labelled("Place"), "Loft"), Click(Button("Take it there")), See(Text("Main board is moved")),
		Click(Button("Undo")), See(editor("Main board")))
	_, err = w.db.Exec(`DELETE FROM sessions`)
	require.NoError(t, err)
	// Typing asks the server, unless something else did before and it has been said already.
	look("sign in again", Evaluate(`document.querySelector("[aria-label='Sheet of Main board']").focus()`, nil),
		Keys("x"), See(Text("Your session has ended.")))
	require.NoError(t, b.Do(
		Fill(Labelled("Login"), curator.Login), Fill(Labelled("Password"), curator.Password), Keys(kb.Enter),
		Gone(Text("Your session has ended.")),
		chromedp.Navigate(w.bench()), Click(`//aside[@aria-label="Reckoning"]/button`), verdict("Unknown", "2 chips"),
		Click(`//aside//h3/button[contains(., "Unknown")]`), Click(`//aside//li[contains(., "U1: HX9040")]//a`),
		onLine("HX9040"),
	))
	require.Empty(t, b.Breaches())
}
