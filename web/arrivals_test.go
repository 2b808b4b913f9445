package web_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/arrivals"
	"frugalheron/app/bench"
	"frugalheron/app/evidence"
	"frugalheron/app/inventory"
	"frugalheron/demo"
	webevidence "frugalheron/web/evidence"
	"frugalheron/web/httpx"
)

func decoded[T any](t *testing.T, body string) T {
	var record T
	require.NoError(t, json.Unmarshal([]byte(body), &record), body)
	return record
}

// A lot goes its whole way over HTTP; whoever changes it from an older state is shown the newer one.
func TestALotOverHTTP(t *testing.T) {
	s := newSite(t)
	curator, viewer := s.as(t, demo.Accounts[0]), s.as(t, demo.Accounts[2])
	lot := map[string]any{
		"title": "Clear-out", "method": "auction", "arrived": "2025-03-14", "priceCents": 37100,
		"costs": []map[string]any{{"what": "carriage", "cents": 4850}},
		"things": []map[string]any{{"kind": "machine", "title": "Terminal", "estimateCents": 100},
			{"kind": "board", "title": "Card", "estimateCents": 200}},
	}
	status, body := curator.send("POST", "/api/lots", lot)
	require.Equal(t, 201, status, body)
	received := decoded[arrivals.Lot](t, body)
	require.Equal(t, "419.50", received.Cost)
	require.Equal(t, []string{"139.83", "279.67"}, []string{received.Things[0].Share, received.Things[1].Share})
	path := fmt.Sprintf("/api/lots/%d", received.ID)

	for field, wrong := range map[string]map[string]any{
		"arrived":  {"title": "x", "method": "gift", "arrived": "1985-W07"},
		"title":    {"title": " ", "method": "gift"},
		"currency": {"title": "x", "method": "gift", "currency": "e"},
	} {
		status, body = curator.send("POST", "/api/lots", wrong)
		require.Equal(t, 422, status, field)
		require.Equal(t, "body."+field, problemOf(t, body).Errors[0].Location)
	}
	status, body = curator.send("POST", "/api/lots", map[string]any{"title": "x", "method": "theft"})
	require.Equal(t, 422, status)
	require.Contains(t, body, "body.method")

	change := func(version int, spread string) (int, string) {
		return curator.send("PUT", path,
			map[string]any{"version": version, "title": "Clear-out", "method": "auction", "arrived": "2025-03-14",
				"priceCents": 37100, "spread": spread})
	}
	status, body = change(received.Version, "equal")
	require.Equal(t, 200, status, body)
	changed := decoded[arrivals.Lot](t, body)
	require.Equal(t, "371.00", changed.Cost) // without the carriage now
	require.Equal(t, "185.50", changed.Things[0].Share)
	status, body = change(received.Version, "hand")
	require.Equal(t, 409, status)
	require.Equal(t, "equal", problemOf(t, body).Newer.Lot.Spread)

	thing := fmt.Sprintf("%s/things/%d", path, received.Things[0].ID)
	status, body = curator.send("GET", fmt.Sprintf("/api/collection/next-number?lot=%d", received.ID), nil)
	require.Equal(t, 200, status)
	next := decoded[inventory.NextNumber](t, body)
	require.Equal(t, "2025.1.1", next.Number)
	status, body = curator.send("POST", thing+"/machine",
		map[string]any{"version": changed.Version, "accession": next.Number, "name": "Terminal"})
	require.Equal(t, 201, status, body)
	machine := decoded[inventory.Machine](t, body)
	status, body = viewer.send("GET", fmt.Sprintf("/api/machines/%d/dossier", machine.ID), nil)
	require.Equal(t, 200, status)
	dossier := decoded[bench.Dossier](t, body)
	require.Equal(t, "185.50", dossier.Arrival.Thing.Share)
	require.Equal(t, "in hand", string(dossier.Stages.Arrive.State))
	require.Contains(t, dossier.Stages.ArriveMissing, "from whom it came is not written down")

	status, body = curator.send("GET", path, nil)
	require.Equal(t, 200, status)
	now := decoded[arrivals.Lot](t, body)
	status, body = curator.send("POST", fmt.Sprintf("%s/things/%d/assembly", path, now.Things[1].ID),
		map[string]any{"version": now.Version, "title": "Card", "kind": "card", "place": "Store"})
	require.Equal(t, 201, status, body)
	status, body = curator.send("POST", thing+"/void", map[string]any{"version": now.Version + 1})
	require.Equal(t, 422, status)
	require.Contains(t, problemOf(t, body).Detail, "is 2025.1.1")
	status, body = viewer.send("GET", path+"/history", nil)
	require.Equal(t, 200, status)
	require.Contains(t, body, "took Card of the lot Clear-out into store, Store")
	require.Contains(t, body, "took Terminal of the lot Clear-out as 2025.1.1")
}

