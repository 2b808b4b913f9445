package main

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// answerOf runs a command with --json and reads its answer.
func answerOf(t *testing.T, input string, arguments ...string) map[string]any {
	status, out, err := heron(input, append(arguments, "--json")...)
	require.NoError(t, err)
	require.Zero(t, status)
	answer := map[string]any{}
	require.NoError(t, json.Unmarshal([]byte(out), &answer))
	return answer
}

func TestMeasurementsOnTheCommandLine(t *testing.T) {
	a := answerOf(t, "", "measure", "BT1 2.1 V", "--marking", "NiCd 3.6V 60mAh")
	require.Equal(t, []any{"BT1", "volts", "V", "fail", "2.1 V", []any{2.1}},
		[]any{a["point"], a["quantity"], a["unit"], a["verdict"], a["said"], a["readings"]})
	require.NotNil(t, a["expected"])
	require.Contains(t, a, "why")
	require.Equal(t, []any{-12.9}, answerOf(t, "", "measure", "-12", "-12.9")["readings"])
	require.Nil(t, answerOf(t, "", "measure", "U3", "pin", "8", "0.4", "V")["expected"])
	guide := answerOf(t, "", "measure", "drive guide 31.4 mm / 30.9 mm > 0.2 mm")
	require.Equal(t, []any{30.9, "fail"}, []any{guide["opening"], guide["verdict"]})
	status, out, err := heron("", "measure", "+5 4.60")
	require.NoError(t, err)
	require.Zero(t, status)
	require.Equal(t, "+5 4.6 V: fail\n  4.6 V is below the limit: 4.75 V to 5.25 V (a supply rail, 5 % either way)\n",
		out)
	status, _, err = heron("", "measure", "hinge cracked")
	require.Equal(t, 1, status)
	require.ErrorContains(t, err, "write what was measured")
	status, _, _ = heron("", "measure")
	require.Equal(t, 2, status)
}

func TestRisksOnTheCommandLine(t *testing.T) {
	const parts = `{"machines": [{"id": 1, "acquired": "2024-11-01", "built": "1985-10-01", "climate": "Damp"},
		{"id": 2}, {"id": 3, "climate": "swamp"}],
		"parts": [
		{"machine": 2, "words": "battery lithium CR2032", "place": "BT2", "looked": "2026-10-01"},
		{"machine": 1, "words": "battery NiCd 3.6V", "place": "BT1"},
		{"machine": 1, "words": "chip logic 7400", "place": "U1"},
		{"machine": 3, "words": "battery NiCd", "place": "BT3"}, {"machine": 4, "words": "belt", "place": "drive"}]}`
	answer := answerOf(t, parts, "risk", "--on", "2026-11-01")
	ranked, skipped := answer["ranked"].([]any), answer["skipped"].([]any)
	require.Len(t, ranked, 2)
	for i, want := range [][2]string{{"U1", "no class"}, {"BT3", "climate"}, {"drive", "not given"}} {
		one := skipped[i].(map[string]any)
		require.Equal(t, want[0], one["place"])
		require.Contains(t, one["why"], want[1])
	}
	first := ranked[0].(map[string]any)
	require.Equal(t, []any{1.0, "BT1", "battery-nicd"}, []any{first["machine"], first["place"], first["class"]})
	require.Contains(t, first["why"], "never looked at since it came, 2 years ago")
	require.Greater(t, first["rank"], ranked[1].(map[string]any)["rank"])
	require.Contains(t, ranked[1].(map[string]any)["why"], "last looked at 1 month ago")
	status, out, err := heron(parts, "risk", "-", "--on", "2026-11-01")
	require.NoError(t, err)
	require.Zero(t, status)
	require.Regexp(t, `(?m)^ +\d+\.\d\d  1 BT1: Nickel-cadmium battery`, out)
	require.Equal(t, map[string]any{"ranked": []any{}, "skipped": []any{}}, answerOf(t, `{}`, "risk"))
	for input, says := range map[string]string{
		`{"parts": 7}`: "no list of parts in JSON",
		`{"machines": [{"id": 1, "built": "1985"}]}`: `machines[0].built: "1985" is no day`,
		`{"parts": [{"looked": "soon"}]}`:            `parts[0].looked`,
		`{"classes": [{"key": "cheese"}]}`:           "say what the class is called", ``: "no list of parts",
	} {
		status, _, err := heron(input, "risk", "--json")
		require.Equal(t, 1, status, input)
		require.ErrorContains(t, err, says, input)
	}
	status, _, err = heron(`{}`, "risk", "--on", "today")
	require.Equal(t, 1, status)
	require.ErrorContains(t, err, "--on")
}

