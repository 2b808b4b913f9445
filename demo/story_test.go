package demo_test

import (
	"regexp"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/files"
	"frugalheron/app/inventory"
	"frugalheron/core/console"
	"frugalheron/core/custody"
	"frugalheron/core/facts"
	"frugalheron/core/gate"
	"frugalheron/core/job"
	"frugalheron/core/stock"
	"frugalheron/demo"
	"frugalheron/store/blobs"
	"frugalheron/store/storetest"
)

// Every machine of the sample world arrives properly, and the world has what the interface has to show:
// gaps, an impossible sale, a shared identifier, disputes, a lot of nine, personal data, pictures.
func TestSampleWorldTellsItsStories(t *testing.T) {
	kept, err := blobs.Open(ctx, t.TempDir())
	require.NoError(t, err)
	actions := app.New(storetest.New(t)).WithBlobs(kept)
	require.NoError(t, demo.Seed(ctx, actions, func(string) {}))
	staff := action.Actor{Role: action.Technician}
	page, err := actions.Inventory.ListMachines(ctx, staff, inventory.MachineList{Limit: 100})
	require.NoError(t, err)

	found := map[custody.ProblemKind]int{}
	rich, sharedIdentifiers, disputed, pictures, cited, personal, lookedOver := 0, 0, 0, 0, 0, 0, 0
	for _, m := range page.Machines {
		d, err := actions.Bench.Dossier(ctx, staff, m.ID)
		require.NoError(t, err)
		require.NotNil(t, d.Arrival.Lot, m.Accession)
		require.NotEmpty(t, d.Arrival.Lot.Arrived, m.Accession)
		require.NotEmpty(t, d.Arrival.Lot.Party, m.Accession)
		require.Empty(t, d.Arrival.Lot.SpreadProblem, m.Accession)
		require.NotEmpty(t, d.Chain.Links, m.Accession)
		require.Len(t, d.Locations, 1, m.Accession)
		for _, f := range d.Chain.Problems {
			found[f.Kind]++
		}
		if len(d.Chain.Links) >= 4 {
			rich++
		}
		sharedIdentifiers += len(d.SharedIdentifiers)
		personal += len(d.PersonalData)
		for _, k := range d.Known {
			if k.Fact.State == facts.Disputed {
				disputed++
			}
			require.NotEqual(t, "", k.Attribute.Label)
		}
		exterior, err := actions.Bench.ReckonAssembly(ctx, staff, d.ExteriorID, nil)
		require.NoError(t, err)
		for _, line := range exterior.Boards[0].Lines {
			require.NotContains(t, []string{"problem", "text"}, string(line.State), "%s line %d: %s", m.Accession,
				line.Line, line.Text)
		}
		if len(exterior.Boards[0].Lines) > 0 {
			lookedOver++
		}
		attached, err := actions.Files.Attachments(ctx, staff, files.Owner{MachineID: &m.ID}, 0, 50)
		require.NoError(t, err)
		require.NotEmpty(t, attached.Attachments, m.Accession)
		for _, one := range attached.Attachments {
			require.NotEmpty(t, one.Caption)
			view, err := actions.Files.View(ctx, staff, one.ID, files.ThumbSide)
			require.NoError(t, err)
			require.NotEmpty(t, view.Data)
			pictures++
			cited += one.Cited
		}
	}
	require.GreaterOrEqual(t, rich, 4)
	require.GreaterOrEqual(t, found[custody.Gap], 4)
	require.Equal(t, 1, found[custody.Impossible])
	require.Equal(t, 1, found[custody.Overlap])
	require.Equal(t, 2, sharedIdentifiers) // one identifier, seen from both
	require.Equal(t, 2, disputed)
	require.Equal(t, 2, personal)
	require.GreaterOrEqual(t, lookedOver, 7)
	require.GreaterOrEqual(t, pictures, page.Total+lookedOver)
	require.Equal(t, 1, cited)

	lots, err := actions.Arrivals.Lots(ctx, staff, "chattels", 0, 10)
	require.NoError(t, err)
	require.Len(t, lots.Lots, 1)
	lot, err := actions.Arrivals.Lot(ctx, staff, lots.Lots[0].ID)
	require.NoError(t, err)
	require.Len(t, lot.Things, 9)
	require.Equal(t, "419.50", lot.Cost)
	sum := int64(0)
	for _, thing := range lot.Things {
		sum += *thing.ShareCents
	}
	require.Equal(t, lot.CostCents, sum)
	require.Contains(t, lot.Worth.Verdict, "alone outweighs the whole lot")

	register, err := actions.Inventory.Register(ctx, staff)
	require.NoError(t, err)
	require.Equal(t, "EH-{number:4}", register.Pattern)
	require.NotEmpty(t, register.Gaps)

	// All that was done is told in words.
	raw := regexp.MustCompile(`^[a-z]+ [a-z]+( [a-z]+)*$|%!|<nil>|map\[`)
	for next := int64(0); ; {
		history, err := actions.History.History(ctx, staff, 0, next, 200)
		require.NoError(t, err)
		for _, e := range history.Events {
			require.NotRegexp(t, raw, e.What)
		}
		if next = history.Next; next == 0 {
			break
		}
	}

	// Told again, nothing is added.
	before, err := actions.History.History(ctx, staff, 0, 0, 1)
	require.NoError(t, err)
	require.NoError(t, demo.Seed(ctx, actions, func(string) {}))
	after, err := actions.History.History(ctx, staff, 0, 0, 1)
	require.NoError(t, err)
	require.Equal(t, before.Events[0].ID, after.Events[0].ID)
}

