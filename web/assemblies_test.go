package web_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/bench"
	"frugalheron/app/history"
	"frugalheron/app/inventory"
	"frugalheron/app/sheets"
	"frugalheron/core/device"
	"frugalheron/core/reckoning"
	"frugalheron/core/sheet"
	"frugalheron/core/verdict"
	"frugalheron/demo"
	webbench "frugalheron/web/bench"
)

// ask makes a request that must succeed and decodes its answer.
func ask[T any](c *client, method, path string, body any) T {
	status, text := c.send(method, c.site.path(path), body)
	require.Contains(c.t, []int{http.StatusOK, http.StatusCreated}, status, "%s %s: %s", method, path, text)
	var answer T
	require.NoError(c.t, json.Unmarshal([]byte(text), &answer), text)
	return answer
}

func TestAMachineFromEntryToReckoning(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[0])
	year := 1984
	machine := ask[inventory.Machine](c, "POST", "/api/machines",
		inventory.MachineInput{Accession: "EH-0200", Name: "Sorter", Place: "Loft", EraFrom: &year, EraTo: &year})
	at := func(format string) string { return fmt.Sprintf(format, machine.ID) }
	require.Equal(t, []string{"Loft"}, ask[[]string](c, "GET", "/api/places", nil))

	board := ask[inventory.Assembly](c, "POST", at("/api/machines/%d/assemblies"),
		inventory.AssemblyInput{Title: "Main board", Part: "4410-2", Fit: "unknown", Purpose: "shared",
			Kind: "board"})
	require.Equal(t, "unknown", board.Fit)
	require.Zero(t, board.Revision)
	cards := ask[[]inventory.Assembly](c, "POST", at("/api/machines/%d/sheets"),
		map[string]string{"text": "== Card A | slot 3 | fit later\nU1 27128-25 433\n== Card B\nU1 ?"})
	require.Len(t, cards, 2)
	require.Equal(t, "3", cards[0].Slot)

	first := ask[sheets.Revision](c, "PUT", fmt.Sprintf("/api/assemblies/%d/sheet", board.ID),
		map[string]any{"base": 0, "body": "8x 4164-15"})
	require.Equal(t, 1, first.N)
	ask[sheets.Revision](c, "PUT", fmt.Sprintf("/api/assemblies/%d/sheet", board.ID),
		map[string]any{"base": 1, "body": "U1-U8 4164-15"})
	revisions := ask[[]sheets.Revision](c, "GET", fmt.Sprintf("/api/assemblies/%d/revisions", board.ID), nil)
	require.Equal(t, "U1-U8 4164-15", revisions[0].Body)
	require.Equal(t, "8x 4164-15", revisions[1].Body)
	require.Len(t, ask[[]sheets.Revision](c, "GET", fmt.Sprintf("/api/assemblies/%d/revisions?before=2", board.ID),
		nil), 1)

	positions := ask[[]sheets.Position](c, "GET", fmt.Sprintf("/api/assemblies/%d/positions?limit=10", board.ID), nil)
	require.Len(t, positions, 10)
	more := ask[[]sheets.Position](c, "GET",
		fmt.Sprintf("/api/assemblies/%d/positions?after=%d", board.ID, positions[9].ID), nil)
	require.Len(t, more, 6)
	entries := ask[[]sheets.Entry](c, "GET", fmt.Sprintf("/api/assemblies/%d/entries", board.ID), nil)
	require.Equal(t, "shared", entries[0].Purpose)
	require.Len(t, entries[0].Designators, 8)
	fittings := ask[[]inventory.Fitting](c, "GET", fmt.Sprintf("/api/assemblies/%d/fittings", cards[0].ID), nil)
	require.Equal(t, "later", fittings[0].Fit)
	require.Nil(t, fittings[0].Until)

	reckoned := ask[bench.ReckonedMachine](c, "POST", at("/api/machines/%d/reckoning"),
		map[string]any{"drafts": []webbench.Draft{{AssemblyID: cards[1].ID, Body: "U1 6116"}}})
	require.Len(t, reckoned.Boards, 3)
	require.Equal(t, "settled", string(reckoned.Stage.State))
	require.Equal(t, int64(64<<10), reckoned.Boards[0].Totals.RAMBy.Shared)
	require.Contains(t, reckoned.Boards[1].Lines[0].Text, "1984-W33") // by the machine's era
	require.Equal(t, "U1", reckoned.Boards[2].Records[0].Parts)

	page := ask[inventory.MachinePage](c, "GET", "/api/machines?search=sorter+loft", nil)
	require.Equal(t, 1, page.Total) // places are searched, too
	page = ask[inventory.MachinePage](c, "GET", "/api/machines?search=SORT+0200", nil)
	require.Equal(t, 1, page.Total)
	require.Equal(t, "64.0", page.Machines[0].RAM)
	require.Equal(t, 3, page.Machines[0].Boards)
	require.Equal(t, 1, page.Machines[0].Unidentified)
}

