package main

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"
)

// A machine whose supply is inspected and whose +12 rail reads low, and what the gate answers.
const (
	lowRail = `{"now":"2026-11-28","supplyMonths":12,"local":{"volts":230,"hz":50},"supplies":[
		{"id":"main","kind":"mains","plate":{"volts":"220-240","hz":"50","polarity":"none"},"selector":null,
		"source":null,
		"inspectedOn":"2026-11-01","movedOn":"2026-10-20","ranOn":null,"rails":[
		{"rail":"+5","volts":5.02,"on":"2026-11-02","load":"dummy","low":null,"high":null,"regulated":true},
		{"rail":"+12","volts":11.1,"on":"2026-11-02","load":"dummy","low":null,"high":null,"regulated":true}],
		"needs":["+5","+12"],"rating":{"+5":10,"+12":3},"draw":{"+5":3.2},"startsWithMains":false}],"findings":[],
		"batteries":[{"id":"BT1","state":"out","neededToStart":false,"primary":false,"charged":true}],"connectors":[],
		"cooling":[],"changedOn":null,"ladder":[]}`
	lowRailSays = `{"state":"supply-only","missing":[
		{"id":"+12","blocks":"supply-only","what":"+12 V is 11.1 V under load, outside 11.4 to 12.6 V",
		"do":"find out why before anything else is connected","supply":"main"},
		{"id":"ladder","blocks":"staged","what":"no step with the minimum has been tried",
		"do":"list the minimum and its expected sign"}],
		"next":{"kind":"measure","step":"+12","why":"outside its limits"},"warnings":[]}`

	batteries = `{"now":"2026-11-28","rules":[
		{"task":"look at the battery","everyMonths":3,"of":"battery","looks":true}],
		"things":[{"id":"EH-0142 BT1","kind":"battery","since":"2025-01-31","place":["Rope walk","bay 10"]},
		{"id":"EH-0101 BT1","kind":"battery","since":"2025-01-31","place":["Rope walk","bay 2"]}],
		"done":[{"thing":"EH-0142 BT1","task":"look at the battery","on":"2026-08-31","how":"seen"}],
		"hours":{"look at the battery":0.25}}`
	batteriesSay = `{"due":[{"thing":"EH-0101 BT1","task":"look at the battery","on":"2025-04-30","overdueDays":577,
		"because":"nothing was done since 2025-01-31"},{"thing":"EH-0142 BT1","task":"look at the battery",
		"on":"2026-11-30","overdueDays":-2,"because":"seen on 2026-08-31"}],
		"rounds":[{"task":"look at the battery","things":["EH-0101 BT1"],"hours":0.25}]}`
)

// The answers of the engines in their fixed form, and lists that are never null.
func TestEnginesAnswerInTheirForm(t *testing.T) {
	for _, c := range []struct {
		in, out string
		args    []string
	}{
		{lowRail, lowRailSays, []string{"gate", "--json"}},
		{batteries, batteriesSay, []string{"due", "-", "--json"}},
		{`{"now":"2026-11-28"}`, `{"due":[],"rounds":[]}`, []string{"due", "--json"}},
		{"", `{"grade":"better","why":["470 µF on both","25 V where 16 is asked for"]}`,
			[]string{"parts", "match", "--need", "470u/16V", "--have", "470uF 25V", "--json"}},
	} {
		status, out, err := heron(c.in, c.args...)
		require.NoError(t, err, c.args)
		require.Zero(t, status)
		require.JSONEq(t, c.out, out, c.args)
	}
	status, out, err := heron(lowRail, "gate")
	require.NoError(t, err)
	require.Zero(t, status)
	require.Contains(t, out, "supply-only  measure: outside its limits")
	_, out, err = heron(batteries, "due")
	require.NoError(t, err)
	require.Contains(t, out, "round  look at the battery: 1 things")
	_, out, err = heron("", "parts", "match", "--need", "4k7", "--have", "472")
	require.NoError(t, err)
	require.Equal(t, "exact\n4.7 kΩ on both\n", out)
}

// What cannot be read names its place and ends with 1; wrong usage ends with 2.
func TestEnginesRefuseByPlace(t *testing.T) {
	for _, c := range []struct {
		in     string
		args   []string
		status int
		says   string
	}{
		{"{", []string{"gate", "--json"}, 1, "machine before power"},
		{`{"now":"2026-11-28","supplies":[{"id":"a","kind":"mains","movedOn":"2027-01-01"}]}`, []string{"gate"}, 1,
			"supplies[0].movedOn"},
		{`{"now":"2026-11-28","supplies":5}`, []string{"gate"}, 1, "supplies"},
		{`{"rules":[]}`, []string{"due"}, 1, "now"},
		{`{"now":"2026-11-28","done":[{"on":"2026-11-29","how":"seen"}]}`, []string{"due"}, 1, "done[0].on"},
		{"", []string{"gate", "none.json"}, 1, "none.json"},
		{"", []string{"gate", "a", "b"}, 2, "arg"},
		{"", []string{"parts"}, 2, "match"},
		{"", []string{"parts", "match", "--need", "4k7"}, 2, "have"},
		{"", []string{"parts", "match", "--need", "", "--have", "4k7"}, 1, "--need"},
	} {
		status, _, err := heron(c.in, c.args...)
		require.Equal(t, c.status, status, c.args)
		require.ErrorContains(t, err, c.says, c.args)
	}
}

// Answers hold no null where a list is: whoever reads them in a script need not ask.
func TestEmptyAnswersAreLists(t *testing.T) {
	_, out, err := heron(`{"now":"2026-11-28"}`, "gate", "--json")
	require.NoError(t, err)
	var answer map[string]any
	require.NoError(t, json.Unmarshal([]byte(out), &answer))
	require.Equal(t, "hold", answer["state"])
	require.IsType(t, []any{}, answer["warnings"])
	require.Len(t, answer["missing"], 2)
}
