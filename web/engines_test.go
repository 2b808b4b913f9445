package web_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/diagnosis"
	"frugalheron/demo"
)

// Questions that need no record: a viewer asks them, too; what is wrong is told by its place, and asking twice the same with
// one key is no repetition.
func TestEnginesOverTheAPI(t *testing.T) {
	s := newSite(t)
	viewer := s.as(t, demo.Accounts[2])
	for path, c := range map[string]struct {
		fields fieldsOf
		says   string
	}{
		"/api/slots/read": {fieldsOf{"slots": []fieldsOf{{"id": "1", "kind": "bus"}}, "cards": []fieldsOf{{"id": "a",
			"kinds": []string{"bus"}, "needs": []fieldsOf{{"resource": "io", "choices": []any{"300-31f"}}}}}},
			`"assignment":{"a":{"slot":"1","settings":{"io":"300-31f"}}}`},
		"/api/memfault/read": {fieldsOf{"banks": []fieldsOf{{"id": "low", "base": "0x0", "size": 16,
			"chips": fieldsOf{"2": "U42"}}, {"id": "high", "base": 16, "size": 16}},
			"failures": []fieldsOf{{"address": 3, "expected": "0xFF", "actual": "0xFB"}}}, `"designator":"U42"`},
		"/api/trials/read": {fieldsOf{"factors": []any{"cable"}, "trials": []fieldsOf{{"on": []string{},
			"result": "fail"}, {"on": []string{"cable"}, "result": "ok"}}}, `"settled":true`},
		"/api/population/read": {fieldsOf{"banks": []fieldsOf{{"id": "A", "sockets": []string{"M1"}}},
			"sizes": []string{"1Mx9"}, "want": "max"}, `"buy":[{"size":"1Mx9","count":1}]`},
		"/api/sums/clock/read":    {fieldsOf{"crystal": "12 MHz", "divider": 3, "rating": "4 MHz"}, `"hz":4000000`},
		"/api/sums/disk/read":     {fieldsOf{"cylinders": 10, "heads": 1, "sectors": 17}, `"shownBytes":87040`},
		"/api/sums/resistor/read": {fieldsOf{"from": "5 V", "to": "1 V", "load": "75 ohm"}, `"ohms":300`},
		"/api/sums/mains/read":    {fieldsOf{"rating": "230 V", "local": "230 V 50 Hz", "load": "60 VA"}, `"va":75`},
		"/api/sums/rails/read":    {fieldsOf{"rating": "+5 2", "draw": "+5 1"}, `"headroom":1`},
	} {
		status, body := viewer.send("POST", path, c.fields)
		require.Equal(t, 200, status, "%s %s", path, body)
		require.Contains(t, body, c.says, path)
	}
	for path, c := range map[string]struct {
		fields fieldsOf
		says   string
	}{
		"/api/slots/read":      {fieldsOf{"cards": []fieldsOf{{"id": "a", "at": "9"}}}, "cards[0].at"},
		"/api/memfault/read":   {fieldsOf{"banks": []fieldsOf{{"id": "a", "base": "x", "size": 1}}}, "body"},
		"/api/trials/read":     {fieldsOf{"factors": []any{"a", "a"}}, "factors[1]"},
		"/api/population/read": {fieldsOf{"sizes": []string{"huge"}}, "sizes[0]"},
		"/api/sums/clock/read": {fieldsOf{"crystal": "12 MHz", "divider": 0}, "divider"},
	} {
		status, body := viewer.send("POST", path, c.fields)
		require.Equal(t, 422, status, "%s %s", path, body)
		require.Contains(t, body, c.says, path)
	}
}

