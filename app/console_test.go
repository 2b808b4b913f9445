package app_test

import (
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/console"
	"frugalheron/app/inventory"
	apppractice "frugalheron/app/practice"
	coreconsole "frugalheron/core/console"
	"frugalheron/core/facts"
	corepractice "frugalheron/core/practice"
	"frugalheron/instruments/meter"
	"frugalheron/instruments/practice"
)

// onBench puts a practice machine with its console and a meter on the bench of the application.
func onBench(t *testing.T, actions *app.App, isTelnet bool) {
	machine, err := practice.NewStandIn(0, 0, isTelnet)
	require.NoError(t, err)
	t.Cleanup(func() { machine.Close() })
	leads, err := meter.NewStandInOf(0, machine.With(map[string]meter.Values{"EH-1 +5": {}}))
	require.NoError(t, err)
	t.Cleanup(func() { leads.Close() })
	actions.WithInstruments(app.Instruments{Meter: leads.Address(), Console: machine.Console.Address(),
		Practice: machine.Address()})
}

// listened plays a profile, listens until some words came, and stops.
func listened(t *testing.T, actions *app.App, machine int64, profile, words string) console.Capture {
	require.NoError(t, actions.Console.Play(ctx, technician, profile))
	begun := must(actions.Console.Listen(ctx, technician, machine, console.ListenInput{Line: "9600 8N1",
		During: "start"}))
	require.Nil(t, begun.Until)
	require.Eventually(t, func() bool {
		lines := must(actions.Console.Console(ctx, viewer, machine)).Captures[0].Reading.Lines
		return words == "" || slices.ContainsFunc(lines, func(l coreconsole.TextLine) bool {
			return strings.Contains(l.Text, words)
		})
	}, 10*time.Second, 20*time.Millisecond, "what comes is kept while somebody listens")
	return must(actions.Console.Stop(ctx, technician, begun.ID))
}

func TestAConsoleIsHeardKeptAndCited(t *testing.T) {
	for _, isTelnet := range []bool{false, true} {
		_, actions := newApp(t)
		onBench(t, actions, isTelnet)
		machine := must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: "EH-1",
			Name: "M"})).ID

		boot := listened(t, actions, machine, "boot", "A>")
		require.Equal(t, coreconsole.Prompts, boot.Reading.Outcome, boot.Reading.Why)
		require.Equal(t, "stopped", boot.Ended)
		stated := must(actions.Console.Take(ctx, technician, boot.ID, console.TakeInput{Line: 3, Attribute: "memory"}))
		require.Equal(t, []string{"256 KB", "firmware", "line 3", boot.On, `console, "MEMORY 256K OK"`},
			[]string{stated.Value, stated.Kind, stated.Page, stated.StatedOn, stated.Cited})
		_, err := actions.Console.Take(ctx, technician, boot.ID, console.TakeInput{Line: 3, Attribute: "memory"})
		require.ErrorContains(t, err, "already")
		_, err = actions.Console.Take(ctx, technician, boot.ID, console.TakeInput{Line: 1, Attribute: "memory"})
		require.ErrorContains(t, err, "says nothing of Memory")
		for _, k := range must(actions.Bench.Dossier(ctx, viewer, machine)).Known {
			if k.Attribute.Key == "memory" {
				require.Equal(t, facts.Settled, k.Fact.State)
			}
		}
		now := must(actions.Console.Console(ctx, viewer, machine)).Captures[0]
		_, err = actions.Console.Void(ctx, technician, boot.ID, now.Version)
		require.ErrorContains(t, err, "1 statement taken from it still count")
		must(actions.Evidence.RetractStatement(ctx, technician, stated.ID, "another machine"))
		must(actions.Console.Void(ctx, technician, boot.ID, now.Version))

		failing := listened(t, actions, machine, "memory test failing", "TEST FAILED")
		require.Equal(t, []int{2}, failing.Reading.Failures[0].Bits)
		verdicts := must(actions.Console.Verdicts(ctx, viewer, machine))
		require.Equal(t, "2 places of memory failed, 1 line complains", verdicts[0].Value)
		require.Equal(t, coreconsole.Silent, listened(t, actions, machine, "silence", "").Reading.Outcome)
		require.Equal(t, coreconsole.Garbage, listened(t, actions, machine, "garbage", "x").Reading.Outcome)
		require.Empty(t, must(actions.Console.Verdicts(ctx, viewer, machine))[0].Why[0].Spot)
	}
}

