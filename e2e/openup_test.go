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

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/condition"
	appteardown "frugalheron/app/teardown"
	"frugalheron/core/measure"
	"frugalheron/core/quantity"
	"frugalheron/core/teardown"
	"frugalheron/core/wiring"
	. "frugalheron/e2e/browser"
	"frugalheron/instruments/meter"
)

func (w world) stage(name string) string { return strings.Replace(w.bench(), "take-stock", name, 1) }

// addPlugs puts connectors on the map; J13 looks like J14, which must stay free.
func (w world) addPlugs(t *testing.T, count int) {
	ctx, actor := context.Background(), action.Actor{Role: action.Technician}
	for n := range count {
		c := wiring.Connector{Name: fmt.Sprintf("J%d", n+1), FromBoard: fmt.Sprintf("Unit %d", n+1),
			ToBoard: "Main board", Kind: "header", PlugPins: 10 + n*10, SocketPins: 10 + n*10, Key: "notch"}
		_, err := w.actions.Teardown.MapConnector(ctx, actor, w.machine.ID, c)
		require.NoError(t, err)
	}
	never := wiring.Connector{Name: "T1", ToBoard: "Main board", Kind: "header", SocketPins: 130,
		Never: "it carries +12 V"}
	_, err := w.actions.Teardown.MapConnector(ctx, actor, w.machine.ID, never)
	require.NoError(t, err)
}

// addJudged leaves the machine half open, surveyed once and measured, with a procedure of its model.
func (w world) addJudged(t *testing.T) appteardown.TeardownView {
	ctx, actor := context.Background(), action.Actor{Role: action.Curator}
	fields := w.machine.MachineInput
	fields.Model = "Bench"
	_, err := w.actions.Inventory.ChangeMachine(ctx, actor, w.machine.ID, w.machine.Version, fields)
	require.NoError(t, err)
	for _, name := range []string{"J1", "J2"} {
		_, err := w.actions.Teardown.MapConnector(ctx, actor, w.machine.ID,
			wiring.Connector{Name: name, FromBoard: "Drive " + name, ToBoard: "Main board", Kind: "header",
				PlugPins: 34, SocketPins: 40, Offset: 2})
		require.NoError(t, err)
	}
	log, err := w.actions.Teardown.StartTeardown(ctx, actor, w.machine.ID,
		appteardown.StartedTeardown{Purpose: "battery", Rows: 3, Columns: 6})
	require.NoError(t, err)
	log, err = w.actions.Teardown.AddStep(ctx, actor, log.ID,
		appteardown.StepInput{Line: "Lid | 4x M3x8 PH1 @A1 | 3x clip @laid:ring | tab: front left | unplug J1"})
	require.NoError(t, err)
	_, err = w.actions.Teardown.MakeProcedure(ctx, actor, log.ID, "To the board", "Brittle clips")
	require.NoError(t, err)
	now, err := w.actions.Condition.StartSurvey(ctx, actor, w.machine.ID, "2025-05-01", "")
	require.NoError(t, err)
	seen := condition.ObservedFinding{New: &condition.FindingInput{Kind: "leaking", Designator: "BT1"},
		Severity: "hazard"}
	now, err = w.actions.Condition.JudgeItem(ctx, actor, now.Running.ID, now.Running.Version, "batteries",
		condition.JudgedItem{Inspection: condition.Inspection{Coverage: "inspected"}, Observed: []condition.ObservedFinding{seen}})
	require.NoError(t, err)
	_, err = w.actions.Condition.EndSurvey(ctx, actor, now.Running.ID, now.Running.Version, "worn", "")
	require.NoError(t, err)
	_, err = w.actions.Condition.Measure(ctx, actor, w.machine.ID, condition.MeasurementInput{Line: "BT1 2.1 V"})
	require.NoError(t, err)
	standIn, err := meter.NewStandIn(0, map[string]meter.Values{"BT1": {quantity.Volts: 2.1}})
	require.NoError(t, err)
	t.Cleanup(func() { standIn.Close() })
	w.actions.WithInstruments(app.Instruments{Meter: standIn.Address()})
	return log
}

