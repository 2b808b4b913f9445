package upkeep_test

import (
	"encoding/json"
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/calendar"
	"frugalheron/core/upkeep"
)

func plan(t require.TestingT, text string) upkeep.Output {
	var in upkeep.Input
	require.NoError(t, json.Unmarshal([]byte(text), &in))
	out, err := upkeep.Plan(in)
	require.NoError(t, err)
	return out
}

func ExamplePlan() {
	now, _ := calendar.Parse("2026-11-28")
	since, _ := calendar.Parse("2025-08-31")
	out, _ := upkeep.Plan(upkeep.Input{Now: calendar.On(now),
		Rules:  []upkeep.Rule{{Task: "look at the battery", EveryMonths: 6, Of: "battery", Looks: true}},
		Things: []upkeep.Thing{{ID: "EH-0142 BT1", Kind: "battery", Since: calendar.On(since)}}})
	fmt.Println(out.Due[0].On, out.Due[0].OverdueDays, out.Due[0].Because)
	// Output: 2026-02-28 273 nothing was done since 2025-08-31
}

// Days follow from the last evidence: a plan counts for nothing, a look where a look is enough, and a round is walked.
func TestPlan(t *testing.T) {
	const rules = `"now":"2026-11-28","rules":[{"task":"look","everyMonths":3,"of":"battery","looks":true},
		{"task":"clean","everyMonths":12,"of":"machine"},{"task":"look","everyMonths":6,"of":"machine","looks":true}],
		"hours":{"look":0.25},`
	thing := func(done string) upkeep.Due {
		return plan(t, `{`+rules+`"things":[{"id":"B","kind":"battery","since":"2026-06-30","place":[]}],
			"done":[`+done+`]}`).Due[0]
	}
	deed := func(on, how string) string {
		return fmt.Sprintf(`{"thing":"B","task":"look","on":"%s","how":"%s"}`, on, how)
	}
	for done, want := range map[string]string{"": "2026-09-30", deed("2026-08-01", "planned"): "2026-09-30",
		deed("2027-08-01", "planned"): "2026-09-30", deed("2026-08-01", "seen"): "2026-11-01",
		deed("2026-08-31", "did") + "," + deed("2026-07-01", "seen"): "2026-11-30",
		deed("2026-01-01", "did"):                                    "2026-09-30"} {
		require.Equal(t, want, thing(done).On.String(), done)
	}
	out := plan(t, `{`+rules+`"things":[{"id":"EH-10","kind":"machine","since":"2025-01-01",
		"place":["Rope walk","bay 10"]},
		{"id":"EH-9","kind":"machine","since":"2025-01-01","place":["Rope walk","bay 2"]},
		{"id":"EH-7","kind":"machine","since":"2025-01-01","place":["Rope walk"]},
		{"id":"EH-7 B","kind":"battery","since":"2025-01-01","place":["Rope walk"]}],
		"done":[{"thing":"EH-9","task":"clean","on":"2026-10-01","how":"seen"}]}`)
	require.Equal(t, []string{"EH-7", "EH-7 B", "EH-9", "EH-10"}, out.Rounds[0].Things, "the shorter way first, bay 2 before bay 10")
	require.InDelta(t, 1.0, *out.Rounds[0].Hours, 1e-9)
	require.Equal(t, "clean", out.Rounds[1].Task)
	require.Len(t, out.Rounds[1].Things, 3, "to see it does not clean it")
	require.Nil(t, out.Rounds[1].Hours, "nobody said how long it takes")
	require.True(t, slices.IsSortedFunc(out.Due, func(a, b upkeep.Due) int { return b.OverdueDays - a.OverdueDays }))
}

func TestWhatCannotBePlanned(t *testing.T) {
	for text, says := range map[string]string{
		`{}`:                   "now",
		`{"now":"2026-13-01"}`: "now: \"2026-13-01\" is no day",
		`{"now":"2026-11-28","rules":[{"task":"a","of":"b"}]}`: "rules[0].everyMonths",
		`{"now":"2026-11-28","rules":[{"task":"a","of":"b","everyMonths":1},
			{"task":"a","of":"b","everyMonths":2}]}`: "rules[1]",
		`{"now":"2026-11-28","things":[{"id":"a"},{"id":"a"}]}`:     "things[1].id",
		`{"now":"2026-11-28","things":[{"id":"a","since":"soon"}]}`: "things[0].since",
		`{"now":"2026-11-28","done":[
			{"thing":"a","task":"b","on":"2026-11-29","how":"did"}]}`: "done[0].on",
		`{"now":"2026-11-28","done":[
			{"thing":"a","task":"b","on":"2026-11-27","how":"perhaps"}]}`: "done[0].how",
		`{"now":"2026-11-28","hours":{"a":-1}}`: "hours.a",
	} {
		var in upkeep.Input
		require.NoError(t, json.Unmarshal([]byte(text), &in), text)
		_, err := upkeep.Plan(in)
		require.ErrorContains(t, err, says, text)
	}
}

