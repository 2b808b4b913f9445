package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	appcondition "frugalheron/app/condition"
	"frugalheron/app/evidence"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/core/condition"
	"frugalheron/core/measure"
	"frugalheron/core/quantity"
	"frugalheron/core/risk"
	"frugalheron/instruments/meter"
)

const judgedSheet = "== Main board\nU1 27128 8530 @socket\nBT1 NiCd 3.6V 60mAh !leaking: crust\nC5 0.1uF X2 275V\nC12-C15 47uF 16V\nU9 27128 @empty"

func inspected(seen ...appcondition.ObservedFinding) appcondition.JudgedItem {
	return appcondition.JudgedItem{Inspection: appcondition.Inspection{Coverage: condition.Inspected}, Observed: seen}
}

// Five surveys: a finding that was fixed and came back is back, with both dates; a survey is a look.
func TestFiveSurveysOfAMachine(t *testing.T) {
	db, actions, machine, board := newBoard(t,
		inventory.MachineInput{EraFrom: year(1985), EraTo: year(1988), Place: "Boiler house"}, judgedSheet)
	now, err := actions.Condition.Condition(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, "needs attention", string(now.Stage.State), "the sheet says that it leaks")
	require.Equal(t, []any{condition.Grade("hazard"), "Main board, BT1 leaking"},
		[]any{now.Technical, now.TechnicalWhy})
	held := map[string]string{}
	for _, item := range now.Guide {
		for _, p := range item.Parts {
			held[item.Subsystem] += p.Place + " " + p.Words + ";"
		}
	}
	require.Equal(t, "BT1 NiCd 3.6V 60mAh !leaking: crust;", held["batteries"])
	require.Equal(t, "C12 C13 C14 C15 47uF 16V;", held["electrolytics"])

	risks, err := actions.Condition.Risks(ctx, viewer, machine.ID, 0, 50)
	require.NoError(t, err)
	require.Equal(t, "eprom-charge", risks.Risks[1].Class)
	require.Equal(t, []string{"safety-capacitor", "C5", "Main board", "safety-capacitors"},
		[]string{risks.Risks[0].Class, risks.Risks[0].Place, risks.Risks[0].Board, risks.Risks[0].Subsystem})
	require.Contains(t, risks.Risks[0].Why, "never looked at since it was made")
	last := risks.Risks[len(risks.Risks)-1]
	require.Equal(t, "battery-nicd", last.Class, "who wrote that it leaks has looked at it")
	require.Contains(t, last.Why, "last looked at less than a month ago")

	var leak int64
	var invalid *action.Invalid
	for i, on := range []string{"2021-05-01", "2022-05-02", "2023-05-03", "2024-05-01", "2025-05-01"} {
		now, err = actions.Condition.StartSurvey(ctx, technician, machine.ID, on, "Ottilie")
		require.NoError(t, err)
		_, err = actions.Condition.StartSurvey(ctx, technician, machine.ID, on, "")
		require.ErrorAs(t, err, &invalid, "one survey at a time")
		_, err = actions.Condition.EndSurvey(ctx, technician, now.Running.ID, now.Running.Version, "good", "")
		require.ErrorAs(t, err, &invalid, "nothing was inspected")
		seen := []appcondition.ObservedFinding{}
		switch i {
		case 0:
			seen = append(seen,
				appcondition.ObservedFinding{
					New:      &appcondition.FindingInput{Kind: "leaking", AssemblyID: &board.ID, Designator: "BT1"},
					Severity: condition.Watch,
				})
		case 1:
			seen = append(seen,
				appcondition.ObservedFinding{FindingID: leak, Severity: condition.Hazard, Note: "crust on the board"})
		case 3:
			seen = append(seen,
				appcondition.ObservedFinding{FindingID: leak, Severity: condition.Hazard, Gone: true,
					Note: "replaced by a holder"})
		case 4:
			seen = append(seen, appcondition.ObservedFinding{FindingID: leak, Severity: condition.Repair})
		}
		if i != 2 {
			now, err = actions.Condition.JudgeItem(ctx, technician, now.Running.ID, now.Running.Version, "batteries",
				inspected(seen...))
			require.NoError(t, err)
			leak = now.Findings[0].ID
		}
		now, err = actions.Condition.JudgeItem(ctx, technician, now.Running.ID, now.Running.Version, "plastics",
			inspected())
		require.NoError(t, err)
		now, err = actions.Condition.EndSurvey(ctx, technician, now.Running.ID, now.Running.Version, "worn", "")
		require.NoError(t, err)
	}
	require.Equal(t, []condition.State{"new", "worse", "no look", "gone", "back"}, now.Compared[0].States)
	require.Equal(t, "first seen 2021-05-01, gone 2024-05-01, back 2025-05-01, same "+technician.Today(),
		now.Findings[0].Story.Words)
	require.Equal(t, "Main board, BT1", now.Findings[0].Where)
	require.Equal(t, 2, now.Findings[0].Line)
	require.Equal(t, condition.Grade("repair"), now.Technical)
	require.Equal(t, "worn", now.Cosmetic)
	require.Contains(t, now.NotInspected, "Power supply")
	require.Equal(t, "needs attention", string(now.Stage.State))

	// Over the years: what was open at the end of each, and in how many machines somebody looked.
	years, err := actions.Condition.FindingsByYear(ctx, viewer)
	require.NoError(t, err)
	require.Equal(t, []appcondition.YearOfFindings{{Year: 2021, Watch: 1, Machines: 1},
		{Year: 2022, Hazard: 1, Machines: 1}, {Year: 2023, Hazard: 1, Machines: 1}, {Year: 2024, Machines: 1},
		{Year: 2025, Repair: 1, Machines: 1}}, years[:5])
	ahead, err := actions.Condition.LooksAhead(ctx, viewer)
	require.NoError(t, err)
	require.Positive(t, ahead.Overdue)
	require.Len(t, ahead.Months, 12)
	require.Equal(t, viewer.Today()[:7], ahead.Months[0].Month)

	// The ranking follows: the battery was looked at last year, the capacitors never.
	risks, err = actions.Condition.Risks(ctx, viewer, machine.ID, 0, 50)
	require.NoError(t, err)
	for _, r := range risks.Risks {
		if r.Class == "battery-nicd" {
			require.Contains(t, r.Why, "last looked at")
		} else {
			require.Contains(t, r.Why, "never looked at")
		}
	}
	for why, action := range map[string]func() error{
		"a future day": func() error {
			_, err := actions.Condition.StartSurvey(ctx, technician, machine.ID, "2999-01-01", "")
			return err
		},
		"no such kind": func() error {
			_, err := actions.Condition.NoteFinding(ctx, technician, machine.ID,
				appcondition.NotedFinding{Subsystem: "batteries",
					ObservedFinding: appcondition.ObservedFinding{Severity: "watch",
						New: &appcondition.FindingInput{}}})
			return err
		},
		"of another machine": func() error {
			_, err := actions.Condition.NoteFinding(ctx, technician, machine.ID,
				appcondition.NotedFinding{
					ObservedFinding: appcondition.ObservedFinding{Severity: "watch", FindingID: 999},
				})
			return err
		},
		"no severity": func() error {
			_, err := actions.Condition.NoteFinding(ctx, technician, machine.ID,
				appcondition.NotedFinding{
					ObservedFinding: appcondition.ObservedFinding{Severity: "bad", FindingID: leak},
				})
			return err
		},
	} {
		require.ErrorAs(t, action(), &invalid, why)
	}
	now, err = actions.Condition.NoteFinding(ctx, technician, machine.ID,
		appcondition.NotedFinding{
			ObservedFinding: appcondition.ObservedFinding{FindingID: leak, Severity: condition.Repair, Gone: true,
				Note: "new holder"},
		})
	require.NoError(t, err)
	require.False(t, now.Findings[0].Story.Open)
	event, err := actions.Condition.VoidFinding(ctx, technician, leak, now.Findings[0].Version)
	require.NoError(t, err)
	now, err = actions.Condition.Condition(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Len(t, now.Findings, 1)
	require.Zero(t, now.Findings[0].ID, "only the sheet says it still")
	require.NoError(t, actions.History.Undo(ctx, technician, event))
	require.Contains(t, actionsOf(t, db, "finding", leak), "take back strike of finding")
	_, err = actions.Condition.JudgeItem(ctx, technician, now.Surveys[0].ID, now.Surveys[0].Version, "supply",
		inspected())
	require.ErrorAs(t, err, &invalid, "it has ended")
}

func TestMeasurementsAreTypedAnywhereAndJudged(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{}, judgedSheet)
	say := func(line string) appcondition.Measured {
		kept, err := actions.Condition.Measure(ctx, technician, machine.ID, appcondition.MeasurementInput{Line: line})
		require.NoError(t, err, line)
		return kept
	}
	battery := say("BT1 2.1 V")
	require.Equal(t, measure.Fail, battery.Judged.Verdict)
	require.Equal(t, board.ID, *battery.AssemblyID)
	require.Contains(t, battery.Judged.Why[0], "3 nickel cells in a row")
	require.Equal(t, measure.Pass, say("+5 4.93").Judged.Verdict)
	require.Equal(t, measure.Marginal, say("C12 38 uF").Judged.Verdict)
	guide := say("drive guide 31.4 mm / 30.9 mm")
	require.Equal(t, measure.Fail, guide.Judged.Verdict)
	require.InDelta(t, 0.6, guide.Clearance.TakeOff, 1e-9)
	var invalid *action.Invalid
	_, err := actions.Condition.Measure(ctx, technician, machine.ID, appcondition.MeasurementInput{Line: "U1 27128"})
	require.ErrorAs(t, err, &invalid)

	// A part that stands on two boards is measured by the marking of the one that is named.
	card, err := actions.Inventory.AddAssembly(ctx, technician, machine.ID,
		inventory.AssemblyInput{Title: "Clock card"})
	require.NoError(t, err)
	_, err = actions.Sheets.SaveSheet(ctx, technician, card.ID, 0, "BT1 lithium CR2032")
	require.NoError(t, err)
	noted := say("BT1 2.9 V")
	require.Equal(t, measure.Noted, noted.Judged.Verdict)
	named, err := actions.Condition.Measure(ctx, technician, machine.ID,
		appcondition.MeasurementInput{Line: "bt1 2.9 V", AssemblyID: &card.ID})
	require.NoError(t, err)
	require.Equal(t, []any{"BT1", "Clock card", measure.Pass}, []any{named.Point, named.Assembly, named.Judged.Verdict})
	require.NoError(t, actions.History.Undo(ctx, technician, named.Event))
	require.NoError(t, actions.History.Undo(ctx, technician, noted.Event))
	_, err = actions.Sheets.SaveSheet(ctx, technician, card.ID, 1, "U1 7400")
	require.NoError(t, err)
	understood, err := actions.QuickEntry.Understand(ctx, technician, machine.ID, "BT1 2.1 V")
	require.NoError(t, err)
	require.True(t, understood.Measured.Sure)
	require.Equal(t, measure.Fail, understood.Measured.Verdict)
	understood, err = actions.QuickEntry.Understand(ctx, technician, 0, "EH-0142 +5 4.70")
	require.NoError(t, err)
	require.Equal(t, "+5 4.70", understood.Measured.Line)
	require.True(t, understood.Sure)
	understood, err = actions.QuickEntry.Understand(ctx, technician, machine.ID, "U1 27128-25 8533")
	require.NoError(t, err)
	require.Nil(t, understood.Measured)

	now, err := actions.Condition.Condition(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, 3, now.Stage.Count, "the battery, the guide, and that it leaks")
	require.NoError(t, actions.History.Undo(ctx, technician, battery.Event))
	all, err := actions.Condition.Measurements(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Len(t, all, 3)
	history, err := actions.History.History(ctx, viewer, machine.ID, 0, 1)
	require.NoError(t, err)
	require.NoError(t, actions.History.Undo(ctx, technician, history.Events[0].ID))

	turned, err := actions.Condition.AddAdjuster(ctx, technician, machine.ID,
		appcondition.AdjusterInput{Name: "VR3", Does: "width of the picture, beside the tube",
			Position: "two o'clock"})
	require.NoError(t, err)
	require.Equal(t, "tube", string(turned[0].Cautions[0].Key))
	_, err = actions.Condition.TurnAdjuster(ctx, technician, turned[0].ID, turned[0].Version, "three o'clock", "")
	require.ErrorAs(t, err, &invalid)
	turned, err = actions.Condition.TurnAdjuster(ctx, technician, turned[0].ID, turned[0].Version, "three o'clock",
		"the picture was too narrow")
	require.NoError(t, err)
	require.Equal(t, appcondition.Turn{On: turned[0].Turns[0].On, Before: "two o'clock", After: "three o'clock",
		Why: "the picture was too narrow"}, turned[0].Turns[0])
}

// The meter drops in the middle of a series: the readings are kept, the state is told, and asking again goes on.
func TestAMeterDropsInASeries(t *testing.T) {
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{}, judgedSheet)
	series, err := actions.Condition.Measure(ctx, technician, machine.ID,
		appcondition.MeasurementInput{Point: "+5", Quantity: quantity.Volts})
	require.NoError(t, err)
	var invalid *action.Invalid
	_, err = actions.Condition.TakeReading(ctx, technician, series.ID)
	require.ErrorAs(t, err, &invalid, "no meter is set up")
	standIn, err := meter.NewStandIn(0, map[string]meter.Values{"+5": {quantity.Volts: 4.93}})
	require.NoError(t, err)
	defer standIn.Close()
	actions.WithInstruments(app.Instruments{Meter: standIn.Address()})
	there, err := actions.Condition.Meter(ctx, technician)
	require.NoError(t, err)
	require.Equal(t, []string{"+5"}, there.Points)
	require.ErrorAs(t, actions.Condition.TouchPoint(ctx, technician, "nowhere", "none"), &invalid)
	require.NoError(t, actions.Condition.TouchPoint(ctx, technician, "+5", "lost link"))
	counts, troubles := []int{}, 0
	for range 6 {
		told, err := actions.Condition.TakeReading(ctx, technician, series.ID)
		require.NoError(t, err)
		counts = append(counts, len(told.Readings))
		if told.Trouble != "" {
			troubles++
			require.Contains(t, told.Trouble, "does not answer any more")
		}
	}
	require.Equal(t, []int{1, 2, 3, 3, 4, 5}, counts)
	require.Equal(t, 1, troubles)
	require.NoError(t, actions.Condition.TouchPoint(ctx, technician, "", "overload"))
	told, err := actions.Condition.TakeReading(ctx, technician, series.ID)
	require.NoError(t, err)
	require.Contains(t, told.Trouble, "overload")
	told, err = actions.Condition.AddReading(ctx, technician, series.ID, 9)
	require.NoError(t, err)
	require.Equal(t, measure.Fail, told.Judged.Verdict)
	told, err = actions.Condition.DropReading(ctx, technician, series.ID, told.Version)
	require.NoError(t, err)
	require.Equal(t, measure.Pass, told.Judged.Verdict)
	require.Equal(t, 5, told.Judged.Stats.Count)
	require.Contains(t, told.Instrument, "stand-in meter")
	guide, err := actions.Condition.Measure(ctx, technician, machine.ID,
		appcondition.MeasurementInput{Point: "guide", Quantity: quantity.Millimetres})
	require.NoError(t, err)
	_, err = actions.Condition.TakeReading(ctx, technician, guide.ID)
	require.ErrorAs(t, err, &invalid)
	standIn.Close()
	told, err = actions.Condition.TakeReading(ctx, technician, series.ID)
	require.NoError(t, err)
	require.Contains(t, told.Trouble, "the meter does not answer")
	require.Len(t, told.Readings, 5)
}