func TestAConsoleIsTypedOnAndEndsItself(t *testing.T) {
	_, actions := newApp(t)
	onBench(t, actions, true)
	machine := must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: "EH-1",
		Name: "M"})).ID
	require.NoError(t, actions.Console.Play(ctx, technician, "prompt"))
	begun := must(actions.Console.Listen(ctx, technician, machine, console.ListenInput{}))
	_, err := actions.Console.Listen(ctx, curator, machine, console.ListenInput{})
	require.ErrorContains(t, err, "somebody listens to it already")
	_, err = actions.Console.Void(ctx, curator, begun.ID, begun.Version)
	require.ErrorContains(t, err, "stop listening first")
	require.NoError(t, actions.Console.Type(ctx, technician, begun.ID, "MEM", false))
	require.NoError(t, actions.Console.Type(ctx, technician, begun.ID, "harbour-1984", true))
	require.Error(t, actions.Console.Type(ctx, technician, begun.ID, "a\x1bb", false))
	require.Eventually(t, func() bool {
		lines := must(actions.Console.Console(ctx, viewer, machine)).Captures[0].Reading.Lines
		return len(lines) > 3
	}, 10*time.Second, 20*time.Millisecond)
	heard := must(actions.Console.Stop(ctx, technician, begun.ID))
	require.Contains(t, heard.Reading.Lines[2].Text, "TOTAL MEMORY 256K")
	require.ErrorContains(t, actions.Console.Type(ctx, technician, begun.ID, "MEM", false), "nobody listens")
	_, err = actions.Console.Stop(ctx, technician, begun.ID)
	require.ErrorContains(t, err, "nobody listens")

	require.NoError(t, actions.Console.Play(ctx, technician, "no line end"))
	begun = must(actions.Console.Listen(ctx, technician, machine, console.ListenInput{}))
	var endless console.Capture
	require.Eventually(t, func() bool {
		endless = must(actions.Console.Console(ctx, viewer, machine)).Captures[0]
		return endless.Until != nil
	}, 20*time.Second, 50*time.Millisecond, "a megabyte without a line end ends it")
	require.Equal(t, coreconsole.MostBytes, endless.Bytes)
	require.Contains(t, endless.Ended, "256 KiB came")
	require.Contains(t, endless.Reading.Doubts[0], "did not end")

	typed := must(actions.Console.KeepText(ctx, technician, machine, console.TextInput{Text: "Tidewater Monitor V2.3",
		On: "2024-05-01"}))
	require.Equal(t, "firmware", typed.Reading.Claims[0].Attribute)
	for _, wrong := range []console.TextInput{{Text: " "}, {Text: "a", On: "2999-01-01"}} {
		_, err := actions.Console.KeepText(ctx, technician, machine, wrong)
		require.Error(t, err)
	}
	_, err = actions.Console.KeepText(ctx, viewer, machine, console.TextInput{Text: "a"})
	require.Error(t, err)
	actions.WithInstruments(app.Instruments{Console: "127.0.0.1:1"})
	_, err = actions.Console.Listen(ctx, technician, machine, console.ListenInput{})
	require.ErrorContains(t, err, "no console answers")
	require.NotEmpty(t, must(actions.Console.Port(ctx, technician)).Trouble)
}

