package web_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/parts"
	"frugalheron/app/work"
	"frugalheron/demo"
)

// The stores over the API: who may read and write, where what is wrong is told, and what a stale change meets.
func TestStoresOverTheAPI(t *testing.T) {
	s := newSite(t)
	curator, technician, viewer := s.as(t, demo.Accounts[0]), s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[2])
	for _, path := range []string{"/api/stock", "/api/orders", "/api/needs", "/api/needs/donors?need=27128"} {
		status, _ := viewer.send("GET", path, nil)
		require.Equal(t, 403, status, path)
		status, body := technician.send("GET", path, nil)
		require.Equal(t, 200, status, body)
	}
	for field, fields := range map[string]fieldsOf{
		"body.what":      {"what": " ", "count": 1},
		"body.count":     {"what": "x", "count": -1},
		"body.condition": {"what": "x", "count": 1, "condition": "shiny"},
		"body.backBy":    {"what": "x", "count": 1, "backBy": "soon"},
	} {
		status, body := technician.send("POST", "/api/stock", fields)
		require.Equal(t, 422, status, field)
		require.Contains(t, body, field)
	}
	for field, fields := range map[string]fieldsOf{
		"body.supplier": {"supplier": "", "lines": []fieldsOf{{"what": "x", "count": 1}}},
		"body.lines":    {"supplier": "x", "lines": []fieldsOf{{"what": " ", "count": 1}}},
		"body.dueOn":    {"supplier": "x", "dueOn": "2001-01-01", "lines": []fieldsOf{{"what": "x", "count": 1}}},
	} {
		status, body := technician.send("POST", "/api/orders", fields)
		require.Equal(t, 422, status, field)
		require.Contains(t, body, field)
	}
	status, body := technician.send("POST", "/api/stock", fieldsOf{"what": "27128-25", "count": 2, "place": "Loft"})
	require.Equal(t, 201, status, body)
	drawer := decoded[parts.Stock](t, body)
	at := fmt.Sprintf("/api/stock/%d", drawer.ID)
	change := fieldsOf{"version": 1, "what": "27128-25", "count": 3}
	status, body = technician.send("PUT", at, change)
	require.Equal(t, 200, status, body)
	status, body = curator.send("PUT", at, change)
	require.Equal(t, 409, status)
	require.Equal(t, 3, problemOf(t, body).Newer.Stock.Count)

	status, body = technician.send("POST", s.path("/api/machines/{machine}/jobs"), fieldsOf{"title": "A copy",
		"needs": []string{"27128"}})
	require.Equal(t, 201, status, body)
	job := decoded[work.Job](t, body)
	aside := fmt.Sprintf("/api/jobs/%d/set-asides", job.ID)
	status, _ = viewer.send("POST", aside, fieldsOf{"need": "27128", "stockId": drawer.ID, "count": 1})
	require.Equal(t, 403, status)
	status, body = technician.send("POST", aside, fieldsOf{"need": "27128", "stockId": drawer.ID, "count": 1})
	require.Equal(t, 201, status, body)
	require.Equal(t, "waiting for hands", string(decoded[work.Job](t, body).State))
	_, body = technician.send("GET", "/api/stock?search=27128", nil)
	require.Equal(t, 2, decoded[parts.StockPage](t, body).Parts[0].Free)
	status, body = technician.send("POST", at+"/void?version=2", nil)
	require.Equal(t, 422, status, body)
	_, body = viewer.send("GET", s.path("/api/machines/{machine}/history"), nil)
	require.Contains(t, body, "aside for the job A copy")
	_, body = viewer.send("GET", "/api/history", nil)
	require.NotContains(t, body, "into the stores", "what lies there is for staff")
}
