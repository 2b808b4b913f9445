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
		if first := strings.TrimLeft(rows[1][0], " \u00a0"); first != "" &&
			strings.ContainsRune("=@\t\r", rune(first[0])) {
			t.Fatalf("%q is computed", rows[1][0])
		}
	})
}

func ExampleReference() {
	for _, cells := range table.Reference("classes",
		"# what ages\nkey\thappens\tsource\nbelt\tgoes soft\trule of thumb\n", "key", "happens", "source") {
		fmt.Println(cells[0], "-", cells[1])
	}
	// Output: belt - goes soft
}

// Whatever is wrong with a table is said with the place.
func TestBadReferenceTablesFailLoudly(t *testing.T) {
	for text, want := range map[string]string{
		"# only words\n":                             "no line names the columns",
		"key\tsource\n":                              "line 1: the columns are key, source, and should be key, words, source",
		"key\twords\tsource\nbelt\tgoes\n":           "line 2: wrong number of fields",
		"key\twords\tsource\n\n# x\nbelt\tgoes\t \n": "line 4: the last column says how one knows",
		"key\twords\tsource\nbelt\tgoes\tsoft\tx\n":  "line 2: wrong number of fields",
	} {
		_, err := table.ReadReference("classes", text, "key", "words", "source")
		require.ErrorContains(t, err, want, "%q", text)
		require.ErrorContains(t, err, "table of classes")
		require.Panics(t, func() { table.Reference("classes", text, "key", "words", "source") })
	}
	_, err := table.ReadReference("classes", "key\n", "key")
	require.ErrorContains(t, err, "not the source")
	rows, err := table.ReadReference("classes", "key\tsource\n# of belts\nbelt \"x\"\tbook\n", "key", "source")
	require.NoError(t, err)
	require.Equal(t, []table.Row{{Line: 3, Cells: []string{`belt "x"`, "book"}}}, rows)
}
