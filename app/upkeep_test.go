package app_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	ical "github.com/emersion/go-ical"
	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/accounts"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/people"
	"frugalheron/app/upkeep"
	"frugalheron/app/work"
	"frugalheron/core/condition"
	"frugalheron/core/quantity"
	"frugalheron/core/risk"
	coreupkeep "frugalheron/core/upkeep"
)

// shelf puts machines with a battery onto numbered bays, the first one last, and returns their ids.
func shelf(t *testing.T, actions *app.App, count int) []int64 {
	ids := make([]int64, count)
	for i := range count {
		ids[i] = must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{
			Accession: fmt.Sprintf("EH-%04d", i+1), Name: "Meridian", Place: fmt.Sprintf("Rope walk, bay %d",
				12-i)})).ID
		must(actions.Sheets.TakeOverSheet(ctx, technician, ids[i], "== Main board\nBT1 NiCd 3.6V\nU1 7400"))
	}
	return ids
}

func batteryRule(actions *app.App) upkeep.Rule {
	return must(actions.Upkeep.AddRule(ctx, technician, upkeep.RuleInput{Task: "Measure the clock battery",
		EveryMonths: 6,
		Of:          "battery", Looks: true, Minutes: 5, Measures: quantity.Volts, How: "Behind the left cover"}))
}

