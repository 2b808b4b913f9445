package web_test

import (
	"bytes"
	"fmt"
	"log/slog"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/upkeep"
	"frugalheron/demo"
)

// Upkeep over the API: who may write, where what is wrong is told, what a stale change meets, and the calendar that nobody
// has to sign in for.
func TestUpkeepOverTheAPI(t *testing.T) {
	s := newSite(t)
	curator, technician, viewer := s.as(t, demo.Accounts[0]), s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[2])
	for field, fields := range map[string]fieldsOf{
		"body.task":        {"task": " ", "everyMonths": 3, "of": "machine"},
		"body.everyMonths": {"task": "x", "everyMonths": -1, "of": "machine"},
		"body.of":          {"task": "x", "everyMonths": 3, "of": "tube"},
		"body.modelId":     {"task": "x", "everyMonths": 3, "of": "machine", "modelId": 999999},
	} {
		status, body := technician.send("POST", "/api/upkeep-rules", fields)
		require.Equal(t, 422, status, field)
		require.Contains(t, body, field)
	}
	wanted := fieldsOf{"task": "Look over", "everyMonths": 3, "of": "machine", "minutes": 5}
	status, _ := viewer.send("POST", "/api/upkeep-rules", wanted)
	require.Equal(t, 403, status)
	status, body := technician.send("POST", "/api/upkeep-rules", wanted)
	require.Equal(t, 201, status, body)
	rule := decoded[upkeep.Rule](t, body)
	at := fmt.Sprintf("/api/upkeep-rules/%d", rule.ID)
	changed := fieldsOf{"version": 1, "task": "Look over", "everyMonths": 4, "of": "machine"}
	status, body = technician.send("PUT", at, changed)
	require.Equal(t, 200, status, body)
	status, body = curator.send("PUT", at, changed)
	require.Equal(t, 409, status)
	require.Equal(t, 4, problemOf(t, body).Newer.Rule.EveryMonths)

	status, body = technician.send("POST", "/api/rounds", fieldsOf{"ruleId": rule.ID})
	require.Equal(t, 201, status, body)
	round := decoded[upkeep.Round](t, body)
	stop := fmt.Sprintf("/api/rounds/%d/stops/1", round.ID)
	status, _ = viewer.send("POST", stop, fieldsOf{"how": "did"})
	require.Equal(t, 403, status)
	status, body = technician.send("POST", stop, fieldsOf{"how": "not"})
	require.Equal(t, 422, status)
	require.Contains(t, body, "body.why")
	status, body = technician.send("POST", stop, fieldsOf{"how": "did"})
	require.Equal(t, 200, status, body)
	status, body = curator.send("POST", stop, fieldsOf{"how": "seen"})
	require.Equal(t, 409, status)
	require.Equal(t, "did", problemOf(t, body).Newer.Deed.How)
	for _, path := range []string{"/api/diary", "/api/rounds/due", "/api/rounds",
		s.path("/api/machines/{machine}/upkeep")} {
		status, body = viewer.send("GET", path, nil)
		require.Equal(t, 200, status, body)
	}
	for _, path := range []string{"/api/diary?from=soon", "/api/diary?weeks=4000"} {
		status, _ = viewer.send("GET", path, nil)
		require.Equal(t, 422, status, path)
	}

	// The address is read by whoever has it, is not logged, and leads nowhere once it was renewed.
	var logged bytes.Buffer
	before := slog.Default()
	slog.SetDefault(slog.New(slog.NewTextHandler(&logged, &slog.HandlerOptions{Level: slog.LevelDebug})))
	defer slog.SetDefault(before)
	status, body = viewer.send("POST", "/api/calendar-address", nil)
	require.Equal(t, 200, status, body)
	feed := decoded[upkeep.Feed](t, body)
	nobody := s.anybody(t)
	status, body = nobody.send("GET", feed.Path, nil)
	require.Equal(t, 200, status, body)
	require.True(t, strings.HasPrefix(body, "BEGIN:VCALENDAR\r\n"))
	require.NotContains(t, logged.String(), strings.Split(feed.Path, "/")[3])
	status, _ = viewer.send("POST", "/api/calendar-address", nil)
	require.Equal(t, 200, status)
	status, _ = nobody.send("GET", feed.Path, nil)
	require.Equal(t, 410, status)
}
