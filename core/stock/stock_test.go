package stock_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/device/builtin"
	"frugalheron/core/part"
	"frugalheron/core/stock"
)

var library = builtin.Library()

func need(job int64, text string) stock.Need {
	count, words := stock.ReadCount(text)
	return stock.Need{Job: job, Text: text, Count: count, Part: part.Read(library, words)}
}

func drawer(id int64, count int, text string) stock.Line {
	return stock.Line{ID: id, Text: text, Count: count, Part: part.Read(library, text)}
}

func coming(order int64, count int, due, text string) stock.OnOrder {
	return stock.OnOrder{Order: order, Text: text, Count: count, Due: due, Part: part.Read(library, text)}
}

func ExampleMake() {
	plan := stock.Make(
		[]stock.Need{need(1, "2 x 100u 16V"), need(2, "2 x 100u 16V"), need(3, "NiMH 3.6V")},
		[]stock.Line{drawer(7, 3, "100u 25V")},
		[]stock.OnOrder{coming(5, 1, "2026-12-10", "100u 16V")}, nil)
	for _, m := range plan.Needs {
		fmt.Println(m.Job, m.State, m.Missing)
	}
	fmt.Println(plan.ToOrder())
	fmt.Println(plan.Unblocks())
	// Output:
	// 1 in stock 0
	// 2 on order 0
	// 3 short 1
	// [{NiMH 3.6V 1 [3] 0}]
	// map[5:[{2 []}]]
}

func TestHowANeedIsMet(t *testing.T) {
	faulty, untested, filled := drawer(1, 1, "41256-15"), drawer(1, 1, "41256-15"), drawer(1, 2, "100u 16V")
	faulty.Faulty, untested.Unsure, filled.Minimum = true, "not tested", 5
	held := []stock.Held{{Job: 2, Text: "41256-15", Stock: 1, Count: 1}}
	fromOrder := []stock.Held{{Job: 2, Text: "41256-15", Order: 4, Count: 1}}
	for name, c := range map[string]struct {
		need  stock.Need
		lines []stock.Line
		order []stock.OnOrder
		held  []stock.Held
		state stock.State
		check func(t *testing.T, plan stock.Plan)
	}{
		"faulty ones are never proposed": {need(1, "41256-15"), []stock.Line{faulty}, nil, nil, stock.Short, nil},
		"what nobody tested is a note": {need(1, "41256-15"), []stock.Line{untested}, nil, nil, stock.InStock,
			func(t *testing.T, plan stock.Plan) {
				require.Equal(t, part.Acceptable, plan.Needs[0].Offers[0].Grade)
				require.Contains(t, plan.Needs[0].Offers[0].Why, "not tested")
			}},
		"what is set aside serves its job alone": {need(1, "41256-15"), []stock.Line{drawer(1, 1, "41256-15")}, nil,
			held,
			stock.Short, func(t *testing.T, plan stock.Plan) {
				require.Equal(t, []stock.Taken{{Stock: 1, Text: "41256-15", Job: 2}}, plan.Needs[0].Taken)
			}},
		"set aside": {need(2, "41256-15"), []stock.Line{drawer(1, 1, "41256-15")}, nil, held, stock.Reserved, nil},
		"the exact one before the one with a note": {need(1, "100u 16V"),
			[]stock.Line{drawer(1, 9, "120u 16V"), drawer(2, 9, "100u 16V")}, nil, nil, stock.InStock,
			func(t *testing.T, plan stock.Plan) {
				require.Equal(t, int64(2), plan.Needs[0].Offers[0].Stock)
				require.Zero(t, plan.Needs[0].Offers[1].Count)
			}},
		"set aside of an order": {need(2, "41256-15"), nil, []stock.OnOrder{coming(4, 1, "", "41256-15")}, fromOrder,
			stock.Ordered, func(t *testing.T, plan stock.Plan) { require.True(t, plan.Needs[0].Coming[0].Held) }},
		"the earlier order first, the one without a day last": {need(1, "27128"), nil,
			[]stock.OnOrder{coming(3, 1, "", "27128"), coming(4, 1, "2027-01-02", "27128")}, nil, stock.Ordered,
			func(t *testing.T, plan stock.Plan) { require.Equal(t, int64(4), plan.Needs[0].Coming[0].Order) }},
		"a drawer fills up beside what jobs need": {need(1, "100u 16V"), []stock.Line{filled}, nil, nil, stock.InStock,
			func(t *testing.T, plan stock.Plan) {
				require.Equal(t, []stock.ToOrder{{Text: "100u 16V", Count: 4, Jobs: []int64{}, Refill: 4}}, plan.ToOrder())
			}},
	} {
		t.Run(name, func(t *testing.T) {
			plan := stock.Make([]stock.Need{c.need}, c.lines, c.order, c.held)
			require.Equal(t, c.state, plan.Needs[0].State)
			if c.check != nil {
				c.check(t, plan)
			}
		})
	}
}

// Asked for twice in the same words, one that is set aside serves one of both.
func TestTheSameNeedTwice(t *testing.T) {
	plan := stock.Make([]stock.Need{need(2, "41256-15"), need(2, "41256-15")}, []stock.Line{drawer(1, 1, "41256-15")},
		nil,
		[]stock.Held{{Job: 2, Text: "41256-15", Stock: 1, Count: 1}})
	require.Equal(t, []stock.State{stock.Reserved, stock.Short}, []stock.State{plan.Needs[0].State,
		plan.Needs[1].State})
}