// A machine is taken apart in 25 steps with 14 connectors on a phone, handed to somebody else, and put together
// by the log reversed; a connector that was left is named, and nothing is closed until it is plugged in.
func TestTakeApartAndPutTogetherOnAPhone(t *testing.T) {
	w := newWorld(t)
	w.addBoard(t, "== Main board\nU1 7400 8530")
	w.addPlugs(t, 13)
	b, err := Start(390, 844)
	require.NoError(t, err)
	t.Cleanup(func() { require.Empty(t, b.Breaches()); b.Close() })
	require.NoError(t, b.Do(
		SignIn(w.url, technician.Login, technician.Password), chromedp.Navigate(w.stage("open-up")),
		See(Text("Must stay free.")), // before anything is unplugged
		Click(Button("Begin to take EH-0900 apart")), Fill(Labelled("What it is opened for"), "to reach the battery"),
		Keys(kb.Enter),
		See(Labelled("Step 1: what comes off")),
	))
	line := func(n int) string {
		text := fmt.Sprintf("Part %d | 2x M3x%d PH1 @%c%d", n, 4+n%5, 'A'+(n-1)/6, 1+(n-1)%6)
		if n == 25 {
			text = "Power supply | 4x M4x8 PH2 @hole"
		}
		if n > 11 {
			text += fmt.Sprintf(" | unplug J%d", n-11)
		}
		return text
	}
	photo := filepath.Join(t.TempDir(), "as-it-was.png")
	var picture bytes.Buffer
	require.NoError(t, png.Encode(&picture, image.NewGray(image.Rect(0, 0, 320, 240))))
	require.NoError(t, os.WriteFile(photo, picture.Bytes(), 0o600))
	// The first step is tapped, with a photo, its screws laid out as they came.
	require.NoError(t, b.Do(
		Click(Button("Tap it instead")), Fill(Labelled("What comes off"), "Part 1"), Click(Button("Add fasteners")),
		Fill(Labelled("How many"), "2"), Fill(Labelled("What"), "M3 pan"),
		choose("Kept", "laid out as they came"), choose("As a", "ring"),
		chromedp.SetUploadFiles(`//input[@aria-label="Photo"]`, []string{photo}, chromedp.BySearch), See(`//form//img`),
		// The phone is put away, and the tab closed: what was tapped is still there.
		chromedp.Reload(), See(`//form//img`),
		Until("what was tapped", `document.querySelector("input[name=off]")?.value === "Part 1"`),
		focusButton("Write down step 1"), Keys(kb.Enter), See(Text("1. Part 1")),
		See(`//*[@aria-label="Laid out as they came, 2 pieces"]`), See(`//img[@alt="Photo of step 1, Part 1"]`),
	))
	for n := 2; n <= 25; n++ {
		field := Labelled(fmt.Sprintf("Step %d: what comes off", n))
		steps := chromedp.Tasks{See(field), Fill(field, line(n))}
		if n == 24 {
			steps = append(steps, See(Text("T1 on Main board looks like J13"))) // said before it is unplugged
		}
		if n == 25 {
			steps = append(steps, See(Text("Caution, mains."))) // and before it comes off
		}
		require.NoError(t,
			b.Do(append(steps, Keys(kb.Enter), See(Text(fmt.Sprintf("%d. %s", n, strings.Split(line(n), " |")[0]))))),
			line(n))
	}
	var sideways int
	require.NoError(t, b.Do(
		See(Text("14 of 14 plugs open")), Evaluate(`document.documentElement.scrollWidth - innerWidth`, &sideways),
		// Handed over: somebody else, on the same phone.
		SignOut(), Fill(Labelled("Login"), curator.Login), Fill(Labelled("Password"), curator.Password),
		Click(Button("Sign in")), See(Button("Sign out")),
		chromedp.Navigate(w.stage("open-up")), See(Text("by Bram Sedge")), focusButton("Put together"), Keys(kb.Enter),
	))
	require.LessOrEqual(t, sideways, 0)
	for n := 25; n >= 1; n-- {
		steps := chromedp.Tasks{See(fmt.Sprintf(`//h3[starts-with(., "Next: %d. ")]`, n))}
		if n == 1 {
			steps = append(steps,
				See(`//section[@aria-label="Step 1"]//img[@alt="Photo of step 1, Part 1"]`)) // the photo is at hand
		}
		if n > 11 && n != 18 {
			steps = append(steps, Click(`//fieldset[legend="Plugged in again"]//label`))
		}
		require.NoError(t, b.Do(append(steps, focusButton("It is back on"), Keys(kb.Enter))), "step %d", n)
	}
	require.NoError(t, b.Do(
		See(Text("All 25 steps are reversed")), focusButton("Call it closed"), Keys(kb.Enter),
		See(`//*[@role="alert" and contains(., "It does not count as closed: connector J7, unplugged in step 18, is open")]`),
		Click(Button("Plug in J7")),
		Until("nothing to be missing", `!document.body.innerText.includes("Still missing")`),
		focusButton("Call it closed"), Keys(kb.Enter), See(Text("closed; all 25 steps are reversed")),
	))
	opened, err := w.actions.Teardown.OpenedUp(context.Background(), action.Actor{Role: action.Viewer}, w.machine.ID)
	require.NoError(t, err)
	require.Equal(t, []string{"closed", technician.Name, curator.Name},
		[]string{opened.Before[0].Outcome, opened.Before[0].StartedBy, opened.Before[0].EndedBy})
}

