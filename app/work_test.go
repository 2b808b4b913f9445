package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/work"
	"frugalheron/core/gate"
	"frugalheron/core/job"
)

// From the finding to the job and to its end: the finding is gone, the sheet has the new part, the gate opens by so much,
// and without its test the job stays unproven.
func TestAJobEndsWhatItMends(t *testing.T) {
	_, actions := newApp(t)
	machine, board, _ := poweredUp(t, actions)
	now := func() work.Treatment { return must(actions.Work.Treatment(ctx, technician, machine)) }
	wanting := now().Wanting[0]
	require.Equal(t, []string{"battery-out", "battery-new"}, wanting.Usual)
	require.Equal(t, "BT1", wanting.Place)
	todo := must(actions.Work.AddJob(ctx, technician, machine, work.JobInput{Template: "battery-new",
		FindingKeys: []string{wanting.Key}, AssemblyID: wanting.AssemblyID, Place: "BT1",
		Needs: []string{"NiMH 3.6V"}}))
	require.Equal(t, job.WaitsForPart, todo.State)
	require.Equal(t, "Replace the battery", todo.Title)
	require.NotEmpty(t, todo.Cautions, "cells hurt")
	require.Empty(t, now().Wanting, "a job mends it")
	require.Equal(t, []string{"NiMH 3.6V"}, now().WaitsFor)
	require.Equal(t, gate.Hold, must(actions.Power.Power(ctx, viewer, machine)).State, "nothing is done yet")

	part := must(actions.Work.WorkOnJob(ctx, technician, todo.ID, todo.Version,
		work.WorkInput{State: job.InHand, Minutes: 20, Left: "the traces beside it"}))
	require.Equal(t, "the traces beside it", part.Left)
	done := must(actions.Work.FinishJob(ctx, technician, part.ID, part.Version,
		work.FinishInput{New: "battery NiMH 3.6V", OldPart: "kept", Minutes: 25}))
	require.Equal(t, []any{job.Done, true, 45, job.Fully}, []any{done.State, done.Unproven, done.Minutes,
		done.Ending.Reversible})
	require.Contains(t, must(actions.Sheets.Contents(ctx, viewer, machine))[0].Body,
		"BT1        battery NiMH 3.6V new:"+technician.Today())
	require.Empty(t, now().Wanting)
	require.Equal(t, "needs attention", string(now().Stage.State), "the test is missing")
	cells := must(actions.Power.Power(ctx, viewer, machine))
	require.Equal(t, "hold supplies; staged ladder", missing(cells))
	require.Equal(t, "replaced", cells.Parts[0].State)
	require.Equal(t, must(actions.Sheets.Contents(ctx, viewer, machine))[0].ID, board)

	// Taken up again, it ends proven; what nobody does is declined with a reason.
	again := must(actions.Work.WorkOnJob(ctx, technician, done.ID, done.Version, work.WorkInput{State: job.InHand}))
	proven := must(actions.Work.FinishJob(ctx, technician, again.ID, again.Version,
		work.FinishInput{Proven: true, ProvenBy: "3.9 V in place"}))
	require.False(t, proven.Unproven)
	require.Equal(t, "settled", string(now().Stage.State))
	require.Empty(t, must(actions.Work.OpenJobs(ctx, viewer)))

	// A cell that is out is out at the gate, too; and what is decided not to be done is not asked for again.
	out := must(actions.Work.AddJob(ctx, technician, machine, work.JobInput{Template: "battery-out", AssemblyID: &board,
		Place: "BT1"}))
	must(actions.Work.FinishJob(ctx, technician, out.ID, out.Version, work.FinishInput{TakenOut: true}))
	require.Equal(t, "out", must(actions.Power.Power(ctx, viewer, machine)).Parts[0].State)
}

// The third time that the same is mended on one board, the question is put with what it took.
func TestMendedAgainAndAgain(t *testing.T) {
	_, actions := newApp(t)
	machine, board, card := poweredUp(t, actions)
	for i, on := range []int64{board, card, board, board} {
		j := must(actions.Work.AddJob(ctx, technician, machine, work.JobInput{Template: "contacts", AssemblyID: &on}))
		require.Empty(t, must(actions.Work.Treatment(ctx, viewer, machine)).Again, i)
		must(actions.Work.FinishJob(ctx, technician, j.ID, j.Version, work.FinishInput{Minutes: 10 * (i + 1)}))
	}
	again := must(actions.Work.Treatment(ctx, viewer, machine)).Again
	require.Len(t, again, 1)
	require.Equal(t, []any{board, 3, 80, 25}, []any{again[0].AssemblyID, again[0].Times, again[0].Minutes,
		again[0].Next})
}

func TestJobsThatAreRefused(t *testing.T) {
	_, actions := newApp(t)
	machine, board, card := poweredUp(t, actions)
	other := must(actions.Work.AddJob(ctx, technician, machine, work.JobInput{Title: "clean", AssemblyID: &card,
		Place: "U9"}))
	both := must(actions.Sheets.SaveSheet(ctx, technician, board, 1, "BT1,BT2 battery NiCd 3.6V"))
	require.Equal(t, 2, both.N)
	pair := must(actions.Work.AddJob(ctx, technician, machine, work.JobInput{Title: "cells", AssemblyID: &board,
		Place: "BT1"}))
	whole := must(actions.Work.AddJob(ctx, technician, machine, work.JobInput{Title: "dust"}))
	finish := func(j work.Job, in work.FinishInput) error {
		return second(actions.Work.FinishJob(ctx, technician, j.ID, j.Version, in))
	}
	elsewhere := must(actions.Inventory.CreateMachine(ctx, curator, machineOf("EH-2", "", ""))).ID
	var invalid *action.Invalid
	for field, refused := range map[string][]error{
		"title":      {second(actions.Work.AddJob(ctx, technician, machine, work.JobInput{}))},
		"template":   {second(actions.Work.AddJob(ctx, technician, machine, work.JobInput{Template: "magic"}))},
		"temporary":  {second(actions.Work.AddJob(ctx, technician, machine, work.JobInput{Title: "x", Temporary: "soon"}))},
		"assemblyId": {second(actions.Work.AddJob(ctx, technician, elsewhere, work.JobInput{Title: "x", AssemblyID: &board}))},
		"new": {finish(other, work.FinishInput{New: "74LS00"}), finish(pair, work.FinishInput{New: "NiMH 3.6V"}),
			finish(whole, work.FinishInput{New: "NiMH 3.6V"})},
		"on": {finish(whole, work.FinishInput{On: "2999-01-01"})},
		"why": {second(actions.Work.WorkOnJob(ctx, technician, whole.ID, whole.Version,
			work.WorkInput{State: job.Declined}))},
	} {
		for _, err := range refused {
			require.ErrorAs(t, err, &invalid, field)
			require.Equal(t, field, invalid.Field)
		}
	}
	require.ErrorIs(t, second(actions.Work.AddJob(ctx, viewer, machine, work.JobInput{Title: "x"})),
		action.ErrForbidden)
	require.NoError(t, finish(whole, work.FinishInput{}))
	whole = must(actions.Work.Treatment(ctx, viewer, machine)).Jobs[2]
	require.ErrorAs(t, finish(whole, work.FinishInput{}), &invalid, "it is ended already")
}
