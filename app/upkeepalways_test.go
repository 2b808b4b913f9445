package app_test

import (
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/upkeep"
)

// caretaker goes round with whoever does the upkeep, and remembers which machine was cared for.
type caretaker struct {
	t       *rapid.T
	actions *app.App
	ids     []int64
	rule    upkeep.Rule
	round   upkeep.Round
	said    map[int]string // how, by stop of the round that is walked; nil while none is
	cared   map[int64]bool // on earlier rounds, or on none
}

// Whatever is said on rounds and off them, corrected and taken back, a machine is due unless it was cared for, and a round
// holds those that are due and no others, in the order of their bays.
func TestWhatIsDueIsWhatWasNotCaredFor(t *testing.T) {
	fewChecks(t, 6)
	_, actions := newApp(t)
	n := 0
	rapid.Check(t, func(rt *rapid.T) {
		c := &caretaker{t: rt, actions: actions, cared: map[int64]bool{}}
		n++
		model := must(actions.Library.AddModel(ctx, curator, library.ModelInput{Maker: "Vole",
			Model: fmt.Sprintf("Lantern %d", n)}))
		for i := range 4 {
			c.ids = append(c.ids, must(actions.Inventory.CreateMachine(ctx, curator,
				inventory.MachineInput{ModelID: &model.ID,
					Maker: model.Maker, Model: model.Model, Accession: fmt.Sprintf("EH-%d-%d", n, i), Name: "Lantern",
					Place: fmt.Sprintf("Loft, bay %d", 10-i)})).ID)
		}
		c.rule = must(actions.Upkeep.AddRule(ctx, technician, upkeep.RuleInput{Task: fmt.Sprintf("Look %d", n),
			EveryMonths: 2,
			Of:          "machine", ModelID: &model.ID, Looks: rapid.Bool().Draw(rt, "looks")}))
		for range rapid.IntRange(1, 16).Draw(rt, "events") {
			c.event()
			c.check()
		}
	})
}

func (c *caretaker) event() {
	say := func(n, version int) {
		how := rapid.SampledFrom([]string{"did", "seen", "not"}).Draw(c.t, "how")
		in := upkeep.AnswerInput{How: how}
		if how == "not" {
			in.Why = "locked"
		}
		must(c.actions.Upkeep.Answer(ctx, technician, c.round.ID, n, version, in))
		c.said[n] = how
	}
	event := rapid.SampledFrom([]string{"begin", "answer", "answer", "answer", "correct", "take back", "end",
		"alone"}).Draw(c.t,
		"event")
	if event == "alone" {
		id := rapid.SampledFrom(c.ids).Draw(c.t, "machine")
		must(c.actions.Upkeep.DoneAt(ctx, technician, id, upkeep.DoneInput{RuleID: c.rule.ID,
			AnswerInput: upkeep.AnswerInput{How: "did"}}))
		c.cared[id] = true
		return
	}
	if c.said == nil {
		c.begin()
		return
	}
	stops := must(c.actions.Upkeep.Round(ctx, viewer, c.round.ID)).RoundsOf
	n := rapid.IntRange(1, len(stops)).Draw(c.t, "stop")
	deed := stops[n-1].Deed
	switch {
	case event == "answer" && deed == nil:
		say(n, 0)
	case event == "correct" && deed != nil:
		say(n, deed.Version)
	case event == "take back" && deed != nil && deed.Version == 1 && !c.cared[*stops[n-1].MachineID]:
		require.NoError(c.t, c.takeBack(*stops[n-1].MachineID))
		delete(c.said, n)
	case event == "end":
		must(c.actions.Upkeep.EndRound(ctx, technician, c.round.ID, c.round.Version, upkeep.EndInput{}))
		for n, how := range c.said {
			id := *stops[n-1].MachineID
			c.cared[id] = c.cared[id] || c.counts(how)
		}
		c.said = nil
	}
}