// A round goes in walking order, and what is said at its stops is true elsewhere: measurements, findings, sheets, priorities
// and days that follow.
func TestARoundOverManyMachines(t *testing.T) {
	_, actions := newApp(t)
	ids := shelf(t, actions, 5)
	rule := batteryRule(actions)
	today := curator.Today()

	due := must(actions.Upkeep.RoundsDue(ctx, technician))
	require.Len(t, due, 1)
	require.Equal(t, 5, due[0].Stops)
	require.Equal(t, 25, due[0].Minutes)
	round := must(actions.Upkeep.BeginRound(ctx, technician, upkeep.RoundInput{RuleID: rule.ID}))
	require.Error(t, second(actions.Upkeep.BeginRound(ctx, technician, upkeep.RoundInput{RuleID: rule.ID})),
		"one walk at a time")
	order := []string{}
	for _, stop := range round.RoundsOf {
		order = append(order, stop.Accession)
		require.Equal(t, "BT1", stop.Parts[0].Place)
	}
	require.Equal(t, []string{"EH-0005", "EH-0004", "EH-0003", "EH-0002", "EH-0001"}, order, "bay 8 before bay 12")
	at := func(n, version int, in upkeep.AnswerInput) (upkeep.Deed, error) {
		return actions.Upkeep.Answer(ctx, technician, round.ID, n, version, in)
	}
	var invalid *action.Invalid
	for name, in := range map[string]upkeep.AnswerInput{
		"not, without why":             {How: "not"},
		"not, and taken out":           {How: "not", Why: "locked", TakenOut: true},
		"only seen, and taken out":     {How: "seen", TakenOut: true},
		"done, with why not":           {How: "did", Why: "locked"},
		"a day to come":                {How: "did", On: "2999-01-01"},
		"before the round":             {How: "did", On: "2001-01-01"},
		"a measurement nobody reads":   {How: "did", Measured: "as it should be"},
		"a finding that is not there":  {How: "did", Now: []upkeep.FindingSeen{{Key: "nothing", How: "same"}}},
		"found, and nothing was named": {How: "did", Found: &upkeep.FoundAtStop{Kind: " "}},
	} {
		require.ErrorAs(t, second(at(1, 0, in)), &invalid, name)
	}
	for _, typed := range []string{"0.8", "0,8", "BT1 0.8 ohm"} {
		probe := must(actions.Upkeep.AddRule(ctx, technician, upkeep.RuleInput{Task: "Probe " + typed, EveryMonths: 1,
			Of: "battery", Measures: quantity.ESR}))
		deed := must(actions.Upkeep.DoneAt(ctx, technician, ids[0], upkeep.DoneInput{RuleID: probe.ID,
			AnswerInput: upkeep.AnswerInput{How: "did", Measured: typed}}))
		require.Contains(t, deed.Measured, "BT1", typed)
		require.NotContains(t, deed.Measured, " V", "the unit is that of what is measured")
		require.NoError(t, second(actions.Upkeep.VoidRule(ctx, technician, probe.ID, probe.Version)))
	}
	yesterday, wrong := time.Now().AddDate(0, 0, -1), time.Unix(0, 0)
	late := must(actions.Upkeep.AddRule(ctx, technician, upkeep.RuleInput{Task: "Said late", EveryMonths: 1,
		Of: "machine"}))
	require.Equal(t, curator.DayOf(yesterday), must(actions.Upkeep.DoneAt(ctx, technician, ids[0],
		upkeep.DoneInput{RuleID: late.ID,
			AnswerInput: upkeep.AnswerInput{How: "did", SaidAt: &yesterday}})).On, "not when it was sent")
	require.NoError(t, second(actions.Upkeep.VoidRule(ctx, technician, late.ID, late.Version)))
	require.ErrorIs(t, second(at(9, 0, upkeep.AnswerInput{How: "did"})), action.ErrNotFound)

	// Measured, and leaking; the second one only seen; the third taken out; the fourth not found.
	measured := must(at(1, 0, upkeep.AnswerInput{How: "did", Measured: "2.1 V",
		Found: &upkeep.FoundAtStop{Kind: "leaking"}}))
	require.Contains(t, measured.Measured, "BT1")
	how := must(actions.Condition.Condition(ctx, technician, ids[4]))
	kinds := map[string]condition.Severity{}
	for _, f := range how.Findings {
		kinds[f.Kind] = f.Story.Severity
	}
	require.Equal(t, condition.Hazard, kinds["leaking"])
	require.Len(t, must(actions.Condition.Measurements(ctx, technician, ids[4])), 1)
	require.Contains(t, must(actions.Upkeep.Round(ctx, technician, round.ID)).RoundsOf[0].Deed.Found, "leaking")
	require.Equal(t, today, must(at(2, 0, upkeep.AnswerInput{How: "seen", SaidAt: &wrong})).On,
		"no clock goes before the round")
	must(at(3, 0, upkeep.AnswerInput{How: "did", TakenOut: true}))
	bodies := must(actions.Bench.ExportSheets(ctx, technician, ids[2]))
	require.Contains(t, string(bodies.Data), "@empty")
	not := must(at(4, 0, upkeep.AnswerInput{How: "not", Why: "not on its shelf"}))
	var stale *action.Stale
	require.ErrorAs(t, second(at(4, 0, upkeep.AnswerInput{How: "did"})), &stale, "somebody was there already")
	require.Equal(t, "not on its shelf", stale.Newer.(upkeep.Deed).Why)

	// Who looked at the battery need not open the machine for it; who did not find it does.
	asked := func(machine int64) bool {
		return must(actions.Condition.Risks(ctx, technician, machine, 0, 10)).Due > 0
	}
	require.False(t, asked(ids[3]))
	require.True(t, asked(ids[1]))
	ahead := must(actions.Upkeep.OfMachine(ctx, technician, ids[3]))
	require.Equal(t, "seen on "+today, ahead.Due[0].Because)
	require.Empty(t, must(actions.Upkeep.OfMachine(ctx, technician, ids[2])).Due, "there is no battery any more")

	ended := must(actions.Upkeep.EndRound(ctx, technician, round.ID, round.Version, upkeep.EndInput{Minutes: 40}))
	require.Equal(t, 4, ended.Done)
	require.ErrorAs(t, second(at(5, 0, upkeep.AnswerInput{How: "did"})), &invalid, "it has ended")
	left := must(actions.Upkeep.BeginRound(ctx, technician, upkeep.RoundInput{RuleID: rule.ID}))
	require.Len(t, left.RoundsOf, 1, "whom nobody found; where nobody was, it was measured at other work")

	// Corrected, taken back, and undone as a whole.
	require.NoError(t, second(actions.Upkeep.EndRound(ctx, technician, left.ID, left.Version, upkeep.EndInput{})))
	require.NoError(t, undoNewest(actions, "ended the round Measure the clock battery: 4"))
	corrected := must(at(4, not.Version, upkeep.AnswerInput{How: "seen", Note: "on the bench"}))
	require.Equal(t, "seen", corrected.How)
	require.False(t, asked(ids[1]))
	require.ErrorAs(t, second(at(1, measured.Version, upkeep.AnswerInput{How: "not", Why: "locked"})), &invalid,
		"something was measured there")
	require.NoError(t, undoNewest(actions, "Measure the clock battery: seen"))
	require.True(t, asked(ids[3]))
	require.Nil(t, must(actions.Upkeep.Round(ctx, technician, round.ID)).RoundsOf[1].Deed)
}

// undoNewest takes back the newest event that says some words, and can be taken back.
func undoNewest(actions *app.App, words string) error {
	for _, e := range must(actions.History.History(ctx, curator, 0, 0, 200)).Events {
		if strings.Contains(e.What, words) && len(e.MayUndo) > 0 {
			return actions.History.Undo(ctx, curator, e.ID)
		}
	}
	return fmt.Errorf("no event says %s", words)
}

