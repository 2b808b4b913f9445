package e2e

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/png"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/files"
	. "frugalheron/e2e/browser"
	"frugalheron/instruments/romreader"
)

// firmware is what sits in the chips of the journeys.
func firmware() []byte {
	data := make([]byte, 16384)
	for i := range data {
		data[i] = byte(i*i>>4) ^ byte(i*7)
	}
	copy(data[9000:], "MONITOR V1.2 (C) 1985 TARN & VOLE")
	return data
}

// addIdentify gives the machine a board with all that is identified, a picture of it, and a reader.
func (w world) addIdentify(t *testing.T) {
	ctx, technician := context.Background(), action.Actor{Role: action.Technician}
	w.addBoard(t, "== Main board | part 4410-2\nU1 HX9040 8530\nU2 7400 8531\nU3 7402 8532\nU4 7404 8533\nU5 7408 8534\nU6 7410 8535\nU9 27128-25 8533\nU40-U48 41256-15 8512")
	card := w.addBoard(t, "== Memory card | part RA-512\nU1 41256-15 8730")
	require.NotZero(t, card.ID)
	var file bytes.Buffer
	require.NoError(t, png.Encode(&file, image.NewGray(image.Rect(0, 0, 800, 600))))
	_, err := w.actions.Files.Attach(ctx, technician, files.Owner{MachineID: &w.machine.ID}, "board.png", file.Bytes())
	require.NoError(t, err)
	standIn, err := romreader.NewStandIn(0, map[string]romreader.Chip{"monitor": {Device: "27128", Data: firmware()}},
		func(number string) int { return map[string]int{"27128": 16384}[number] })
	require.NoError(t, err)
	t.Cleanup(func() { standIn.Close() })
	w.actions.WithInstruments(app.Instruments{Reader: standIn.Address()})
}

func (w world) identify() string { return strings.Replace(w.bench(), "take-stock", "identify", 1) }

// onPicture presses the mouse at one point of the picture and lets go at another, in parts of it.
func onPicture(x1, y1, x2, y2 float64) chromedp.Action {
	return chromedp.ActionFunc(func(ctx context.Context) error {
		var box [4]float64
		if err := Evaluate(
			`(() => { const p = document.querySelector('[role=group] img'); p.scrollIntoView({block: "center"}); const b = p.getBoundingClientRect(); return [b.left, b.top, b.width, b.height] })()`, &box).Do(ctx); err != nil {
			return err
		}
		at := func(kind input.MouseType, x, y float64) error {
			return input.DispatchMouseEvent(kind, box[0]+x*box[2],
				box[1]+y*box[3]).WithButton(input.Left).WithButtons(1).WithClickCount(1).Do(ctx)
		}
		for _, step := range []error{at(input.MousePressed, x1, y1), at(input.MouseMoved, (x1+x2)/2, (y1+y2)/2),
			at(input.MouseMoved, x2, y2), at(input.MouseReleased, x2, y2)} {
			if step != nil {
				return step
			}
		}
		return nil
	})
}

// focusOn sets the focus on what a selector finds.
func focusOn(selector string) chromedp.Action {
	return Until("the focus on "+selector,
		fmt.Sprintf(`(() => { const it = document.querySelector(%q); it?.focus(); return it !== null && document.activeElement === it })()`, selector))
}

// focusButton sets the focus on a button by its words.
func focusButton(words string) chromedp.Action {
	return Until("the focus on "+words,
		fmt.Sprintf(`(() => { const it = Array.from(document.querySelectorAll("button")).find(x => x.textContent === %q && !x.disabled); it?.focus(); return it !== undefined && document.activeElement === it })()`, words))
}

