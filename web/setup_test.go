package web_test

import (
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/people"
	"frugalheron/app/setup"
	"frugalheron/demo"
)

// How machines are set up over the API: who writes, where what is wrong is told, what a stale change meets, and that a secret
// is answered to who asks for it alone, once, and not kept for who sends the request again.
func TestSetupOverTheAPI(t *testing.T) {
	s := newSite(t)
	curator, technician, viewer := s.as(t, demo.Accounts[0]), s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[2])
	at := s.path("/api/machines/{machine}")
	fields := fieldsOf{"title": "As found", "cards": []fieldsOf{{"title": "Disk card", "settings": "JP2 1-2"}}}
	status, _ := viewer.send("POST", at+"/configurations", fields)
	require.Equal(t, 403, status)
	for field, broken := range map[string]fieldsOf{
		"body.title":             {"title": " "},
		"body.kind":              {"title": "x", "kind": "dreamt"},
		"body.cards[0].settings": {"title": "x", "cards": []fieldsOf{{"title": "y", "settings": "JP1"}}},
		"body.firmware":          {"title": "x", "firmware": "boot"},
		"body.files[0].text": {"title": "x", "files": []fieldsOf{{"name": "a", "text": strings.Repeat("x",
			60001)}}},
	} {
		status, body := technician.send("POST", at+"/configurations", broken)
		require.Equal(t, 422, status, field)
		require.Contains(t, body, field)
	}
	status, body := technician.send("POST", at+"/configurations", fields)
	require.Equal(t, 201, status, body)
	kept := decoded[setup.Configuration](t, body)
	one := fmt.Sprintf("/api/configurations/%d", kept.ID)
	fields["version"] = 1
	status, body = technician.send("PUT", one, fields)
	require.Equal(t, 200, status, body)
	status, body = curator.send("PUT", one, fields)
	require.Equal(t, 409, status, body)
	require.Contains(t, body, `"configuration":{`)
	status, body = viewer.send("GET", fmt.Sprintf("%s/configurations/difference?from=%d&to=0", at, kept.ID), nil)
	require.Equal(t, 200, status, body)
	require.Contains(t, body, "take out Disk card")
	status, body = viewer.send("GET", at+"/configurations/difference?from=999&to=0", nil)
	require.Equal(t, 422, status, body)
	status, body = technician.send("POST", one+"/void?version=2", nil)
	require.Equal(t, 200, status, body)

	status, body = technician.send("PUT", at+"/backplane", fieldsOf{"version": 0, "layout": "row A | 8-bit"})
	require.Equal(t, 422, status)
	require.Contains(t, body, "body.layout")
	status, body = technician.send("PUT", at+"/backplane", fieldsOf{"version": 0, "layout": "row A | 8-bit | 1 2"})
	require.Equal(t, 200, status, body)
	status, body = curator.send("PUT", at+"/backplane", fieldsOf{"version": 0, "layout": ""})
	require.Equal(t, 409, status)
	require.Contains(t, body, `"backplane":{"machineId"`)
	status, body = viewer.send("POST", at+"/slot-plan/read", fieldsOf{"moves": []fieldsOf{{"assemblyId": 9999,
		"slot": "1"}}})
	require.Equal(t, 422, status)
	require.Contains(t, body, "moves[0].assemblyId")
	status, body = viewer.send("GET", at+"/slot-plan", nil)
	require.Equal(t, 200, status, body)
	require.Len(t, decoded[setup.SlotPlan](t, body).Rows[0].Slots, 2)
	status, _ = viewer.send("POST", at+"/slot-plan/moved", fieldsOf{"moves": []fieldsOf{}})
	require.Equal(t, 403, status)

	status, body = technician.send("PUT", at+"/operating-card", fieldsOf{"version": 0, "panel": "deposit 9"})
	require.Equal(t, 422, status)
	require.Contains(t, body, "body.panel")
	status, body = technician.send("PUT", at+"/operating-card", fieldsOf{"version": 0, "start": "key",
		"panel": "deposit 7"})
	require.Equal(t, 200, status, body)
	status, body = curator.send("PUT", at+"/operating-card", fieldsOf{"version": 0})
	require.Equal(t, 409, status)
	require.Contains(t, body, `"operatingCard":{`)
	status, body = viewer.send("POST", "/api/panel/read", fieldsOf{"radix": "hex", "panel": "address ff"})
	require.Equal(t, 200, status, body)
	require.Contains(t, body, `"value":"00FF"`)

	status, body = curator.send("POST", at+"/credentials", fieldsOf{"what": "operator", "secret": "neap-tide"})
	require.Equal(t, 201, status, body)
	require.NotContains(t, body, "neap-tide")
	see := fmt.Sprintf("/api/credentials/%d/see", decoded[setup.Credential](t, body).ID)
	for _, who := range []*client{viewer, technician} {
		status, body = who.send("POST", see, nil)
		require.Equal(t, 403, status, body)
	}
	status, _ = viewer.send("GET", at+"/credentials", nil)
	require.Equal(t, 403, status)
	for range 2 {
		response := curator.do("POST", see, nil, http.Header{"Idempotency-Key": {"look"}})
		require.NoError(t, response.Body.Close())
	}
	var held int
	require.NoError(t, s.db.Get(&held,
		`SELECT count(*) FROM request_key WHERE position(convert_to('neap-tide', 'UTF8') IN body) > 0`))
	require.Zero(t, held, "nobody gets a secret again by the key of a request")
}

