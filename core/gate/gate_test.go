package gate_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/gate"
)

func ExampleJudge() {
	var in gate.Input
	_ = json.Unmarshal([]byte(`{"now":"2026-11-28","batteries":[{"id":"BT1","state":"leaking"}]}`), &in)
	out, _ := gate.Judge(in)
	fmt.Println(out.State, out.Next.Kind, out.Next.Step)
	for _, m := range out.Missing {
		fmt.Println(m.Blocks, m.What)
	}
	// Output:
	// hold remove BT1
	// hold BT1: it is leaking
	// hold nobody said what feeds it
	// staged no step with the minimum has been tried
}

// cleared is a machine of which nothing is missing; a case changes some of it.
const cleared = `{"now":"2026-11-28","supplyMonths":12,"local":{"volts":230,"hz":50},
	"supplies":[{"id":"psu","kind":"mains","plate":{"volts":"220-240","hz":"50","polarity":"none"},"selector":null,
	"source":null,"inspectedOn":"2026-06-01","movedOn":null,"ranOn":null,
	"rails":[{"rail":"+5","volts":5,"on":"2026-06-02","load":"dummy"},
	{"rail":"-12","volts":-12.9,"on":"2026-06-02","load":"machine"}],
	"needs":["+5","-12"],"rating":{"+5":10},"draw":{"+5":10}}],
	"findings":[{"id":"f1","severity":"hazard","subsystem":"board"}],
	"batteries":[{"id":"BT1","state":"replaced","primary":true,
	"charged":false}],"connectors":[{"id":"P1","open":false},{"id":"P9","open":true,"mustStayFree":true}],
	"cooling":[{"id":"fan","state":"turns","needed":true}],"changedOn":"2026-07-01",
	"ladder":[{"step":"board alone","kind":"minimum","result":"as-expected","on":"2026-07-01"},
	{"step":"disk card","kind":"add","result":"as-expected","on":"2026-07-02"}]}`

func judge(t require.TestingT, text string) gate.Output {
	var in gate.Input
	require.NoError(t, json.Unmarshal([]byte(text), &in), text)
	out, err := gate.Judge(in)
	require.NoError(t, err, text)
	return out
}

