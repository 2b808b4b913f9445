package app_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/files"
	"frugalheron/app/inventory"
	"frugalheron/app/parts"
	"frugalheron/app/work"
	"frugalheron/core/gather"
	"frugalheron/core/job"
	"frugalheron/core/stock"
	"frugalheron/store/blobs"
)

// From the need to the order, its arrival, the job and the drawer of the old part: each room says the same.
func TestAPartFromOrderToMachine(t *testing.T) {
	_, actions := newApp(t)
	machine, board, _ := poweredUp(t, actions)
	wanting := must(actions.Work.Treatment(ctx, technician, machine)).Wanting[0]
	todo := must(actions.Work.AddJob(ctx, technician, machine, work.JobInput{Template: "battery-new",
		AssemblyID: &board,
		Place:      "BT1", FindingKeys: []string{wanting.Key}, Needs: []string{"NiMH 3.6V 60mAh"}}))
	other := must(actions.Work.AddJob(ctx, technician, machine, work.JobInput{Title: "Other cell",
		Needs: []string{"NiMH 3.6V 60mAh"}}))
	needs := func() work.Needs { return must(actions.Work.Needs(ctx, technician)) }
	states := func() (found []stock.State) {
		for _, n := range needs().Needs {
			found = append(found, n.State)
		}
		return found
	}
	require.Equal(t, []stock.State{stock.Short, stock.Short}, states())
	require.Equal(t, 2, needs().ToOrder[0].Count)
	require.Len(t, needs().ToOrder[0].Jobs, 2)

	order := must(actions.Parts.AddOrder(ctx, technician, parts.OrderInput{Supplier: "Reed & Rush", DueOn: "2999-01-01",
		Lines: []parts.OrderLineInput{{What: "NiMH 3.6V 60mAh", Count: 2}, {What: "fuse 2A", Count: 5}}}))
	require.Equal(t, []stock.State{stock.Ordered, stock.Ordered}, states())
	require.Len(t, needs().Unblocks[0].Jobs, 2)
	aside := func(jobID int64, in parts.SetAsideInput) error {
		in.Need = "NiMH 3.6V 60mAh"
		return second(actions.Work.SetAside(ctx, technician, jobID, in))
	}
	require.NoError(t, aside(todo.ID, parts.SetAsideInput{OrderID: &order.ID, Line: 1, Count: 1}))
	var invalid *action.Invalid
	for name, refused := range map[string]error{
		"the job has what it needs": aside(todo.ID, parts.SetAsideInput{OrderID: &order.ID, Line: 1, Count: 1}),
		"more than is to come":      aside(other.ID, parts.SetAsideInput{OrderID: &order.ID, Line: 1, Count: 2}),
		"no such line":              aside(other.ID, parts.SetAsideInput{OrderID: &order.ID, Line: 9, Count: 1}),
		"neither drawer nor order":  aside(other.ID, parts.SetAsideInput{Count: 1}),
		"no need of the job": second(actions.Work.SetAside(ctx, technician, todo.ID,
			parts.SetAsideInput{Need: "a lamp", OrderID: &order.ID, Line: 1, Count: 1})),
		"its part is on order": second(actions.Work.FinishJob(ctx, technician, todo.ID, todo.Version, work.FinishInput{})),
		"a line that is promised goes": second(actions.Parts.ChangeOrder(ctx, technician, order.ID, order.Version,
			parts.OrderInput{Supplier: "Reed & Rush", Lines: []parts.OrderLineInput{{What: "fuse 2A", Count: 5}}})),
		"an order that is promised goes": second(actions.Parts.VoidOrder(ctx, technician, order.ID, order.Version)),
		"more than was ordered": second(actions.Parts.BookArrival(ctx, technician, order.ID, order.Version,
			parts.ArrivalInput{Line: 1, Count: 3})),
		"nothing came": second(actions.Parts.BookArrival(ctx, technician, order.ID, order.Version, parts.ArrivalInput{Line: 1})),
		"came before it was ordered": second(actions.Parts.BookArrival(ctx, technician, order.ID, order.Version,
			parts.ArrivalInput{Line: 1, Count: 1, On: "2001-01-01"})),
	} {
		require.ErrorAs(t, refused, &invalid, name)
	}

	// One came dead: it is still to come. The good one goes to the job that it was set aside for, which waits for hands.
	booked := must(actions.Parts.BookArrival(ctx, technician, order.ID, order.Version,
		parts.ArrivalInput{Line: 1, Count: 1, Dead: 1, Place: "Loft, box 2"}))
	require.Equal(t, []int{1, 1, 1}, []int{booked.Lines[0].Arrived, booked.Lines[0].Dead, booked.Lines[0].ToCome})
	require.Empty(t, booked.SetAside)
	now := must(actions.Work.OpenJobs(ctx, viewer))
	require.Equal(t, []job.State{job.WaitsForHands, job.WaitsForPart}, []job.State{now[0].State, now[1].State})
	require.Equal(t, []stock.State{stock.Ordered, stock.Reserved}, states())
	drawer := must(actions.Parts.ListStock(ctx, technician, "nimh box", 0, 9)).Parts[0]
	require.Equal(t, []any{1, 0, "Reed & Rush"}, []any{drawer.Count, drawer.Free, drawer.Source})
	require.Equal(t, todo.ID, drawer.SetAside[0].JobID)
	require.ErrorAs(t, aside(other.ID, parts.SetAsideInput{StockID: &drawer.ID, Count: 1}), &invalid, "twice")
	require.ErrorAs(t, second(actions.Parts.VoidStock(ctx, technician, drawer.ID, drawer.Version)), &invalid)
	for _, wrong := range []parts.StockInput{{What: "NiMH", Count: 0}, {What: "NiMH", Count: 1, Condition: "faulty"},
		{Count: 1}} {
		require.ErrorAs(t, second(actions.Parts.ChangeStock(ctx, technician, drawer.ID, drawer.Version, wrong)),
			&invalid)
	}

	// Given away, the job waits for its part again; set aside anew and done, the drawer is empty and the old part kept.
	require.NoError(t, actions.Parts.ReleaseOne(ctx, technician, drawer.SetAside[0].ID))
	require.ErrorIs(t, actions.Parts.ReleaseOne(ctx, technician, drawer.SetAside[0].ID), action.ErrNotFound)
	require.Equal(t, job.WaitsForPart, must(actions.Work.OpenJobs(ctx, viewer))[0].State)
	require.NoError(t, aside(todo.ID, parts.SetAsideInput{StockID: &drawer.ID, Count: 1}))
	ready := must(actions.Work.OpenJobs(ctx, viewer))[0]
	must(actions.Work.FinishJob(ctx, technician, todo.ID, ready.Version, work.FinishInput{New: "NiMH 3.6V",
		OldPart: "kept",
		KeptAt:  "Loft, box 9"}))
	require.Zero(t, must(actions.Parts.ListStock(ctx, technician, "reed", 0, 9)).Parts[0].Count)
	kept := must(actions.Parts.ListStock(ctx, technician, "nicd "+ready.Accession+" bt1", 0, 9)).Parts[0]
	require.Equal(t, []any{1, "faulty", "Loft, box 9", "BT1", ready.Accession}, []any{kept.Count, kept.Condition, kept.Place,
		kept.From.Place, kept.From.Accession})
	require.Equal(t, []stock.State{stock.Ordered}, states(), "a faulty one is not proposed")

	// The machine knows what came out of it, and what is made for its model.
	must(actions.Parts.AddStock(ctx, technician, parts.StockInput{What: "slot rail", Count: 2, Kind: "made",
		Model: "meridian"}))
	must(actions.Parts.AddStock(ctx, technician, parts.StockInput{What: "other rail", Count: 2, Kind: "made",
		Model: "Lantern"}))
	found := must(actions.Parts.ForMachine(ctx, technician, machine))
	require.Equal(t, []string{kept.What, "slot rail"}, []string{found[0].What, found[1].What})
	require.Len(t, found, 2)
	require.ErrorIs(t, second(actions.Parts.ForMachine(ctx, viewer, machine)), action.ErrForbidden)

	// What a job no longer needs is free for others: changed, declined, or deleted.
	last := must(actions.Parts.AddStock(ctx, technician, parts.StockInput{What: "NiMH 3.6V 80mAh", Count: 1}))
	for name, let := range map[string]func(j work.Job) error{
		"changed": func(j work.Job) error {
			return second(actions.Work.ChangeJob(ctx, technician, j.ID, j.Version, work.JobInput{Title: "Other cell"}))
		},
		"declined": func(j work.Job) error {
			return second(actions.Work.WorkOnJob(ctx, technician, j.ID, j.Version,
				work.WorkInput{State: job.Declined, Why: "it runs without"}))
		},
		"deleted": func(j work.Job) error { return second(actions.Work.VoidJob(ctx, technician, j.ID, j.Version)) },
	} {
		j := must(actions.Work.AddJob(ctx, technician, machine, work.JobInput{Title: "x",
			Needs: []string{"NiMH 3.6V 60mAh"}}))
		require.NoError(t, aside(j.ID, parts.SetAsideInput{StockID: &last.ID, Count: 1}), name)
		j.Version++ // it waits for hands now
		require.NoError(t, let(j), name)
		require.Equal(t, 1, must(actions.Parts.ListStock(ctx, technician, "80mah", 0, 9)).Parts[0].Free, name)
	}
	require.ErrorIs(t, second(actions.Work.Needs(ctx, viewer)), action.ErrForbidden)
	require.ErrorIs(t, second(actions.Parts.ListStock(ctx, viewer, "", 0, 9)), action.ErrForbidden)
}