// The world has what opening up and judging have to show: three machines half open, one with a plug that is
// easily mistaken; six surveyed over five years, one that got worse, one with a finding that came back; a leaking
// battery, cracked safety capacitors, foam, a tube.
func TestSampleWorldIsHalfOpenAndSurveyed(t *testing.T) {
	kept, err := blobs.Open(ctx, t.TempDir())
	require.NoError(t, err)
	actions := app.New(storetest.New(t)).WithBlobs(kept)
	require.NoError(t, demo.Seed(ctx, actions, func(string) {}))
	page, err := actions.Inventory.ListMachines(ctx, viewer, inventory.MachineList{Limit: 100})
	require.NoError(t, err)
	halfOpen, mistaken, overFiveYears, back, worseEachTime := 0, 0, 0, 0, 0
	subsystems, kinds := map[string]bool{}, map[string]bool{}
	for _, m := range page.Machines {
		opened, err := actions.Teardown.OpenedUp(ctx, viewer, m.ID)
		require.NoError(t, err)
		wired, err := actions.Teardown.Wiring(ctx, viewer, m.ID)
		require.NoError(t, err)
		if opened.Now != nil {
			halfOpen++
			require.NotEmpty(t, opened.Now.Blockers, m.Accession)
			for _, cell := range opened.Now.Cells {
				require.Empty(t, cell.Mixed, m.Accession)
			}
			if len(wired.Warnings) > 0 && wired.Warnings[0].Kind == "never" {
				mistaken++
			}
		}
		found, err := actions.Condition.Condition(ctx, viewer, m.ID)
		require.NoError(t, err)
		if n := len(found.Surveys); n >= 5 && found.Surveys[n-1].On[:4] > found.Surveys[0].On[:4] {
			overFiveYears++
		}
		for _, item := range found.Guide {
			subsystems[item.Subsystem] = true
		}
		for i, f := range found.Findings {
			kinds[f.Subsystem+" "+f.Kind] = true
			if f.Story.BackOn != "" {
				back++
				require.Contains(t, f.Story.Words, "gone "+f.Story.GoneOn+", back "+f.Story.BackOn)
			}
			worse := 0
			for _, state := range found.Compared[min(i, len(found.Compared)-1)].States {
				if state == "worse" {
					worse++
				}
			}
			worseEachTime = max(worseEachTime, worse)
		}
	}
	require.Equal(t, []int{3, 1}, []int{halfOpen, mistaken})
	require.GreaterOrEqual(t, overFiveYears, 6)
	require.Equal(t, 2, worseEachTime)
	require.GreaterOrEqual(t, back, 2)
	for _, want := range []string{"tube", "keyboard", "safety-capacitors"} {
		require.True(t, subsystems[want], want)
	}
	for _, want := range []string{"batteries leaking", "safety-capacitors cracked", "keyboard foam crumbled"} {
		require.True(t, kinds[want], want)
	}
	plan, err := actions.Condition.PlanOpenings(ctx, viewer, 90)
	require.NoError(t, err)
	require.NotEmpty(t, plan.Openings)
	require.Positive(t, plan.Waiting)
	for name, values := range demo.MeterPoints() {
		require.Regexp(t, `^EH-\d{4} .+`, name)
		require.NotEmpty(t, values)
	}
	seesPowerAndWork(t, actions, page.Machines)
	seesStores(t, actions)
}

