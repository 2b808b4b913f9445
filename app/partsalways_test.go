package app_test

import (
	"fmt"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/parts"
	"frugalheron/app/work"
	"frugalheron/core/job"
)

// storekeeper is somebody who counts along with all that is done in the stores.
type storekeeper struct {
	t       *rapid.T
	actions *app.App
	machine int64
	pieces  int // that lie there by what was put in, came and was used
	sent    int // that are to come
}

// Whatever is done in whatever order, no piece is lost, made, or promised twice, and a job waits for hands exactly while all
// that it needs lies ready.
func TestTheStoresAlwaysAddUp(t *testing.T) {
	fewChecks(t, 6)
	_, actions := newApp(t)
	n := 0
	rapid.Check(t, func(rt *rapid.T) {
		n++
		k := &storekeeper{t: rt, actions: actions,
			machine: must(actions.Inventory.CreateMachine(ctx, curator, machineOf(fmt.Sprintf("EH-%04d", n), "",
				""))).ID}
		k.emptied()
		for range rapid.IntRange(1, 14).Draw(rt, "events") {
			k.event()
			k.compare()
		}
	})
}

func (k *storekeeper) stock() []parts.Stock {
	return must(k.actions.Parts.ListStock(ctx, curator, "", 0, 500)).Parts
}

func (k *storekeeper) orders() []parts.Order { return must(k.actions.Parts.Orders(ctx, curator)) }

func (k *storekeeper) jobs() []work.Job {
	return must(k.actions.Work.Treatment(ctx, curator, k.machine)).Jobs
}

// emptied begins with what earlier runs left.
func (k *storekeeper) emptied() {
	for _, s := range k.stock() {
		k.pieces += s.Count
	}
	for _, o := range k.orders() {
		for _, l := range o.Lines {
			k.sent += l.ToCome
		}
	}
}

// event does one thing; what is refused changes nothing.
func (k *storekeeper) event() {
	what := rapid.SampledFrom([]string{"27128", "fuse 2A"}).Draw(k.t, "what")
	count := rapid.IntRange(1, 3).Draw(k.t, "count")
	var invalid *action.Invalid
	done := func(err error) bool {
		if err != nil {
			require.ErrorAs(k.t, err, &invalid)
		}
		return err == nil
	}
	switch rapid.IntRange(0, 8).Draw(k.t, "event") {
	case 0:
		must(k.actions.Parts.AddStock(ctx, curator, parts.StockInput{What: what, Count: count}))
		k.pieces += count
	case 1:
		must(k.actions.Parts.AddOrder(ctx, curator, parts.OrderInput{Supplier: "Reed",
			Lines: []parts.OrderLineInput{{What: what, Count: count}}}))
		k.sent += count
	case 2:
		must(k.actions.Work.AddJob(ctx, curator, k.machine, work.JobInput{Title: "Mend",
			Needs: []string{fmt.Sprintf("%d x %s", count, what)}}))
	case 3, 4:
		in := parts.SetAsideInput{Count: count}
		if orders := k.orders(); rapid.Bool().Draw(k.t, "of an order") && len(orders) > 0 {
			of := rapid.SampledFrom(orders).Draw(k.t, "order")
			in.OrderID, in.Line = &of.ID, 1
		} else if stock := k.stock(); len(stock) > 0 {
			of := rapid.SampledFrom(stock).Draw(k.t, "drawer")
			in.StockID = &of.ID
		}
		if j, ok := k.oneJob(); ok {
			in.Need = j.Needs[0]
			done(second(k.actions.Work.SetAside(ctx, curator, j.ID, in)))
		}
	case 5:
		for _, s := range k.stock() {
			if len(s.SetAside) > 0 && rapid.Bool().Draw(k.t, "released") {
				require.NoError(k.t, k.actions.Parts.ReleaseOne(ctx, curator, s.SetAside[0].ID))
			}
		}
	case 6:
		if orders := k.orders(); len(orders) > 0 {
			o := rapid.SampledFrom(orders).Draw(k.t, "order")
			dead := rapid.IntRange(0, 1).Draw(k.t, "dead")
			if done(second(k.actions.Parts.BookArrival(ctx, curator, o.ID, o.Version,
				parts.ArrivalInput{Line: 1, Count: count, Dead: dead}))) {
				k.pieces, k.sent = k.pieces+count, k.sent-count
			}
		}
	case 7:
		if j, ok := k.oneJob(); ok {
			used := 0
			for _, s := range k.stock() {
				for _, a := range s.SetAside {
					if a.JobID == j.ID {
						used += a.Count
					}
				}
			}
			if done(second(k.actions.Work.FinishJob(ctx, curator, j.ID, j.Version, work.FinishInput{}))) {
				k.pieces -= used
			}
		}
	case 8:
		if j, ok := k.oneJob(); ok {
			must(k.actions.Work.WorkOnJob(ctx, curator, j.ID, j.Version,
				work.WorkInput{State: job.Declined, Why: "not now"}))
		}
	}
}