// Where a part sits: what lies in no machine first. Words that the library does not know have no donors.
func TestDonors(t *testing.T) {
	_, actions := newApp(t)
	machine, board, _ := poweredUp(t, actions)
	must(actions.Sheets.SaveSheet(ctx, technician, board, 1, "U1 27128-25 8533"))
	spare := must(actions.Inventory.AddLooseAssembly(ctx, technician, "Loft", inventory.AssemblyInput{Title: "Spare",
		Kind: "card"}))
	must(actions.Sheets.SaveSheet(ctx, technician, spare.ID, 0, "U9 27128-20\nU10 @empty"))
	found := must(actions.Work.Donors(ctx, technician, "2 x 27128"))
	require.Len(t, found, 2)
	require.Equal(t, spare.ID, found[0].AssemblyID)
	require.Equal(t, machine, *found[1].MachineID)
	require.Empty(t, must(actions.Work.Donors(ctx, technician, "foam of 3 mm")))
	require.ErrorIs(t, second(actions.Work.Donors(ctx, viewer, "foam")), action.ErrForbidden)
}

// What has a day is told by day, a month ahead; a temporary repair that stands longer asks for attention at its machine.
func TestWhatHasADay(t *testing.T) {
	_, actions := newApp(t)
	machine, _, _ := poweredUp(t, actions)
	day := func(ahead int) string { return time.Now().UTC().AddDate(0, 0, ahead).Format(time.DateOnly) }
	job := must(actions.Work.AddJob(ctx, technician, machine, work.JobInput{Title: "Wire across the trace",
		Temporary: day(-9)}))
	must(actions.Work.AddJob(ctx, technician, machine, work.JobInput{Title: "Far ahead", Temporary: day(400)}))
	must(actions.Parts.AddStock(ctx, technician, parts.StockInput{What: "tester", Count: 1, BackBy: day(2),
		BackTo: "Gull Point"}))
	must(actions.Parts.AddStock(ctx, technician, parts.StockInput{What: "gone", Count: 0, BackBy: day(2)}))
	must(actions.Parts.AddOrder(ctx, technician, parts.OrderInput{Supplier: "Reed", OrderedOn: day(-20), DueOn: day(-1),
		Lines: []parts.OrderLineInput{{What: "fuse", Count: 1}}}))
	told := func(who action.Actor) (found []string) {
		for _, one := range must(actions.Work.Deadlines(ctx, who)) {
			found = append(found, fmt.Sprintf("%s %d %s", one.Kind, one.OverdueDays, one.What))
		}
		return found
	}
	require.Equal(t, []string{"lasting repair 9 Wire across the trace", "order 1 Reed",
		"goes back -2 tester, to Gull Point"},
		told(technician))
	require.Equal(t, []string{"lasting repair 9 Wire across the trace"}, told(viewer), "the stores are for staff")
	verdicts := must(actions.Work.Verdicts(ctx, technician, machine))
	require.Contains(t, verdicts[0].Value, "1 temporary and overdue")
	must(actions.Work.WorkOnJob(ctx, technician, job.ID, job.Version, work.WorkInput{State: "declined", Why: "undone"}))
	require.Empty(t, told(viewer))
}