// A board goes to another machine: what was looked at on it goes with it.
func TestWhatWasLookedAtGoesWithItsBoard(t *testing.T) {
	_, actions := newApp(t)
	ids := shelf(t, actions, 2)
	rule := batteryRule(actions)
	must(actions.Upkeep.DoneAt(ctx, technician, ids[0], upkeep.DoneInput{RuleID: rule.ID,
		AnswerInput: upkeep.AnswerInput{How: "did"}}))
	board := must(actions.Sheets.Contents(ctx, technician, ids[0]))[0]
	other := must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: "EH-0009",
		Name: "Other"}))
	require.NoError(t, second(actions.Inventory.MoveAssembly(ctx, technician, board.ID, board.Version,
		inventory.Move{To: "machine", MachineID: other.ID})))
	moved := must(actions.Upkeep.OfMachine(ctx, technician, other.ID))
	require.Equal(t, "done on "+curator.Today(), moved.Due[0].Because)
	require.Len(t, moved.Done, 1)
	require.Empty(t, must(actions.Upkeep.OfMachine(ctx, technician, ids[0])).Due)
}

// Of two rules with the same words that of the model goes first; a rule that always holds is told, and never due.
func TestRulesByModel(t *testing.T) {
	_, actions := newApp(t)
	ids := shelf(t, actions, 2)
	model := must(actions.Library.AddModel(ctx, curator, library.ModelInput{Maker: "Tarn & Vole", Model: "Meridian 2"}))
	one := must(actions.Inventory.CreateMachine(ctx, curator, machineOf("EH-0020", "Tarn & Vole", "Meridian 2"))).ID
	add := func(in upkeep.RuleInput) upkeep.Rule { return must(actions.Upkeep.AddRule(ctx, technician, in)) }
	add(upkeep.RuleInput{Task: "Run it", EveryMonths: 12, Of: "machine"})
	own := add(upkeep.RuleInput{Task: "run it", EveryMonths: 24, Of: "machine", ModelID: &model.ID})
	always := add(upkeep.RuleInput{Task: "Needs its battery to start, store without", Of: "machine", ModelID: &model.ID})
	of := must(actions.Upkeep.OfMachine(ctx, viewer, one))
	require.Len(t, of.Due, 1)
	require.Equal(t, own.ID, of.Due[0].RuleID)
	require.Equal(t, always.ID, of.Always[0].ID)
	require.NotEmpty(t, of.Always[0].Cautions, "it is about a battery")
	require.Empty(t, must(actions.Upkeep.OfMachine(ctx, viewer, ids[0])).Always)
	var invalid *action.Invalid
	for name, in := range map[string]upkeep.RuleInput{
		"no task":         {Of: "machine"},
		"no such class":   {Task: "x", Of: "nothing"},
		"a part that ran": {Task: "x", Of: "battery", Runs: true},
		"no such model":   {Task: "x", Of: "machine", ModelID: new(int64)},
	} {
		require.ErrorAs(t, second(actions.Upkeep.AddRule(ctx, technician, in)), &invalid, name)
	}
	twice := upkeep.RuleInput{Task: "RUN it", EveryMonths: 3, Of: "machine"}
	require.ErrorAs(t, second(actions.Upkeep.AddRule(ctx, technician, twice)), &invalid,
		"there is one with these words")
	require.Equal(t, "task", invalid.Field)
	require.NoError(t, second(actions.Upkeep.VoidRule(ctx, technician, always.ID, always.Version)))
	again := add(upkeep.RuleInput{Task: always.Task, Of: "machine", ModelID: &model.ID})
	require.ErrorAs(t, undoNewest(actions, "deleted the upkeep rule"), &invalid, "another has its words now")
	require.NoError(t, second(actions.Upkeep.VoidRule(ctx, technician, again.ID, again.Version)))
	require.ErrorIs(t, second(actions.Upkeep.AddRule(ctx, viewer, upkeep.RuleInput{Task: "x", Of: "machine"})),
		action.ErrForbidden)
	require.Error(t, second(actions.Condition.ChangeMaintenanceClass(ctx, curator, 0, risk.Class{Key: "machine",
		Name:        "Machine",
		Consequence: risk.Stops, Minutes: 5, Happens: "stops", Source: "said", Intervals: []risk.Interval{{Months: 6}}, Words: "x"})))
	require.NoError(t, second(actions.Upkeep.VoidRule(ctx, technician, own.ID, own.Version)))
	require.NotEqual(t, own.ID, must(actions.Upkeep.OfMachine(ctx, viewer, one)).Due[0].RuleID,
		"the rule of all counts again")
}

