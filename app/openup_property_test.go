package app_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/app"
	"frugalheron/app/inventory"
	appteardown "frugalheron/app/teardown"
	"frugalheron/core/teardown"
)

// believed is what somebody who watched everything would say of a log.
type believed struct {
	lines map[int64]string // of steps that are in the log
	off   map[int64]bool
	open  map[string]bool // connectors
	left  map[int64]bool  // steps with a fastener left over and no word about it
}

// Whatever is done to a log, in whatever order: the map, the tray and what is missing are as somebody believes
// who watched, and the log ends just when nothing is missing.
func TestALogIsAsSomebodyWhoWatchedBelieves(t *testing.T) {
	_, actions, _, _ := newBoard(t, inventory.MachineInput{}, "== Main board\nU1 7400")
	rounds := 0
	rapid.Check(t, func(rt *rapid.T) {
		if rounds++; rounds > 25 {
			return // each round goes through the database; a few dozen find what there is to find
		}
		machine, err := actions.Inventory.CreateMachine(ctx, curator,
			inventory.MachineInput{Accession: fmt.Sprintf("EH-%d", 1000+rounds), Name: "Lantern"})
		require.NoError(rt, err)
		log, err := actions.Teardown.StartTeardown(ctx, technician, machine.ID,
			appteardown.StartedTeardown{Purpose: "to look", Rows: 2, Columns: 3})
		require.NoError(rt, err)
		b := believed{map[int64]string{}, map[int64]bool{}, map[string]bool{}, map[int64]bool{}}
		for n := range rapid.IntRange(1, 12).Draw(rt, "deeds") {
			var after appteardown.TeardownView
			pick := func(word string) appteardown.StepView {
				return log.Steps[rapid.IntRange(0, len(log.Steps)-1).Draw(rt, word)]
			}
			action := rapid.SampledFrom([]string{"add", "add", "back", "off", "strike", "change"}).Draw(rt, "deed")
			if len(log.Steps) == 0 {
				action = "add"
			}
			switch action {
			case "add":
				name := fmt.Sprintf("J%d", n)
				after, err = actions.Teardown.AddStep(ctx, technician, log.ID,
					appteardown.StepInput{Line: fmt.Sprintf("Part %d | 2x M3x%d @A1 | unplug %s", n, 4+n, name)})
				require.NoError(rt, err)
				s := after.Steps[len(after.Steps)-1]
				b.lines[s.ID], b.off[s.ID], b.open[name] = s.Line, true, true
			case "back":
				s := pick("back")
				r := appteardown.Reversed{Reversal: teardown.Reversal{State: teardown.Back}}
				if rapid.Bool().Draw(rt, "plugged") {
					r.Plugged = s.Connectors
				}
				if rapid.Bool().Draw(rt, "left over") {
					r.Left = []teardown.LeftOver{{Fastener: 0, Count: 1}}
				}
				after, err = actions.Teardown.ReverseStep(ctx, technician, s.ID, s.Version, r)
				require.NoError(rt, err)
				b.off[s.ID], b.left[s.ID] = false, len(r.Left) > 0
				for _, name := range r.Plugged {
					b.open[name] = false
				}
			case "off":
				s := pick("off")
				after, err = actions.Teardown.ReverseStep(ctx, technician, s.ID, s.Version,
					appteardown.Reversed{Reversal: teardown.Reversal{State: teardown.Off}})
				require.NoError(rt, err)
				if !b.off[s.ID] {
					for _, name := range s.Connectors {
						b.open[name] = true
					}
				}
				b.off[s.ID], b.left[s.ID] = true, false
			case "strike":
				s := pick("strike")
				_, err = actions.Teardown.VoidStep(ctx, technician, s.ID, s.Version)
				require.NoError(rt, err)
				after, err = actions.Teardown.Teardown(ctx, viewer, log.ID)
				require.NoError(rt, err)
				if b.off[s.ID] {
					for _, name := range s.Connectors {
						b.open[name] = false
					}
				}
				delete(b.lines, s.ID)
				delete(b.off, s.ID)
				delete(b.left, s.ID)
			case "change":
				s := pick("change")
				after, err = actions.Teardown.ChangeStep(ctx, technician, s.ID, s.Version,
					appteardown.StepInput{Line: fmt.Sprintf("Part %d, named anew | 2x M3x%d @A1", n, 4+n)})
				require.NoError(rt, err)
				if b.off[s.ID] {
					for _, name := range s.Connectors {
						b.open[name] = false
					}
				}
				b.lines[s.ID] = after.Steps[slices.IndexFunc(after.Steps, func(one appteardown.StepView) bool {
					return one.ID == s.ID
				})].Line
			}
			log = after
			b.agrees(rt, actions, machine.ID, log)
		}
		_, err = actions.Teardown.EndTeardown(ctx, technician, log.ID)
		require.Equal(rt, b.lacks() == 0, err == nil, "%v", err)
	})
}

func (b believed) lacks() int {
	n := 0
	for _, of := range []map[int64]bool{b.off, b.left} {
		for _, is := range of {
			if is {
				n++
			}
		}
	}
	for _, open := range b.open {
		if open {
			n++
		}
	}
	return n
}

func (b believed) agrees(t *rapid.T, actions *app.App, machineID int64, log appteardown.TeardownView) {
	require.Len(t, log.Steps, len(b.lines))
	aside := 0
	for i, s := range log.Steps {
		require.Equal(t, i+1, s.N)
		require.Equal(t, b.lines[s.ID], s.Line)
		require.Equal(t, b.off[s.ID], s.State == teardown.Off)
		if b.off[s.ID] {
			aside += 2
		} else if b.left[s.ID] {
			aside++
		}
	}
	require.Equal(t, aside, log.Sums.Aside)
	require.Equal(t, aside, log.Cells[0].Count, "all are kept in the one cell")
	require.Len(t, log.Blockers, b.lacks())
	wired, err := actions.Teardown.Wiring(ctx, viewer, machineID)
	require.NoError(t, err)
	for _, c := range wired.Connectors {
		require.Equal(t, b.open[c.Name], c.Open, c.Name)
	}
}
