package slotplan_test

import (
	"encoding/json"
	"fmt"
	"math/bits"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/slotplan"
)

func plan(t require.TestingT, input string) slotplan.Output {
	var in slotplan.Input
	require.NoError(t, json.Unmarshal([]byte(input), &in))
	out, err := slotplan.Plan(in)
	require.NoError(t, err)
	return out
}

// row is so many slots of one kind beside each other, all on the chain.
func row(n int) string {
	slots, chain := "", ""
	for i := 1; i <= n; i++ {
		slots += fmt.Sprintf(`,{"id":"%d","kind":"bus","row":"a"}`, i)
		chain += fmt.Sprintf(`,"%d"`, i)
	}
	return `"slots":[` + slots[1:] + `],"chain":[` + chain[1:] + `]`
}

// told is an output in short: where each card goes, and what is wrong.
func told(out slotplan.Output) (at map[string]string, wrong []string) {
	at = map[string]string{}
	for id, p := range out.Assignment {
		settings, _ := json.Marshal(p.Settings)
		at[id] = p.Slot + " " + string(settings)
	}
	for _, p := range out.Problems {
		wrong = append(wrong, fmt.Sprint(p.Kind, p.Cards))
	}
	return at, wrong
}

func TestPlans(t *testing.T) {
	for _, c := range []struct {
		about, in string
		ok        bool
		at        map[string]string
		moves     int
		changes   int
		fillers   []string
		wrong     []string
	}{
		{"a filler is missing, and nothing is wrong",
			`{` + row(3) + `,"cards":[{"id":"cpu","kinds":["bus"],"at":"1","chain":"passes",
			"first":true},{"id":"disk","kinds":["bus"],"at":"3","chain":"passes"}]}`, true,
			map[string]string{"cpu": "1 {}", "disk": "3 {}"}, 0, 0, []string{"2"}, []string{"chain[disk]"}},
		{"two cards in one slot",
			`{` + row(2) + `,"cards":[{"id":"a","kinds":["bus"],"at":"1"},{"id":"b","kinds":["bus"],"at":"1"}]}`,
			false, map[string]string{"a": "1 {}", "b": "2 {}"}, 1, 0, []string{}, []string{"overlap[a b]"}},
		{"settings that meet", `{` + row(2) + `,"cards":[{"id":"a","kinds":["bus"],"at":"1","needs":[{"resource":"io",
			"choices":["300-31f","320-33F"],"now":"300-31f"},{"resource":"irq","choices":[5,7],"now":5}]},{"id":"b",
				"kinds":["bus"],
			"at":"2","needs":[{"resource":"io","choices":["310","31f-330","340"],"now":"310"},{"resource":"irq",
				"choices":[5],"now":5}]}]}`,
			false, map[string]string{"a": `1 {"io":"300-31f","irq":7}`, "b": `2 {"io":"340","irq":5}`}, 0, 2,
			[]string{},
			[]string{"overlap[a b]", "overlap[a b]"}},
		{"a wide card that grows down, and wants a slot empty",
			`{` + row(5) + `,"cards":[{"id":"wide","kinds":["bus"],"at":"1","span":2,
			"grows":"down","blocks":["+1"]},{"id":"b","kinds":["bus"],"at":"3","beside":"wide"}]}`, false,
			map[string]string{"wide": "5 {}", "b": "3 {}"}, 1, 0, []string{}, []string{"span[wide]", "beside[wide b]"}},
		{"the chain ends", `{` + row(3) + `,"cards":[{"id":"end","kinds":["bus"],"at":"1","chain":"breaks"},{"id":"b",
			"kinds":["bus"],
			"at":"2","chain":"passes"},{"id":"c","kinds":["bus"],"at":"3"}]}`, false,
			map[string]string{"end": "2 {}", "b": "1 {}", "c": "3 {}"}, 2, 0, []string{}, []string{"chain[end b]"}},
		{"a riser gives a slot, and its card is out without it",
			`{"slots":[{"id":"1","kind":"bus"},{"id":"2","kind":"bus"}],
			"cards":[{"id":"riser","kinds":["bus"],"gives":[{"id":"r1","kind":"local"}]},{"id":"b","kinds":["local"],
				"at":"r1",
			"after":["riser"]}]}`, true, map[string]string{"riser": "1 {}", "b": "r1 {}"}, 0, 0, []string{}, nil},
		{"twice the same resource",
			`{` + row(1) + `,"cards":[{"id":"a","kinds":["bus"],"needs":[{"resource":"dma","choices":[1,2],
			"shared":true},{"resource":"dma","choices":[1,2],"shared":true}]}]}`, true,
			map[string]string{"a": `1 {"dma":[1,2]}`}, 0, 0, []string{}, nil},
		{"no slot, and a pair that cannot live together", `{` + row(2) + `,"cards":[{"id":"a","kinds":["bus"],
			"at":"1","needs":[
			{"resource":"irq","choices":[5],"shared":true}]},{"id":"b","kinds":["bus"],"at":"2",
				"needs":[{"resource":"irq","choices":[5]}]}
				,
			{"id":"c","kinds":["bus"]}]}`, false, map[string]string{}, 0, 0, []string{}, []string{"impossible[a b]"}},
		{"more is drawn than there is",
			`{` + row(2) + `,"rails":{"+5":3},"base":{"+5":1},"cards":[{"id":"a","kinds":["bus"],"at":"1",
			"draw":{"+5":0.5}},{"id":"b","kinds":["bus"],"at":"2","draw":{"+5":2.1}}]}`, false, map[string]string{},
			0, 0, []string{},
			[]string{"rail[a b]", "impossible[b]"}},
		{"as much as there is",
			`{` + row(1) + `,"rails":{"+5":0.3},"base":{"+5":0.1},"cards":[{"id":"a","kinds":["bus"],"at":"1",
			"draw":{"+5":0.2}}]}`, true, map[string]string{"a": "1 {}"}, 0, 0, []string{}, nil},
	} {
		out := plan(t, c.in)
		at, wrong := told(out)
		require.Equal(t, []any{c.ok, c.at, c.moves, c.changes, c.fillers, c.wrong},
			[]any{out.OK, at, out.Moves, out.Changes, out.Fillers, wrong}, c.about)
	}
}

