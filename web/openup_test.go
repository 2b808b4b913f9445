package web_test

import (
	"encoding/csv"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/teardown"
	"frugalheron/demo"
)

type fieldsOf = map[string]any

// A log over the API: who may write it, where a wrong line is told, what a stale step meets, and how the map
// leaves as a list and as a drawing.
func TestALogOverTheAPI(t *testing.T) {
	s := newSite(t)
	technician, viewer := s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[2])
	machine := s.path("/api/machines/{machine}")
	status, _ := viewer.send("POST", machine+"/teardowns", fieldsOf{"purpose": "to look"})
	require.Equal(t, 403, status)
	status, body := technician.send("POST", machine+"/teardowns", fieldsOf{"purpose": " "})
	require.Equal(t, 422, status)
	require.Contains(t, body, "body.purpose")
	status, body = technician.send("POST", machine+"/teardowns", fieldsOf{"purpose": "to look", "rows": 13})
	require.Equal(t, 422, status, body)
	status, body = technician.send("POST", machine+"/teardowns", fieldsOf{"purpose": "to look"})
	require.Equal(t, 201, status, body)
	log := decoded[teardown.TeardownView](t, body)
	require.Equal(t, []int{4, 6}, []int{log.Rows, log.Columns}, "a tray of the usual size")
	at := fmt.Sprintf("/api/teardowns/%d", log.ID)

	for line, want := range map[string]string{
		"":                              "ay what comes off",
		"Lid | four screws":             "is not understood",
		"Lid | 4x M3x8 @Z1":             "is no place",
		"Lid | 4x M3x8 @F1":             "the tray has no cell",
		"Lid | unplug J1, j1":           "is named twice",
		"Lid | 4x M3x8 @A1 | note: \a!": "control character",
	} {
		status, body = technician.send("POST", at+"/steps", fieldsOf{"line": line})
		require.Equal(t, 422, status, line)
		require.Contains(t, body, "body.line", line)
		require.Contains(t, body, want, line)
	}
	status, body = technician.send("POST", at+"/steps", fieldsOf{"line": "Lid | 4x M3x8 @A1 | unplug J1"})
	require.Equal(t, 201, status, body)
	step := decoded[teardown.TeardownView](t, body).Steps[0]
	reversal := fmt.Sprintf("/api/teardown-steps/%d/reversal", step.ID)
	status, body = technician.send("POST", reversal,
		fieldsOf{"version": step.Version, "state": "skipped", "left": []any{}})
	require.Equal(t, 422, status)
	require.Contains(t, body, "ay why the step is skipped")
	status, body = technician.send("POST", reversal,
		fieldsOf{"version": step.Version, "state": "back", "left": []any{}, "plugged": []string{"J2"}})
	require.Equal(t, 422, status)
	require.Contains(t, body, "no connector of this step")
	status, body = technician.send("POST", reversal,
		fieldsOf{"version": step.Version, "state": "back", "left": []any{}})
	require.Equal(t, 200, status, body)
	status, body = technician.send("POST", reversal,
		fieldsOf{"version": step.Version, "state": "back", "left": []any{}})
	require.Equal(t, 409, status)
	require.Contains(t, body, `"newer":{"step":{`)
	status, body = technician.send("POST", at+"/end", nil)
	require.Equal(t, 422, status)
	require.Contains(t, body, "connector J1, unplugged in step 1, is open")

	status, body = technician.send("POST", machine+"/wiring",
		fieldsOf{"name": "J9", "fromBoard": "", "toBoard": `Board "<&>"`, "socketPins": 34, "never": "for tests",
			"kind": "=1+1"})
	require.Equal(t, 201, status, body)
	status, body = technician.send("POST", machine+"/wiring",
		fieldsOf{"name": "J8", "fromBoard": "Drive", "toBoard": "Board", "plugPins": 10, "socketPins": 10,
			"offset": 12})
	require.Equal(t, 422, status)
	require.Contains(t, body, "body.offset")
	status, body = viewer.send("GET", machine+"/wiring.csv", nil)
	require.Equal(t, 200, status)
	rows, err := csv.NewReader(strings.NewReader(body)).ReadAll()
	require.NoError(t, err)
	require.Equal(t, []string{"J1", "open"}, []string{rows[1][0], rows[1][15]})
	status, body = viewer.send("GET", machine+"/wiring.svg?board="+"Board+%22%3C%26%3E%22", nil)
	require.Equal(t, 200, status)
	require.Contains(t, body, "Board &#34;&lt;&amp;&gt;&#34;")
	for _, path := range []string{"/api/teardowns/99", "/api/machines/99/opened-up", "/api/machines/99/wiring.csv",
		"/api/procedures/99"} {
		status, _ = viewer.send("GET", path, nil)
		require.Equal(t, 404, status, path)
	}
}