// Each change of a machine of which nothing is missing: its state, and the ids of what is missing then.
func TestWhatIsMissing(t *testing.T) {
	base := strings.Replace(cleared, `"severity":"hazard"`, `"severity":"repair"`, 1)
	require.Equal(t, gate.Cleared, judge(t, base).State, judge(t, base).Missing)
	plate := func(volts, rest string) string {
		return `"plate":{"volts":"` + volts + `","hz":"50","polarity":"none"},` + rest
	}
	plain := plate("220-240", `"selector":null`)
	own := `"kind":"mains",` + plate("220-240", `"selector":null,`+"\n\t"+`"source":null`)
	adapter := func(polarity, source string) string {
		return `"kind":"adapter","plate":{"volts":"9","hz":"","polarity":"` + polarity +
			`"},"selector":null,"source":` + source
	}
	const inspected, moved, ran = `"inspectedOn":"2026-06-01"`, `"movedOn":null`, `"ranOn":null`
	const days = inspected + "," + moved + "," + ran
	const five, minus = `"volts":5,"on":"2026-06-02","load":"dummy"`, `"volts":-12.9`
	const disk = `"result":"as-expected","on":"2026-07-02"`
	for _, c := range []struct {
		from, to string
		state    gate.State
		missing  string
	}{
		{plain, plate("230", `"selector":null`), gate.Cleared, ""},
		{plain, plate("255.5", `"selector":null`), gate.Cleared, ""},
		{plain, plate("256", `"selector":null`), gate.Hold, "psu"},
		{plain, plate("110-120", `"selector":null`), gate.Hold, "psu"},
		{plain, plate("115/230", `"selector":null`), gate.Hold, "psu"},
		{plain, plate("115/230", `"selector":230`), gate.Cleared, ""},
		{plain, plate("115/230", `"selector":115`), gate.Hold, "psu"},
		{plain, plate("115/230", `"selector":220`), gate.Hold, "psu"},
		{plain, plate("100-120 / 200-240 V~", `"selector":230`), gate.Cleared, ""},
		{plain, plate("", `"selector":null`), gate.Hold, "psu"},
		{plain, plate("2?0", `"selector":null`), gate.Hold, "psu"},
		{plain, `"plate":null,"selector":null`, gate.Hold, "psu"},
		{own, `"kind":"battery","plate":null`, gate.Cleared, ""},
		{own, adapter("centre+", `{"volts":9.9,"polarity":"centre+"}`), gate.Cleared, ""},
		{own, adapter("centre+", `{"volts":10,"polarity":"centre+"}`), gate.Hold, "psu"},
		{own, adapter("centre+", `{"volts":9,"polarity":"centre-"}`), gate.Hold, "psu"},
		{own, adapter("", `{"volts":9,"polarity":""}`), gate.Hold, "psu"},
		{own, adapter("none", `{"volts":9,"polarity":"none"}`), gate.Cleared, ""},
		{own, adapter("centre+", `null`), gate.Hold, "psu"},
		{`"local":{"volts":230,"hz":50}`, `"local":null`, gate.Hold, "psu"},
		{inspected, `"inspectedOn":"2025-11-28"`, gate.Cleared, ""},
		{inspected, `"inspectedOn":"2025-11-27"`, gate.Hold, "psu"},
		{inspected, `"inspectedOn":null`, gate.Hold, "psu"},
		{moved, `"movedOn":"2026-06-01"`, gate.Cleared, ""},
		{moved, `"movedOn":"2026-06-02"`, gate.Hold, "psu"},
		{days, `"inspectedOn":null,"movedOn":null,"ranOn":"2026-07-01"`, gate.Cleared, ""},
		{days, `"inspectedOn":null,"movedOn":null,"ranOn":"2026-06-30"`, gate.Hold, "psu"},
		{days, `"inspectedOn":"2026-06-01","movedOn":"2026-06-03","ranOn":"2026-07-01"`,
			gate.SupplyOnly, "+5 -12"},
		{five, `"volts":5.25,"on":"2026-06-01","load":"dummy"`, gate.Cleared, ""},
		{five, `"volts":5.251,"on":"2026-06-02","load":"dummy"`, gate.SupplyOnly, "+5"},
		{five, `"volts":5.3,"on":"2026-06-02","load":"dummy","high":5.4`, gate.Cleared, ""},
		{five, `"volts":5,"on":"2026-05-31","load":"dummy"`, gate.SupplyOnly, "+5"},
		{five, `"volts":5,"on":"2026-06-02","load":"none","regulated":true`, gate.SupplyOnly, "+5"},
		{minus, `"volts":-13.2`, gate.Cleared, ""},
		{minus, `"volts":-13.3`, gate.SupplyOnly, "-12"},
		{minus, `"volts":12`, gate.SupplyOnly, "-12"},
		{`"needs":["+5","-12"]`, `"needs":["+5","+5V","+5"]`, gate.Cleared, ""},
		{`"needs":["+5","-12"]`, `"needs":["VBB"]`, gate.SupplyOnly, "VBB"},
		{`"draw":{"+5":10}`, `"draw":{"+5":10.1}`, gate.SupplyOnly, "+5"},
		{`"repair","subsystem":"board"`, `"repair","subsystem":"supply"`, gate.Hold, "f1"},
		{`"repair","subsystem":"board"`, `"hazard","subsystem":"tube"`, gate.Hold, "f1"},
		{`"repair","subsystem":"board"`, `"hazard","subsystem":"battery"`, gate.SupplyOnly, "f1"},
		{`"repair","subsystem":"board"`, `"watch","subsystem":"mains"`, gate.Cleared, ""},
		{`"replaced","primary":true`, `"swollen","primary":false`, gate.Hold, "BT1"},
		{`"charged":false`, `"charged":null`, gate.Hold, "BT1"},
		{`"charged":false`, `"charged":true`, gate.Hold, "BT1"},
		{`"state":"replaced","primary":true,` + "\n\t" + `"charged":false`,
			`"state":"out","primary":true,"charged":true`,
			gate.Cleared, ""},
		{`"state":"replaced"`, `"neededToStart":true,"state":"out"`, gate.Staged, "BT1"},
		{`"id":"P1","open":false`, `"id":"P1","open":true`, gate.SupplyOnly, "P1"},
		{`"id":"P9","open":true`, `"id":"P9","open":false`, gate.SupplyOnly, "P9"},
		{`"state":"turns"`, `"state":"unknown"`, gate.Staged, "fan"},
		{`"state":"turns","needed":true`, `"state":"dead","needed":false`, gate.Cleared, ""},
		{disk, `"result":null,"on":null`, gate.Staged, "disk card"},
		{disk, `"result":"not","on":"2026-07-02"`, gate.SupplyOnly, "disk card"},
		{disk, `"result":"not","on":"2026-07-01"`, gate.SupplyOnly, "disk card"},
		{disk, `"result":"not","on":"2026-06-30"`, gate.Staged, "disk card"},
		{disk, `"result":"as-expected","on":"2026-06-30"`, gate.Staged, "disk card"},
		{`"kind":"minimum"`, `"kind":"add"`, gate.Staged, "ladder"},
	} {
		require.Contains(t, base, c.from)
		out := judge(t, strings.Replace(base, c.from, c.to, 1))
		ids := []string{}
		for _, m := range out.Missing {
			ids = append(ids, m.ID)
			require.NotEmpty(t, m.What)
			require.NotEmpty(t, m.Do)
		}
		require.Equal(t, c.state, out.State, "%s: %v", c.to, out.Missing)
		require.Equal(t, c.missing, strings.Join(ids, " "), c.to)
		require.Equal(t, c.state == gate.Cleared, out.Next.Kind == gate.Nothing, c.to)
	}
}