func TestPlansThatCannotBe(t *testing.T) {
	for place, in := range map[string]string{
		"slots[1].id":         `{"slots":[{"id":"1"},{"id":"1"}]}`,
		"chain[0]":            `{"slots":[],"chain":["x"]}`,
		"cards[0].at":         `{"cards":[{"id":"a","at":"x"}]}`,
		"cards[0].after[0]":   `{"cards":[{"id":"a","after":["x"]}]}`,
		"cards[0].beside":     `{"cards":[{"id":"a","beside":"a"}]}`,
		"cards[0].blocks[0]":  `{"slots":[{"id":"1","kind":"k"}],"cards":[{"id":"a","blocks":["+0"]}]}`,
		"cards[0].chain":      `{"cards":[{"id":"a","chain":"perhaps"}]}`,
		"cards[0].needs[0].c": `{"cards":[{"id":"a","needs":[{"resource":"io","choices":["31f-300"]}]}]}`,
		"cards[0].needs[0].n": `{"cards":[{"id":"a","needs":[{"resource":"io","choices":["300"],"now":"xyz"}]}]}`,
		"cards[0].draw":       `{"cards":[{"id":"a","draw":{"+5":-1}}]}`,
	} {
		var one slotplan.Input
		require.NoError(t, json.Unmarshal([]byte(in), &one))
		_, err := slotplan.Plan(one)
		require.ErrorContains(t, err, place)
	}
}

