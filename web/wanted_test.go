package web_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/wanted"
	"frugalheron/demo"
)

// What is wanted and offered over the API: it is for staff, a lot of it is the curator's, what is wrong is told where, and a
// stale change meets what is there.
func TestWantedOverTheAPI(t *testing.T) {
	s := newSite(t)
	curator, technician, viewer := s.as(t, demo.Accounts[0]), s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[2])
	for _, path := range []string{"/api/wants", "/api/offers"} {
		status, _ := viewer.send("GET", path, nil)
		require.Equal(t, 403, status, path)
		status, body := technician.send("GET", path, nil)
		require.Equal(t, 200, status, body)
		require.Equal(t, "[]", body[:2])
	}
	for field, fields := range map[string]fieldsOf{
		"body.what":      {"what": " "},
		"body.kind":      {"what": "x", "kind": "ghost"},
		"body.since":     {"what": "x", "since": "2999-01-01"},
		"body.mostCents": {"what": "x", "mostCents": -1},
	} {
		status, body := technician.send("POST", "/api/wants", fields)
		require.Equal(t, 422, status, field)
		require.Contains(t, body, field)
	}
	for field, fields := range map[string]fieldsOf{
		"body.title":  {"title": ""},
		"body.endsOn": {"title": "x", "endsOn": "soon"},
		"body.state":  {"title": "x", "state": "bought"},
	} {
		status, body := technician.send("POST", "/api/offers", fields)
		require.Equal(t, 422, status, field)
		require.Contains(t, body, field)
	}
	status, body := technician.send("POST", "/api/wants", fieldsOf{"what": "Service handbook", "kind": "manual"})
	require.Equal(t, 201, status, body)
	want := decoded[wanted.Want](t, body)
	status, body = technician.send("POST", "/api/offers/read", fieldsOf{"title": "a service handbook"})
	require.Equal(t, 200, status, body)
	require.Equal(t, want.ID, decoded[wanted.Weighed](t, body).Hits[0].WantID)
	status, body = technician.send("POST", "/api/offers", fieldsOf{"title": "a service handbook"})
	require.Equal(t, 201, status, body)
	offer := decoded[wanted.Offer](t, body)

	for at, fields := range map[string]fieldsOf{fmt.Sprintf("/api/wants/%d", want.ID): {"what": "Handbook"},
		fmt.Sprintf("/api/offers/%d", offer.ID): {"title": "Handbook"}} {
		fields["version"] = 1
		status, body = technician.send("PUT", at, fields)
		require.Equal(t, 200, status, body)
		status, body = curator.send("PUT", at, fields)
		require.Equal(t, 409, status, body)
		require.Contains(t, body, "Handbook")
	}
	lot := fmt.Sprintf("/api/offers/%d/lot", offer.ID)
	status, _ = technician.send("POST", lot, fieldsOf{"version": 2})
	require.Equal(t, 403, status)
	status, body = curator.send("POST", lot, fieldsOf{"version": 2, "found": []int64{want.ID}, "arrived": "2999-01-01"})
	require.Equal(t, 422, status, "what is not here yet is no lot: %s", body)
	status, body = curator.send("POST", lot, fieldsOf{"version": 2, "found": []int64{want.ID}})
	require.Equal(t, 200, status, body)
	require.NotNil(t, decoded[wanted.Offer](t, body).LotID)
	_, body = technician.send("GET", "/api/wants", nil)
	require.Equal(t, "found", decoded[[]wanted.Want](t, body)[0].State)
	_, body = viewer.send("GET", "/api/history", nil)
	require.NotContains(t, body, "wants Service handbook", "what is wanted is for staff in the history, too")
	require.NotContains(t, body, "the offer")
}