// takeBack undoes the newest that was said of a machine.
func (c *caretaker) takeBack(machine int64) error {
	for _, e := range must(c.actions.History.History(ctx, curator, machine, 0, 20)).Events {
		if strings.Contains(e.What, c.rule.Task+": ") && len(e.MayUndo) > 0 {
			return c.actions.History.Undo(ctx, curator, e.ID)
		}
	}
	return fmt.Errorf("nothing of machine %d can be taken back", machine)
}

func (c *caretaker) begin() {
	round, err := c.actions.Upkeep.BeginRound(ctx, technician, upkeep.RoundInput{RuleID: c.rule.ID})
	due := c.due()
	if len(due) == 0 {
		require.Error(c.t, err, "nothing is due")
		return
	}
	require.NoError(c.t, err)
	slices.Reverse(due) // the machine that was entered last stands in the first bay
	for i, stop := range round.RoundsOf {
		require.Equal(c.t, due[i], *stop.MachineID)
	}
	require.Len(c.t, round.RoundsOf, len(due))
	c.round, c.said = round, map[int]string{}
}

// counts reports whether a machine is cared for by what was said.
func (c *caretaker) counts(how string) bool { return how == "did" || how == "seen" && c.rule.Looks }

// due are the machines that nobody cared for, in the order in which they were entered.
func (c *caretaker) due() []int64 {
	cared := maps.Clone(c.cared)
	for n, how := range c.said {
		id := *c.round.RoundsOf[n-1].MachineID
		cared[id] = cared[id] || c.counts(how)
	}
	return slices.DeleteFunc(slices.Clone(c.ids), func(id int64) bool { return cared[id] })
}

func (c *caretaker) check() {
	due := c.due()
	for _, id := range c.ids {
		at := slices.IndexFunc(must(c.actions.Upkeep.OfMachine(ctx, viewer, id)).Due, func(d upkeep.Due) bool {
			return d.RuleID == c.rule.ID && d.OverdueDays >= 0
		})
		require.Equal(c.t, slices.Contains(due, id), at >= 0)
	}
	for _, one := range must(c.actions.Upkeep.RoundsDue(ctx, viewer)) {
		if one.Rule.ID == c.rule.ID {
			require.Equal(c.t, len(due), one.Stops)
		}
	}
	if c.said != nil {
		require.Equal(c.t, len(c.said), must(c.actions.Upkeep.Round(ctx, viewer, c.round.ID)).Done)
	}
}

// Four people say something of one stop at once, and one begins the round twice: one of them is heard, the others are told.
func TestPeopleWhoWalkTheSameRound(t *testing.T) {
	_, actions := newApp(t)
	shelf(t, actions, 1)
	rule := batteryRule(actions)
	together := func(work func() error) (taken int) {
		var wait sync.WaitGroup
		errs := make([]error, 4)
		for i := range errs {
			wait.Go(func() { errs[i] = work() })
		}
		wait.Wait()
		for _, err := range errs {
			var invalid *action.Invalid
			var stale *action.Stale
			if err == nil {
				taken++
			} else if !errors.As(err, &invalid) && !errors.As(err, &stale) {
				t.Errorf("%v is no answer for people", err)
			}
		}
		return taken
	}
	require.Equal(t, 1, together(func() error {
		return second(actions.Upkeep.BeginRound(ctx, technician, upkeep.RoundInput{RuleID: rule.ID}))
	}))
	round := must(actions.Upkeep.Rounds(ctx, technician))[0]
	require.Equal(t, 1, together(func() error {
		return second(actions.Upkeep.Answer(ctx, technician, round.ID, 1, 0, upkeep.AnswerInput{How: "did",
			Measured: "3.6 V"}))
	}))
	require.Len(t, must(actions.Condition.Measurements(ctx, technician, *must(actions.Upkeep.Round(ctx, technician,
		round.ID)).RoundsOf[0].MachineID)), 1, "measured once")
}