// What is lent out of a machine goes back to it, whatever its number is by then; a made part has its drawing, for staff.
func TestALentPartAndADrawing(t *testing.T) {
	_, actions := newApp(t)
	actions.WithBlobs(must(blobs.Open(ctx, t.TempDir())))
	machine, _, _ := poweredUp(t, actions)
	rail := must(actions.Parts.AddStock(ctx, technician, parts.StockInput{What: "slot rail", Kind: "made", Count: 4,
		BackTo: "eh-1", BackBy: "2999-01-01"}))
	require.Equal(t, []any{machine, "EH-1"}, []any{*rail.LentBy, rail.BackTo})
	drawing := files.Owner{StockID: &rail.ID}
	must(actions.Files.Attach(ctx, technician, drawing, "rail.png", smallPNG(t)))
	require.ErrorIs(t, second(actions.Files.Attachments(ctx, viewer, drawing, 0, 9)), action.ErrForbidden)

	before := must(actions.Inventory.Machine(ctx, curator, machine))
	before.Accession = "EH-2"
	must(actions.Inventory.ChangeMachine(ctx, curator, machine, before.Version, before.MachineInput))
	lent := must(actions.Parts.ForMachine(ctx, technician, machine))
	require.Equal(t, []any{"EH-2", 1}, []any{lent[0].BackTo, lent[0].Files})
	require.Len(t, must(actions.Parts.ListStock(ctx, technician, "eh-2", 0, 9)).Parts, 1)
	lent[0].BackTo = "the sailing club"
	elsewhere := must(actions.Parts.ChangeStock(ctx, technician, rail.ID, lent[0].Version, lent[0].StockInput))
	require.Nil(t, elsewhere.LentBy)
	must(actions.Parts.VoidStock(ctx, technician, rail.ID, elsewhere.Version))
	require.Error(t, second(actions.Files.Attach(ctx, technician, drawing, "more.png", shadedPNG(t, 9))))
}