// What is ordered together is told without the counts of the needs.
func TestOrderedTogether(t *testing.T) {
	plan := stock.Make([]stock.Need{need(1, "2 x 100u 16V"), need(2, "3 x 100u  16v")}, nil, nil, nil)
	require.Equal(t, []stock.ToOrder{{Text: "100u 16V", Count: 5, Jobs: []int64{1, 2}}}, plan.ToOrder())
}

// A job that waits for two orders goes on with the later, and one of which something is short with none.
func TestWhatAnOrderUnblocks(t *testing.T) {
	plan := stock.Make([]stock.Need{need(1, "27128"), need(1, "NiMH 3.6V"), need(2, "27128"), need(2,
		"X2 100n 275V~")}, nil,
		[]stock.OnOrder{coming(4, 2, "2027-01-02", "27128"), coming(5, 1, "2027-01-03", "NiMH 3.6V")}, nil)
	require.Equal(t, map[int64][]stock.Unblocked{4: {{Job: 1, With: []int64{5}}}, 5: {{Job: 1, With: []int64{4}}}},
		plan.Unblocks())
}

func TestReadCount(t *testing.T) {
	for text, want := range map[string]struct {
		count int
		words string
	}{"4 x 100u 16V": {4, "100u 16V"}, "8× 4164": {8, "4164"}, "3x1.2V NiCd": {1, "3x1.2V NiCd"}, "0 x foam": {1,
		"0 x foam"},
		"  27128 ": {1, "27128"}, "256K x 1": {1, "256K x 1"}, "12 x": {1, "12 x"}} {
		count, words := stock.ReadCount(text)
		require.Equal(t, want.count, count, text)
		require.Equal(t, want.words, words, text)
	}
}

// Whatever is needed and there: no part is given out twice, what is met and missing is what was asked for, and what is plain
// at once to be no fit is none.
func TestNothingIsGivenOutTwice(t *testing.T) {
	text := rapid.SampledFrom([]string{"100u 16V", "100u 25V", "104", "100n X2", "NiMH 3.6V", "41256-15", "41256-12",
		"4164", "27128",
		"74LS00", "74HCT00", "foam 3 mm", "µx foam", "Foam", "foam of 3 mm", "470", "4k7 1%", "4k7", "knob", "2n2 Y1",
		"256Kx1 120ns"})
	rapid.Check(t, func(t *rapid.T) {
		needs, lines, orders := []stock.Need{}, []stock.Line{}, []stock.OnOrder{}
		for i := range rapid.IntRange(0, 6).Draw(t, "needs") {
			n := need(int64(1+i/2), text.Draw(t, "need"))
			n.Count = rapid.IntRange(1, 4).Draw(t, "count")
			needs = append(needs, n)
		}
		there := map[int64]int{}
		for i := range rapid.IntRange(0, 5).Draw(t, "lines") {
			l := drawer(int64(1+i), rapid.IntRange(0, 5).Draw(t, "there"), text.Draw(t, "line"))
			there[l.ID] = l.Count
			lines = append(lines, l)
		}
		for i := range rapid.IntRange(0, 3).Draw(t, "orders") {
			orders = append(orders, coming(int64(1+i), rapid.IntRange(1, 3).Draw(t, "coming"), "", text.Draw(t,
				"order")))
		}
		plan := stock.Make(needs, lines, orders, nil)
		require.Len(t, plan.Needs, len(needs))
		for _, m := range plan.Needs {
			met := m.Missing
			for _, o := range m.Offers {
				met += o.Count
				there[o.Stock] -= o.Count
				require.NotEqual(t, part.No, o.Grade)
			}
			for _, c := range m.Coming {
				met += c.Count
			}
			require.Equal(t, m.Count, met)
			for _, l := range lines {
				if !part.MayFit(&m.Part, &l.Part) {
					require.Equal(t, part.No, part.GradeOf(m.Part, l.Part), "%s for %s", l.Text, m.Text)
				}
			}
		}
		for id, left := range there {
			require.GreaterOrEqual(t, left, 0, "drawer %d", id)
		}
	})
}

// 300 jobs against 2,000 drawers: to be done in 50 ms.
func BenchmarkMake(b *testing.B) {
	texts := func(i int) string {
		return [...]string{fmt.Sprintf("%du %dV radial", 1+i%470, 16+i%3), fmt.Sprintf("%dk 1/4W", 1+i%820),
			[...]string{"41256-15", "4164-15", "27128-25", "74LS245", "6264"}[i%5], fmt.Sprintf("key cap %d", i%50),
			fmt.Sprintf("NiMH 3.6V %dmAh", 60+i%40)}[i%5]
	}
	needs, lines := []stock.Need{}, []stock.Line{}
	for i := range 300 {
		needs = append(needs, need(int64(i), texts(i*7)))
	}
	for i := range 2000 {
		lines = append(lines, drawer(int64(i+1), 1+i%9, texts(i)))
	}
	for b.Loop() {
		plan := stock.Make(needs, lines, nil, nil)
		plan.ToOrder()
	}
}
