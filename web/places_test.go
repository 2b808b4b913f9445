package web_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/demo"
)

// A place is renamed over HTTP: by a curator, with each wrong name told at its field, and taken back by its event.
func TestPlacesAreRenamed(t *testing.T) {
	s := newSite(t)
	curator, technician := s.as(t, demo.Accounts[0]), s.as(t, demo.Accounts[1])
	for accession, place := range map[string]string{"EH-1": "Loft", "EH-2": "Loft, shelf 3", "EH-3": "Mill"} {
		status, body := curator.send("POST", "/api/machines", map[string]any{"accession": accession, "name": "Lantern",
			"place": place})
		require.Equal(t, 201, status, body)
	}
	rename := func(c *client, from, to string) (int, string) {
		return c.send("PUT", "/api/places/name", map[string]string{"from": from, "to": to})
	}
	status, _ := rename(technician, "Loft", "Attic")
	require.Equal(t, 403, status)
	for names, field := range map[[2]string]string{
		{"Loft", "Mill"}: "body.to", {"Shed", "Barn"}: "body.from", {"Loft", "Loft"}: "body.to",
		{"Loft", ""}: "body.to",
	} {
		status, body := rename(curator, names[0], names[1])
		require.Equal(t, 422, status, names)
		require.Equal(t, field, problemOf(t, body).Errors[0].Location, names)
	}
	status, body := rename(curator, "Loft", "Attic")
	require.Equal(t, 200, status, body)
	_, places := technician.send("GET", "/api/places", nil)
	require.JSONEq(t, `["Attic", "Attic, shelf 3", "Mill"]`, places)
	_, told := technician.send("GET", "/api/history?limit=1", nil)
	require.Contains(t, told, "renamed the place Loft to Attic")
	require.Contains(t, told, `"mayUndo":["curator"]`)
}
