package app_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	appcondition "frugalheron/app/condition"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	appsheets "frugalheron/app/sheets"
	"frugalheron/core/condition"
	"frugalheron/core/risk"
)

// A cell that leaks by its sheet, reads low, and is seen in a survey is two findings with all their sources; they end
// with the cell, and stay in its past.
func TestAllThatIsSaidOfAPartIsOneList(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{EraFrom: year(1985), EraTo: year(1988)},
		"== Main board\nBT1 NiCd 3.6V !leaked\nC5 0.1uF X2 275V\nU1 7400")
	_, err := actions.Sheets.SaveSheet(ctx, technician, outside(t, actions, machine), 0,
		"== rear\nport DB25 female !bent: pin 3")
	require.NoError(t, err)
	_, err = actions.Condition.Measure(ctx, technician, machine.ID, appcondition.MeasurementInput{Line: "BT1 1.1 V"})
	require.NoError(t, err)
	now, err := actions.Condition.Condition(ctx, viewer, machine.ID)
	require.NoError(t, err)
	list := func(c []appcondition.FindingView) map[string]string {
		said := map[string]string{}
		for _, f := range c {
			sources := ""
			for _, s := range f.Sources {
				sources += " " + string(s.Source)
			}
			said[f.Where+": "+f.Kind] = fmt.Sprintf("%s %s %t%s", f.Subsystem, f.Story.Severity, f.Story.Open, sources)
		}
		return said
	}
	require.Equal(t, map[string]string{
		"Main board, BT1: leaked":      "batteries hazard true sheet",
		"Main board, BT1: low voltage": "batteries watch true measurement",
		`rear, port DB25 female: bent`: "connectors repair true outside",
	}, list(now.Findings))
	require.Equal(t, condition.Grade("hazard"), now.Technical)

	// What a survey says of the same thing is the same finding, by its key or by its words.
	now, err = actions.Condition.StartSurvey(ctx, technician, machine.ID, "", "")
	require.NoError(t, err)
	now, err = actions.Condition.JudgeItem(ctx, technician, now.Running.ID, now.Running.Version, "batteries", inspected(
		appcondition.ObservedFinding{Severity: condition.Repair, New: &appcondition.FindingInput{Kind: "Leaking",
			AssemblyID: &board.ID, Designator: "bt1"}},
		appcondition.ObservedFinding{Severity: condition.Watch, Key: keyOf(now, "low voltage"), Trend: "same"}))
	require.NoError(t, err)
	require.Len(t, now.Findings, 3)
	require.Equal(t, "batteries repair true sheet survey", list(now.Findings)["Main board, BT1: Leaking"])
	require.Equal(t, "batteries watch true measurement survey", list(now.Findings)["Main board, BT1: low voltage"])

	// The cell goes: what was wrong with it goes with it. A newer reading is about the newer cell.
	_, err = actions.Sheets.SaveSheet(ctx, technician, board.ID, 1, "BT1 @empty\nC5 0.1uF X2 275V\nU1 7400")
	require.NoError(t, err)
	now, err = actions.Condition.Condition(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, "batteries repair false sheet survey", list(now.Findings)["Main board, BT1: Leaking"])
	require.Equal(t, condition.Grade("repair"), now.Technical, "the port")
	leak := now.Findings[0]
	require.Contains(t, leak.Observations[len(leak.Observations)-1].Note, "the part was taken out")
	_, err = actions.Sheets.SaveSheet(ctx, technician, board.ID, 2,
		"BT1 NiMH 3.6V\nC5 0.1uF X2 275V !hairline crack\nU1 7400")
	require.NoError(t, err)
	_, err = actions.Condition.Measure(ctx, technician, machine.ID, appcondition.MeasurementInput{Line: "BT1 3.7 V"})
	require.NoError(t, err)
	now, err = actions.Condition.Condition(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, "safety-capacitors repair true sheet", list(now.Findings)["Main board, C5: hairline crack"])
	risks, err := actions.Condition.Risks(ctx, viewer, machine.ID, 0, 10)
	require.NoError(t, err)
	for _, r := range risks.Risks {
		require.Contains(t, r.Why, "last looked at less than a month ago", "what was measured or found was looked at")
	}
}