// Surveys, measurements and the ranking over the API: what is refused, and how a viewer sees it.
func TestJudgingOverTheAPI(t *testing.T) {
	s := newSite(t)
	curator, technician, viewer := s.as(t, demo.Accounts[0]), s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[2])
	_, err := s.actions.Sheets.SaveSheet(t.Context(), action.Actor{Role: action.Technician}, s.board.ID, 1,
		"BT1 NiCd 3.6V")
	require.NoError(t, err)
	machine := s.path("/api/machines/{machine}")
	status, body := technician.send("POST", machine+"/surveys", fieldsOf{"on": "2999-01-01"})
	require.Equal(t, 422, status)
	require.Contains(t, body, "body.on")
	status, body = technician.send("POST", machine+"/surveys", fieldsOf{})
	require.Equal(t, 201, status, body)
	running := decoded[condition.Condition](t, body).Running
	survey := fmt.Sprintf("/api/surveys/%d", running.ID)
	status, _ = technician.send("PUT", survey+"/subsystems/engine",
		fieldsOf{"version": running.Version, "coverage": "inspected"})
	require.Equal(t, 404, status)
	leak := fieldsOf{"new": fieldsOf{"subsystem": "batteries", "kind": "leaking", "designator": "BT1",
		"region": fieldsOf{"x": 0, "y": 0, "w": 0.5, "h": 0.5}}, "severity": "hazard"}
	status, body = technician.send("PUT", survey+"/subsystems/batteries",
		fieldsOf{"version": running.Version, "coverage": "inspected", "observed": []any{leak}})
	require.Equal(t, 422, status)
	require.Contains(t, body, "ies on no picture")
	leak["new"] = fieldsOf{"subsystem": "batteries", "kind": "leaking", "designator": "BT1"}
	status, body = technician.send("PUT", survey+"/subsystems/batteries",
		fieldsOf{"version": running.Version, "coverage": "absent", "observed": []any{leak}})
	require.Equal(t, 422, status)
	require.Contains(t, body, "so it was inspected")
	status, body = technician.send("PUT", survey+"/subsystems/batteries",
		fieldsOf{"version": running.Version, "coverage": "inspected", "observed": []any{leak}})
	require.Equal(t, 200, status, body)
	status, body = technician.send("POST", survey+"/end", fieldsOf{"version": running.Version, "cosmetic": "worn"})
	require.Equal(t, 409, status)
	require.Contains(t, body, `"newer":{"survey":{`)
	status, body = technician.send("POST", survey+"/end",
		fieldsOf{"version": running.Version + 1, "cosmetic": "splendid"})
	require.Equal(t, 422, status)
	require.Contains(t, body, "body.cosmetic")
	status, _ = viewer.send("POST", survey+"/end", fieldsOf{"version": running.Version + 1})
	require.Equal(t, 403, status)
	status, body = technician.send("POST", survey+"/end", fieldsOf{"version": running.Version + 1, "cosmetic": "worn"})
	require.Equal(t, 200, status, body)
	_, body = viewer.send("GET", machine+"/condition", nil)
	found := decoded[condition.Condition](t, body)
	require.Equal(t, "hazard", string(found.Technical))
	require.Len(t, found.Severities, 4)

	status, body = technician.send("POST", machine+"/measurements", fieldsOf{"line": "BT1 lots"})
	require.Equal(t, 422, status)
	require.Contains(t, body, "body.line")
	status, body = technician.send("POST", machine+"/measurements",
		fieldsOf{"line": "bt1 2.1 V", "findingId": found.Findings[0].ID})
	require.Equal(t, 201, status, body)
	measured := decoded[condition.Measured](t, body)
	require.Equal(t, []string{"BT1", "fail", "V"},
		[]string{measured.Point, string(measured.Judged.Verdict), measured.Unit})
	status, body = technician.send("POST", fmt.Sprintf("/api/measurements/%d/readings", measured.ID),
		fieldsOf{"value": 2.2})
	require.Equal(t, 200, status, body)
	status, body = technician.send("POST",
		fmt.Sprintf("/api/measurements/%d/void?version=%d", measured.ID, measured.Version), nil)
	require.Equal(t, 409, status)
	require.Contains(t, body, `"newer":{"measurement":{`)
	status, body = technician.send("POST", fmt.Sprintf("/api/measurements/%d/take", measured.ID), nil)
	require.Equal(t, 422, status)
	require.Contains(t, body, "o meter is set up")

	_, body = viewer.send("GET", "/api/risks", nil)
	risks := decoded[condition.RiskPage](t, body)
	require.Equal(t, 1, risks.Total)
	require.Contains(t, risks.Risks[0].Why, "last looked at less than a month ago")
	status, _ = viewer.send("GET", "/api/openings?minutes=5", nil)
	require.Equal(t, 422, status)
	status, _ = technician.send("PUT", "/api/climates", fieldsOf{"place": "Loft", "climate": "hot"})
	require.Equal(t, 403, status)
	status, body = curator.send("PUT", "/api/climates", fieldsOf{"place": "Loft", "climate": "hot"})
	require.Equal(t, 422, status)
	require.Contains(t, body, "body.place")
	class := fieldsOf{"version": 0, "key": "foam", "name": "Foam", "consequence": "stops",
		"intervals": []any{fieldsOf{"fromYears": 3, "months": 4}}, "minutes": 5, "happens": "crumbles",
		"source": "seen"}
	status, body = curator.send("PUT", "/api/maintenance-classes", class)
	require.Equal(t, 422, status)
	require.Contains(t, body, "from 0 years on")
	class["intervals"] = []any{fieldsOf{"fromYears": 0, "months": 4}}
	status, body = curator.send("PUT", "/api/maintenance-classes", class)
	require.Equal(t, 200, status, body)
	status, body = curator.send("PUT", "/api/maintenance-classes", class)
	require.Equal(t, 409, status)
	require.Contains(t, body, `"newer":{"maintenanceClass":{`)
}

