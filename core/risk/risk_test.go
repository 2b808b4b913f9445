package risk_test

import (
	"cmp"
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/risk"
)

func day(text string) risk.Day {
	at, ok := risk.ParseDay(text)
	if !ok {
		panic(text)
	}
	return at
}

var (
	now   = day("2026-11-01")
	table = risk.TableOf(nil)
)

func ExampleRank() {
	machines := map[int64]risk.Machine{1: {Acquired: day("2024-11-01"), Built: day("1985-10-01"), Climate: risk.Damp},
		2: {Acquired: day("2016-05-01"), Built: risk.NoDay}}
	parts := []risk.Part{
		{Machine: 1, Class: "battery-nicd", Count: 1, Place: "BT1", Born: risk.NoDay, Looked: risk.NoDay},
		{Machine: 2, Class: "battery-lithium", Count: 2, Place: "BT1", Born: day("2015-01-01"),
			Looked: day("2026-10-30")},
	}
	order := risk.Rank(table, machines, parts, now)
	for _, r := range order.From(0, 10) {
		fmt.Printf("%.1f %s\n", r.Rank, order.Sentence(r))
	}
	// Output:
	// 64.0 Nickel-cadmium battery, 41 years old: never looked at since it came, 2 years ago, should be every 2 months where it stands (damp: cellar or shed). It leaks and eats the board around it: spreads to its neighbours.
	// 0.0 2 x Lithium cell, 11 years old: last looked at less than a month ago, should be every 12 months. It goes flat, and the settings with it; seldom leaks: loses data.
}

// The order agrees with the rule in the cases that are kept.
func TestTheOrderOfTheCasesWeKeep(t *testing.T) {
	machines := map[int64]risk.Machine{
		1: {Acquired: day("2020-11-01"), Built: day("1985-01-01")},                     // never looked at
		2: {Acquired: risk.NoDay, Built: risk.NoDay},                                   // nothing is known
		3: {Acquired: day("2020-11-01"), Built: day("1985-01-01")},                     // looked at today
		4: {Acquired: day("2020-11-01"), Built: day("1985-01-01"), Climate: risk.Damp}, // a harsh climate
		5: {Acquired: risk.NoDay,
			Built: day("1985-01-01")}, // no arrival: since it was built
		6: {Acquired: day("2020-11-01"), Built: day("1985-01-01"), Climate: risk.Kept},
	}
	parts := []risk.Part{}
	for id := int64(1); id <= 6; id++ {
		p := risk.Part{Machine: id, Class: "battery-nicd", Count: 1, Born: risk.NoDay, Looked: risk.NoDay}
		if id == 3 {
			p.Looked = now
		}
		parts = append(parts, p)
	}
	parts = append(parts, risk.Part{Machine: 9, Class: "a class that is none", Count: 1})
	order, from := []int64{}, []string{}
	all := risk.Rank(table, machines, parts, now)
	ranked := all.From(0, all.Len())
	require.Equal(t, 5, all.Due)
	for _, r := range ranked {
		order = append(order, r.Machine)
		from = append(from, string(r.From))
	}
	// 5 since 1985; 2 as thirty years old; 4 in the damp twice as often as 1; 6 is kept well; 3 was looked at.
	require.Equal(t, []int64{5, 2, 4, 1, 6, 3}, order)
	require.Equal(t, []string{"built", "nothing", "arrival", "arrival", "arrival", "look"}, from)
	require.Zero(t, ranked[5].Rank)
	require.False(t, ranked[5].IsDue())
	require.InDelta(t, 72.0/3*4, ranked[3].Rank, 0.5)
	require.Contains(t, all.Sentence(ranked[1]), "of unknown age: never looked at, and nobody knows how old it is")
	require.Contains(t, all.Sentence(ranked[0]), "never looked at since it was made, 41 years ago")
	require.InDelta(t, 3.75, ranked[4].Every, 1e-9, "a controlled climate gives more time")

	// A young part has more time; one of unknown age counts as the oldest.
	young := risk.Rank(table, machines,
		[]risk.Part{{Machine: 1, Class: "safety-capacitor", Born: day("2024-01-01"), Looked: day("2025-11-01")},
			{Machine: 2, Class: "safety-capacitor", Born: risk.NoDay, Looked: day("2025-11-01")}}, now).From(0, 2)
	require.Equal(t, []float64{12, 60}, []float64{young[0].Every, young[1].Every})
}

