package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/core/practice"
	. "frugalheron/e2e/browser"
	"frugalheron/instruments/meter"
	stand "frugalheron/instruments/practice"
)

// A console is listened to and typed on, what it says becomes a statement, and what complains stands in the reckoning; then
// the fault of the practice machine is found on the ladder. All of it by keyboard.
func TestAConsoleAndThePracticeMachine(t *testing.T) {
	w, b := newWorld(t), open(t)
	w.addBoard(t, "== Main board\nU1 74LS00")
	w.addBench(t, "")
	press := func(button string) chromedp.Action { return chromedp.Tasks{focusButton(button), Keys(kb.Enter)} }
	field := func(label, text string) chromedp.Action {
		return chromedp.Tasks{chromedp.Focus(Labelled(label), chromedp.BySearch), Keys(text)}
	}
	named := func(label string) chromedp.Action {
		return chromedp.Tasks{focusOn(`button[aria-label="` + label + `"]`), Keys(kb.Enter)}
	}
	require.NoError(t, b.Do(
		SignIn(w.url, curator.Login, curator.Password), chromedp.Navigate(w.stage("power-up")),
		See(Text("Nobody has listened to it yet")),
		Keys("/"), Keys("listen to its"), Keys(kb.Enter), field("Speed and bits of the port", "9600 8N1"),
		Keys(kb.Enter),
		See(Text("HARBOUR DOS VERSION 2.1")), field("Type on its console", "MEM"), Keys(kb.Enter),
		See(Text("TOTAL MEMORY 256K")), press("Stop listening"), See(Text("It waits for a line")),
		named("Take as statement: memory 256 KB"), See(Text("taken as a statement")),
		chromedp.Navigate(w.stage("look-over")), See(Text("256 KB")),
	))
	require.NoError(t, b.Do(
		chromedp.Navigate(w.url+"/instruments"), choose("What the stand-in's console is", "memory test failing"),
		See(Link("Practice")), chromedp.Navigate(w.stage("power-up")+"?open=listen"), press("Begin to listen"),
		See(Text("MEMORY TEST FAILED")), press("Stop listening"), See(Text("bit 2")),
		See(Text("2 places of memory failed")),
	))

	// The machine of number 2 has a bad chip: found by the console's memory test, on the rung of its board.
	fault := stand.MachineOf(stand.Bench{Seed: 2}).Answer()
	require.Equal(t, practice.BadChip, fault.Fault)
	board, _, _ := practice.ChipAt(fault.Place)
	do := func(button, logged string) chromedp.Action {
		return chromedp.Tasks{press(button), See(`//ol[@aria-label="Deeds"]/li[last()][contains(., "` + logged + `")]`)}
	}
	measure := func(point string) chromedp.Action {
		return chromedp.Tasks{choose("Leads at", point), do("Measure", "measure "+point)}
	}
	require.NoError(t, b.Do(
		chromedp.Navigate(w.url+"/practice"), See(Text("One thing is wrong with it")), press("Begin"),
		See(Text("Off, lead out, lamps dark")), do("Switch on", "the gate stood at hold"),
		field("Number of the machine", "2"), Keys(kb.Enter), See(Text("Off, lead out, lamps dark")),
		do("Inspect the supply", "inspect"), do("Switch on", "switch on"), measure("+5"), measure("+12"),
		measure("-12"),
		See(Text("staged")), do("Switch off, lead out", "switch off"), do("Connect it to the machine", "connect"),
	))
	for _, unit := range append([]string{practice.Minimum}, practice.MemoryBoards()...) {
		if unit != practice.Minimum {
			require.NoError(t, b.Do(do("Switch off, lead out", "switch off"), do("Fit "+unit, "fit")))
		}
		require.NoError(t, b.Do(do("Switch on", "switch on"), measure("+5"), do("Listen to the console", "listen")))
		if unit == board {
			break
		}
		require.NoError(t, b.Do(do("It is as expected", "as-expected")))
	}
	require.NoError(t, b.Do(
		See(Text("Memory failed at")), do("It is not as expected", "judge not"),
		choose("What is wrong", "A bad memory chip"), choose("Where", fault.Place), press("Say that it is this"),
		See(Text("Nothing of what was done would have been wrong")), See(Text(fault.Place)),
		chromedp.Navigate(w.url+"/collection"), See(Text("EH-0900")), Gone(Text("Memory board")),
	))
}

// addBench puts a practice machine, its console and a meter on the bench, beside a reader.
func (w world) addBench(t *testing.T, reader string) {
	machine, err := stand.NewStandIn(0, 0, true)
	require.NoError(t, err)
	t.Cleanup(func() { machine.Close() })
	leads, err := meter.NewStandInOf(0, machine.With(map[string]meter.Values{"EH-0900 +5": {}}))
	require.NoError(t, err)
	t.Cleanup(func() { leads.Close() })
	w.actions.WithInstruments(app.Instruments{Reader: reader, Meter: leads.Address(),
		Console:  machine.Console.Address(),
		Practice: machine.Address()})
}