var anyBackplane = rapid.Custom(func(t *rapid.T) slotplan.Input {
	in := slotplan.Input{}
	for i := range rapid.IntRange(2, 4).Draw(t, "slots") {
		id := fmt.Sprint(i)
		in.Slots = append(in.Slots, slotplan.Slot{ID: id, Kind: rapid.SampledFrom([]string{"k", "k", "l"}).Draw(t,
			"kind"),
			Row: rapid.SampledFrom([]string{"a", "a", "b"}).Draw(t, "row")})
		in.Chain = append(in.Chain, id)
	}
	if rapid.Bool().Draw(t, "chain") {
		slices.Reverse(in.Chain)
	}
	names := []string{"x", "y", "z"}[:rapid.IntRange(1, 3).Draw(t, "cards")]
	for i, name := range names {
		c := slotplan.Card{ID: name, Kinds: []string{"k"}, Span: rapid.IntRange(0, 2).Draw(t, "span"),
			Grows: rapid.SampledFrom([]string{"up", "down"}).Draw(t, "grows"),
			First: rapid.IntRange(0, 5).Draw(t, "first") == 0,
			Chain: rapid.SampledFrom([]string{"passes", "breaks", "none"}).Draw(t, "chain")}
		if rapid.Bool().Draw(t, "both") {
			c.Kinds = append(c.Kinds, "l")
		}
		if rapid.Bool().Draw(t, "in") {
			c.At = &in.Slots[rapid.IntRange(0, len(in.Slots)-1).Draw(t, "at")].ID
		}
		if other := names[(i+1)%len(names)]; other != name {
			switch rapid.IntRange(0, 5).Draw(t, "to others") {
			case 0:
				c.After = []string{other}
			case 1:
				c.Beside = &other
			case 2:
				c.Blocks = []string{"+1"}
			}
		}
		if rapid.Bool().Draw(t, "need") {
			now := slotplan.Number(uint64(rapid.IntRange(3, 5).Draw(t, "now")))
			c.Needs = []slotplan.Need{{Resource: "irq", Choices: []slotplan.Choice{slotplan.Number(3),
				slotplan.Number(4)}, Now: &now,
				Shared: rapid.Bool().Draw(t, "shared")}}
		}
		in.Cards = append(in.Cards, c)
	}
	return in
})

// every lists all ways to put cards in slots with their settings, in the order of their slots and choices.
func every(in slotplan.Input, try func(moved slotplan.Input, moves, changes int)) {
	var place func(i, moves, changes int, cards []slotplan.Card)
	place = func(i, moves, changes int, cards []slotplan.Card) {
		if i == len(in.Cards) {
			moved := in
			moved.Cards = cards
			try(moved, moves, changes)
			return
		}
		c := in.Cards[i]
		for s := range in.Slots {
			put := c
			put.At = &in.Slots[s].ID
			went := moves
			if c.At != nil && *c.At != *put.At {
				went++
			}
			if len(c.Needs) == 0 {
				place(i+1, went, changes, append(slices.Clone(cards), put))
				continue
			}
			for _, choice := range c.Needs[0].Choices {
				need := c.Needs[0]
				set := changes
				if choice != *need.Now {
					set++
				}
				need.Now = &choice
				put.Needs = []slotplan.Need{need}
				place(i+1, went, set, append(slices.Clone(cards), put))
			}
		}
	}
	place(0, 0, 0, nil)
}

// The proposal is one that stands, and no other that stands is cheaper; where there is none, none stands.
func TestTheProposalIsTheBest(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		in := anyBackplane.Draw(t, "in")
		out, err := slotplan.Plan(in)
		require.NoError(t, err)
		found, best := false, [2]int{}
		every(in, func(moved slotplan.Input, moves, changes int) {
			stands, err := slotplan.Plan(moved)
			require.NoError(t, err)
			if stands.OK && (!found || moves < best[0] || moves == best[0] && changes < best[1]) {
				found, best = true, [2]int{moves, changes}
			}
		})
		if !found {
			require.Equal(t, slotplan.Impossible, out.Problems[len(out.Problems)-1].Kind)
			require.Empty(t, out.Assignment)
			return
		}
		require.Len(t, out.Assignment, len(in.Cards))
		require.Equal(t, best, [2]int{out.Moves, out.Changes})
	})
}

// sixteen is a backplane of sixteen slots with twelve cards, most of them wide, ordered and with settings to choose.
func sixteen(cards int) slotplan.Input {
	in := slotplan.Input{Rails: map[string]float64{"+5": 40}}
	for i := range 16 {
		id := fmt.Sprint(i)
		in.Slots, in.Chain = append(in.Slots, slotplan.Slot{ID: id, Kind: "k", Row: fmt.Sprint(i / 8)}),
			append(in.Chain, id)
	}
	for i := range cards {
		c := slotplan.Card{ID: fmt.Sprint("c", i), Kinds: []string{"k"}, Span: 1 + i%4/3, Chain: "passes",
			At:   &in.Slots[(i*5)%13].ID,
			Draw: map[string]float64{"+5": 2}}
		if i > 0 && i%3 == 0 {
			c.After = []string{fmt.Sprint("c", i-1)}
		}
		for n := range 2 {
			need := slotplan.Need{Resource: []string{"irq", "io"}[n]}
			for k := range 8 {
				need.Choices = append(need.Choices, slotplan.Number(uint64(3+(k+i)%13)))
			}
			need.Now = &need.Choices[0]
			c.Needs = append(c.Needs, need)
		}
		in.Cards = append(in.Cards, c)
	}
	return in
}