// seesStores looks for what the stores have to show: drawers, two orders under way, and needs in all states.
func seesStores(t *testing.T, actions *app.App) {
	staff := action.Actor{Role: action.Technician}
	drawers, kept := 0, 0
	for after, more := int64(0), true; more; more = after > 0 {
		page, err := actions.Parts.ListStock(ctx, staff, "", after, 200)
		require.NoError(t, err)
		for _, one := range page.Parts {
			if drawers++; one.From != nil {
				kept++
			}
		}
		after = page.Next
	}
	require.GreaterOrEqual(t, drawers, 300)
	require.Positive(t, kept, "a part that was taken out has its past")
	orders, err := actions.Parts.Orders(ctx, staff)
	require.NoError(t, err)
	require.Len(t, orders, 2)
	needs, err := actions.Work.Needs(ctx, staff)
	require.NoError(t, err)
	states := map[stock.State]int{}
	for _, one := range needs.Needs {
		states[one.State]++
	}
	for _, state := range []stock.State{stock.Reserved, stock.InStock, stock.Ordered, stock.Short} {
		require.Positive(t, states[state], state)
	}
	require.NotEmpty(t, needs.ToOrder)
	require.NotEmpty(t, needs.Unblocks)
}

// seesPowerAndWork looks for what the stages after judging have to show: each state of the gate, three machines at different
// rungs, a power-up against the gate, and jobs in all states.
func seesPowerAndWork(t *testing.T, actions *app.App, machines []inventory.ListedMachine) {
	gates, jobs, rungs, against, unproven := map[gate.State]int{}, map[job.State]int{}, map[int]bool{}, 0, 0
	seesConsolesAndOffers(t, actions, machines)
	for _, m := range machines {
		power, err := actions.Power.Power(ctx, viewer, m.ID)
		require.NoError(t, err)
		gates[power.State]++
		for _, up := range power.Ups {
			if up.DecidedBy != "" {
				against++
				require.NotEmpty(t, up.Why, m.Accession)
			}
		}
		reached := 0
		for _, rung := range power.Rungs {
			if rung.Result == "as-expected" {
				reached++
			}
		}
		rungs[reached] = true
		treated, err := actions.Work.Treatment(ctx, viewer, m.ID)
		require.NoError(t, err)
		for _, one := range treated.Jobs {
			jobs[one.State]++
			if one.Unproven {
				unproven++
			}
		}
	}
	for _, state := range gate.States() {
		require.Positive(t, gates[state], state)
	}
	require.Len(t, rungs, 3)
	require.Equal(t, 1, against)
	for _, state := range []job.State{job.WaitsForPart, job.WaitsForHands, job.InHand, job.Done, job.Declined} {
		require.Positive(t, jobs[state], state)
	}
	require.Positive(t, unproven)
	total := 0
	for _, of := range jobs {
		total += of
	}
	require.Equal(t, 25, total)
}

// seesConsolesAndOffers looks for what machines said, one with memory that failed and one that waits for a line, and for
// offers: with something that is looked for, over the limit, and one that only an ordinary word stands for.
func seesConsolesAndOffers(t *testing.T, actions *app.App, machines []inventory.ListedMachine) {
	outcomes, failures, claims := map[console.Outcome]int{}, 0, 0
	for _, m := range machines {
		said, err := actions.Console.Console(ctx, viewer, m.ID)
		require.NoError(t, err)
		for _, one := range said.Captures {
			outcomes[one.Reading.Outcome]++
			failures, claims = failures+len(one.Reading.Failures), claims+len(one.Reading.Claims)
		}
	}
	require.Equal(t, 1, outcomes[console.Prompts])
	require.Positive(t, failures)
	require.Positive(t, claims)
	staff := action.Actor{Role: action.Technician}
	offers, err := actions.Wanted.Offers(ctx, staff)
	require.NoError(t, err)
	plain, over, held := 0, 0, 0
	for _, one := range offers {
		held += len(one.Weighed.Held)
		if one.Weighed.Over != "" {
			over++
		}
		for _, hit := range one.Weighed.Hits {
			if hit.Doubt == "" {
				plain++
			}
		}
	}
	require.Equal(t, []int{2, 1}, []int{plain, over})
	require.Positive(t, held)
	wants, err := actions.Wanted.Wants(ctx, staff)
	require.NoError(t, err)
	require.Equal(t, "given up", wants[len(wants)-1].State)
}
