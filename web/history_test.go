package web_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/history"
	"frugalheron/app/sheets"
	"frugalheron/demo"
)

func TestHistoryByHTTP(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[1])
	for n := 1; n <= 4; n++ {
		ask[sheets.Revision](c, "PUT", "/api/assemblies/{board}/sheet",
			map[string]any{"base": n, "body": fmt.Sprintf("U1 74LS00 8501\nU2 74LS0%d", n)})
	}
	seen, before := []string{}, int64(0)
	for {
		page := ask[history.EventPage](c, "GET",
			fmt.Sprintf("/api/machines/{machine}/history?limit=2&before=%d", before), nil)
		for _, e := range page.Events {
			seen = append(seen, e.What)
			require.Equal(t, "EH-0142", e.Accession)
		}
		if before = page.Next; before == 0 {
			break
		}
	}
	require.Equal(t, []string{
		"saved the sheet of Main board, revision 5", "saved the sheet of Main board, revision 4",
		"saved the sheet of Main board, revision 3",
		"saved the sheet of Main board, revision 2", "saved the sheet of Main board, revision 1", "added Main board",
		"entered Meridian 2",
	}, seen)
	all := ask[history.EventPage](c, "GET", "/api/history?limit=200", nil)
	require.Len(t, all.Events, 7+1, "of accounts one reads of one's own")
	require.Equal(t, demo.Accounts[1].Name, all.Events[0].By)

	d := ask[sheets.Difference](c, "GET", "/api/assemblies/{board}/difference?from=2&to=5", nil)
	require.Len(t, d.Lines, 3)
	require.Equal(t, demo.Accounts[1].Name, d.To.By)
	for path, status := range map[string]int{
		"/api/assemblies/{board}/difference?from=1&to=9": 404, "/api/assemblies/{board}/difference?from=1": 422,
		"/api/assemblies/{board}/difference?from=-1&to=2": 422, "/api/machines/999/history": 404,
		"/api/history?limit=0": 422,
	} {
		got, body := c.send("GET", s.path(path), nil)
		require.Equal(t, status, got, path)
		problemOf(t, body)
	}
}

// Nothing of the history can be changed by whoever signs in: it has no operation that writes.
func TestHistoryHasNoOperationThatWrites(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[0])
	for _, method := range []string{"POST", "PUT", "PATCH", "DELETE"} {
		for _, path := range []string{"/api/history", "/api/machines/{machine}/history",
			"/api/assemblies/{board}/revisions"} {
			status, _ := c.send(method, s.path(path), map[string]string{})
			require.Contains(t, []int{404, 405}, status, "%s %s", method, path)
		}
	}
}