// Whoever goes up the ladder as it is meant finds each of the faults, and is told of no slip; what somebody does against the
// gate is told.
func TestEachFaultOfThePracticeMachineIsFoundByTheLadder(t *testing.T) {
	_, actions := newApp(t)
	onBench(t, actions, false)
	id := must(actions.Accounts.AddAccount(ctx, "fenna", "Fenna Marsh", action.Viewer, "long enough to be one"))
	who := action.Actor{AccountID: id, Role: action.Viewer}
	do := func(kind corepractice.ActKind, what string) {
		must(actions.Practice.Do(ctx, who, corepractice.Act{Kind: kind, What: what}))
	}
	found := map[corepractice.Fault]bool{}
	for seed := 1; seed <= 5; seed++ {
		must(actions.Practice.Begin(ctx, who, seed))
		do(corepractice.Inspect, "")
		do(corepractice.SwitchOn, "")
		for _, point := range corepractice.Points()[:3] {
			do(corepractice.Measure, point)
		}
		do(corepractice.SwitchOff, "")
		do(corepractice.Connect, corepractice.Machine)
		said := climbed(t, actions, who, do)
		ended := must(actions.Practice.Say(ctx, who, said))
		require.True(t, ended.Debrief.Right, "seed %d: %v, not %v", seed, ended.Debrief.Is, said)
		require.Empty(t, ended.Debrief.Slips, "seed %d", seed)
		found[said.Fault] = true
	}
	require.Len(t, found, len(corepractice.Faults()))

	must(actions.Practice.Begin(ctx, who, 3))
	do(corepractice.Connect, corepractice.Machine)
	do(corepractice.Fit, corepractice.DiskCard)
	do(corepractice.SwitchOn, "")
	do(corepractice.TakeOut, corepractice.DiskCard)
	do(corepractice.Judge, "as-expected")
	slips := []string{}
	for _, entry := range must(actions.Practice.Practice(ctx, who)).Exercise.Log {
		if entry.Slip != "" {
			slips = append(slips, string(entry.Kind))
		}
	}
	require.Equal(t, []string{"fit", "switch on", "take out", "judge"}, slips)
	require.Nil(t, must(actions.Practice.Practice(ctx, viewer)).Exercise, "each has one of their own")
	for _, wrong := range []corepractice.Act{{Kind: "kick"}, {Kind: corepractice.Fit, What: "Flux card"},
		{Kind: corepractice.SwitchOn}, {Kind: corepractice.Measure, What: "+7"}} {
		_, err := actions.Practice.Do(ctx, who, wrong)
		require.Error(t, err, "%v", wrong)
	}
	page := must(actions.Inventory.ListMachines(ctx, who, inventory.MachineList{Limit: 10}))
	require.Empty(t, page.Machines, "nothing of it is a record")
}

// climbed goes up the ladder until something is not as expected, and says what that means.
func climbed(t *testing.T, actions *app.App, who action.Actor, do func(corepractice.ActKind,
	string)) corepractice.NamedFault {
	for i, step := range must(actions.Practice.Practice(ctx, who)).Exercise.Ladder {
		if i > 0 {
			do(corepractice.SwitchOff, "")
			do(corepractice.Fit, step.Step)
		}
		do(corepractice.SwitchOn, "")
		for _, point := range corepractice.Points() {
			do(corepractice.Measure, point)
		}
		do(corepractice.Listen, "")
		now := must(actions.Practice.Practice(ctx, who))
		volts := map[string]float64{}
		for _, r := range now.Exercise.Readings {
			volts[r.Point] = r.Volts
		}
		if said := meant(now, volts, step.Step); said != nil {
			do(corepractice.Judge, "not")
			return *said
		}
		do(corepractice.Judge, "as-expected")
	}
	require.Fail(t, "nothing was found")
	return corepractice.NamedFault{}
}

func meant(now apppractice.Practice, volts map[string]float64, step string) *corepractice.NamedFault {
	switch {
	case volts["+12"] < 11.4:
		return &corepractice.NamedFault{Fault: corepractice.Shorted, Place: step}
	case volts["+5"] < 4.75:
		return &corepractice.NamedFault{Fault: corepractice.Sags, Place: "Supply"}
	case volts["clock cell"] < 2:
		return &corepractice.NamedFault{Fault: corepractice.NoCell, Place: "Clock cell"}
	case now.Console.Outcome == coreconsole.Silent && volts["console driver"] > -3:
		return &corepractice.NamedFault{Fault: corepractice.SilentConsole, Place: "Console driver"}
	case len(now.Console.Failures) > 0:
		bit := now.Console.Failures[0].Bits[0]
		return &corepractice.NamedFault{Fault: corepractice.BadChip,
			Place: corepractice.ChipOf(strings.TrimSpace(step), bit)}
	}
	return nil
}