// The week tells apart what is due, planned and done; the calendar says it to a program, without names, until it is renewed.
func TestTheDiaryAndItsCalendar(t *testing.T) {
	_, actions := newApp(t)
	ids := shelf(t, actions, 3)
	rule := batteryRule(actions)
	must(actions.People.AddParty(ctx, curator, people.PartyInput{Name: "Ysolde Marram", Kind: "person", Private: true,
		Role: "a former pilot"}))
	must(actions.Upkeep.DoneAt(ctx, technician, ids[0], upkeep.DoneInput{RuleID: rule.ID,
		AnswerInput: upkeep.AnswerInput{How: "did"}}))
	todo := must(actions.Work.AddJob(ctx, technician, ids[1], work.JobInput{Title: "New belts"}))
	today := curator.Today()
	plan := must(actions.Upkeep.AddPlan(ctx, technician, upkeep.PlanInput{On: today, JobID: &todo.ID, Minutes: 90}))
	must(actions.Upkeep.AddPlan(ctx, technician, upkeep.PlanInput{On: today, What: "Fetch a lead; from Ysolde Marram, if she is in: größer als 75 Zeichen, \\ and so on and on",
		Who: "Bram"}))
	week := func() upkeep.DiaryWeek { return must(actions.Upkeep.Diary(ctx, technician, "", 1))[0] }
	w := week()
	require.True(t, w.IsNow)
	require.Equal(t, coreupkeep.Load{Count: 1, Hours: 10. / 60}, w.Due, "two machines are one line, of five minutes each")
	require.Equal(t, coreupkeep.Load{Count: 2, Hours: 1.5, Untimed: 1}, w.Planned)
	require.Equal(t, 1, w.Done.Count, "what was planned is not done by that")
	require.NoError(t, second(actions.Work.FinishJob(ctx, technician, todo.ID, todo.Version,
		work.FinishInput{Minutes: 120})))
	w = week()
	require.InDelta(t, 2, w.Done.Hours, 0.01)
	for _, line := range w.Lines {
		require.Equal(t, line.Kind == upkeep.KindPlan && line.ID == plan.ID, line.IsDone, line.What)
	}
	require.Error(t, second(actions.Upkeep.AddPlan(ctx, technician, upkeep.PlanInput{On: "soon", What: "x"})))
	require.Error(t, second(actions.Upkeep.AddPlan(ctx, technician, upkeep.PlanInput{On: today})))
	require.Error(t, second(actions.Upkeep.Diary(ctx, viewer, "soon", 1)))

	account := must(actions.Accounts.AddAccount(ctx, "bram", "Bram Sedge", action.Technician, "tide gauge under glass"))
	technician := must(actions.Accounts.ActorByID(ctx, account))
	feed := must(actions.Upkeep.MakeFeed(ctx, technician))
	secret := strings.Split(feed.Path, "/")[3]
	require.Empty(t, must(actions.Upkeep.FeedOf(ctx, technician)).Path, "it is told once")
	file := must(actions.Upkeep.ReadFeed(ctx, secret))
	for line := range strings.SplitSeq(strings.TrimSuffix(string(file.Data), "\r\n"), "\r\n") {
		require.LessOrEqual(t, len(line), 75, line)
	}
	calendar, err := ical.NewDecoder(strings.NewReader(string(file.Data))).Decode()
	require.NoError(t, err)
	summaries, ids2 := []string{}, map[string]bool{}
	for _, e := range calendar.Events() {
		words := must(e.Props.Text(ical.PropSummary))
		summaries = append(summaries, words)
		ids2[must(e.Props.Text(ical.PropUID))] = true
		start := must(e.DateTimeStart(time.UTC))
		require.False(t, start.IsZero())
	}
	require.Len(t, ids2, len(summaries), "each has an id of its own")
	require.Contains(t, summaries, "Measure the clock battery (2)")
	require.NotContains(t, summaries, "New belts", "it is done")
	require.NotContains(t, string(file.Data), "Ysolde")
	require.NotContains(t, string(file.Data), "Rope walk", "where things stand is nobody's business")
	renewed := must(actions.Upkeep.MakeFeed(ctx, technician))
	require.ErrorIs(t, second(actions.Upkeep.ReadFeed(ctx, secret)), upkeep.ErrFeedEnded)
	require.NoError(t, second(actions.Upkeep.ReadFeed(ctx, strings.Split(renewed.Path, "/")[3])))
	require.NoError(t, actions.Upkeep.DropFeed(ctx, technician))
	require.ErrorIs(t, second(actions.Upkeep.ReadFeed(ctx, strings.Split(renewed.Path, "/")[3])), upkeep.ErrFeedEnded)
}

