package main

import (
	"bytes"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/store/storetest"
)

// asMain makes the test binary behave as the command itself, for tests of whole processes.
const asMain = "HERON_TEST_AS_MAIN"

func TestMain(m *testing.M) {
	if os.Getenv(asMain) != "" {
		main()
		return
	}
	storetest.Main(m)
}

// heron runs a command and returns its exit status and what it wrote.
func heron(input string, arguments ...string) (status int, out string, err error) {
	root := rootCommand()
	var written bytes.Buffer
	root.SetArgs(arguments)
	root.SetIn(strings.NewReader(input))
	root.SetOut(&written)
	root.SetErr(&written)
	err = root.Execute()
	return exitStatus(err), written.String(), err
}

func TestExitStatus(t *testing.T) {
	binary := filepath.Join(t.TempDir(), "picture.bin")
	require.NoError(t, os.WriteFile(binary, []byte("\x89PNG\r\n\x1a\n\x00\x00"), 0o600))
	tests := []struct {
		rule, input string
		arguments   []string
		status      int
		says        string // in the error
	}{
		{"empty sheet", "", []string{"sheet", "-", "--json"}, 0, ""},
		{"sheet with problems", "U1 7400\nU1 7400", []string{"sheet", "-"}, 0, ""},
		{"nothing readable in a marking", "", []string{"marking", "???", "--json"}, 0, ""},
		{"binary file", "", []string{"sheet", binary}, 1, "line 1"},
		{"not UTF-8", "U1 7400\nU2 \xff\xfe", []string{"sheet", "-"}, 1, "line 2"},
		{"over 1 MiB", strings.Repeat("x", 1<<20+1), []string{"sheet", "-"}, 1, "1 MiB"},
		{"no such file", "", []string{"sheet", filepath.Join(t.TempDir(), "none")}, 1, "none"},
		{"memory that is no line", "", []string{"calc", "ram", "some memory"}, 1, "argument 1"},
		{"run of a million", "", []string{"calc", "ram", "8x 4164", "U1-U1000000 41256"}, 1, "argument 2, column 1"},
		{"no file named", "", []string{"sheet"}, 2, "arg"},
		{"unknown flag", "", []string{"sheet", "-", "--jsn"}, 2, "--jsn"},
		{"unknown command", "", []string{"shet"}, 2, "shet"},
		{"nothing measured", "", []string{"measure", "--json"}, 2, "needs what was measured"},
		{"half a command", "", []string{"calc"}, 2, "needs one of: ram, video, fit"},
		{"half a command with a slip", "", []string{"rom", "inspct"}, 2, "inspct"},
		{"era that is none", "", []string{"marking", "8533", "--era", "1988-1984"}, 2, "two years"},
		{"screen without size", "", []string{"calc", "video"}, 2, "width"},
		{"amount that is none", "",
			[]string{"calc", "video", "--width", "8", "--height", "8", "--bits", "1", "--fitted", "lots"}, 2, "640K"},
		{"part that slides", "", []string{"calc", "fit", "30 +/- 0.1", "30.5", "--play", "0.3", "--json"}, 0, ""},
		{"size that is none", "", []string{"calc", "fit", "30", "wide"}, 1, "argument 2"},
		{"play below nothing", "", []string{"calc", "fit", "30", "31", "--play", "-1"}, 2, "not below 0"},
		{"no database named", "", []string{"serve", "--database-url", ""}, 2, "HERON_DATABASE_URL"},
		{"log level that is none", "", []string{"serve", "--log-level", "loud"}, 2, "log-level"},
	}
	for _, test := range tests {
		t.Run(test.rule, func(t *testing.T) {
			status, out, err := heron(test.input, test.arguments...)
			require.Equal(t, test.status, status, "%v %s", err, out)
			if test.says != "" {
				require.ErrorContains(t, err, test.says)
			}
		})
	}
}

