package web_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/inventory"
	"frugalheron/app/quickentry"
	"frugalheron/app/sheets"
	"frugalheron/core/linemerge"
	"frugalheron/demo"
)

func TestMergeByHTTP(t *testing.T) {
	s := newSite(t)
	mine, theirs := s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[0])
	ask[sheets.Revision](theirs, "PUT", "/api/assemblies/{board}/sheet",
		map[string]any{"base": 1, "body": "U1 74LS00 8501\nU2 theirs"})
	status, body := mine.send("PUT", s.path("/api/assemblies/{board}/sheet"),
		map[string]any{"base": 1, "body": "U1 74LS04 8501"})
	require.Equal(t, 409, status)
	require.Equal(t, 2, problemOf(t, body).Newer.Sheet.N)
	merged := ask[sheets.Merged](mine, "POST", "/api/assemblies/{board}/merge",
		map[string]any{"base": 1, "body": "U1 74LS04 8501"})
	require.Equal(t, "U1 74LS04 8501\nU2 theirs", merged.Body)
	require.Zero(t, merged.Conflicts)
	require.Equal(t, linemerge.Mine, merged.Stretches[0].Kind)
	require.Empty(t, merged.Newer.Body)
	require.Equal(t, 2, ask[sheets.Revision](mine, "GET", "/api/assemblies/{board}/sheet",
		nil).N) // nothing is kept
	ask[sheets.Revision](mine, "PUT", "/api/assemblies/{board}/sheet",
		map[string]any{"base": merged.Newer.N, "body": merged.Body})

	// From nothing, from a revision that never was, from text that is none.
	merged = ask[sheets.Merged](mine, "POST", "/api/assemblies/{board}/merge",
		map[string]any{"base": 0, "body": "U9 7400"})
	require.Equal(t, 1, merged.Conflicts)
	for base, want := range map[int]int{99: 404, -1: 422} {
		status, _ = mine.send("POST", s.path("/api/assemblies/{board}/merge"), map[string]any{"base": base, "body": ""})
		require.Equal(t, want, status)
	}
	status, body = mine.send("POST", s.path("/api/assemblies/{board}/merge"),
		map[string]any{"base": 1, "body": "U1\x00"})
	require.Equal(t, 422, status)
	require.Equal(t, "body.body", problemOf(t, body).Errors[0].Location)
}

func TestSayAndFindByHTTP(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[1])
	machine := *s.board.MachineID
	understood := ask[quickentry.Understood](c, "POST", "/api/understand",
		map[string]any{"machineId": machine, "text": "u1 74ls04"})
	require.Equal(t, "U1 74LS00 8501", understood.Destinations[0].Replaces)
	require.Nil(t, ask[quickentry.Understood](c, "POST", "/api/understand",
		map[string]any{"machineId": 0, "text": "u1 74ls04"}).Machine)
	say := func(base int, text string) (int, string) {
		return c.send("POST", "/api/quick-entry",
			map[string]any{"machineId": machine, "assemblyId": s.board.ID, "base": base, "text": text})
	}
	status, body := say(0, "u1 74ls04")
	require.Equal(t, 409, status)
	require.Equal(t, 1, problemOf(t, body).Newer.Sheet.N)
	status, body = say(1, "meridian")
	require.Equal(t, 422, status)
	require.Equal(t, "body.text", problemOf(t, body).Errors[0].Location)
	status, _ = say(1, "u1 74ls04")
	require.Equal(t, 200, status)
	status, body = c.send("POST", "/api/quick-entry",
		map[string]any{"machineId": machine, "assemblyId": 999, "base": 0, "text": "u2 7400"})
	require.Equal(t, 404, status, body)

	found := ask[inventory.Found](s.as(t, demo.Accounts[2]), "GET", "/api/find?words=74ls04", nil)
	require.Equal(t, "74ls04", found.Chips[0].Marking)
	require.Equal(t, s.board.ID, found.Chips[0].AssemblyID)
	require.Equal(t, machine, ask[inventory.Found](c, "GET", "/api/find?words=EH-0142", nil).Exact.ID)
	require.Empty(t, ask[inventory.Found](c, "GET", "/api/find?words="+"%25%5C_",
		nil).Assemblies) // signs of LIKE are signs
}

// A list of what is loose pages by any size and finds by all words.
func TestLooseListsPage(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[1])
	for i := range 7 {
		ask[inventory.Assembly](c, "POST", "/api/assemblies",
			map[string]any{"place": fmt.Sprintf("Store, shelf %d", i%2), "title": fmt.Sprintf("Card %d", i),
				"kind": "card"})
	}
	seen, after := []string{}, int64(0)
	for {
		page := ask[inventory.LoosePage](c, "GET", fmt.Sprintf("/api/assemblies?search=card&limit=3&after=%d", after),
			nil)
		for _, one := range page.Assemblies {
			seen = append(seen, one.Title)
		}
		if after = page.Next; after == 0 {
			break
		}
	}
	require.Equal(t, []string{"Card 0", "Card 1", "Card 2", "Card 3", "Card 4", "Card 5", "Card 6"}, seen)
	require.Len(t, ask[inventory.LoosePage](c, "GET", "/api/assemblies?search=CARD+shelf+1", nil).Assemblies, 3)
	status, body := c.send("POST", "/api/assemblies", map[string]any{"place": " ", "title": "Card"})
	require.Equal(t, 422, status)
	require.Equal(t, "body.place", problemOf(t, body).Errors[0].Location)
}