func TestPartsAreClassedByTheirWords(t *testing.T) {
	for words, want := range map[string]string{
		"battery NiCd 3.6V 60mAh": "battery-nicd", "battery lithium 3V CR2032": "battery-lithium",
		"battery 3.6V": "battery-other", "battery gel lead 12V": "battery-lead",
		"safety capacitor 0.1uF X2 275V": "safety-capacitor", "electrolytic capacitor 47uF 16V SMD": "smd-electrolytic",
		"electrolytic capacitor 47uF 16V": "electrolytic",
		"capacitor tantalum 10uF":         "tantalum", "other foam keyboard": "foam",
		"chip eprom 27128": "eprom-charge", "other hard disk 20 MB": "disk", "clock module": "clock-module",
		"chip logic 74LS00": "",
	} {
		require.Equal(t, want, risk.ClassOf(words), words)
	}
	for _, c := range risk.Shipped() {
		require.NoError(t, c.Check())
		require.NotZero(t, c.Minutes, c.Key)
	}
	own := risk.Shipped()[0]
	own.Intervals = []risk.Interval{{FromYears: 0, Months: 1}}
	require.Equal(t, 1, risk.TableOf([]risk.Class{own})["battery-nicd"].Intervals[0].Months)
	require.Len(t, risk.TableOf([]risk.Class{own}).List(), len(risk.Shipped()))
	for want, change := range map[string]func(c *risk.Class){
		"no name of a class":  func(c *risk.Class) { c.Key = "Cheese board" },
		"leave the words out": func(c *risk.Class) { c.Words = "cheese" },
		"no consequence":      func(c *risk.Class) { c.Consequence = "bad" },
		"from 0 years":        func(c *risk.Class) { c.Intervals = []risk.Interval{{FromYears: 3, Months: 2}} },
		"go up by age":        func(c *risk.Class) { c.Intervals = []risk.Interval{{Months: 2}, {Months: 2}} },
		"say how one know":    func(c *risk.Class) { c.Source = " " },
	} {
		broken := own
		change(&broken)
		require.ErrorContains(t, broken.Check(), want)
	}
}

// A collection adds what no table foresees, told by its own words; these go before the patterns that ship.
func TestACollectionAddsAClass(t *testing.T) {
	filter := risk.Class{Key: "air-filter", Name: "Air filter", Consequence: risk.Stops, Minutes: 5,
		Intervals: []risk.Interval{{FromYears: 0, Months: 6}}, Happens: "clogs", Source: "own practice",
		Words: "air filter,  dust mat"}
	require.NoError(t, filter.Check())
	table := risk.TableOf([]risk.Class{filter})
	for words, want := range map[string]string{
		"fan Air  filter, foam": "air-filter", "fan air filter, 80 mm": "air-filter", "other DUST MAT": "air-filter",
		"other dust mats": "", "fan 80 mm": "fan", "air-filter": "air-filter", "battery NiCd": "battery-nicd",
	} {
		require.Equal(t, want, table.ClassOf(words), words)
	}
	require.Equal(t, "air-filter", table.List()[len(risk.Shipped())].Key)
}

func TestAPlanOpensTheWorstFirst(t *testing.T) {
	machines := map[int64]risk.Machine{1: {Acquired: day("2016-01-01"), Built: day("1985-01-01")},
		2: {Acquired: day("2020-01-01"), Built: day("1985-01-01")},
		3: {Acquired: day("2026-10-31"), Built: day("1985-01-01")}}
	parts := []risk.Part{}
	for id := int64(1); id <= 3; id++ {
		for _, class := range []string{"battery-nicd", "safety-capacitor", "safety-capacitor"} {
			parts = append(parts,
				risk.Part{Machine: id, Class: class, Count: 1, Line: len(parts), Born: risk.NoDay, Looked: risk.NoDay})
		}
	}
	ranked := risk.Rank(table, machines, parts, now)
	chosen, left, waiting := ranked.Plan(180, func(id int64) int { return map[int64]int{1: 100}[id] })
	require.Len(t, chosen, 1)
	require.Equal(t, 1, waiting)
	require.Equal(t, int64(1), chosen[0].Machine)
	require.Equal(t, 100+10+15, chosen[0].Minutes, "two capacitors are looked at together")
	require.Equal(t, 55, left)
	chosen, _, _ = ranked.Plan(90, func(int64) int { return 0 })
	require.Equal(t, int64(1), chosen[0].Machine)
	chosen, _, _ = ranked.Plan(600, func(int64) int { return 0 })
	require.Len(t, chosen, 2, "nothing is due in the third")

	// More time never means fewer machines, and no plan takes longer than there is.
	rapid.Check(t, func(t *rapid.T) {
		available := rapid.IntRange(0, 500).Draw(t, "minutes")
		chosen, left, _ := ranked.Plan(available, func(int64) int { return 0 })
		used := 0
		for _, o := range chosen {
			used += o.Minutes
		}
		require.Equal(t, available-left, used)
		more, _, _ := ranked.Plan(available+200, func(int64) int { return 0 })
		require.GreaterOrEqual(t, len(more), len(chosen))
	})
}