// The names of the JSON are fixed: scripts depend on them.
func TestSheetJSON(t *testing.T) {
	status, out, err := heron(
		"== Main board | part 4410-2 | slot 3\r\nU40-U48\t41256-15 8512 @socket !bent: pin 4\r\nU30 ?\r\nU31 SC8720?P 8601\r\n", "sheet", "-", "--json")
	require.NoError(t, err)
	require.Zero(t, status)
	var answer struct {
		Assemblies []struct {
			Title      string
			Attributes map[string]string
			Entries    []map[string]any
		}
		Totals   map[string]any
		Problems []any
		Notes    []map[string]any
	}
	require.NoError(t, json.Unmarshal([]byte(out), &answer))
	require.Equal(t, "Main board", answer.Assemblies[0].Title)
	require.Equal(t, map[string]string{"part": "4410-2", "slot": "3"}, answer.Assemblies[0].Attributes)
	entries := answer.Assemblies[0].Entries
	require.Len(t, entries, 3)
	delete(entries[0], "purpose")
	kind := entries[0]["type"].(map[string]any)
	require.Equal(t, "41256", kind["number"])
	require.Equal(t, "dram", kind["class"])
	require.EqualValues(t, 262144, kind["words"])
	require.EqualValues(t, 1, kind["bits"])
	delete(entries[0], "type")
	require.Equal(t, map[string]any{
		"line": 2.0, "count": 9.0, "kind": "chip", "marking": "41256-15 8512", "speedNs": 150.0,
		"designators": []any{"U40", "U41", "U42", "U43", "U44", "U45", "U46", "U47", "U48"},
		"date":        map[string]any{"text": "1985-W12", "from": "1985-03-18", "to": "1985-03-24"},
		"socketed":    true, "empty": false, "doubtful": false, "new": nil,
		"findings": []any{map[string]any{"kind": "bent", "note": "pin 4"}},
	}, entries[0])
	require.Nil(t, entries[1]["type"])
	require.Nil(t, entries[1]["date"])
	require.Equal(t, []any{}, entries[1]["findings"])
	require.Equal(t, true, entries[2]["doubtful"])
	for name, want := range map[string]any{
		"chips": 11.0, "modules": 0.0, "unidentified": 2.0, "ramBytes": 262144.0, "parityBits": 262144.0,
		"romBytes": 0.0, "emptySockets": 0.0, "findings": 1.0,
		"ramBy": map[string]any{"main": 262144.0, "picture": 0.0, "cache": 0.0, "shared": 0.0, "card": 0.0},
		"draw":  map[string]any{"+5": map[string]any{"typicalA": 0.45, "counted": 9.0, "uncounted": 2.0}},
	} {
		require.Equal(t, want, answer.Totals[name], name)
	}
	require.NotNil(t, answer.Problems)
	require.NotEmpty(t, answer.Notes[0]["text"])
}

func TestMarkingJSON(t *testing.T) {
	_, out, err := heron("", "marking", "HX9040-2 533", "--json", "--era", "1984-1988")
	require.NoError(t, err)
	var answer map[string]any
	require.NoError(t, json.Unmarshal([]byte(out), &answer))
	require.Nil(t, answer["type"])
	require.Equal(t, "1985-W33", answer["date"].(map[string]any)["text"])
	require.Equal(t, []any{"HX9040-2"}, answer["unread"])
	require.Len(t, answer["candidates"], 5)
	for _, name := range []string{"text", "from", "to", "confidence", "why"} {
		require.Contains(t, answer["candidates"].([]any)[0], name)
	}
	_, out, err = heron("", "marking", "...", "--json")
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal([]byte(out), &answer))
	require.Equal(t, []any{}, answer["candidates"])
}

func TestCalc(t *testing.T) {
	_, out, err := heron("", "calc", "ram", "18x 41256-15", "2x 41256-15 for:parity", "--reported", "640K", "--json")
	require.NoError(t, err)
	var answer map[string]any
	require.NoError(t, json.Unmarshal([]byte(out), &answer))
	require.EqualValues(t, 524288, answer["ramBytes"])
	require.EqualValues(t, 4*262144, answer["parityBits"])
	require.EqualValues(t, -131072, answer["differenceBytes"])
	_, out, err = heron("", "calc", "video", "--columns", "80", "--rows", "25", "--cell", "2", "--glyphs", "256",
		"--glyph-bytes", "14", "--fitted", "4K")
	require.NoError(t, err)
	require.Contains(t, out, "enough")
	require.Contains(t, out, "3.5 KB of ROM")
}

func TestReadableAnswers(t *testing.T) {
	_, out, err := heron("U40-U48 41256-15 8512\nU1 ?\nU1 7400", "sheet", "-")
	require.NoError(t, err)
	require.Contains(t, out, "256 KB, and parity")
	require.Contains(t, out, "line 3: U1 stands on line 2 already")
	_, out, err = heron("", "marking", "SN74LS245N", "0108")
	require.NoError(t, err)
	require.Contains(t, out, "low-power Schottky TTL")
	require.Contains(t, out, "open; it could be:")
	_, out, err = heron("U1 7400   @socket\n# kept\nU2\tU3", "sheet", "-", "--format")
	require.NoError(t, err)
	require.Equal(t, "U1         7400 @socket\n# kept\nU2         U3\n", out)
}

func TestSmallSums(t *testing.T) {
	for _, c := range []struct {
		args   []string
		status int
		says   string
	}{
		{[]string{"calc", "word", "377.250", "--fields", "15-8 high", "--json"}, 0, `"splitOctal": "377.250"`},
		{[]string{"calc", "word", "0b102"}, 1, "column 5: '2' is no binary digit"},
		{[]string{"calc", "word", "7", "--fields", "1-3 x"}, 1, "--fields: column 1: 1-3: the high bit goes first"},
		{[]string{"calc", "word"}, 2, ""},
		{[]string{"calc", "net", "--address", "10.0.0.1", "--mask", "/24", "--json"}, 0, `"broadcast": "10.0.0.255"`},
		{[]string{"calc", "net", "--address", "10.0.0"}, 1, `"10.0.0" is no address`},
		{[]string{"calc", "net"}, 2, "give what is known"},
		{[]string{"caution", "Take the lid off", "--holds", "tube", "--json"}, 0, `"key": "tube"`},
		{[]string{"caution", "Take the lid off", "--holds", "ghosts"}, 2, "it is one of"},
	} {
		status, out, errors := heron("", c.args...)
		require.Equal(t, c.status, status, "%v: %s", c.args, errors)
		require.Contains(t, out+fmt.Sprint(errors), c.says, c.args)
	}
}