// Bad chips on two boards: one swap leaves one board that wants a replacement. A bad one that nobody could read stays.
func TestBadChipsThatCouldBeGathered(t *testing.T) {
	_, actions := newApp(t)
	machine := must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: "EH-1",
		Name: "Meridian"})).ID
	boards := must(actions.Sheets.TakeOverSheet(ctx, curator, machine, `== Memory 1
U1-U8 4164-15 @socket
== Memory 2
U1-U8 4164-15 @socket
U9 HX99
== Disk
C1 470u/16V`))
	bad := func(board int64, place string) {
		must(actions.Condition.NoteFinding(ctx, technician, machine, condition.NotedFinding{Subsystem: "boards",
			ObservedFinding: condition.ObservedFinding{Severity: "repair",
				New: &condition.FindingInput{AssemblyID: &board, Designator: place, Kind: "dead"}}}))
	}
	gathered := func() *work.Gathering { return must(actions.Work.Treatment(ctx, viewer, machine)).Gather }
	bad(boards[0].ID, "U3")
	bad(boards[2].ID, "C1")
	require.Nil(t, gathered(), "one bad chip is on one board already")
	bad(boards[1].ID, "U5")
	require.Equal(t, []gather.Swap{{Type: "4164", Bad: gather.Seat{Board: boards[1].ID, Place: "U5"},
		Good: gather.Seat{Board: boards[0].ID, Place: "U1"}}}, gathered().Swaps)
	require.Equal(t, "Memory 2", gathered().Boards[fmt.Sprint(boards[1].ID)])
	bad(boards[1].ID, "U9")
	require.Equal(t, boards[1].ID, gathered().Onto, "what cannot be swapped decides where they go")
	bad(boards[0].ID, "U77")
	require.Nil(t, gathered(), "nobody knows what U77 is")
}
