package table_test

import (
	"encoding/csv"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/table"
)

func ExampleWrite() {
	text := table.Write([]string{"marking", "volts"}, [][]string{{"=HYPERLINK(1)", "-12.1"}, {"8264-15", "+5"}})
	fmt.Print(strings.ReplaceAll(text, "\r\n", "\n"))
	// Output:
	// marking,volts
	// '=HYPERLINK(1),-12.1
	// 8264-15,+5
}

func TestCellsThatBeginLikeAFormulaAreText(t *testing.T) {
	for cell, want := range map[string]string{
		"":           "",
		"8264-15":    "8264-15",
		"'80s board": "'80s board",
		"-5":         "-5", "+5.10": "+5.10",
		"=1+1": "'=1+1", "+5V": "'+5V", "-12 V": "'-12 V", "@SUM(A1)": "'@SUM(A1)", "-1e9|x": "'-1e9|x",
		" =1": "' =1", "\t=1": "'\t=1", "\rx": "'\rx", "\n=1": "'\n=1", "\u00a0=1": "'\u00a0=1",
		"＝1": "'＝1", "--": "'--",
		"'=1": "''=1", "''+5V": "'''+5V", // as if we had written them
	} {
		require.Equal(t, want, table.Cell(cell), "%q", cell)
		require.Equal(t, cell, table.Text(table.Cell(cell)), "%q", cell)
	}
}

func FuzzTextReadsWhatCellWrote(f *testing.F) {
	for _, seed := range []string{"=1", "'=1", "'-5", "-5", "''x", "' +", "\xff="} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		if table.Text(table.Cell(text)) != text {
			t.Fatalf("%q became %q", text, table.Text(table.Cell(text)))
		}
		written := table.Write([]string{"a", "b"}, [][]string{{text, ""}})
		rows, err := csv.NewReader(strings.NewReader(written)).ReadAll()
		if err != nil || len(rows) != 2 {
			t.Fatalf("%q is written as %q: %v", text, written, err)
		}
		if first := strings.TrimLeft(rows[1][0], " \u00a0"); first != "" && strings.ContainsRune("=@\t\r", rune(first[0])) {
			t.Fatalf("%q is computed", rows[1][0])
		}
	})
}