// What is told of an answer by what changed since the one before is the same as the whole.
func TestAReckoningIsToldByWhatChanged(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[0])
	id := s.board.ID
	path := s.path("/api/machines/{machine}/reckoning")
	bodies := []string{"U1 74LS00 8501\nU2 ? 28-pin\nBT1 NiCd leaked", "U1 74LS00 8501\nU9 41256-15\nU2 ? 28-pin\nBT1 NiCd leaked",
		"U9 41256-15\nU9 41256-15\nBT1 NiCd leaked\n", "BT1 NiCd leaked\nnothing\n# and", "U1 74LS00 8501"}
	before := ask[bench.ReckonedMachine](c, "POST", path, map[string]any{"drafts": []webbench.Draft{}})
	of := ""
	for i, body := range bodies {
		draft := []webbench.Draft{{AssemblyID: id, Body: body}}
		asked := webbench.ChangedDrafts{Answer: before.Answer, Drafts: draft, Kept: []int64{},
			Changes: []bench.LineChange{}}
		if i > 0 {
			asked.Drafts = []webbench.Draft{}
			asked.Changes = append(asked.Changes, bench.LineChange{AssemblyID: id, From: 1,
				Gone: strings.Count(of, "\n") + 1, Lines: strings.Split(body, "\n")})
		}
		told := ask[bench.ReckonedSince](c, "POST", path+"/since", asked)
		now := ask[bench.ReckonedMachine](c, "POST", path, map[string]any{"drafts": draft})
		require.Equal(t, now.Boards, since(t, before, told).Boards, body)
		require.Equal(t, now.Verdicts, since(t, before, told).Verdicts, body)
		now.Answer, before, of = told.Answer, now, body
		before.Answer = told.Answer
	}
	last := webbench.ChangedDrafts{Answer: before.Answer, Drafts: []webbench.Draft{}, Kept: []int64{id},
		Changes: []bench.LineChange{}}
	require.Empty(t, ask[bench.ReckonedSince](c, "POST", path+"/since", last).Verdicts, "kept is what stands there")
	status, _ := s.as(t, demo.Accounts[1]).send("POST", path+"/since", last)
	require.Equal(t, http.StatusGone, status, "an answer is of one account")
	last.Changes = []bench.LineChange{{AssemblyID: id, From: 7, Gone: 7, Lines: []string{}}}
	status, _ = c.send("POST", path+"/since", last)
	require.Equal(t, http.StatusGone, status, "lines that no draft has")
}

