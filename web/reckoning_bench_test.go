package web_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/core/device/builtin"
	"frugalheron/core/reckoning"
	"frugalheron/core/sheet"
	"frugalheron/demo"
)

// linesOf are lines as somebody types them.
func linesOf(count int) string {
	var text strings.Builder
	markings := []string{"SN74LS245N 8533", "41256-15 8512", "HX9040-2 8431", "27128-25 8533 @socket", "? 28-pin",
		"6264LP-15 8641 for:picture"}
	for i := range count {
		fmt.Fprintf(&text, "U%-9d %s\n", i+1, markings[i%len(markings)])
	}
	return text.String()
}

// POST /api/reckon for a sheet of 300 lines, over loopback, one caller.
func BenchmarkReckon300Lines(b *testing.B) {
	s := newSite(b)
	c := s.as(b, demo.Accounts[0])
	text := linesOf(300)
	for b.Loop() {
		if status, body := c.send("POST", "/api/reckon", map[string]string{"text": text}); status != 200 {
			b.Fatal(body)
		}
	}
}

// POST .../reckoning after a pause in typing, in a machine with five boards: one of 300 lines is a draft. Beside it,
// what the core takes for the same text and all that the answer says of it.
func BenchmarkReckonFiveBoards(b *testing.B) {
	s := newSite(b)
	c := s.as(b, demo.Accounts[0])
	machine, err := s.actions.Inventory.CreateMachine(b.Context(), action.Actor{Role: action.Curator},
		inventory.MachineInput{Accession: "EH-5555", Name: "Meridian 5", Serial: "MC 22191"})
	require.NoError(b, err)
	sheets := ""
	for i := range 5 {
		sheets += fmt.Sprintf("== Board %d\n%s", i+1, linesOf(20))
	}
	boards, err := s.actions.Sheets.TakeOverSheet(b.Context(), action.Actor{Role: action.Curator}, machine.ID, sheets)
	require.NoError(b, err)
	draft := map[string]any{"drafts": []map[string]any{{"assemblyId": boards[0].ID, "body": linesOf(300)}}}
	path := fmt.Sprintf("/api/machines/%d/reckoning", machine.ID)
	b.Run("served", func(b *testing.B) {
		for b.Loop() {
			if status, body := c.send("POST", path, draft); status != 200 {
				b.Fatal(body)
			}
		}
	})
	library := builtin.Library()
	b.Run("core", func(b *testing.B) {
		for b.Loop() {
			together := []reckoning.Board{}
			for i := range 5 {
				text := linesOf(20)
				if i == 0 {
					text = linesOf(300)
				}
				parsed, err := sheet.Parse([]byte(text), sheet.Body)
				require.NoError(b, err)
				result := reckoning.OfSheet(library, parsed, reckoning.Options{Mode: sheet.Body})
				require.Positive(b, len(result.Lines())+len(parsed.Records()))
				together = append(together, reckoning.Board{Assembly: int64(i), Result: result})
			}
			reckoning.Combine(together)
			require.NotEmpty(b, reckoning.Verdicts(together))
		}
	})
}