// Two people on one log: who comes second sees what the first did, and loses nothing; what is struck out can be
// taken back at once.
func TestTwoPeopleOnALog(t *testing.T) {
	w, b := newWorld(t), open(t)
	ctx, other := context.Background(), action.Actor{Role: action.Curator}
	log, err := w.actions.Teardown.StartTeardown(ctx, other, w.machine.ID,
		appteardown.StartedTeardown{Purpose: "to look", Rows: 2, Columns: 3})
	require.NoError(t, err)
	for _, line := range []string{"Lid | 4x M3x8 @A1", "Card"} {
		log, err = w.actions.Teardown.AddStep(ctx, other, log.ID, appteardown.StepInput{Line: line})
		require.NoError(t, err)
	}
	require.NoError(t, b.Do(
		SignIn(w.url, technician.Login, technician.Password), chromedp.Navigate(w.stage("open-up")),
		See(Text("2. Card")),
		focusButton("Put together"), Keys(kb.Enter), See(Text("Next: 2. Card goes on")),
	))
	_, err = w.actions.Teardown.ReverseStep(ctx, other, log.Steps[1].ID, log.Steps[1].Version,
		appteardown.Reversed{Reversal: teardown.Reversal{State: teardown.Back}})
	require.NoError(t, err)
	require.NoError(t, b.Do(
		focusButton("It is back on"), Keys(kb.Enter), See(Text("Step 2 was changed meanwhile")),
		See(Text("Next: 1. Lid goes on")),
		focusButton("Take apart"), Keys(kb.Enter), Click(Button("Change step 1")), See(Labelled("Note")),
		Fill(Labelled("Note"), "slides back"),
	))
	_, err = w.actions.Teardown.ChangeStep(ctx, other, log.Steps[0].ID, log.Steps[0].Version,
		appteardown.StepInput{Line: "Lid | 3x M3x8 @A1"})
	require.NoError(t, err)
	require.NoError(t, b.Do(
		focusButton("Save step 1"), Keys(kb.Enter), See(Text("Lid | 3x M3x8 @A1")), // theirs beside what was read
		Until("the note to be kept", `document.querySelector("input[name=note]")?.value === "slides back"`),
		Click(Button("Go on with mine over theirs")), focusButton("Save step 1"), Keys(kb.Enter),
		See(`//li[contains(., "slides back")]`),
		Click(Button("Delete step 2")), See(Text("Step 2, Card, is deleted.")), Gone(Text("2. Card")),
		Click(Button("Undo")), See(Text("2. Card")),
	))
}