// since is the whole answer, as a client puts it together.
func since(t *testing.T, before bench.ReckonedMachine, told bench.ReckonedSince) bench.ReckonedMachine {
	by := map[int64]bench.BoardSince{}
	moved := func(b bench.BoardSince, line int) int {
		if line > b.After {
			return line + b.By
		}
		return line
	}
	out := bench.ReckonedMachine{}
	for i, b := range told.Boards {
		by[b.AssemblyID] = b
		board := before.Boards[i]
		board.Totals, board.Lines, board.Records = b.Totals, slices.Clone(board.Lines), slices.Clone(board.Records)
		for j := range board.Lines {
			board.Lines[j].Line = moved(b, board.Lines[j].Line)
		}
		for j := range board.Records {
			board.Records[j].Line = moved(b, board.Records[j].Line)
		}
		board.Lines = put(board.Lines, b.Lines, func(l reckoning.Line) int { return l.Line })
		board.Records = put(board.Records, b.Records, func(r sheet.Record) int { return r.Line })
		out.Boards = append(out.Boards, board)
	}
	old := map[string]verdict.Verdict{}
	for _, v := range before.Verdicts {
		v.Why = slices.Clone(v.Why)
		for i, reason := range v.Why {
			if reason.Spot != nil {
				v.Why[i].Spot = &verdict.Spot{Assembly: reason.Spot.Assembly,
					Line: moved(by[reason.Spot.Assembly], reason.Spot.Line)}
			}
		}
		old[v.Key] = v
	}
	for _, v := range told.Verdicts {
		why, ok := v.Why.Of(old[v.Verdict.Key].Why)
		require.True(t, ok)
		v.Verdict.Why = why
		old[v.Verdict.Key] = v.Verdict
	}
	for _, key := range told.Order {
		out.Verdicts = append(out.Verdicts, old[key])
	}
	return out
}

func put[Row any](rows []Row, told bench.RowsSince[Row], lineOf func(Row) int) []Row {
	gone := told.Gone
	for _, row := range told.Put {
		gone = append(gone, lineOf(row))
	}
	rows = slices.DeleteFunc(rows, func(row Row) bool { return slices.Contains(gone, lineOf(row)) })
	rows = append(rows, told.Put...)
	slices.SortStableFunc(rows, func(a, b Row) int { return lineOf(a) - lineOf(b) })
	return rows
}

func TestListsPage(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[0])
	for i := range 7 {
		ask[inventory.Machine](c, "POST", "/api/machines",
			inventory.MachineInput{Accession: fmt.Sprintf("EH-1%03d", i), Name: "Sorter"})
	}
	seen, after := 0, ""
	for {
		page := ask[inventory.MachinePage](c, "GET", "/api/machines?search=sorter&limit=3&after="+after, nil)
		if after == "" {
			require.Equal(t, 7, page.Total)
		}
		seen += len(page.Machines)
		if after = page.Next; after == "" {
			break
		}
	}
	require.Equal(t, 7, seen)

	// Sorted by numbers, the largest first; keys that were not given are refused.
	page := ask[inventory.MachinePage](c, "GET", "/api/machines?sort=chips&down=true&limit=2", nil)
	require.Equal(t, "EH-0142", page.Machines[0].Accession)
	require.Equal(t, "settled", page.Machines[0].Stage)
	ask[inventory.MachinePage](c, "GET", "/api/machines?sort=chips&down=true&after="+page.Next, nil)
	for _, query := range []string{"sort=nothing", "after=x", "sort=ram&after=eyJ2IjoieCIsImkiOjF9", "stage=lost"} {
		status, body := c.send("GET", "/api/machines?"+query, nil)
		require.Equal(t, 422, status, query+body)
	}
	facets := ask[inventory.Facets](c, "GET", "/api/machines/facets?stage=untouched", nil)
	require.Equal(t, []inventory.FacetCount{{Value: "untouched", Count: 7}, {Value: "settled", Count: 1}},
		facets.Stages)
	require.Equal(t, 7, facets.Places[0].Count)
	holding := ask[[]inventory.FacetCount](c, "GET", "/api/machines/holding?start=74LS0", nil)
	require.Equal(t, []inventory.FacetCount{{Value: "74LS00", Count: 1}}, holding)
	require.Equal(t, 1, ask[inventory.MachinePage](c, "GET", "/api/machines?type=74LS00", nil).Total)
}