func (k *storekeeper) oneJob() (work.Job, bool) {
	open := []work.Job{}
	for _, j := range k.jobs() {
		if j.State.IsOpen() {
			open = append(open, j)
		}
	}
	if len(open) == 0 {
		return work.Job{}, false
	}
	return rapid.SampledFrom(open).Draw(k.t, "job"), true
}

func (k *storekeeper) compare() {
	pieces, sent, ready := 0, 0, map[int64]int{}
	for _, s := range k.stock() {
		aside := 0
		for _, a := range s.SetAside {
			aside += a.Count
			ready[a.JobID] += a.Count
		}
		require.Equal(k.t, s.Count, s.Free+aside)
		require.GreaterOrEqual(k.t, s.Free, 0)
		pieces += s.Count
	}
	for _, o := range k.orders() {
		require.GreaterOrEqual(k.t, o.Lines[0].ToCome, o.Lines[0].Promised)
		require.Equal(k.t, o.IsOpen, o.Lines[0].ToCome > 0)
		sent += o.Lines[0].ToCome
	}
	require.Equal(k.t, []int{k.pieces, k.sent}, []int{pieces, sent})
	asked := map[int64]int{}
	for _, n := range must(k.actions.Work.Needs(ctx, curator)).Needs {
		met := n.Missing
		for _, a := range n.SetAside {
			if a.OrderID == nil {
				met += a.Count
			}
		}
		for _, o := range n.Offers {
			met += o.Count
		}
		for _, c := range n.Coming {
			met += c.Count
		}
		require.Equal(k.t, n.Count, met, n.Need)
		asked[n.JobID] = n.Count
	}
	for _, j := range k.jobs() {
		if j.State.IsOpen() {
			require.Equal(k.t, ready[j.ID] >= asked[j.ID], j.State == job.WaitsForHands, j.Needs)
		} else {
			require.Zero(k.t, ready[j.ID], "an ended job keeps nothing")
		}
	}
}

// Four people want the one part at once: one gets it, the others are told so. What is booked, used and given away at the
// same time neither hangs nor is lost.
func TestTheLastPartForOneOfFour(t *testing.T) {
	_, actions := newApp(t)
	machine, _, _ := poweredUp(t, actions)
	drawer := must(actions.Parts.AddStock(ctx, technician, parts.StockInput{What: "27128", Count: 1}))
	order := must(actions.Parts.AddOrder(ctx, technician, parts.OrderInput{Supplier: "Reed",
		Lines: []parts.OrderLineInput{{What: "27128", Count: 3}}}))
	jobs := []work.Job{}
	for i := range 4 {
		jobs = append(jobs, must(actions.Work.AddJob(ctx, technician, machine,
			work.JobInput{Title: fmt.Sprint("Copy ", i),
				Needs: []string{"27128"}})))
	}
	got := together(4, func(i int) error {
		return second(actions.Work.SetAside(ctx, technician, jobs[i].ID,
			parts.SetAsideInput{Need: "27128", StockID: &drawer.ID, Count: 1}))
	})
	winner, refused := -1, 0
	for i, err := range got {
		var invalid *action.Invalid
		if err == nil {
			winner = i
			continue
		}
		require.ErrorAs(t, err, &invalid)
		require.Contains(t, invalid.Why, "set aside already")
		refused++
	}
	require.Equal(t, 3, refused)
	for i := range jobs {
		if i != winner {
			must(actions.Work.SetAside(ctx, technician, jobs[i].ID,
				parts.SetAsideInput{Need: "27128", OrderID: &order.ID, Line: 1, Count: 1}))
		}
	}
	open := must(actions.Work.OpenJobs(ctx, technician))
	for _, err := range together(3, func(i int) error {
		switch i {
		case 0:
			return second(actions.Parts.BookArrival(ctx, technician, order.ID, order.Version,
				parts.ArrivalInput{Line: 1, Count: 3}))
		case 1:
			return second(actions.Work.FinishJob(ctx, technician, jobs[winner].ID, open[winner].Version,
				work.FinishInput{}))
		}
		return second(actions.Work.Needs(ctx, technician))
	}) {
		require.NoError(t, err)
	}
	left := must(actions.Parts.ListStock(ctx, technician, "", 0, 9)).Parts
	require.Equal(t, []int{0, 3, 0}, []int{left[0].Count, left[1].Count, left[1].Free})
	for _, j := range must(actions.Work.OpenJobs(ctx, technician)) {
		require.Equal(t, job.WaitsForHands, j.State)
	}
}

