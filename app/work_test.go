package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	appcondition "frugalheron/app/condition"
	"frugalheron/app/inventory"
	"frugalheron/app/power"
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

// The test of a job can be made later and again: after months without power it is due, and one that did not pass leaves the
// job unproven.
func TestTheTestOfAJobIsDueAgain(t *testing.T) {
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{}, "== Main board\nU1 7400")
	todo := must(actions.Work.AddJob(ctx, technician, machine.ID, work.JobInput{Title: "New belts", Proof: "it turns"}))
	var invalid *action.Invalid
	prove := func(version int, in work.ProofInput) (work.Job, error) {
		return actions.Work.ProveJob(ctx, technician, todo.ID, version, in)
	}
	require.ErrorAs(t, second(prove(todo.Version, work.ProofInput{Passed: true})), &invalid, "it is not done")
	done := must(actions.Work.FinishJob(ctx, technician, todo.ID, todo.Version, work.FinishInput{On: "2024-03-01",
		Proven:   true,
		ProvenBy: "it turned"}))
	require.False(t, done.Unproven)
	require.Equal(t, "2025-03-01", done.ProofDue)
	due := must(actions.Work.Deadlines(ctx, viewer))
	require.Equal(t, work.TestAgain, due[0].Kind)
	require.Positive(t, due[0].OverdueDays)
	require.Contains(t, must(actions.Upkeep.Diary(ctx, viewer, "", 1))[0].Lines[0].What, "Test again: it turns")
	require.ErrorAs(t, second(prove(done.Version, work.ProofInput{})), &invalid, "it did not pass, and nobody says how")
	require.ErrorAs(t, second(prove(done.Version, work.ProofInput{Passed: true, On: "2024-02-01"})), &invalid,
		"before it was done")
	failed := must(prove(done.Version, work.ProofInput{Said: "it slips"}))
	require.True(t, failed.Unproven)
	require.Empty(t, failed.ProofDue)
	require.Empty(t, must(actions.Work.Deadlines(ctx, viewer)))
	passed := must(prove(failed.Version, work.ProofInput{Passed: true, Said: "it turns again"}))
	require.Equal(t, []int{3}, []int{len(passed.Ending.Proofs)})
	require.Equal(t, curator.Day().AddMonths(job.ProofMonths).String(), passed.ProofDue)

	// What was proven, and then ran, is not asked for as long as it ran.
	long := must(actions.Work.AddJob(ctx, technician, machine.ID, work.JobInput{Title: "New fan", Proof: "it blows"}))
	must(actions.Work.FinishJob(ctx, technician, long.ID, long.Version, work.FinishInput{On: "2024-03-01",
		Proven: true}))
	require.Len(t, must(actions.Work.Deadlines(ctx, viewer)), 1)
	ladder := must(actions.Power.BuildLadder(ctx, technician, machine.ID)).Rungs
	must(actions.Power.PowerUp(ctx, technician, machine.ID, power.UpInput{RungIDs: []int64{ladder[0].ID},
		Result:    "as-expected",
		DecidedBy: "Ottilie", Why: "asked"}))
	require.Empty(t, must(actions.Work.Deadlines(ctx, viewer)))
}

// A job tells what was measured where it is done, before and after it, and keeps pictures of both; those of another machine
// are refused.
func TestAJobShowsBeforeAndAfter(t *testing.T) {
	_, actions := newApp(t)
	machine, board, _ := poweredUp(t, actions)
	measure := func(line, on string, of *int64) {
		must(actions.Condition.Measure(ctx, technician, machine, appcondition.MeasurementInput{Line: line, On: on,
			AssemblyID: of}))
	}
	measure("BT1 2.1 V", "2026-03-02", &board)
	measure("BT2 3.1 V", "2026-03-02", &board)
	measure("BT1 2.0 V", "2026-03-09", nil)
	todo := must(actions.Work.AddJob(ctx, technician, machine, work.JobInput{Title: "new cell", AssemblyID: &board,
		Place: "BT1"}))
	points := func() (told [][]any) {
		for _, j := range must(actions.Work.Treatment(ctx, viewer, machine)).Jobs {
			for _, m := range j.Measured {
				told = append(told, []any{m.Point, m.On, m.After})
			}
		}
		return told
	}
	require.Equal(t, [][]any{{"BT1", "2026-03-02", false}, {"BT1", "2026-03-09", false}}, points())
	done := must(actions.Work.FinishJob(ctx, technician, todo.ID, todo.Version, work.FinishInput{}))
	measure("BT1 3.9 V", technician.Today(), &board)
	require.Equal(t, []any{"BT1", technician.Today(), true}, points()[2])

	other := must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: "EH-77",
		Name: "Other"}))
	in := done.JobInput
	in.PicturesAfter = []int64{999}
	_, err := actions.Work.ChangeJob(ctx, technician, done.ID, done.Version, in)
	require.ErrorContains(t, err, "picturesAfter")
	_, err = actions.Work.AddJob(ctx, technician, other.ID, work.JobInput{Title: "a", PicturesBefore: []int64{999}})
	require.ErrorContains(t, err, "picturesBefore")
}