// Looking at a part never raises its rank, and time passing never lowers it.
func TestLookingLowersTheRank(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		class := rapid.SampledFrom(risk.Shipped()).Draw(t, "class").Key
		days := rapid.Int32Range(0, 20000)
		m := map[int64]risk.Machine{
			1: {Acquired: now - risk.Day(days.Draw(t, "acquired")), Built: risk.NoDay,
				Climate: rapid.SampledFrom([]risk.Climate{"", risk.Damp, risk.Kept}).Draw(t, "climate")},
		}
		rankAt := func(looked, at risk.Day) float64 {
			return risk.Rank(table, m, []risk.Part{{Machine: 1, Class: class, Born: day("1985-01-01"), Looked: looked}},
				at).At(0).Rank
		}
		looked := now - risk.Day(days.Draw(t, "looked"))
		require.LessOrEqual(t, rankAt(now, now), rankAt(looked, now))
		later := now + risk.Day(days.Draw(t, "later"))
		require.GreaterOrEqual(t, rankAt(looked, later), rankAt(looked, now))
	})
}

// Sorting all rows by comparing them, slow and plain, gives the same order.
func TestTheOrderIsThatOfAPlainSort(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		machines, parts := generated(rapid.IntRange(1, 40).Draw(t, "machines"),
			40*rapid.IntRange(1, 12).Draw(t, "parts"))
		order := risk.Rank(table, machines, parts, now)
		plain := []risk.Ranked{}
		for _, p := range parts {
			plain = append(plain, risk.Rank(table, machines, []risk.Part{p}, now).At(0))
		}
		slices.SortStableFunc(plain, func(a, b risk.Ranked) int { return cmp.Compare(b.Rank, a.Rank) })
		require.Equal(t, len(plain), order.Len())
		due := 0
		for i, r := range order.From(0, order.Len()) {
			require.Equal(t, *plain[i].Part, *r.Part)
			if r.IsDue() {
				due++
			}
		}
		require.Equal(t, due, order.Due)
		require.Empty(t, order.From(order.Len(), order.Len()+5))
	})
}

// generated are as many parts as a large collection has.
func generated(machines, parts int) (map[int64]risk.Machine, []risk.Part) {
	r := rand.New(rand.NewPCG(7, 7))
	all, of := []risk.Part{}, map[int64]risk.Machine{}
	classes := risk.Shipped()
	for id := range int64(machines) {
		of[id] = risk.Machine{Acquired: now - risk.Day(r.IntN(9000)), Built: now - risk.Day(10000+r.IntN(8000)),
			Climate: risk.Climates()[r.IntN(5)].Climate}
		for line := range parts / machines {
			p := risk.Part{Machine: id, Class: classes[r.IntN(len(classes))].Key, Count: 1, Line: line,
				Born: risk.NoDay, Looked: risk.NoDay}
			if r.IntN(2) == 0 {
				p.Looked = now - risk.Day(r.IntN(3000))
			}
			all = append(all, p)
		}
	}
	return of, all
}

func BenchmarkRank400000Parts(b *testing.B) {
	machines, parts := generated(20_000, 400_000)
	for b.Loop() {
		if order := risk.Rank(table, machines, parts, now); order.Len() != len(parts) ||
			order.Sentence(order.At(0)) == "" {
			b.Fatal("not all are ranked")
		}
	}
}