// together does something several times at once.
func together(times int, what func(i int) error) []error {
	var wait sync.WaitGroup
	errs := make([]error, times)
	for i := range times {
		wait.Go(func() { errs[i] = what(i) })
	}
	wait.Wait()
	return errs
}

// An order is rewritten under what came of it; its places follow when a place is renamed.
func TestOrdersAreRewrittenUnderWhatCame(t *testing.T) {
	_, actions := newApp(t)
	order := must(actions.Parts.AddOrder(ctx, technician, parts.OrderInput{Supplier: "Reed", OrderedOn: "2026-01-02",
		DueOn: "2026-01-09", Lines: []parts.OrderLineInput{{What: "fuse 2A", Count: 5}, {What: "fuse 4A", Count: 5},
			{What: "lamp", Count: 1}}}))
	require.Equal(t, []int{1, 2, 3}, []int{order.Lines[0].N, order.Lines[1].N, order.Lines[2].N})
	require.Positive(t, must(actions.Parts.Orders(ctx, technician))[0].LateDays)
	order = must(actions.Parts.BookArrival(ctx, technician, order.ID, order.Version, parts.ArrivalInput{Line: 2,
		Count: 3,
		On:    "2026-01-05", Place: "Loft, box 1"}))
	change := func(lines ...parts.OrderLineInput) error {
		now, err := actions.Parts.ChangeOrder(ctx, technician, order.ID, order.Version,
			parts.OrderInput{Supplier: "Reed",
				OrderedOn: "2026-01-02", Lines: lines})
		if err == nil {
			order = now
		}
		return err
	}
	var invalid *action.Invalid
	for name, lines := range map[string][]parts.OrderLineInput{
		"a line goes of which some came": {{N: 1, What: "fuse 2A", Count: 5}},
		"fewer than came":                {{N: 2, What: "fuse 4A", Count: 2}},
		"a line without words":           {{N: 2, What: "fuse 4A", Count: 5}, {What: " ", Count: 1}},
	} {
		require.ErrorAs(t, change(lines...), &invalid, name)
		require.Equal(t, "lines", invalid.Field, name)
	}
	// What is not to come any more is counted down; a new line never takes the number of one that was there.
	require.NoError(t, change(parts.OrderLineInput{N: 2, What: "fuse 4A slow", Count: 3},
		parts.OrderLineInput{What: "belt", Count: 1}, parts.OrderLineInput{N: 99, What: "knob", Count: 1}))
	require.Equal(t, []int{2, 4, 5}, []int{order.Lines[0].N, order.Lines[1].N, order.Lines[2].N})
	require.Equal(t, []int{3, 0}, []int{order.Lines[0].Arrived, order.Lines[0].ToCome})
	require.True(t, order.IsOpen)
	for _, line := range []int{4, 5} {
		order = must(actions.Parts.BookArrival(ctx, technician, order.ID, order.Version,
			parts.ArrivalInput{Line: line, Count: 1}))
	}
	require.False(t, order.IsOpen)
	require.Zero(t, must(actions.Parts.Orders(ctx, technician))[0].LateDays, "all is here")

	must(actions.Inventory.RenamePlace(ctx, curator, "Loft, box 1", "Store, box 7"))
	require.Len(t, must(actions.Parts.ListStock(ctx, technician, "store 7", 0, 9)).Parts, 1)
	places := must(actions.Inventory.CountPlaces(ctx, technician))
	require.Equal(t, []any{"Store, box 7", 1}, []any{places[0].Name, places[0].Parts})

	// Struck out it is gone, and comes back whole.
	event := must(actions.Parts.VoidOrder(ctx, technician, order.ID, order.Version))
	require.Empty(t, must(actions.Parts.Orders(ctx, technician)))
	require.NoError(t, actions.History.Undo(ctx, technician, event))
	require.Equal(t, order.Lines, must(actions.Parts.Orders(ctx, technician))[0].Lines)
	require.ErrorIs(t, second(actions.Parts.AddOrder(ctx, viewer, parts.OrderInput{Supplier: "x"})),
		action.ErrForbidden)
}