func TestFactsAndCautionsOnTheCommandLine(t *testing.T) {
	facts := answerOf(t, `{"now": "2026-11-28", "statements": [
		{"id": "a", "attribute": "worked", "value": "yes", "source": "seller", "on": "2016"},
		{"id": "b", "attribute": "worked", "value": "no", "source": "tested", "on": "2026-11-20"},
		{"id": "c", "attribute": "maker", "value": "Vole", "source": "rumour"}]}`, "facts")
	worked := facts["facts"].([]any)[0].(map[string]any)
	require.Equal(t, "settled", worked["state"])
	require.Equal(t, []any{"2016", "2026-11-20"}, worked["failedBetween"])
	require.Equal(t, "c", facts["problems"].([]any)[0].(map[string]any)["id"])
	for _, input := range []string{`{"statements": []}`, `{"now": "today"}`, `[]`, ``} {
		status, _, err := heron(input, "facts", "-", "--json")
		require.Equal(t, 1, status, input)
		require.Error(t, err, input)
	}

	steps := answerOf(t, "Take the battery out\n\nWeigh it\n", "caution", "-")["steps"].([]any)
	require.Len(t, steps, 2)
	require.Equal(t, []any{}, steps[1].(map[string]any)["cautions"])
	require.Equal(t, 3.0, steps[1].(map[string]any)["line"])
	first := steps[0].(map[string]any)["cautions"].([]any)[0].(map[string]any)
	require.Equal(t, "battery", first["key"])
	require.NotEmpty(t, first["text"])
	status, out, err := heron("", "caution", "Open", "the", "monitor")
	require.NoError(t, err)
	require.Zero(t, status)
	require.Contains(t, out, "line 1, tube: ")
	status, _, _ = heron("", "caution")
	require.Equal(t, 2, status)
}

func TestConsoleAnswersInJSON(t *testing.T) {
	said := answerOf(t, "MONITOR V2.3\r\n64K\r\x00128K OK\r\nADDR 1A2 EXP FF ACT FE\r\n>", "console", "-", "--on", "2026-04-14")
	require.Equal(t, "prompts", said["outcome"])
	require.Equal(t, ">", said["prompt"])
	claim := said["claims"].([]any)[1].(map[string]any)
	require.Equal(t, []any{"memory", "128 KB", 2.0, "memory failed on line 3"},
		[]any{claim["attribute"], claim["value"], claim["line"], claim["doubt"]})
	require.Equal(t, []any{0.0}, said["failures"].([]any)[0].(map[string]any)["bits"])
	require.Equal(t, []any{}, answerOf(t, "", "console", "-")["lines"], "lists are never null")
	for _, c := range []struct {
		input  string
		args   []string
		status int
		want   string
	}{
		{"CLOCK NOT SET\nDISK 0: 10 MB\n", []string{"console", "-"}, 0, "line 1, clock-kept no"},
		{"ERROR 7\n", []string{"console", "-"}, 0, "line 1 complains: ERROR 7"},
		{"", []string{"console"}, 2, ""},
		{"", []string{"console", "-", "--on", "yesterday"}, 2, "--on yesterday"},
		{"", []string{"console", "no such file"}, 1, ""},
		{strings.Repeat("a", 300<<10), []string{"console", "-"}, 1, "longer than 256 KiB"},
	} {
		status, out, err := heron(c.input, c.args...)
		require.Equal(t, c.status, status, "%v: %s", c.args, out)
		require.Contains(t, out+fmt.Sprint(err), c.want)
	}
}