// What is it, when was it built, what is in its ROMs: a later card is pointed out, a chip is read through a
// bad contact and then well, a run of numbers is placed in one drag and one by keyboard, an unknown chip is
// settled, and so is a mystery.
func TestIdentify(t *testing.T) {
	w, b := newWorld(t), open(t)
	w.addIdentify(t)
	dump := filepath.Join(t.TempDir(), "U9.bin")
	require.NoError(t, os.WriteFile(dump, firmware(), 0o600))
	require.NoError(t, b.Do(
		SignIn(w.url, technician.Login, technician.Password), chromedp.Navigate(w.identify()),
		See(Text("1985-09-09 to 1986-03-02")),
		See(`//tr[contains(., "Memory card, U1") and contains(., "later")]`), // the later card
		See(`//tr[contains(., "Memory card") and contains(., "of the period")]`),
		Click(Button("Describe the model")), See(Labelled("Model")), Fill(Labelled("Model"), "Meridian 2"),
		Fill(Labelled("What belongs in it, an assembly a line"), "Main board | part 4410-2\nMemory card | colour red"),
		Click(Button("Add the model")), See(Text(`Line 2 "colour red" is not known`)), // what was typed is kept
		Fill(Labelled("What belongs in it, an assembly a line"), "Main board | part 4410-2\nSupply"),
		Click(Labelled("Model")), Keys(kb.Enter), Gone(Labelled("Model")),
	))

	// Through the reader: refused with a bad contact, accepted once two readings are alike.
	require.NoError(t, b.Do(
		Click(Labelled("Say or find")), Keys("instruments\r"), choose("What the reader gets wrong", "bad contact"),
		chromedp.Navigate(w.identify()), Click(Button("Read out U9 of Main board")),
		See(Text("stand-in reader of the bench")), See(Text("wrong with it: bad contact")),
		Click(Button("Read U9 twice")), See(Text("read differently each time")),
		Click(Link("Instruments")), choose("What the reader gets wrong", "none"), chromedp.Navigate(w.identify()),
		Click(Button("Read out U9 of Main board")), See(Text("wrong with it: none")), focusButton("Read U9 twice"),
		Keys(kb.Enter), See(Text("both readings are alike")), // and by keyboard
		See(`//tr[contains(., "U9") and contains(., "16,384 bytes")]`),
		chromedp.SetUploadFiles(`//input[@aria-label="Files that were read"]`, []string{dump}, chromedp.BySearch),
		See(Text("U9.bin, bin, for U9: read")),
		Click(`//section[@aria-label="Read-only memories"]//tr//a[contains(., "U9 of ")]`), See(Text("MONITOR V1.2")),
		See(Text("1985")),
		Click(Button("Name it")), Fill(Labelled("Name"), "Monitor"), Fill(Labelled("Version"), "1.2"), Keys(kb.Enter),
		See(`//h1[contains(., "Monitor 1.2")]`),
		focusOn("canvas"), Keys(kb.End), See(`//*[@aria-label="Bytes from 3FF0"]`),
	))

	// Numbers on the picture: a run in one drag, the others by keyboard.
	require.NoError(t, b.Do(
		chromedp.Navigate(w.identify()), Click(`//section[@aria-label="Board pictures"]//a[contains(., "board.png")]`),
		choose("Board that the picture shows", "Main board"), Click(Button("U40")),
		onPicture(0.1, 0.8, 0.9, 0.8), See(Button("9: U48, 41256-15 8512")),
		focusOn("[role=group]"), Keys(kb.ArrowUp+kb.ArrowUp+kb.Enter), See(Button("1: U1, HX9040 8530")),
		Keys("r"+kb.ArrowRight+kb.ArrowRight+kb.Enter), See(Button("2: U2, 7400 8531")),
		Click(Button("Draw an outline")), Fill(Labelled("What it does"), "memory"),
		Click(Button("3: U40, 41256-15 8512")), Click(Button("11: U48, 41256-15 8512")),
		Click(Button("Outline 2 numbers")), See(`//li[contains(., "memory: U40, U48")]`),
	))
	var gap float64
	require.NoError(t, b.Do(
		Evaluate(`(() => { const at = n => parseFloat(document.querySelector('[aria-label^="' + n + ':"]').style.left); return at(7) - at(6) })()`, &gap)))
	require.InDelta(t, 10, gap, 0.2) // nine parts evenly over eight tenths of the picture

	// An unknown is settled; a mystery is weighed and decided, by keyboard alone.
	require.NoError(t, b.Do(
		chromedp.Navigate(w.identify()), Click(Button("Answer what HX9040 is")),
		Fill(Labelled("Where the answer comes from"), "data book of 1983"),
		Fill(Labelled("What it does"), "processor"), Keys(kb.Enter),
		See(Text("HX9040 is settled: 1 parts on 1 machines")),
		Click(Button("Puzzle over Memory card")), See(Text("Nobody has said yet what it could be")),
		focusButton("Add an explanation"), Keys(kb.Enter), See(Labelled("It could be")),
		Keys("a network card"+kb.Enter), See(Text("There is one explanation only")), Gone(Labelled("It could be")),
		focusButton("Add an explanation"), Keys(kb.Enter), See(Labelled("It could be")),
		Keys("a memory card"+kb.Enter), See(Text("stand equal")), Gone(Labelled("It could be")),
		Click(Button("Add evidence")), See(Labelled("What one sees, or would see")),
		Keys("chips of a known memory"+kb.Enter), Gone(Labelled("What one sees, or would see")),
		choose("What chips of a known memory says of a memory card", "+3"), See(Text("a memory card leads clearly")),
		Click(`//button[starts-with(@aria-label, "Accept: holds work memory")]`),
		See(Text("proposed by its chips, and accepted")),
		Click(Button("Decide")), See(Labelled("What decided it")), Keys("it is full of memory"+kb.Enter),
		See(Text("(likely): it is full of memory")),
	))
	page, err := w.actions.History.History(context.Background(), action.Actor{Role: action.Viewer}, w.machine.ID, 0, 50)
	require.NoError(t, err)
	told := ""
	for _, e := range page.Events {
		told += e.What + "; "
	}
	for _, want := range []string{"recognised 1 parts as HX9040", "read U9 of Main board by the reader, as a 27128",
		"decided that Memory card is a memory card"} {
		require.Contains(t, told, want)
	}
}