// What holds nothing back and is worth knowing.
func TestWarnings(t *testing.T) {
	for change, want := range map[[2]string]string{
		{`"hz":"50"`, `"hz":"60"`}:                         "60 Hz",
		{`"hz":"50"`, `"hz":""`}:                           "no frequency",
		{`"rating":{"+5":10}`, `"rating":{}`}:              "not known",
		{`"needs":["+5","-12"]`, `"startsWithMains":true`}: "as soon as mains arrives",
		{`"load":"dummy"`, `"load":"none"`}:                "at no load",
		{`"rails":[`, `"rails":[{"rail":"+12","volts":13,"on":"2026-06-02","load":"dummy"},`}: "nothing needs it",
	} {
		out := judge(t, strings.Replace(cleared, change[0], change[1], 1))
		require.Contains(t, strings.Join(out.Warnings, "; "), want, change[1])
	}
	require.Empty(t, judge(t, strings.Replace(cleared, `"hz":"50"`, `"hz":"50/60 Hz"`, 1)).Warnings)
}

func TestWhatCannotBeJudged(t *testing.T) {
	for text, says := range map[string]string{
		`{}`:                   "now",
		`{"now":"28.11.2026"}`: "now: \"28.11.2026\" is no day",
		`{"now":"2026-11-28","changedOn":"2026-11-29"}`:              "changedOn: 2026-11-29 is after",
		`{"now":"2026-11-28","supplies":[{"id":"a","kind":"coal"}]}`: "supplies[0].kind",
		`{"now":"2026-11-28","supplies":[{"id":"a","kind":"mains",
			"plate":{"polarity":"left"}}]}`: "supplies[0].plate.polarity",
		`{"now":"2026-11-28","supplies":[{"id":"a","kind":"mains","rails":[
			{"rail":"+5","volts":5,"on":"2026-11-29","load":"none"}]}]}`: "supplies[0].rails[0].on",
		`{"now":"2026-11-28","supplies":[{"id":"a","kind":"mains","rails":[
			{"rail":"+5","load":"none"}]}]}`: "rails[0].volts",
		`{"now":"2026-11-28","supplies":[{"id":"a","kind":"mains"},{"id":"a","kind":"bench"}]}`: "supplies[1].id",
		`{"now":"2026-11-28","ladder":[{"step":"a","kind":"add"},{"step":"a","kind":"add"}]}`:   "ladder[1].step",
		`{"now":"2026-11-28","ladder":[{"step":"a","kind":"add","result":"well"}]}`:             "ladder[0].result",
		`{"now":"2026-11-28","findings":[{"id":"a","severity":"bad","subsystem":"tube"}]}`:      "findings[0].severity",
		`{"now":"2026-11-28","supplyMonths":-1}`:                                                "supplyMonths",
	} {
		var in gate.Input
		require.NoError(t, json.Unmarshal([]byte(text), &in), text)
		_, err := gate.Judge(in)
		require.ErrorContains(t, err, says, text)
	}
}

// Whatever else is found wrong, a machine never comes further by it, and what is missing is told from the strictest on.
func TestNothingMoreIsAllowedByMoreFindings(t *testing.T) {
	rank := map[gate.State]int{gate.Hold: 0, gate.SupplyOnly: 1, gate.Staged: 2, gate.Cleared: 3}
	rapid.Check(t, func(t *rapid.T) {
		var in gate.Input
		require.NoError(t, json.Unmarshal([]byte(cleared), &in))
		before, err := gate.Judge(in)
		require.NoError(t, err)
		for range rapid.IntRange(1, 5).Draw(t, "more") {
			switch rapid.IntRange(0, 3).Draw(t, "what") {
			case 0:
				in.Findings = append(in.Findings, gate.Finding{ID: "f", Severity: rapid.SampledFrom([]string{"cosmetic",
					"watch",
					"repair", "hazard"}).Draw(t, "severity"), Subsystem: rapid.SampledFrom([]string{"supply", "mains", "tube",
					"battery", "board", "cooling", "other"}).Draw(t, "subsystem")})
			case 1:
				in.Batteries = append(in.Batteries, gate.Battery{ID: "b", State: rapid.SampledFrom([]string{"fitted",
					"leaking",
					"swollen", "out", "replaced"}).Draw(t, "state"), Primary: rapid.Bool().Draw(t, "primary")})
			case 2:
				in.Cooling = append(in.Cooling, gate.Cooling{ID: "c", State: "dead",
					Needed: rapid.Bool().Draw(t, "needed")})
			default:
				in.Connectors = append(in.Connectors, gate.Connector{ID: "p", Open: rapid.Bool().Draw(t, "open")})
			}
			after, err := gate.Judge(in)
			require.NoError(t, err)
			require.LessOrEqual(t, rank[after.State], rank[before.State])
			for i, m := range after.Missing {
				require.True(t, i == 0 || rank[after.Missing[i-1].Blocks] <= rank[m.Blocks])
			}
			before = after
		}
	})
}