func TestDetailsChangeByVersion(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[1])
	change := func(version int, title string) (int, string) {
		return c.send("PUT", s.path("/api/assemblies/{board}"),
			map[string]any{"version": version, "title": title, "fit": "period", "purpose": "picture"})
	}
	status, body := change(1, "Picture board")
	require.Equal(t, 200, status, body)
	status, body = change(1, "Other")
	require.Equal(t, 409, status)
	require.Equal(t, "Picture board", problemOf(t, body).Newer.Assembly.Title)
	status, body = change(2, "a | b")
	require.Equal(t, 422, status)
	require.Equal(t, "body.title", problemOf(t, body).Errors[0].Location)
	board := ask[inventory.Assembly](c, "GET", "/api/assemblies/{board}", nil)
	require.Equal(t, "period", board.Fit)
	require.Equal(t, 2, board.Version)
}

func TestMovesByHTTP(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[1])
	moved := ask[inventory.Moved](c, "POST", "/api/assemblies/{board}/moves",
		map[string]any{"version": 1, "to": "place", "place": "Store"})
	require.Equal(t, "Store", moved.Where)
	page := ask[inventory.LoosePage](c, "GET", "/api/assemblies?search=store", nil)
	require.Equal(t, "EH-0142", page.Assemblies[0].From)
	require.Len(t, ask[bench.ReckonedMachine](c, "POST", "/api/assemblies/{board}/reckoning",
		webbench.Drafts{Drafts: []webbench.Draft{}}).Boards, 1)
	spare := ask[inventory.Assembly](c, "POST", "/api/assemblies",
		map[string]any{"place": "Store", "title": "Spare supply", "kind": "supply"})
	require.Nil(t, spare.MachineID)
	require.Len(t, ask[inventory.LoosePage](c, "GET", "/api/assemblies?search=supply", nil).Assemblies, 1)
	status, body := c.send("POST", s.path("/api/assemblies/{board}/moves"),
		map[string]any{"version": 1, "to": "place", "place": "Loft"})
	require.Equal(t, 409, status)
	require.Equal(t, 2, problemOf(t, body).Newer.Assembly.Version)
	status, _ = c.send("POST", fmt.Sprintf("/api/history/%d/undo", moved.Event), nil)
	require.Equal(t, 204, status)
	voided := ask[inventory.Moved](c, "POST", "/api/assemblies/{board}/void", map[string]any{"version": 3})
	require.True(t, voided.Assembly.IsVoided)
	history := ask[history.EventPage](c, "GET", "/api/assemblies/{board}/history", nil)
	require.Equal(t, "deleted Main board, entered by mistake", history.Events[0].What)
	require.NotEmpty(t, history.Events[0].MayUndo)
	require.Empty(t, history.Events[1].MayUndo)
}

func TestTypesForCompletion(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[2])
	types := ask[[]device.Type](c, "GET", "/api/types?start=74ls24&limit=3", nil)
	require.Len(t, types, 3)
	require.Equal(t, "74LS240", types[0].Number)
	require.Empty(t, ask[[]device.Type](c, "GET", "/api/types?start=zz", nil))
	line := ask[webbench.Line](c, "POST", "/api/sheet-line",
		sheet.Record{Parts: "U20,U22", Marking: "27128-25", Mount: "socket"})
	require.Equal(t, "U20,U22    27128-25 @socket", line.Text)
}

func TestWhatDoesNotExistIsNotFound(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[0])
	for _, path := range []string{"/api/machines/999", "/api/machines/999/assemblies", "/api/assemblies/999",
		"/api/assemblies/999/sheet",
		"/api/assemblies/999/revisions", "/api/assemblies/999/positions", "/api/assemblies/999/entries",
		"/api/assemblies/999/fittings", "/api/assemblies/999/history"} {
		status, body := c.send("GET", path, nil)
		require.Equal(t, 404, status, path)
		problemOf(t, body)
	}
	status, _ := c.send("POST", "/api/machines/999/assemblies",
		inventory.AssemblyInput{Title: "x", Fit: "unknown", Kind: "board"})
	require.Equal(t, 404, status)
	status, _ = c.send("PUT", "/api/assemblies/999/sheet", map[string]any{"base": 0, "body": ""})
	require.Equal(t, 404, status)
}