// The ranking follows what the collection says of climates and classes, and what is in no machine is not in it.
func TestTheRankingFollowsTheCollection(t *testing.T) {
	db, actions, machine, board := newBoard(t,
		inventory.MachineInput{EraFrom: year(1985), EraTo: year(1988), Place: "Boiler house"},
		"== Main board\nBT1 NiCd 3.6V")
	first := func() appcondition.Risk {
		risks, err := actions.Condition.Risks(ctx, viewer, 0, 0, 10)
		require.NoError(t, err)
		require.NotEmpty(t, risks.Risks)
		return risks.Risks[0]
	}
	room := first()
	require.NoError(t, actions.Condition.SetClimate(ctx, curator, "Boiler house", "damp"))
	require.InDelta(t, room.Rank*2, first().Rank, room.Rank*0.02)
	var invalid *action.Invalid
	require.ErrorAs(t, actions.Condition.SetClimate(ctx, curator, "Nowhere", "damp"), &invalid)
	// A room of which nobody says anything is as the house that it is in, though only the room is written down.
	_, err := actions.Inventory.ChangeMachine(ctx, curator, machine.ID, machine.Version,
		inventory.MachineInput{Accession: "EH-0142", Name: "Meridian 2", EraFrom: year(1985), EraTo: year(1988),
			Place: "Rope works, loft, shelf 2"})
	require.NoError(t, err)
	require.InDelta(t, room.Rank, first().Rank, room.Rank*0.02)
	require.NoError(t, actions.Condition.SetClimate(ctx, curator, "Rope works", "outside"))
	require.InDelta(t, room.Rank*2.5, first().Rank, room.Rank*0.02)
	require.NoError(t, actions.Condition.SetClimate(ctx, curator, "Rope works, loft", "room"))
	require.InDelta(t, room.Rank, first().Rank, room.Rank*0.02)
	require.NoError(t, actions.Condition.SetClimate(ctx, curator, "Rope works, loft, shelf 2", "damp"))
	classes, err := actions.Condition.MaintenanceClasses(ctx, viewer)
	require.NoError(t, err)
	require.True(t, classes[0].Shipped)
	own := classes[0].Class
	own.Intervals, own.Source = []risk.Interval{{FromYears: 0, Months: 1}}, "our own log of leaks"
	_, err = actions.Condition.ChangeMaintenanceClass(ctx, technician, 0, own)
	require.ErrorIs(t, err, action.ErrForbidden)
	classes, err = actions.Condition.ChangeMaintenanceClass(ctx, curator, 0, own)
	require.NoError(t, err)
	require.Equal(t, []any{false, 1}, []any{classes[0].Shipped, classes[0].Version})
	var stale *action.Stale
	_, err = actions.Condition.ChangeMaintenanceClass(ctx, curator, 0, own)
	require.ErrorAs(t, err, &stale)
	require.InDelta(t, room.Rank*6, first().Rank, room.Rank*0.02)

	plan, err := actions.Condition.PlanOpenings(ctx, viewer, 60)
	require.NoError(t, err)
	require.Len(t, plan.Openings, 1)
	require.Equal(t, []int{55, 5, 0}, []int{plan.Minutes, plan.Left, plan.Waiting})
	plan, err = actions.Condition.PlanOpenings(ctx, viewer, 30)
	require.NoError(t, err)
	require.Equal(t, 1, plan.Waiting)

	_, err = actions.Inventory.MoveAssembly(ctx, technician, board.ID, board.Version,
		inventory.Move{To: "place", Place: "Net store"})
	require.NoError(t, err)
	risks, err := actions.Condition.Risks(ctx, viewer, machine.ID, 0, 10)
	require.NoError(t, err)
	require.Empty(t, risks.Risks, "it is not in the machine any more")
	// What ages is told anew when the rules have changed.
	_, err = actions.Inventory.MoveAssembly(ctx, technician, board.ID, board.Version+1,
		inventory.Move{To: "machine", MachineID: machine.ID})
	require.NoError(t, err)
	before := first()
	_, err = db.ExecContext(ctx, `UPDATE machine_ageing SET parts = '', rules = 0`)
	require.NoError(t, err)
	require.NoError(t, actions.Condition.RenewAgeing(ctx))
	require.Equal(t, before, first())
}

