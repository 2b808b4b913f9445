package app_test

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	appcondition "frugalheron/app/condition"
	"frugalheron/app/inventory"
	appteardown "frugalheron/app/teardown"
	"frugalheron/core/condition"
	"frugalheron/core/quantity"
	"frugalheron/core/teardown"
)

// atOnce does something n times at once and returns what became of each.
func atOnce(n int, action func(i int) error) []error {
	var wait sync.WaitGroup
	results := make([]error, n)
	for i := range results {
		wait.Go(func() { results[i] = action(i) })
	}
	wait.Wait()
	return results
}

// wins counts those that went through; all others must have met what somebody else did.
func wins(t *testing.T, results []error, isBeaten func(error) bool) int {
	won := 0
	for _, err := range results {
		if err == nil {
			won++
		} else {
			require.True(t, isBeaten(err), "%v", err)
		}
	}
	return won
}

func isStale(err error) bool {
	var stale *action.Stale
	return errors.As(err, &stale)
}

func isInvalid(err error) bool {
	var invalid *action.Invalid
	return errors.As(err, &invalid)
}

// Several people at one open machine: each step and each reading is kept, what only one can do only one does.
func TestManyHandsAtOneMachine(t *testing.T) {
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{}, "== Main board\nBT1 NiCd 3.6V")
	require.Equal(t, 1, wins(t, atOnce(6, func(int) error {
		_, err := actions.Teardown.StartTeardown(ctx, technician, machine.ID,
			appteardown.StartedTeardown{Purpose: "to look", Rows: 4, Columns: 6})
		return err
	}), isInvalid), "a machine is taken apart once at a time")
	opened, err := actions.Teardown.OpenedUp(ctx, viewer, machine.ID)
	require.NoError(t, err)
	id := opened.Now.ID

	require.Equal(t, 12, wins(t, atOnce(12, func(i int) error {
		_, err := actions.Teardown.AddStep(ctx, technician, id,
			appteardown.StepInput{Line: fmt.Sprintf("Part %d | unplug J1, J%d", i, i+2)})
		return err
	}), isStale))
	log, err := actions.Teardown.Teardown(ctx, viewer, id)
	require.NoError(t, err)
	require.Equal(t, teardown.Sums{Steps: 12, Off: 12, Unplugged: 24, Open: 13}, log.Sums, "J1 is on the map once")
	step := log.Steps[3]
	require.Equal(t, 1, wins(t, atOnce(6, func(int) error {
		_, err := actions.Teardown.ReverseStep(ctx, technician, step.ID, step.Version,
			appteardown.Reversed{Reversal: teardown.Reversal{State: teardown.Back}})
		return err
	}), isStale))
	step = log.Steps[4]
	require.Equal(t, 1, wins(t, atOnce(6, func(i int) error {
		_, err := actions.Teardown.ChangeStep(ctx, technician, step.ID, step.Version,
			appteardown.StepInput{Line: fmt.Sprintf("Named anew %d", i)})
		return err
	}), isStale))

	require.Equal(t, 1, wins(t, atOnce(6, func(int) error {
		_, err := actions.Condition.StartSurvey(ctx, technician, machine.ID, "2026-01-01", "")
		return err
	}), isInvalid))
	found, err := actions.Condition.Condition(ctx, viewer, machine.ID)
	require.NoError(t, err)
	running := found.Running
	require.Equal(t, 1, wins(t, atOnce(6, func(i int) error {
		seen := appcondition.ObservedFinding{New: &appcondition.FindingInput{Kind: fmt.Sprintf("leaking %d", i)},
			Severity: condition.Hazard}
		_, err := actions.Condition.JudgeItem(ctx, technician, running.ID, running.Version, "batteries",
			inspected(seen))
		return err
	}), isStale))
	found, err = actions.Condition.Condition(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Len(t, found.Findings, 1, "a look that was refused leaves no finding")

	// Each at another subsystem, all on the version that they read: nobody is in anybody's way.
	rest := []string{"supply", "boards", "connectors", "plastics", "cables", "labels"}
	require.Equal(t, len(rest), wins(t, atOnce(len(rest), func(i int) error {
		_, err := actions.Condition.JudgeItem(ctx, technician, running.ID, running.Version, rest[i], inspected())
		return err
	}), isStale))
	found, err = actions.Condition.Condition(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Len(t, found.Running.Inspections, len(rest)+1)
	_, err = actions.Condition.EndSurvey(ctx, technician, running.ID, running.Version, "", "")
	require.True(t, isStale(err), "whoever ends it has seen all that was said")

	series, err := actions.Condition.Measure(ctx, technician, machine.ID,
		appcondition.MeasurementInput{Point: "+5", Quantity: quantity.Volts})
	require.NoError(t, err)
	require.Equal(t, 15, wins(t, atOnce(15, func(i int) error {
		_, err := actions.Condition.AddReading(ctx, technician, series.ID, 4.9+float64(i)/100)
		return err
	}), isStale))
	all, err := actions.Condition.Measurements(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Len(t, all[0].Readings, 15)
	require.InDelta(t, 4.97, all[0].Judged.Stats.Average, 1e-9)
	require.Equal(t, 1, wins(t, atOnce(6, func(int) error {
		_, err := actions.Condition.DropReading(ctx, technician, series.ID, all[0].Version)
		return err
	}), isStale))
}

// A board is saved and a survey made at the same time, again and again: the ranking ends as both left it.
func TestTheRankingMissesNeitherSheetNorSurvey(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{}, "== Main board\nBT1 NiCd 3.6V")
	for round := range 6 {
		results := atOnce(2, func(i int) error {
			if i == 0 {
				_, err := actions.Sheets.SaveSheet(ctx, technician, board.ID, round+1,
					fmt.Sprintf("BT1 NiCd 3.6V\nC1-C%d 47uF 16V", round+2))
				return err
			}
			now, err := actions.Condition.StartSurvey(ctx, technician, machine.ID, fmt.Sprintf("202%d-03-01", round),
				"")
			if err != nil {
				return err
			}
			if now, err = actions.Condition.JudgeItem(ctx, technician, now.Running.ID, now.Running.Version, "batteries",
				inspected()); err != nil {
				return err
			}
			_, err = actions.Condition.EndSurvey(ctx, technician, now.Running.ID, now.Running.Version, "", "")
			return err
		})
		require.NoError(t, errors.Join(results...))
		risks, err := actions.Condition.Risks(ctx, viewer, machine.ID, 0, 10)
		require.NoError(t, err)
		require.Equal(t, 2, risks.Total)
		for _, r := range risks.Risks {
			if r.Class == "battery-nicd" {
				require.Contains(t, r.Why, "last looked at", "round %d", round)
			} else {
				require.Equal(t, round+2, r.Count)
			}
		}
	}
}

// A closed log is not opened again by undoing while another is open, and what is undone leaves its trace.
func TestOneOpenLogAtATime(t *testing.T) {
	db, actions, machine, _ := newBoard(t, inventory.MachineInput{}, "== Main board\nU1 7400")
	start := func() appteardown.TeardownView {
		log, err := actions.Teardown.StartTeardown(ctx, technician, machine.ID,
			appteardown.StartedTeardown{Purpose: "to look", Rows: 1, Columns: 1})
		require.NoError(t, err)
		return log
	}
	first := start()
	closed, err := actions.Teardown.EndTeardown(ctx, technician, first.ID)
	require.NoError(t, err)
	require.Equal(t, "closed", closed.Outcome)
	history, err := actions.History.History(ctx, viewer, machine.ID, 0, 1)
	require.NoError(t, err)
	second := start()
	require.True(t, isInvalid(actions.History.Undo(ctx, technician, history.Events[0].ID)),
		"the second log is the one to go on with")
	_, err = actions.Teardown.EndTeardown(ctx, technician, second.ID)
	require.NoError(t, err)
	require.NoError(t, actions.History.Undo(ctx, technician, history.Events[0].ID))
	require.True(t, isInvalid(actions.History.Undo(ctx, technician, history.Events[0].ID)), "it is undone already")
	opened, err := actions.Teardown.OpenedUp(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, first.ID, opened.Now.ID)
	require.Equal(t, second.ID, opened.Before[0].ID)
	require.Equal(t, []string{"start teardown", "end teardown", "reopen teardown"},
		actionsOf(t, db, "teardown", first.ID))
	// Another person's open connector without a log is told by the stage.
	_, err = actions.Teardown.MapConnector(ctx, technician, machine.ID, plug("J1"))
	require.NoError(t, err)
	_, err = actions.Teardown.EndTeardown(ctx, technician, first.ID)
	require.NoError(t, err)
	wired, err := actions.Teardown.Wiring(ctx, viewer, machine.ID)
	require.NoError(t, err)
	_, err = actions.Teardown.PlugConnector(ctx, technician, wired.Connectors[0].ID, wired.Connectors[0].Version, true)
	require.NoError(t, err)
	opened, err = actions.Teardown.OpenedUp(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, []any{"needs attention", 1}, []any{string(opened.Stage.State), opened.Stage.Count})
}

// What is undone was the newest: an action that comes at the same moment is before it, and nothing is undone, or behind
// it.
func TestUndoLeavesNoGap(t *testing.T) {
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{}, "== Main board\nU1 7400")
	for round := range 12 {
		now := must(actions.Inventory.Machine(ctx, curator, machine.ID))
		fields := now.MachineInput
		fields.Name = fmt.Sprint("Terminal ", round)
		must(actions.Inventory.ChangeMachine(ctx, curator, machine.ID, now.Version, fields))
		changed := must(actions.History.History(ctx, curator, machine.ID, 0, 1)).Events[0].ID
		results := atOnce(4, func(i int) error {
			if i == 0 {
				return actions.History.Undo(ctx, curator, changed)
			}
			return second(actions.QuickEntry.Enter(ctx, technician, machine.ID, 0, 0,
				fmt.Sprintf("note %d of round %d", i, round)))
		})
		require.NoError(t, errors.Join(results[1:]...))
		events := must(actions.History.History(ctx, curator, machine.ID, 0, 4)).Events
		if results[0] != nil {
			require.True(t, isInvalid(results[0]), "%v", results[0])
			require.Equal(t, fields.Name, must(actions.Inventory.Machine(ctx, curator, machine.ID)).Name)
			continue
		}
		require.Equal(t, now.Name, must(actions.Inventory.Machine(ctx, curator, machine.ID)).Name)
		require.Contains(t, events[3].What, "changed the record", "the notes are behind it")
	}
}

// Who names a type waits in line with those who save, and not behind all who ever will.
func TestNamingATypeIsNotOvertaken(t *testing.T) {
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{}, "== Main board\nU1 HX9040")
	boards := must(actions.Sheets.TakeOverSheet(ctx, technician, machine.ID,
		"== A\nU1 7400\n== B\nU1 7400\n== C\nU1 7400\n== D\nU1 7400\n== E\nU1 7400\n== F\nU1 7400"))
	saving, stop := context.WithCancel(ctx)
	var savers sync.WaitGroup
	for _, board := range boards {
		savers.Go(func() {
			for n := 1; saving.Err() == nil; n++ {
				actions.Sheets.SaveSheet(saving, technician, board.ID, n,
					fmt.Sprintf("U1 7400\nU%d 7400", n+1)) //nolint:errcheck // the last is given up
			}
		})
	}
	time.Sleep(100 * time.Millisecond)
	naming, giveUp := context.WithTimeout(ctx, 20*time.Second)
	defer giveUp()
	_, err := actions.Library.NameType(naming, technician, processor)
	stop()
	savers.Wait()
	require.NoError(t, err)
}