// Who takes a part out and puts another in says so by the sheet alone: the new one is young, dates nothing, and has a
// past.
func TestOneOccupantAfterAnother(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{EraFrom: year(1985), EraTo: year(1988)},
		"== Main board\n"+sevenChips+"U8 7432 8536")
	for i, line := range []string{"U8 @empty", "U8 7432 8840"} {
		_, err := actions.Sheets.SaveSheet(ctx, technician, board.ID, i+1, sevenChips+line)
		require.NoError(t, err)
	}
	dated, err := actions.Dating.Dating(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, "1985-09-02", dated.Result.NotBefore.String())
	require.Empty(t, dated.Result.Outliers, "it is known to have come later")
	changed, err := actions.Sheets.ChangedPositions(ctx, viewer, board.ID)
	require.NoError(t, err)
	today := technician.Today()
	require.Equal(t, []appsheets.ChangedPosition{{Designator: "U8", Occupants: []appsheets.Occupant{
		{Words: "7432 8536", Until: today, Went: "taken out"}, {Words: "7432 8840", From: today, Came: "fitted"}}}},
		changed)
}

func outside(t *testing.T, actions *app.App, machine inventory.Machine) int64 {
	dossier, err := actions.Bench.Dossier(ctx, technician, machine.ID)
	require.NoError(t, err)
	return dossier.ExteriorID
}

func keyOf(now appcondition.Condition, kind string) string {
	for _, f := range now.Findings {
		if f.Kind == kind {
			return f.Key
		}
	}
	return ""
}

// What was open before a survey is answered in it before its subsystem counts as inspected.
func TestASurveyCannotSkipWhatIsKnown(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{}, "== Main board\nBT1 NiCd 3.6V")
	for _, kind := range []string{"leaking", "swollen"} {
		_, err := actions.Condition.NoteFinding(ctx, technician, machine.ID,
			appcondition.NotedFinding{Subsystem: "batteries",
				On: "2024-05-01", ObservedFinding: appcondition.ObservedFinding{Severity: condition.Hazard,
					New: &appcondition.FindingInput{Kind: kind, AssemblyID: &board.ID, Designator: "BT1"}}})
		require.NoError(t, err)
	}
	now, err := actions.Condition.StartSurvey(ctx, technician, machine.ID, "2025-05-01", "")
	require.NoError(t, err)
	require.True(t, now.Findings[0].Waits && now.Findings[1].Waits)
	same := appcondition.ObservedFinding{FindingID: now.Findings[0].ID, Severity: condition.Hazard, Trend: "same"}
	var invalid *action.Invalid
	_, err = actions.Condition.JudgeItem(ctx, technician, now.Running.ID, now.Running.Version, "batteries",
		inspected(same))
	require.ErrorAs(t, err, &invalid)
	require.Contains(t, invalid.Error(), "Main board, BT1, swollen")
	require.NotContains(t, invalid.Error(), "leaking")
	gone := appcondition.ObservedFinding{FindingID: now.Findings[1].ID, Severity: condition.Hazard, Gone: true}
	now, err = actions.Condition.JudgeItem(ctx, technician, now.Running.ID, now.Running.Version, "batteries",
		inspected(same, gone))
	require.NoError(t, err)
	require.False(t, now.Findings[0].Waits || now.Findings[1].Waits)
	_, err = actions.Condition.EndSurvey(ctx, technician, now.Running.ID, now.Running.Version, "", "")
	require.NoError(t, err)
}