// Symptoms over the API: staff writes them, everybody reads what they leave, what is wrong is told where, and a stale change
// meets what is there.
func TestDiagnosesOverTheAPI(t *testing.T) {
	s := newSite(t)
	curator, technician, viewer := s.as(t, demo.Accounts[0]), s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[2])
	at := s.path("/api/machines/{machine}/diagnoses")
	status, _ := viewer.send("POST", at, fieldsOf{"symptom": "no picture"})
	require.Equal(t, 403, status)
	trial := func(failed int, on ...string) fieldsOf {
		return fieldsOf{"on": append([]string{}, on...), "runs": 2, "failed": failed}
	}
	for field, fields := range map[string]fieldsOf{
		"body.symptom":          {"symptom": " "},
		"body.state":            {"symptom": "x", "state": "perhaps"},
		"body.cause":            {"symptom": "x", "state": "found"},
		"body.trials[0].on[0]":  {"symptom": "x", "trials": []fieldsOf{trial(0, "ghost")}},
		"body.trials[0].failed": {"symptom": "x", "trials": []fieldsOf{trial(3)}},
		"body.factors[0].kind":  {"symptom": "x", "factors": []fieldsOf{{"name": "a", "kind": "magic"}}},
	} {
		status, body := technician.send("POST", at, fields)
		require.Equal(t, 422, status, field)
		require.Contains(t, body, field)
	}
	fields := fieldsOf{"symptom": "no picture", "factors": []fieldsOf{{"name": "cable"}, {"name": "disk out"}},
		"trials": []fieldsOf{trial(2), trial(0, "cable", "disk out")}}
	status, body := technician.send("POST", at, fields)
	require.Equal(t, 201, status, body)
	begun := decoded[diagnosis.Diagnosis](t, body)
	require.Equal(t, 1.0, begun.Factors[0].Effort, "where nobody said")
	require.Len(t, begun.Judged.Explanations, 3)

	one := fmt.Sprintf("/api/diagnoses/%d", begun.ID)
	fields["version"], fields["trials"] = 1, append(fields["trials"].([]fieldsOf), trial(2, "disk out"), trial(0,
		"cable"))
	status, body = technician.send("PUT", one, fields)
	require.Equal(t, 200, status, body)
	require.True(t, decoded[diagnosis.Diagnosis](t, body).Judged.Settled)
	status, body = curator.send("PUT", one, fields)
	require.Equal(t, 409, status, body)
	require.Contains(t, body, `"diagnosis":{`)
	status, body = viewer.send("GET", at, nil)
	require.Equal(t, 200, status, body)
	require.Contains(t, body, `"settled":true`)
	status, body = technician.send("POST", one+"/void?version=2", nil)
	require.Equal(t, 200, status, body)
}

// What is asked without a record is asked by people of the house alone.
func TestEnginesAskWhoIsThere(t *testing.T) {
	s := newSite(t)
	nobody := s.anybody(t)
	for _, path := range []string{"/api/slots/read", "/api/memfault/read", "/api/trials/read", "/api/population/read",
		"/api/sums/clock/read", "/api/sums/rails/read"} {
		status, _ := nobody.send("POST", path, fieldsOf{})
		require.Equal(t, 401, status, path)
	}
}

// The layout of memory over the API: staff writes it, everybody reads to which chip a test leads, its text and that of the
// console hide nobody's name from staff alone, and a stale change meets what is there.
func TestMemoryOverTheAPI(t *testing.T) {
	s := newSite(t)
	curator, technician, viewer := s.as(t, demo.Accounts[0]), s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[2])
	at := s.path("/api/machines/{machine}/memory")
	layout := fieldsOf{"version": 0, "layout": "low 0-FFFF U40-U47\nhigh 10000-1FFFF U50-U57"}
	status, _ := viewer.send("PUT", at+"-layout", layout)
	require.Equal(t, 403, status)
	for field, fields := range map[string]fieldsOf{
		"body.layout":    {"version": 0, "layout": "low"},
		"body.syndromes": {"version": 0, "layout": "", "syndromes": "3"},
		"body.version":   {"version": -1, "layout": ""},
	} {
		status, body := technician.send("PUT", at+"-layout", fields)
		require.Equal(t, 422, status, field)
		require.Contains(t, body, field)
	}
	status, body := technician.send("PUT", at+"-layout", layout)
	require.Equal(t, 200, status, body)
	require.Equal(t, 1, decoded[diagnosis.MemoryLayout](t, body).Version)
	status, body = curator.send("PUT", at+"-layout", layout)
	require.Equal(t, 409, status, body)
	require.Contains(t, body, `"layout":{"machineId"`)
	status, body = technician.send("POST", s.path("/api/machines/{machine}/console/texts"),
		fieldsOf{"text": "MEMORY TEST\nADDR 10A01 EXP FF ACT 7F\n"})
	require.Equal(t, 201, status, body)
	status, body = viewer.send("GET", at, nil)
	require.Equal(t, 200, status, body)
	told := decoded[diagnosis.MachineMemory](t, body)
	require.Equal(t, "U57", told.Tests[0].Suspects[0].Designator)
	require.Empty(t, told.Offered, "it has one of its own")
}
