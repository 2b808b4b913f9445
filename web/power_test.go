package web_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/people"
	"frugalheron/app/power"
	"frugalheron/app/work"
	"frugalheron/demo"
)

// First power over the API: who may write, where what is wrong is told, what a stale change meets, and that a viewer reads
// no private name of who decided.
func TestFirstPowerOverTheAPI(t *testing.T) {
	s := newSite(t)
	curator, technician, viewer := s.as(t, demo.Accounts[0]), s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[2])
	machine := s.path("/api/machines/{machine}")
	for _, path := range []string{"/supplies", "/ladder", "/rungs", "/power-ups"} {
		status, _ := viewer.send("POST", machine+path, fieldsOf{"name": "x", "kind": "mains", "step": "x",
			"rungIds": []int{1}, "result": "not"})
		require.Contains(t, []int{403, 422}, status, path)
	}
	for field, fields := range map[string]fieldsOf{
		"body.name":          {"name": " ", "kind": "mains"},
		"body.kind":          {"name": "x", "kind": "coal"},
		"body.movedOn":       {"name": "x", "kind": "mains", "movedOn": "2999-01-01"},
		"body.platePolarity": {"name": "x", "kind": "adapter", "platePolarity": "left"},
	} {
		status, body := technician.send("POST", machine+"/supplies", fields)
		require.Equal(t, 422, status, field)
		require.Contains(t, body, field)
	}
	status, body := technician.send("POST", machine+"/supplies", fieldsOf{"name": "built in", "kind": "mains",
		"needs": []string{"+5"}, "rating": []fieldsOf{{"rail": "+5", "amperes": 10}}})
	require.Equal(t, 201, status, body)
	supply := decoded[power.Supply](t, body)
	at := fmt.Sprintf("/api/supplies/%d", supply.ID)
	change := fieldsOf{"version": 1, "name": "frame supply", "kind": "mains"}
	status, body = technician.send("PUT", at, change)
	require.Equal(t, 200, status, body)
	status, body = curator.send("PUT", at, change)
	require.Equal(t, 409, status)
	require.Equal(t, "frame supply", problemOf(t, body).Newer.Supply.Name)

	status, body = technician.send("POST", machine+"/ladder", nil)
	require.Equal(t, 201, status, body)
	rungs := decoded[power.Power](t, body).Rungs
	status, body = technician.send("PUT", fmt.Sprintf("/api/rungs/%d", rungs[0].ID), fieldsOf{"version": 1,
		"step": "bare board", "kind": "minimum", "sign": "a beep"})
	require.Equal(t, 200, status, body)
	status, body = technician.send("POST", machine+"/power-ups", fieldsOf{"rungIds": []int64{rungs[0].ID},
		"result": "not", "seen": "dark"})
	require.Equal(t, 422, status)
	require.Contains(t, body, "body.decidedBy")

	_, err := s.actions.People.AddParty(t.Context(), action.Actor{Role: action.Curator},
		people.PartyInput{Name: "Wendel Brook", Kind: "person",
			Private: true, Role: "a visitor"})
	require.NoError(t, err)
	status, body = technician.send("POST", machine+"/power-ups", fieldsOf{"rungIds": []int64{rungs[0].ID},
		"result": "not", "seen": "dark", "decidedBy": "Wendel Brook", "why": "to hear it"})
	require.Equal(t, 201, status, body)
	_, body = technician.send("GET", machine+"/power", nil)
	require.Contains(t, body, "Wendel Brook")
	for _, path := range []string{machine + "/power", machine + "/history"} {
		_, body = viewer.send("GET", path, nil)
		require.NotContains(t, body, "Wendel", path)
	}
	up := ask[power.Power](technician, "GET", machine+"/power", nil).Ups[0]
	status, body = technician.send("POST", fmt.Sprintf("/api/power-ups/%d/void?version=7", up.ID), nil)
	require.Equal(t, 409, status)
	require.Equal(t, "dark", problemOf(t, body).Newer.PowerUp.Seen)
	status, body = technician.send("POST", fmt.Sprintf("/api/power-ups/%d/void?version=1", up.ID), nil)
	require.Equal(t, 200, status, body)
	status, _ = technician.send("GET", "/api/machines/999999/power", nil)
	require.Equal(t, 404, status)
}

// Jobs over the API: what is wrong is told at its field, what is stale meets what the job is now, and what is ended is not
// ended twice.
func TestJobsOverTheAPI(t *testing.T) {
	s := newSite(t)
	technician, viewer := s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[2])
	machine := s.path("/api/machines/{machine}")
	status, _ := viewer.send("POST", machine+"/jobs", fieldsOf{"title": "clean"})
	require.Equal(t, 403, status)
	for field, fields := range map[string]fieldsOf{
		"body.title":     {"title": " "},
		"body.template":  {"title": "x", "template": "magic"},
		"body.temporary": {"title": "x", "temporary": "2026-13-01"},
		"body.needs":     {"title": "x", "needs": []string{"a\u0007"}},
	} {
		status, body := technician.send("POST", machine+"/jobs", fields)
		require.Equal(t, 422, status, field)
		require.Contains(t, body, field)
	}
	status, body := technician.send("POST", machine+"/jobs", fieldsOf{"title": "", "template": "fan"})
	require.Equal(t, 201, status, body)
	job := decoded[work.Job](t, body)
	require.Equal(t, "Clean or replace a fan", job.Title)
	at := fmt.Sprintf("/api/jobs/%d", job.ID)
	_, body = viewer.send("GET", "/api/jobs", nil)
	require.Len(t, decoded[[]work.Job](t, body), 1)

	status, body = technician.send("POST", at+"/work", fieldsOf{"version": 1, "state": "declined"})
	require.Equal(t, 422, status)
	require.Contains(t, body, "body.why")
	status, body = technician.send("POST", at+"/work", fieldsOf{"version": 1, "state": "in hand", "minutes": 10})
	require.Equal(t, 200, status, body)
	status, body = technician.send("POST", at+"/finish", fieldsOf{"version": 1})
	require.Equal(t, 409, status)
	require.Equal(t, 10, problemOf(t, body).Newer.Job.Minutes)
	status, body = technician.send("POST", at+"/finish", fieldsOf{"version": 2, "new": "fan 80 mm"})
	require.Equal(t, 422, status)
	require.Contains(t, body, "body.new")
	status, body = technician.send("POST", at+"/finish", fieldsOf{"version": 2, "minutes": 5})
	require.Equal(t, 200, status, body)
	done := decoded[work.Job](t, body)
	require.Equal(t, []any{true, 15}, []any{done.Unproven, done.Minutes})
	status, _ = technician.send("POST", at+"/finish", fieldsOf{"version": 3})
	require.Equal(t, 422, status)
	_, body = viewer.send("GET", machine+"/treatment", nil)
	require.Equal(t, "needs attention", string(decoded[work.Treatment](t, body).Stage.State))
	_, body = viewer.send("GET", "/api/jobs", nil)
	require.Empty(t, decoded[[]work.Job](t, body))
}