// What is found on a board goes with it, into store and into another machine, and is ranked there, too.
func TestFindingsGoWithTheirBoard(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{EraFrom: year(1985), EraTo: year(1988)},
		"== Main board\nBT1 NiCd 3.6V\nU1 7400 !bent pin")
	_, err := actions.Condition.NoteFinding(ctx, technician, machine.ID,
		appcondition.NotedFinding{Subsystem: "batteries",
			On: "2024-05-01", ObservedFinding: appcondition.ObservedFinding{Severity: condition.Hazard,
				New: &appcondition.FindingInput{Kind: "leaking", Designator: "BT1", AssemblyID: &board.ID}}})
	require.NoError(t, err)
	fresh, err := actions.Inventory.Assembly(ctx, technician, board.ID)
	require.NoError(t, err)
	_, err = actions.Inventory.MoveAssembly(ctx, technician, board.ID, fresh.Version,
		inventory.Move{To: "place", Place: "Seed loft"})
	require.NoError(t, err)

	now, err := actions.Condition.Condition(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Len(t, now.Findings, 1)
	require.False(t, now.Findings[0].Story.Open, "it went with its board")
	lying, err := actions.Condition.BoardCondition(ctx, viewer, board.ID)
	require.NoError(t, err)
	require.Equal(t, []any{condition.Grade("hazard"), 2}, []any{lying.Technical, len(lying.Findings)})
	all, err := actions.Condition.Risks(ctx, viewer, 0, 0, 10)
	require.NoError(t, err)
	require.Equal(t, appcondition.MachineName{Name: "Main board", Place: "Seed loft"}, all.Risks[0].Machine)
	plan, err := actions.Condition.PlanOpenings(ctx, viewer, 60)
	require.NoError(t, err)
	require.Equal(t, "Main board", plan.Openings[0].Machine.Name)

	lying, err = actions.Condition.NoteBoardFinding(ctx, technician, board.ID, appcondition.NotedFinding{
		ObservedFinding: appcondition.ObservedFinding{FindingID: lying.Findings[0].ID, Severity: condition.Hazard,
			Gone: true}})
	require.NoError(t, err)
	_, err = actions.Condition.NoteBoardFinding(ctx, technician, board.ID,
		appcondition.NotedFinding{Subsystem: "boards",
			ObservedFinding: appcondition.ObservedFinding{Severity: condition.Watch,
				New: &appcondition.FindingInput{Kind: "bowed"}}})
	require.NoError(t, err)
	var invalid *action.Invalid
	_, err = actions.Condition.NoteFinding(ctx, technician, machine.ID, appcondition.NotedFinding{
		ObservedFinding: appcondition.ObservedFinding{FindingID: lying.Findings[0].ID, Severity: condition.Hazard}})
	require.ErrorAs(t, err, &invalid)
	require.Contains(t, invalid.Error(), "Seed loft")

	told, err := actions.History.AssemblyHistory(ctx, viewer, board.ID, 0, 10)
	require.NoError(t, err)
	require.Contains(t, told.Events[0].What, "found bowed", "its history tells of it, too")

	other, err := actions.Inventory.CreateMachine(ctx, curator,
		inventory.MachineInput{Accession: "EH-2", Name: "Other"})
	require.NoError(t, err)
	fresh, err = actions.Inventory.Assembly(ctx, technician, board.ID)
	require.NoError(t, err)
	_, err = actions.Inventory.MoveAssembly(ctx, technician, board.ID, fresh.Version,
		inventory.Move{To: "machine", MachineID: other.ID})
	require.NoError(t, err)
	now, err = actions.Condition.Condition(ctx, viewer, other.ID)
	require.NoError(t, err)
	require.Len(t, now.Findings, 3)
	require.Equal(t, condition.Grade("repair"), now.Technical, now.TechnicalWhy)
	all, err = actions.Condition.Risks(ctx, viewer, 0, 0, 10)
	require.NoError(t, err)
	require.Equal(t, other.ID, all.Risks[0].Machine.ID)
}

// A collection ranks what no table foresees: a class that it adds takes in parts of all machines, and a type says of which
// class it is.
func TestACollectionAndItsTypesSayWhatAges(t *testing.T) {
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{EraFrom: year(1985), EraTo: year(1988)},
		"== Main board\nU1 12887 8910\nU2 HX555 8712\nF1 air filter, 80 mm\nU3 12885 8901")
	classes := func() map[string]string {
		risks, err := actions.Condition.Risks(ctx, viewer, machine.ID, 0, 20)
		require.NoError(t, err)
		found := map[string]string{}
		for _, r := range risks.Risks {
			found[r.Place] = r.Class
		}
		return found
	}
	require.Equal(t, map[string]string{"U1": "clock-module"}, classes())
	_, err := actions.Library.NameType(ctx, curator, library.OwnTypeInput{Number: "HX555", Class: "own",
		Function: "hybrid with a cell", Ageing: "clock-module"})
	require.NoError(t, err)
	require.Equal(t, map[string]string{"U1": "clock-module", "U2": "clock-module"}, classes())

	filter := risk.Class{Name: "Air filter", Consequence: risk.Stops, Minutes: 5, Happens: "clogs",
		Intervals: []risk.Interval{{FromYears: 0, Months: 6}}, Source: "own practice"}
	var invalid *action.Invalid
	_, err = actions.Condition.ChangeMaintenanceClass(ctx, curator, 0, filter)
	require.ErrorAs(t, err, &invalid, "nothing tells its parts")
	filter.Words = "air filter"
	all, err := actions.Condition.ChangeMaintenanceClass(ctx, curator, 0, filter)
	require.NoError(t, err)
	require.Equal(t, "air-filter", all[len(all)-1].Key)
	require.NoError(t, actions.Condition.RenewAgeing(ctx)) // as the job does that the change leaves behind
	require.Equal(t, "air-filter", classes()["F1"])
	filter.Key, filter.Words = "air-filter", "dust mat"
	_, err = actions.Condition.ChangeMaintenanceClass(ctx, curator, 1, filter)
	require.NoError(t, err)
	require.NoError(t, actions.Condition.RenewAgeing(ctx))
	require.NotContains(t, classes(), "F1")
}
