package main

import (
	"encoding/json"
	"os"
	"path/filepath"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
)

// The names of the JSON are fixed: scripts depend on them.
func TestROMsOnTheCommandLine(t *testing.T) {
	folder := t.TempDir()
	at := func(name string) string { return filepath.Join(folder, name) }
	half := make([]byte, 8192)
	for i := range half {
		half[i] = byte(i*i>>3) ^ byte(i)
	}
	copy(half[100:], "COPYRIGHT 1984 TARN & VOLE")
	require.NoError(t, os.WriteFile(at("a.bin"), append(slices.Clone(half), half...), 0o600))
	read := func(arguments ...string) map[string]any {
		status, out, err := heron("", append(arguments, "--json")...)
		require.NoError(t, err)
		require.Zero(t, status)
		answer := map[string]any{}
		require.NoError(t, json.Unmarshal([]byte(out), &answer))
		return answer
	}
	i := read("rom", "inspect", at("a.bin"), "--device", "27128")
	require.Equal(t, map[string]any{"number": "27128", "bytes": 16384.0, "fits": "exact"}, i["device"])
	require.Equal(t, []any{16384.0, 8192.0, 2.0, []any{1984.0}},
		[]any{i["bytes"], i["effectiveBytes"], i["repeats"], i["years"]})
	for _, name := range []string{"crc32", "sha1", "sha256", "sum16", "blankBytes", "blankRuns", "texts",
		"stuckDataBits", "ignoredAddressLines", "warnings"} {
		require.Contains(t, i, name)
		require.NotNil(t, i[name], name)
	}
	require.Nil(t, read("rom", "inspect", at("a.bin"))["device"])

	worn := slices.Clone(half)
	worn[3000] |= worn[3000] + 1
	require.NoError(t, os.WriteFile(at("b.bin"), append(slices.Clone(half), worn...), 0o600))
	c := read("rom", "compare", at("a.bin"), at("b.bin"))
	require.Equal(t, []any{"charge-loss", 1.0, 11192.0, 1.0, 0.0},
		[]any{c["verdict"], c["differingBytes"], c["firstOffset"], c["bits0to1"], c["bits1to0"]})

	done := func(arguments ...string) {
		status, out, err := heron("", arguments...)
		require.NoError(t, err, out)
		require.Zero(t, status)
	}
	same := func(a, b string) {
		one, err := os.ReadFile(at(a))
		require.NoError(t, err)
		two, err := os.ReadFile(at(b))
		require.NoError(t, err)
		require.Equal(t, one, two)
	}
	for _, format := range []string{"ihex", "srec"} {
		done("rom", "convert", at("a.bin"), "--to", format, "--out", at("a."+format))
		done("rom", "convert", at("a."+format), "--to", "bin", "--out", at("back.bin"))
		same("a.bin", "back.bin")
	}
	done("rom", "split", at("a.bin"), "--lanes", "4", "--out", at("lanes"))
	done("rom", "merge", at("lanes/a.lane0.bin"), at("lanes/a.lane1.bin"), at("lanes/a.lane2.bin"),
		at("lanes/a.lane3.bin"), "--out", at("merged.bin"))
	same("a.bin", "merged.bin")

	for says, arguments := range map[string][]string{
		"line 1: its checksum":     {"rom", "inspect", "-"},
		"no such file":             {"rom", "compare", at("a.bin"), at("none.bin")},
		"5 lanes: 4 would be left": {"rom", "split", at("a.bin"), "--lanes", "5", "--out", at("x")},
		"lane 1 has 4096":          {"rom", "merge", at("a.bin"), at("lanes/a.lane0.bin"), "--out", at("x.bin")},
	} {
		status, _, err := heron(":0300300002337A1F\n:00000001FF\n", arguments...)
		require.ErrorContains(t, err, says)
		require.Equal(t, 1, status, says)
	}
	for says, arguments := range map[string][]string{
		"is no format":           {"rom", "convert", at("a.bin"), "--to", "tape", "--out", at("x")},
		"no memory in the":       {"rom", "inspect", at("a.bin"), "--device", "7400"},
		`required flag(s) "out"`: {"rom", "split", at("a.bin")},
	} {
		status, _, err := heron("", arguments...)
		require.ErrorContains(t, err, says)
		require.Equal(t, 2, status, says)
	}
	status, out, err := heron("", "rom", "inspect", at("a.bin"))
	require.NoError(t, err)
	require.Zero(t, status)
	require.Contains(t, out, "00000064 COPYRIGHT 1984 TARN & VOLE")
}

func TestDateOnTheCommandLine(t *testing.T) {
	const evidence = `{"evidence":[
		{"id":"U1","kind":"date-code","from":"1985-03-04","to":"1985-03-10","fit":"soldered"},
		{"id":"plate","kind":"label","from":"1985-01-01","to":"1985-01-31"},
		{"id":"model","kind":"production-window","from":"1984-01-01","to":null}]}`
	status, out, err := heron(evidence, "date", "--json")
	require.NoError(t, err)
	require.Zero(t, status)
	answer := map[string]any{}
	require.NoError(t, json.Unmarshal([]byte(out), &answer))
	require.Equal(t, []any{"1985-03-04", "1985-01-31", []any{}},
		[]any{answer["notBefore"], answer["notAfter"], answer["outliers"]})
	require.Equal(t, map[string]any{"from": "1985-01-01", "to": "1985-01-31"}, answer["estimate"])
	require.Len(t, answer["conflicts"], 1)
	require.NotEmpty(t, answer["basis"])
	_, out, err = heron(`{"evidence":[]}`, "date", "--json")
	require.NoError(t, err)
	require.Contains(t, out, `"estimate": null`)
	require.Contains(t, out, `"conflicts": []`)
	_, out, err = heron(evidence, "date", "-")
	require.NoError(t, err)
	require.Contains(t, out, "conflict")
	for says, input := range map[string]string{"no evidence in JSON": "{",
		"evidence 1 (x)": `{"evidence":[{"id":"x","kind":"guess"}]}`,
		"not a date":     `{"evidence":[{"id":"x","kind":"label","from":"1985-02-30"}]}`} {
		status, _, err := heron(input, "date", "--json")
		require.ErrorContains(t, err, says)
		require.Equal(t, 1, status)
	}
}