// A survey is made by keyboard alone, a finding leads to its spot, a series goes on after the meter was lost,
// and the order of what to open first leads to the machine and to the very line.
func TestJudge(t *testing.T) {
	w, b := newWorld(t), open(t)
	w.addBoard(t, "== Main board\nU1 7400 8530\nBT1 NiCd 3.6V 8530\nC5 0.1uF X2 275V")
	standIn, err := meter.NewStandIn(0,
		map[string]meter.Values{"EH-0900 +5": {quantity.Volts: 4.93}, "EH-0900 BT1": {quantity.Volts: 2.1}})
	require.NoError(t, err)
	t.Cleanup(func() { standIn.Close() })
	w.actions.WithInstruments(app.Instruments{Meter: standIn.Address()})
	at := func(name string) chromedp.Action { return See(`//section[@aria-label="` + name + `"]//h3`) }
	require.NoError(t, b.Do(
		SignIn(w.url, technician.Login, technician.Password), chromedp.Navigate(w.stage("judge")),
		See(Text("no survey was made yet")),
		focusButton("Begin a survey"), Keys(kb.Enter),
		at("Power supply"), See(Text("Caution, mains.")), focusButton("Inspected, nothing new found"), Keys(kb.Enter),
		at("Batteries"), See(Text("BT1: NiCd 3.6V 8530")), Gone(Text("Caution, mains.")), // once
		focusButton("Inspected, nothing new found"), Keys(kb.Tab+kb.Enter), // found something
		See(Labelled("What")), Keys("leaking"+kb.Tab+kb.ArrowDown+kb.ArrowDown+kb.Tab+kb.Tab+"green crust"+kb.Enter),
		See(Button("Inspected, 1 found")), focusButton("Inspected, 1 found"), Keys(kb.Enter),
		at("Safety capacitors"), focusButton("Not inspected"), Keys(kb.Enter), at("Boards"),
	))
	for _, name := range []string{"Boards", "Connectors", "Case and plastics", "Cables and leads", "Labels and marks",
		"Other"} {
		require.NoError(t, b.Do(at(name), focusButton("Inspected, nothing new found"), Keys(kb.Enter)), name)
	}
	require.NoError(t, b.Do(
		choose("Cosmetic grade", "worn: "), focusButton("End the survey"), Keys(kb.Enter),
		See(Text("Main board, BT1, green crust leaking")), See(Text("Not inspected")),
		See(`//tr[contains(., "Safety capacitors") and contains(., "not inspected")]`),
		focusOn(`tbody a[href*="take-stock"]`), Keys(kb.Enter), onLine("NiCd 3.6V"), // the finding leads to its spot
	))

	// What was measured is typed anywhere; a series is taken by the key of a foot switch, and survives the meter.
	require.NoError(t, b.Do(
		Keys(kb.Escape), Click(Labelled("Say or find")), Keys("bt1 2.1 v"), See(Text("Measured BT1, 2.1 V: fail")),
		Keys(kb.Enter), See(Text("BT1 2.1 V: fail")),
		See(Text("BT1 2.1 V: fail")), chromedp.Navigate(w.url+"/instruments"),
		choose("What the meter gets wrong", "lost link"), See(Text("it answers")),
		chromedp.Navigate(w.stage("judge")), See(Text("nickel cells in a row")),
		Fill(`//section[@aria-label="Series of readings"]//input[@placeholder="+5"]`, "+5"),
		focusButton("Begin a series of +5"), Keys(kb.Enter),
		See(Text("no reading yet")), See(Text("EH-0900 +5; wrong with it: lost link")), Keys(kb.F9),
		See(Text("1 reading")), Keys(kb.F9),
		See(Text("2 readings")), Keys(kb.F9), See(Text("3 readings")),
		Keys(kb.F9), See(Text("Stopped; what was read is kept.")), See(Text("3 readings")),
		focusButton("Go on (F9)"), Keys(kb.Enter), See(Text("4 readings")),
		Gone(Text("Stopped; what was read is kept.")),
		Fill(Labelled("A reading by hand, V"), "4.91"), Keys(kb.Enter), See(Text("5 readings")),
	))
	all, err := w.actions.Condition.Measurements(context.Background(), action.Actor{Role: action.Viewer}, w.machine.ID)
	require.NoError(t, err)
	require.Len(t, all[0].Readings, 5)
	require.Equal(t, measure.Pass, all[0].Judged.Verdict)

	// The battery was looked at today; the capacitor never.
	require.NoError(t, b.Do(
		chromedp.Navigate(w.url+"/diary/open-first"), See(Text("EH-0900 Estuary test bench")),
		See(`//ol//li[contains(., "Main board, C5") and contains(., "never looked at")]`),
		Fill(Labelled("Hours this month"), "2"), See(Text("In 2 h")),
		focusOn(`section[aria-label="The whole order"] a[href*="take-stock"]`), Keys(kb.Enter), onLine("X2 275V"),
	))
}
