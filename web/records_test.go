package web_test

import (
	"encoding/json"
	"fmt"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/bench"
	"frugalheron/app/inventory"
	"frugalheron/core/sheet"
	"frugalheron/demo"
	"frugalheron/web"
)

// newProcess serves the same database once more, as a second process would.
func newProcess(t *testing.T, s *site) *site {
	server := httptest.NewServer(web.New(s.db, app.New(s.db), web.Config{}))
	t.Cleanup(server.Close)
	return &site{Server: server}
}

func TestStaleSaveAnswersWithTheNewerRevision(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[1])
	save := func(base int, body string) (int, string) {
		return c.send("PUT", s.path("/api/assemblies/{board}/sheet"), map[string]any{"base": base, "body": body})
	}
	status, body := save(1, "U1 74LS00 8501\nU2 74LS04")
	require.Equal(t, 200, status, body)
	status, body = save(1, "U1 other")
	require.Equal(t, 409, status)
	p := problemOf(t, body)
	require.Equal(t, 2, p.Newer.Sheet.N)
	require.Equal(t, "U1 74LS00 8501\nU2 74LS04", p.Newer.Sheet.Body)
	require.Equal(t, demo.Accounts[1].Name, p.Newer.Sheet.By)
}

func TestLimitsAreNamedAndNothingIsEchoed(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[0])
	machine := func(name string) map[string]string { return map[string]string{"accession": "EH-7", "name": name} }
	sheetOf := func(body string) map[string]any { return map[string]any{"base": 1, "body": body} }
	tests := []struct {
		rule, method, path string
		body               any
		status             int
		location, says     string
	}{
		{"name of 10,000 characters", "POST", "/api/machines", machine(strings.Repeat("n", 10_000)), 422, "body.name",
			"200"},
		{"control character", "POST", "/api/machines", machine("bell\x07"), 422, "body.name",
			"A control character (code 7)"},
		{"zero byte", "POST", "/api/machines", machine("a\x00b"), 422, "body.name", "A zero byte"},
		{"sheet over 1 MiB", "PUT", "/api/assemblies/{board}/sheet", sheetOf(strings.Repeat("é", sheet.MaxBytes/2+1)),
			422, "body.body", "1 MiB"},
		{"binary sheet", "POST", "/api/reckon", map[string]string{"text": "U1\x00"}, 422, "body.text", "binary file"},
		{"missing field", "POST", "/api/reckon", map[string]string{}, 422, "body", "text"},
		{"unknown field", "POST", "/api/machines", map[string]string{"accession": "EH-7", "name": "x", "owner": "y"},
			422, "body.owner", "unexpected"},
		{"password too long", "POST", "/api/session",
			map[string]string{"login": "x", "password": strings.Repeat("secret!", 40)}, 422, "body.password", "200"},
		{"row that is no line", "POST", "/api/sheet-line", sheet.Record{Parts: "U9-U1"}, 422, "body.parts",
			"counts down"},
		{"page of 0", "GET", "/api/machines?limit=0", nil, 422, "query.limit", "1"},
	}
	for _, test := range tests {
		t.Run(test.rule, func(t *testing.T) {
			status, body := c.send(test.method, s.path(test.path), test.body)
			require.Equal(t, test.status, status, body)
			p := problemOf(t, body)
			require.Len(t, p.Errors, 1, body)
			require.Equal(t, test.location, p.Errors[0].Location)
			require.Contains(t, p.Errors[0].Message, test.says)
			require.NotContains(t, body, "secret!")
			require.Less(t, len(body), 1000)
		})
	}
	response := c.do("POST", "/api/reckon", map[string]string{"text": strings.Repeat("x", 7<<20)}, nil)
	response.Body.Close()
	require.Equal(t, 413, response.StatusCode)
	require.Equal(t, "application/problem+json", response.Header.Get("Content-Type"))
}

func TestMarkupAndStatementsAreText(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[0])
	text := `'); DROP TABLE machine; -- <script>alert(1)</script> %_\ "é😀`
	status, body := c.send("POST", "/api/machines",
		inventory.MachineInput{Accession: "EH-' OR 1=1", Name: text, Place: text, Provenance: "two\nlines"})
	require.Equal(t, 201, status, body)
	var created inventory.Machine
	require.NoError(t, json.Unmarshal([]byte(body), &created))
	require.Equal(t, text, created.Name)
	status, body = c.send("PUT", s.path("/api/assemblies/{board}/sheet"), map[string]any{"base": 1, "body": text})
	require.Equal(t, 200, status, body)
	status, body = c.send("GET", "/api/machines?search=%3Cscript%3E", nil)
	require.Equal(t, 200, status)
	require.Contains(t, body, `"total":1`)
}

func TestReckonSaysTheStateOfEachLine(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[2])
	status, body := c.send("POST", "/api/reckon",
		map[string]any{"text": "== Main | for:picture\nU1 4164-15 533\nU2 ?\nU1 7400\nC5 0.1uF\nfree text",
			"eraFrom": 1984, "eraTo": 1988})
	require.Equal(t, 200, status, body)
	var answer bench.Reckoned
	require.NoError(t, json.Unmarshal([]byte(body), &answer))
	states := ""
	for _, line := range answer.Lines {
		states += fmt.Sprintf("%d %s, ", line.Line, line.State)
	}
	require.Equal(t, "2 recognised, 3 unknown, 4 problem, 5 part, 6 text, ", states)
	require.Equal(t, int64(8192), answer.Totals.RAMBy.Picture)
	require.Equal(t, "1985-W33", answer.Assemblies[0].Entries[0].Date.Text)
	require.NotContains(t, body, "null,\"entries\"")
}

func TestUnexpectedErrorsAreBare(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[0])
	_, err := s.db.Exec(`ALTER TABLE machine RENAME TO hidden`)
	require.NoError(t, err)
	status, body := c.send("GET", "/api/machines", nil)
	require.Equal(t, 500, status)
	require.NotContains(t, body, "relation")
	require.Contains(t, problemOf(t, body).Detail, "nothing was changed")
}

func TestDocumentIsOpenAPI31WithNullWhereRecordsMayBeMissing(t *testing.T) {
	document, err := json.Marshal(web.Describe())
	require.NoError(t, err)
	require.Contains(t, string(document), `"openapi":"3.1.0"`)
	var decoded struct {
		Components struct {
			Schemas map[string]struct {
				Properties map[string]struct{ OneOf []map[string]string }
			}
		}
	}
	require.NoError(t, json.Unmarshal(document, &decoded))
	require.Len(t, decoded.Components.Schemas["ReckonedEntry"].Properties["type"].OneOf, 2)
}
