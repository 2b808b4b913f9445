package app_test

import (
	"encoding/csv"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/inventory"
	"frugalheron/demo"
)

// What leaves comes back the same: boards, what is said of them, and every line of their sheets.
func TestExportedSheetsComeBack(t *testing.T) {
	sample, err := demo.Sheet("EH-0142")
	require.NoError(t, err)
	for _, text := range []string{
		string(sample), "== A | slot 3 | for:cache\n\n# kept\nU1\t74LS00   8501\nU1 again\nfree text\n== B | fit odd | colour green # c\n== C\nU1 ?",
	} {
		_, actions, machine, _ := newBoard(t, inventory.MachineInput{}, text)
		exported, err := actions.Bench.ExportSheets(ctx, viewer, machine.ID)
		require.NoError(t, err)
		other, err := actions.Inventory.CreateMachine(ctx, curator,
			inventory.MachineInput{Accession: "EH-2", Name: "Copy"})
		require.NoError(t, err)
		_, err = actions.Sheets.TakeOverSheet(ctx, technician, other.ID, string(exported.Data))
		require.NoError(t, err)
		again, err := actions.Bench.ExportSheets(ctx, viewer, other.ID)
		require.NoError(t, err)
		require.Equal(t, string(exported.Data), string(again.Data))
		first, err := actions.Sheets.Contents(ctx, viewer, machine.ID)
		require.NoError(t, err)
		second, err := actions.Sheets.Contents(ctx, viewer, other.ID)
		require.NoError(t, err)
		require.Len(t, second, len(first))
		for i := range first {
			require.Equal(t, first[i].AssemblyInput, second[i].AssemblyInput)
			require.Equal(t, strings.TrimRight(first[i].Body, "\n"), strings.TrimRight(second[i].Body, "\n"))
		}
	}
}

func TestExportedEntriesAreATable(t *testing.T) {
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{},
		"== Main board\nU40-U41 41256-15 8512 @socket !bent: \"pin\" 4, 5\n# none\nU1 ?")
	table, err := actions.Bench.ExportEntries(ctx, viewer, machine.ID)
	require.NoError(t, err)
	rows, err := csv.NewReader(strings.NewReader(string(table.Data))).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 3)
	require.Equal(t, []string{"EH-0142", "Main board", "1", "U40 U41", "2", "chip", "41256-15 8512", "41256", "dram",
		"150", "1985-03-18", "1985-03-24", "", "true", "false", "false", `bent: "pin" 4, 5`, "", "false"}, rows[1])
	require.Equal(t, "true", rows[2][len(rows[2])-1], "what nobody identified says so")
	require.Len(t, rows[0], len(rows[1]))
}
