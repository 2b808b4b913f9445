package app_test

import (
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"frugalheron/app/inventory"
)

// What a sheet says of one part holds in every other room: a part that was put in later ages anew and dates nothing, one
// that nobody knows is asked about, and all of it stands in what is taken away.
func TestWhatASheetSaysHoldsInEveryRoom(t *testing.T) {
	twoYearsAgo := time.Now().AddDate(-2, 0, 0).Format("2006-01")
	old := "== Main board\n" + sevenChips + "BT1 NiCd 3.6V\nSW1 10110000\nU8 7432 8837"
	_, actions, machine, board := newBoard(t, inventory.MachineInput{EraFrom: year(1984), EraTo: year(1988)}, old)

	type rooms struct {
		battery          string
		built, leftOut   string
		later, questions []string
	}
	look := func() (now rooms) {
		risks, err := actions.Condition.Risks(ctx, viewer, machine.ID, 0, 50)
		require.NoError(t, err)
		for _, r := range risks.Risks {
			if r.Place == "BT1" {
				now.battery = r.Why
			}
		}
		dated, err := actions.Dating.Dating(ctx, viewer, machine.ID)
		require.NoError(t, err)
		now.built = dated.Result.NotBefore.String()
		for _, p := range dated.Parts {
			if p.Verdict == "left-out" {
				now.leftOut += p.ID
			}
		}
		for _, o := range dated.Result.Outliers {
			now.later = append(now.later, o.ID)
		}
		asked, err := actions.Unknowns.Unknowns(ctx, viewer, machine.ID)
		require.NoError(t, err)
		for _, o := range asked.Open {
			now.questions = append(now.questions, o.Sort+" "+o.Subject)
		}
		return now
	}
	before := look()
	require.Contains(t, before.battery, "never looked at since it was made")
	require.Equal(t, rooms{battery: before.battery, built: "1985-09-02", later: []string{"Main board, U8"}}, before)

	known := sevenChips + "BT1 NiCd 3.6V new:" + twoYearsAgo + "\nSW1 ?\nU8 7432 8837 new:1989 !high esr 12 ohm"
	_, err := actions.Sheets.SaveSheet(ctx, technician, board.ID, 1, known)
	require.NoError(t, err)
	after := look()
	require.Contains(t, after.battery, "2 years old")
	require.NotContains(t, after.battery, "never looked at since it was made")
	require.Equal(t, rooms{battery: after.battery, built: "1985-09-02", leftOut: "Main board, U8",
		questions: []string{"switch EH-0142 Main board SW1"}}, after)

	reckoned, err := actions.Bench.ReckonMachine(ctx, viewer, machine.ID, nil)
	require.NoError(t, err)
	values := map[string]string{}
	for _, v := range reckoned.Verdicts {
		values[v.Key] = v.Value
	}
	require.Equal(t, []string{"1 part", "1 finding"}, []string{values["unidentified"], values["findings"]})
	content, err := actions.Bench.ExportEntries(ctx, viewer, machine.ID)
	require.NoError(t, err)
	lines := strings.Split(string(content.Data), "\r\n")
	for _, end := range []string{"," + twoYearsAgo + ",false", ",true", "high esr: 12 ohm,1989,false"} {
		require.True(t, slices.ContainsFunc(lines, func(line string) bool { return strings.HasSuffix(line, end) }), end)
	}

	// Somebody takes it back: every room says again what it said before.
	page, err := actions.History.AssemblyHistory(ctx, curator, board.ID, 0, 1)
	require.NoError(t, err)
	require.NoError(t, actions.History.Undo(ctx, curator, page.Events[0].ID))
	require.Equal(t, before, look())
}