// All that was opened, judged and measured leaves with the record of a machine.
func TestTheWholeRecordLeaves(t *testing.T) {
	s := newSite(t)
	actor := action.Actor{Role: action.Technician}
	machineID := *s.board.MachineID
	log, err := s.actions.Teardown.StartTeardown(t.Context(), actor, machineID,
		teardown.StartedTeardown{Purpose: "to look", Rows: 2, Columns: 2})
	require.NoError(t, err)
	_, err = s.actions.Teardown.AddStep(t.Context(), actor, log.ID,
		teardown.StepInput{Line: "Lid | 4x M3x8 @A1 | unplug J77"})
	require.NoError(t, err)
	_, err = s.actions.Condition.NoteFinding(t.Context(), actor, machineID,
		condition.NotedFinding{Subsystem: "plastics",
			ObservedFinding: condition.ObservedFinding{New: &condition.FindingInput{Kind: "yellowed"},
				Severity: "cosmetic"}})
	require.NoError(t, err)
	_, err = s.actions.Condition.Measure(t.Context(), actor, machineID, condition.MeasurementInput{Line: "+5 4.93"})
	require.NoError(t, err)
	document, err := s.actions.Bench.ExportDossier(t.Context(), actor, machineID)
	require.NoError(t, err)
	for _, want := range []string{"Lid | 4x M3x8 @A1 | unplug J77", `"name": "J77"`, `"yellowed"`,
		`"inWords": "4.93 V"`,
		`"adjusters": []`} {
		require.Contains(t, string(document.Data), want)
	}
}