// Modules over the API: who writes the rules, what is refused where, and that viewers read nothing of the stores.
func TestModulesOverTheAPI(t *testing.T) {
	s := newSite(t)
	curator, technician, viewer := s.as(t, demo.Accounts[0]), s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[2])
	at := s.path("/api/machines/{machine}")
	rules := fieldsOf{"version": 0, "rules": "bank 0 | M1-M2\nsizes 1Mx9\nrule full"}
	status, _ := viewer.send("PUT", at+"/memory-rules", rules)
	require.Equal(t, 403, status)
	for text, says := range map[string]string{"bank 0": "Line 1", "bank 0 | M1\nsizes big": "no size of a module",
		"chip": "begins with"} {
		status, body := technician.send("PUT", at+"/memory-rules", fieldsOf{"version": 0, "rules": text})
		require.Equal(t, 422, status, text)
		require.Contains(t, body, "body.rules")
		require.Contains(t, body, says)
	}
	status, body := technician.send("PUT", at+"/memory-rules", rules)
	require.Equal(t, 200, status, body)
	status, body = curator.send("PUT", at+"/memory-rules", rules)
	require.Equal(t, 409, status)
	require.Contains(t, body, `"memoryRules":{"machineId"`)
	status, body = technician.send("POST", "/api/stock", fieldsOf{"what": "SIMM 30-pin 1Mx9 80ns", "count": 2,
		"place": "Vault"})
	require.Equal(t, 201, status, body)
	status, body = technician.send("GET", at+"/population?want=2MB", nil)
	require.Equal(t, 200, status, body)
	told := decoded[setup.Population](t, body)
	require.Equal(t, 2, told.Stock)
	require.Equal(t, "2 MB", told.Plans[0].Amount)
	require.Empty(t, told.Plans[0].Buy)
	status, body = viewer.send("GET", at+"/population?want=max", nil)
	require.Equal(t, 200, status, body)
	require.Zero(t, decoded[setup.Population](t, body).Stock)
	status, body = viewer.send("GET", at+"/population?want=plenty", nil)
	require.Equal(t, 422, status, body)
	status, _ = viewer.send("GET", "/api/machines/9999/population", nil)
	require.Equal(t, 404, status)
	status, _ = s.anybody(t).send("GET", at+"/population", nil)
	require.Equal(t, 401, status)
}

// What is written of a setup names private persons to staff alone.
func TestASetupNamesNobodyToViewers(t *testing.T) {
	s := newSite(t)
	technician, viewer := s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[2])
	_, err := s.actions.People.AddParty(t.Context(), action.Actor{Role: action.Curator}, people.PartyInput{
		Name: "Perpetua Quill", Kind: "person", Private: true, Role: "a former owner"})
	require.NoError(t, err)
	at := s.path("/api/machines/{machine}")
	for method, changes := range map[string]map[string]fieldsOf{
		"POST": {"/configurations": {
			"title":    "As Perpetua Quill left it",
			"note":     "by Perpetua Quill",
			"media":    "drive A = Perpetua Quill",
			"firmware": "owner = Perpetua Quill", "files": []fieldsOf{{"name": "START",
				"text": "greet Perpetua Quill"}},
			"cards": []fieldsOf{{"title": "Card of Perpetua Quill", "settings": "JP1 Perpetua Quill"}}}},
		"PUT": {"/operating-card": {"version": 0, "start": "ask Perpetua Quill", "note": "Perpetua Quill",
			"panel": "note ask Perpetua Quill"},
			"/backplane": {"version": 0, "layout": "chassis Perpetua Quill\nrow A | x | 1 2",
				"note": "by Perpetua Quill"},
			"/memory-rules": {"version": 0, "rules": "bank 0 | M1", "note": "by Perpetua Quill"}},
	} {
		for path, fields := range changes {
			status, body := technician.send(method, at+path, fields)
			require.Contains(t, []int{200, 201}, status, body)
		}
	}
	for _, path := range []string{"/configurations", "/configurations/difference?from=0&to=0", "/operating-card",
		"/slot-plan",
		"/population"} {
		status, body := viewer.send("GET", at+path, nil)
		require.Equal(t, 200, status, path)
		require.NotContains(t, strings.ToLower(body), "perpetua", path)
		require.NotContains(t, strings.ToLower(body), "quill", path)
	}
	_, body := technician.send("GET", at+"/configurations", nil)
	require.Contains(t, body, "by Perpetua Quill")
	status, body := viewer.send("GET", at+"/history", nil)
	require.Equal(t, 200, status)
	require.NotContains(t, body, "Perpetua")
}
