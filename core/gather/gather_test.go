package gather_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/gather"
)

func TestBadChipsAreGatheredOnOneBoard(t *testing.T) {
	bad := func(place string, ns int) gather.Chip {
		return gather.Chip{Place: place, Type: "4164", SpeedNs: ns, Bad: true}
	}
	good := func(place string, ns int) gather.Chip { return gather.Chip{Place: place, Type: "4164", SpeedNs: ns} }
	a := gather.Board{ID: 1, Chips: []gather.Chip{bad("U1", 150), good("U2", 150), good("U3", 120), good("U4", 0)}}
	b := gather.Board{ID: 2, Chips: []gather.Chip{bad("U1", 120), bad("U2", 150), good("U3", 150)}}
	plan, found := gather.Onto([]gather.Board{a, b})
	require.True(t, found)
	require.Equal(t, gather.Plan{Onto: 2, Bad: 3, Swaps: []gather.Swap{{"4164", gather.Seat{1, "U1"},
		gather.Seat{2, "U3"}}}}, plan)

	b.Chips[2].Fixed = true
	plan, _ = gather.Onto([]gather.Board{a, b})
	require.Equal(t, gather.Plan{Onto: 1, Bad: 3, Swaps: []gather.Swap{{"4164", gather.Seat{2, "U1"}, gather.Seat{1,
		"U3"}},
		{"4164", gather.Seat{2, "U2"}, gather.Seat{1, "U2"}}}}, plan, "the fast one goes where it is asked for")

	for name, boards := range map[string][]gather.Board{
		"one board has them all already": {a, {ID: 2, Chips: []gather.Chip{good("U1", 150)}}},
		"each has one that is soldered":  {{1, []gather.Chip{{Type: "x", Bad: true, Fixed: true}}}, {2, []gather.Chip{{Type: "x", Bad: true, Fixed: true}}}},
		"nothing of the type is good":    {{1, []gather.Chip{bad("U1", 150)}}, {2, []gather.Chip{bad("U1", 150)}}},
		"what is good is too slow": {{1, []gather.Chip{bad("U1", 80), good("U2", 150)}}, {2,
			[]gather.Chip{bad("U1", 80), good("U2", 150)}}},
		"nobody knows how fast they were": {{1, []gather.Chip{bad("U1", 0), good("U2", 150)}}, {2,
			[]gather.Chip{bad("U1", 0), good("U2", 150)}}},
	} {
		_, found := gather.Onto(boards)
		require.False(t, found, name)
	}
}

// After the swaps only one board has bad chips, no chip is used twice, and each stands in for its like.
func TestWhatGatheringPromises(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		chip := rapid.Custom(func(t *rapid.T) gather.Chip {
			return gather.Chip{Type: rapid.SampledFrom([]string{"a", "b"}).Draw(t, "type"),
				SpeedNs: rapid.SampledFrom([]int{80, 120}).Draw(t, "ns"), Bad: rapid.IntRange(0, 3).Draw(t, "bad") == 0,
				Fixed: rapid.IntRange(0, 5).Draw(t, "fixed") == 0}
		})
		boards := []gather.Board{}
		at := map[gather.Seat]gather.Chip{}
		for id := range int64(rapid.IntRange(1, 4).Draw(t, "boards")) {
			b := gather.Board{ID: id, Chips: rapid.SliceOfN(chip, 0, 6).Draw(t, "chips")}
			for i := range b.Chips {
				b.Chips[i].Place = fmt.Sprint("U", i)
				at[gather.Seat{id, b.Chips[i].Place}] = b.Chips[i]
			}
			boards = append(boards, b)
		}
		plan, found := gather.Onto(boards)
		if !found {
			return
		}
		for _, s := range plan.Swaps {
			bad, good := at[s.Bad], at[s.Good]
			require.True(t, bad.Bad && !good.Bad && !bad.Fixed && !good.Fixed && bad.Type == good.Type &&
				good.SpeedNs <= bad.SpeedNs)
			at[s.Bad], at[s.Good] = good, bad
		}
		left := 0
		for seat, c := range at {
			if c.Bad {
				left++
				require.Equal(t, plan.Onto, seat.Board)
			}
		}
		require.Equal(t, plan.Bad, left)
	})
}