// What the record of the model says goes before what rails usually have, and explains what firmware shows.
func TestFiguresOfTheModel(t *testing.T) {
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{Maker: "Tarn & Vole", Model: "Meridian 2"}, "U1 7400")
	model := library.ModelInput{Maker: "TARN & VOLE", Model: "meridian 2",
		Figures: "+5 = 4.9 .. 5.2 V\ndisk size <= 32 fish"}
	var invalid *action.Invalid
	require.ErrorAs(t, second(actions.Library.AddModel(ctx, technician, model)), &invalid)
	require.Contains(t, invalid.Why, "line 2: ")
	model.Figures = "+5 = 4.9 .. 5.2 V\ndisk size <= 33 MB"
	require.NoError(t, second(actions.Library.AddModel(ctx, technician, model)))
	for line, want := range map[string]measure.Verdict{"+5 4.85": measure.Fail, "+12 11.9": measure.Pass,
		"+5 4.85 = 4.8 .. 5.2 V": measure.Pass} {
		kept, err := actions.Condition.Measure(ctx, technician, machine.ID, appcondition.MeasurementInput{Line: line})
		require.NoError(t, err)
		require.Equal(t, want, kept.Judged.Verdict, line)
	}
	for _, said := range []evidence.StatementInput{
		{Attribute: "disk-size", Subject: "HD1", Value: "40 MB", Citation: evidence.Citation{Kind: "label"}},
		{Attribute: "disk-size", Subject: "HD1", Value: "33 MB", Nature: "seen-by",
			Citation: evidence.Citation{Kind: "firmware"}},
	} {
		require.NoError(t, second(actions.Evidence.StateEvidence(ctx, technician, machine.ID, said)))
	}
	dossier, err := actions.Bench.Dossier(ctx, viewer, machine.ID)
	require.NoError(t, err)
	for _, k := range dossier.Known {
		if k.Attribute.Key == "disk-size" {
			require.Empty(t, k.Fact.Differ)
			require.Contains(t, k.Fact.Explanations[0].Text,
				"as much as the firmware of TARN & VOLE meridian 2 can show")
			return
		}
	}
	t.Fatal("nothing is known of the disk")
}