// A part that was put in new begins anew: its age and its looks count from then, whatever the machine's age.
func TestARenewedPartBeginsAnew(t *testing.T) {
	table, now := risk.TableOf(nil), day("2026-11-28")
	m := map[int64]risk.Machine{1: {Acquired: day("2001-01-01"), Built: day("1985-01-01")}}
	rank := func(p risk.Part) risk.Ranked {
		p.Machine, p.Class = 1, "electrolytic"
		return risk.Rank(table, m, []risk.Part{p}, now).At(0)
	}
	old := rank(risk.Part{Born: risk.NoDay, Looked: risk.NoDay})
	require.InDelta(t, 41.9, old.Years, 0.1)
	require.Equal(t, risk.FromArrival, old.From)
	renewed := rank(risk.Part{Born: day("1984-01-01"), Looked: risk.NoDay, Renewed: day("2021-06-01")})
	require.InDelta(t, 5.5, renewed.Years, 0.1)
	require.Equal(t, risk.FromRenewal, renewed.From)
	require.Equal(t, risk.FromLook, rank(risk.Part{Born: risk.NoDay, Looked: day("2024-01-01"),
		Renewed: day("2021-06-01")}).From, "the later of both counts")
	require.Equal(t, risk.FromRenewal, rank(risk.Part{Born: risk.NoDay, Looked: day("2019-01-01"),
		Renewed: day("2021-06-01")}).From)
	came := rank(risk.Part{Born: risk.NoDay, Looked: risk.NoDay, CameIn: day("2010-01-01")})
	require.InDelta(t, 16.9, came.Years, 0.1)
	require.InDelta(t, 16.9*12, came.Months, 1)
}

// What falls due is counted once, in the month in which its time is over; what is overdue counts apart.
func TestLooksAhead(t *testing.T) {
	table := risk.Table{"belt": {Name: "Belt", Consequence: risk.Stops,
		Intervals: []risk.Interval{{FromYears: 0, Months: 12}}}}
	looked := func(text string) risk.Part {
		return risk.Part{Machine: 1, Class: "belt", Count: 1, Looked: day(text), Born: day("2020-01-01")}
	}
	parts := []risk.Part{looked("2025-11-20"), looked("2025-12-05"), looked("2025-12-31"), looked("2026-11-29"),
		looked("2020-01-01"), {Machine: 1, Class: "nothing of ours"}}
	order := risk.Rank(table, map[int64]risk.Machine{1: {Climate: "dry"}}, parts, day("2026-11-29"))
	overdue, ahead := order.Ahead(3)
	require.Equal(t, 2, overdue)
	require.Equal(t, []risk.Month{{"2026-11", 0}, {"2026-12", 1}, {"2027-01", 1}}, ahead)
	sum := 0
	_, all := order.Ahead(24)
	for _, m := range all {
		sum += m.Looks
	}
	require.Equal(t, order.Len(), overdue+sum, "each counts once")
	_, none := order.Ahead(0)
	require.Empty(t, none)
}

// A family stands for the classes that its key begins, and for no others; no class of a collection can be called like one,
// or like machines as a whole.
func TestFamilies(t *testing.T) {
	for _, c := range []struct {
		key, class string
		covers     bool
	}{{"battery", "battery-nicd", true}, {"battery", "battery-other", true}, {"battery", "clock-module", false},
		{"fan", "fan", true}, {"fan", "fan-filter", false}, {"electrolytic", "smd-electrolytic", false}, {"battery",
			"", false},
		{"", "fan", false}} {
		require.Equal(t, c.covers, risk.Covers(c.key, c.class), "%s, %s", c.key, c.class)
	}
	table := risk.TableOf(nil)
	for key, known := range map[string]bool{"battery": true, "fan": true, "machine": false, "": false} {
		name, is := table.NameOf(key)
		require.Equal(t, known, is, key)
		require.Equal(t, known, name != "")
	}
	for _, f := range risk.Families() {
		require.True(t, slices.ContainsFunc(table.List(), func(c risk.Class) bool { return risk.Covers(f.Key, c.Key) }))
	}
	own := risk.Class{Name: "X", Consequence: risk.Stops, Minutes: 5, Happens: "stops", Source: "said", Words: "x",
		Intervals: []risk.Interval{{Months: 6}}}
	for key, says := range map[string]string{"machine": "stands for all", "battery": "stands for all", "filter": ""} {
		own.Key = key
		if err := own.Check(); says != "" {
			require.ErrorContains(t, err, says, key)
		} else {
			require.NoError(t, err, key)
		}
	}
}