// The order of the walk is an order: of any three things, none goes round in a circle, and equal ones are the same.
func TestTheWalkIsAnOrder(t *testing.T) {
	words := rapid.StringOfN(rapid.SampledFrom([]rune("a0129 -")), 0, 4, -1)
	things := rapid.Custom(func(t *rapid.T) upkeep.Thing {
		return upkeep.Thing{ID: words.Draw(t, "id"), Place: rapid.SliceOfN(words, 0, 2).Draw(t, "place")}
	})
	rapid.Check(t, func(t *rapid.T) {
		a, b, c := things.Draw(t, "a"), things.Draw(t, "b"), things.Draw(t, "c")
		require.Equal(t, upkeep.InWalkingOrder(a, b), -upkeep.InWalkingOrder(b, a))
		if upkeep.InWalkingOrder(a, b) < 0 && upkeep.InWalkingOrder(b, c) < 0 {
			require.Negative(t, upkeep.InWalkingOrder(a, c))
		}
		if upkeep.InWalkingOrder(a, b) == 0 {
			require.Equal(t, a.ID, b.ID)
		}
	})
}

// 20,000 due tasks: to be done in 100 ms.
func BenchmarkPlan(b *testing.B) {
	now, _ := calendar.Parse("2026-11-28")
	in := upkeep.Input{Now: calendar.On(now), Rules: []upkeep.Rule{
		{Task: "look", EveryMonths: 3, Of: "battery", Looks: true}, {Task: "clean", EveryMonths: 12, Of: "battery"}}}
	for i := range 10_000 {
		id := fmt.Sprintf("EH-%d", i)
		in.Things = append(in.Things, upkeep.Thing{ID: id, Kind: "battery", Since: calendar.On(now.AddDays(-i % 900)),
			Place: []string{fmt.Sprintf("room %d", i%20), fmt.Sprintf("bay %d", i%300)}})
		in.Done = append(in.Done, upkeep.Deed{Thing: id, Task: "look", On: calendar.On(now.AddDays(-i % 500)), How: upkeep.Seen})
	}
	for b.Loop() {
		if _, err := upkeep.Plan(in); err != nil {
			b.Fatal(err)
		}
	}
}

// What is overdue is due in the week of now, and what lies outside of the weeks is in none; nothing counts twice.
func TestWeeks(t *testing.T) {
	day := func(text string) calendar.Date {
		d, err := calendar.Parse(text)
		require.NoError(t, err)
		return d
	}
	hours := 1.5
	entries := []upkeep.Entry{{On: day("2026-11-02"), Sort: upkeep.FallsDue, Hours: &hours}, {On: day("2026-12-06"),
		Sort: upkeep.FallsDue}, {On: day("2026-12-07"), Sort: upkeep.IsPlan, Hours: &hours}, {On: day("2026-11-29"),
		Sort: upkeep.WasDone}, {On: day("2026-12-14"), Sort: upkeep.FallsDue}}
	weeks := upkeep.Weeks(day("2026-12-02"), day("2026-12-06"), 2, entries)
	require.Equal(t, []string{"2026-W49", "2026-W50"}, []string{weeks[0].Name, weeks[1].Name})
	require.Equal(t, day("2026-11-30"), weeks[0].From)
	require.Equal(t, []bool{true, false}, []bool{weeks[0].IsNow, weeks[1].IsNow})
	require.Equal(t, upkeep.Load{Count: 2, Hours: 1.5, Untimed: 1}, weeks[0].Due)
	require.Equal(t, []int{0, 1}, weeks[0].Entries)
	require.Equal(t, upkeep.Load{Count: 1, Hours: 1.5}, weeks[1].Planned)
	require.Zero(t, weeks[0].Done)
	require.Equal(t, "2027-W01", upkeep.Weeks(day("2026-12-02"), day("2027-01-05"), 1, nil)[0].Name)
	require.Equal(t, "2026-W53", upkeep.Weeks(day("2026-12-02"), day("2027-01-03"), 1, nil)[0].Name)

	rapid.Check(t, func(t *rapid.T) {
		now, from := calendar.FromDays(rapid.IntRange(0, 40_000).Draw(t, "now")), rapid.IntRange(0, 40_000).Draw(t,
			"from")
		given := rapid.SliceOf(rapid.Custom(func(t *rapid.T) upkeep.Entry {
			return upkeep.Entry{On: calendar.FromDays(from + rapid.IntRange(-90, 90).Draw(t, "on")),
				Sort: rapid.SampledFrom([]upkeep.Sort{upkeep.FallsDue, upkeep.IsPlan, upkeep.WasDone}).Draw(t, "sort")}
		})).Draw(t, "entries")
		met := map[int]bool{}
		for _, w := range upkeep.Weeks(now, calendar.FromDays(from), 9, given) {
			require.Equal(t, 1, w.From.Weekday())
			require.Equal(t, w.Due.Count+w.Planned.Count+w.Done.Count, len(w.Entries))
			for _, at := range w.Entries {
				require.False(t, met[at])
				met[at] = true
				on := given[at].On
				if given[at].Sort == upkeep.FallsDue && on.Before(now) {
					on = now
				}
				require.False(t, on.Before(w.From) || w.To.Before(on))
			}
		}
	})
}