// What is lent is on no round, a spare board with a cell is; a board in no machine has its own page for what is measured. A
// part that was put in new counts from then, and the one beside it does not.
func TestWhoIsOnARound(t *testing.T) {
	_, actions := newApp(t)
	ids := shelf(t, actions, 3)
	rule := batteryRule(actions)
	lent := must(actions.Inventory.Machine(ctx, curator, ids[0]))
	must(actions.Inventory.MoveMachine(ctx, technician, lent.ID, lent.Version, inventory.MachineMove{To: "loan",
		LentTo: "Gull Point Light"}))
	spare := must(actions.Inventory.AddLooseAssembly(ctx, technician, "Rope walk, bay 1", inventory.AssemblyInput{
		Title: "Spare clock card", Kind: "card"}))
	must(actions.Sheets.SaveSheet(ctx, technician, spare.ID, must(actions.Sheets.Sheet(ctx, technician, spare.ID)).N,
		"BT1 NiCd 3.6V\nU1 7400"))
	two := must(actions.Sheets.Contents(ctx, technician, ids[1]))[0]
	must(actions.Sheets.SaveSheet(ctx, technician, two.ID, must(actions.Sheets.Sheet(ctx, technician, two.ID)).N,
		"BT1 NiCd 3.6V new:"+curator.Today()+"\nBT2 NiCd 3.6V\nU1 7400"))
	due := must(actions.Upkeep.RoundsDue(ctx, viewer))[0]
	require.Equal(t, []int{3, 1}, []int{due.Stops, due.Away})
	require.Equal(t, "lent to Gull Point Light", must(actions.Upkeep.OfMachine(ctx, viewer, lent.ID)).Due[0].Away)

	round := must(actions.Upkeep.BeginRound(ctx, technician, upkeep.RoundInput{RuleID: rule.ID}))
	require.Equal(t, "Spare clock card", round.RoundsOf[0].Name, "bay 1 comes first")
	require.Len(t, round.RoundsOf[2].Parts, 2)
	say := func(n int, in upkeep.AnswerInput) error {
		return second(actions.Upkeep.Answer(ctx, technician, round.ID, n, 0, in))
	}
	var invalid *action.Invalid
	require.ErrorAs(t, say(1, upkeep.AnswerInput{How: "did", Measured: "3.6 V"}), &invalid)
	require.NoError(t, say(1, upkeep.AnswerInput{How: "did"}))
	for _, one := range must(actions.Condition.Risks(ctx, viewer, 0, 0, 50)).Risks {
		require.False(t, one.AssemblyID == spare.ID && one.IsDue, "somebody was there")
	}
	// Two cells in one machine: a bare figure says of neither, each by its name is taken, and both are taken out at once.
	require.ErrorAs(t, say(3, upkeep.AnswerInput{How: "did", Measured: "3.6"}), &invalid)
	require.NoError(t, say(3, upkeep.AnswerInput{How: "did", Measured: "BT2 3.1", TakenOut: true}))
	require.Equal(t, 2, strings.Count(must(actions.Sheets.Contents(ctx, technician, ids[1]))[0].Body, "@empty"))
	require.Empty(t, must(actions.Upkeep.OfMachine(ctx, viewer, ids[1])).Due)
	// A rule that is deleted while its round is walked: the round goes on, and nothing falls due by it.
	require.NoError(t, second(actions.Upkeep.VoidRule(ctx, technician, rule.ID, rule.Version)))
	require.NoError(t, say(2, upkeep.AnswerInput{How: "did"}))
	require.Empty(t, must(actions.Upkeep.RoundsDue(ctx, viewer)))
	require.ErrorAs(t, second(actions.Upkeep.BeginRound(ctx, technician, upkeep.RoundInput{RuleID: rule.ID})), &invalid)

	// Who may not come in any more reads no calendar.
	id := must(actions.Accounts.AddAccount(ctx, "bram", "Bram Sedge", action.Technician, "tide gauge under glass"))
	feed := must(actions.Upkeep.MakeFeed(ctx, must(actions.Accounts.ActorByID(ctx, id))))
	secret := strings.Split(feed.Path, "/")[3]
	require.NotContains(t, string(must(actions.Upkeep.ReadFeed(ctx, secret)).Data), "Gull Point")
	must(actions.Accounts.ChangeAccount(ctx, curator, id, 1, accounts.AccountInput{Name: "Bram Sedge",
		Role:     action.Technician,
		Disabled: true}))
	require.ErrorIs(t, second(actions.Upkeep.ReadFeed(ctx, secret)), upkeep.ErrFeedEnded)
}