// What is said over HTTP is checked, kept, withdrawn with a reason, and brought back.
func TestEvidenceOverHTTP(t *testing.T) {
	s := newSite(t)
	curator, technician := s.as(t, demo.Accounts[0]), s.as(t, demo.Accounts[1])
	machine := s.path("/api/machines/{machine}")
	status, body := technician.send("POST", machine+"/evidence",
		map[string]any{"attribute": "mains-voltage", "value": "high", "kind": "label"})
	require.Equal(t, 422, status)
	require.Equal(t, "Write it as 220-240 V.", problemOf(t, body).Errors[0].Message)
	status, body = technician.send("POST", machine+"/evidence",
		map[string]any{"attribute": "mains-voltage", "value": "240V", "kind": "label", "cited": "rating plate",
			"statedOn": "2025-03"})
	require.Equal(t, 201, status, body)
	said := decoded[evidence.Statement](t, body)
	retract := fmt.Sprintf("/api/evidence/%d/retract", said.ID)
	status, body = technician.send("POST", retract, map[string]string{"why": " "})
	require.Equal(t, 422, status)
	require.Equal(t, "body.why", problemOf(t, body).Errors[0].Location)
	status, body = technician.send("POST", retract, map[string]string{"why": "another machine's plate"})
	require.Equal(t, 200, status)
	event := decoded[httpx.Done](t, body).Event
	state := func() string {
		_, body := curator.send("GET", machine+"/dossier", nil)
		for _, k := range decoded[bench.Dossier](t, body).Known {
			if k.Attribute.Key == "mains-voltage" {
				return string(k.Fact.State)
			}
		}
		return ""
	}
	require.Equal(t, "open", state())
	status, _ = technician.send("POST", fmt.Sprintf("/api/history/%d/undo", event), nil)
	require.Equal(t, 204, status)
	require.Equal(t, "settled", state())

	status, body = curator.send("POST", "/api/parties",
		map[string]any{"name": "Marten Holloway", "kind": "person", "private": true})
	require.Equal(t, 422, status)
	require.Equal(t, "body.role", problemOf(t, body).Errors[0].Location)
	for why, party := range map[string]map[string]any{
		"nly a person": {"name": "The office", "kind": "organisation", "private": true, "role": "an office"},
		"olds the name": {"name": "Marten Holloway", "kind": "person", "private": true,
			"role": "Marten Holloway, pilot"},
		"at least three": {"name": "Mo", "kind": "person", "private": true, "role": "a pilot"},
	} {
		status, body = curator.send("POST", "/api/parties", party)
		require.Equal(t, 422, status, why)
		require.Contains(t, body, why)
	}
	status, body = curator.send("POST", "/api/parties",
		map[string]any{"name": "Marten Holloway", "kind": "person", "private": true, "role": "a pilot"})
	require.Equal(t, 201, status, body)
	status, body = curator.send("POST", "/api/parties", map[string]any{"name": "MARTEN HOLLOWAY", "kind": "person"})
	require.Equal(t, 422, status)
	require.Contains(t, problemOf(t, body).Detail, "in the list already")

	status, body = technician.send("GET", "/api/vocabulary", nil)
	require.Equal(t, 200, status)
	words := decoded[webevidence.Vocabulary](t, body)
	require.Greater(t, len(words.Attributes), 20)
	require.Greater(t, words.Kinds[0].Strength, words.Kinds[len(words.Kinds)-1].Strength)
	require.NotEmpty(t, words.Roles)

	// The file that is taken away is JSON that says the role, whoever asks.
	status, body = curator.send("POST", machine+"/custody",
		map[string]any{"role": "used-by", "who": "Marten Holloway", "dates": "198X", "kind": "recalled"})
	require.Equal(t, 201, status, body)
	status, body = curator.send("GET", machine+"/dossier.json", nil)
	require.Equal(t, 200, status)
	require.Contains(t, body, "a pilot")
	require.NotContains(t, body, "Holloway")
	require.True(t, json.Valid([]byte(body)))
}