func BenchmarkSixteenSlotsAndTwelveCards(b *testing.B) {
	in := sixteen(12)
	for b.Loop() {
		if _, err := slotplan.Plan(in); err != nil {
			b.Fatal(err)
		}
	}
}

func BenchmarkWhatDoesNotFit(b *testing.B) {
	in := sixteen(15)
	for b.Loop() {
		if _, err := slotplan.Plan(in); err != nil {
			b.Fatal(err)
		}
	}
}

// What cannot live together is a smallest set: it has no solution by itself, and nothing smaller is without one.
func TestTheClashIsASmallestSet(t *testing.T) {
	hasNone := func(t require.TestingT, in slotplan.Input, set int) bool {
		some := in
		some.Cards = nil
		for i, c := range in.Cards {
			if set>>i&1 == 1 {
				some.Cards = append(some.Cards, c)
			}
		}
		out, err := slotplan.Plan(some)
		require.NoError(t, err)
		return len(out.Problems) > 0 && out.Problems[len(out.Problems)-1].Kind == slotplan.Impossible
	}
	rapid.Check(t, func(t *rapid.T) {
		in := slotplan.Input{Rails: map[string]float64{"+5": 5}}
		for i := range rapid.IntRange(1, 4).Draw(t, "slots") {
			in.Slots = append(in.Slots, slotplan.Slot{ID: fmt.Sprint(i), Kind: rapid.SampledFrom([]string{"k",
				"l"}).Draw(t, "kind")})
		}
		for i := range rapid.IntRange(1, 5).Draw(t, "cards") {
			c := slotplan.Card{ID: fmt.Sprint("c", i), Kinds: []string{rapid.SampledFrom([]string{"k", "l"}).Draw(t,
				"of")},
				Span: rapid.IntRange(1, 2).Draw(t, "span"), First: rapid.IntRange(0, 3).Draw(t, "first") == 0,
				Draw: map[string]float64{"+5": float64(rapid.IntRange(0, 3).Draw(t, "draw"))}}
			choices := rapid.SliceOfNDistinct(rapid.Uint64Range(3, 5), 1, 2, rapid.ID).Draw(t, "choices")
			need := slotplan.Need{Resource: "irq"}
			for _, choice := range choices {
				need.Choices = append(need.Choices, slotplan.Number(choice))
			}
			c.Needs = []slotplan.Need{need}
			in.Cards = append(in.Cards, c)
		}
		out, err := slotplan.Plan(in)
		require.NoError(t, err)
		if len(out.Assignment) > 0 {
			return
		}
		clash := out.Problems[len(out.Problems)-1]
		set := 0
		for i, c := range in.Cards {
			if slices.Contains(clash.Cards, c.ID) {
				set |= 1 << i
			}
		}
		require.True(t, hasNone(t, in, set), "%v can live together", clash.Cards)
		for other := range 1 << len(in.Cards) {
			if bits.OnesCount(uint(other)) < len(clash.Cards) {
				require.False(t, hasNone(t, in, other), "%b is smaller than %v", other, clash.Cards)
			}
		}
	})
}

// Risers in each other's slots stand on nothing.
func TestCardsInARing(t *testing.T) {
	out := plan(t, `{"slots":[],"cards":[{"id":"a","kinds":["r"],"gives":[{"id":"x","kind":"r"}]},
		{"id":"b","kinds":["r"],"gives":[{"id":"y","kind":"r"}]},
		{"id":"c","kinds":["r"],"gives":[{"id":"z","kind":"r"}]}]}`)
	require.Empty(t, out.Assignment)
	require.Equal(t, slotplan.Impossible, out.Problems[0].Kind)
}
