package mystery_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/mystery"
)

var explanations = []mystery.Hypothesis{{ID: 1, Text: "a disk controller"}, {ID: 2, Text: "a whole computer"},
	{ID: 3, Text: "a terminal card"}}

func ExampleWeigh() {
	w := mystery.Weigh(explanations, []mystery.Evidence{
		{ID: 1, Text: "a 34-pin connector", Seen: mystery.Found, Weights: map[int64]int{1: 2}},
		{ID: 2, Text: "64 KB of memory", Seen: mystery.Found, Weights: map[int64]int{2: 3, 1: -2}},
		{ID: 3, Text: "a picture connector", Seen: mystery.Absent, Weights: map[int64]int{3: 3, 2: 1}},
		{ID: 4, Text: "a start vector in the ROM", Seen: mystery.Open, Weights: map[int64]int{2: 2, 1: 1, 3: 1}},
		{ID: 5, Text: "the clock of a serial line", Seen: mystery.Open, Weights: map[int64]int{3: 3, 2: -1},
			HowTo: "read the crystal"},
	})
	for _, r := range w.Ranking {
		fmt.Printf("%s %.1f %.2f\n", r.Text, r.Score, r.Share)
	}
	fmt.Println(w.Why)
	fmt.Println(w.Next[0].Text+":", w.Next[0].Why)
	// Output:
	// a whole computer 2.5 0.81
	// a disk controller 0.0 0.14
	// a terminal card -1.5 0.05
	// a whole computer leads clearly.
	// the clock of a serial line: speaks for a terminal card, against a whole computer
}

func TestWords(t *testing.T) {
	require.Contains(t, mystery.Weigh(nil, nil).Why, "Nobody")
	require.Contains(t, mystery.Weigh(explanations[:1], nil).Why, "second")
	require.Equal(t, "a disk controller and a whole computer stand equal.", mystery.Weigh(explanations[:2], nil).Why)
	require.Empty(t, mystery.Weigh(explanations, []mystery.Evidence{{ID: 1, Text: "a smell", Seen: mystery.Open}}).Next)
	w := mystery.Weigh(explanations,
		[]mystery.Evidence{{ID: 1, Text: "a stamp", Seen: mystery.Found, Weights: map[int64]int{3: 1}}})
	require.Equal(t, "a terminal card is ahead of a disk controller, but not clearly.", w.Why)
}

// Shares add up to one, evidence for something never takes it down, and what would tell nothing is not
// proposed.
func TestWeighingHolds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		evidence := []mystery.Evidence{}
		for id := range rapid.IntRange(0, 12).Draw(t, "evidence") {
			weights := map[int64]int{}
			for _, h := range explanations {
				weights[h.ID] = rapid.IntRange(-3, 3).Draw(t, "weight")
			}
			seen := rapid.SampledFrom([]mystery.Seen{mystery.Found, mystery.Absent, mystery.Open}).Draw(t, "seen")
			evidence = append(evidence, mystery.Evidence{ID: int64(id), Text: "x", Seen: seen, Weights: weights})
		}
		w := mystery.Weigh(explanations, evidence)
		sum := 0.0
		before := map[int64]float64{}
		for i, r := range w.Ranking {
			sum += r.Share
			before[r.ID] = r.Share
			require.True(t, i == 0 || r.Score <= w.Ranking[i-1].Score)
		}
		require.InDelta(t, 1, sum, 1e-9)
		for _, next := range w.Next {
			require.Positive(t, next.Tells)
			require.LessOrEqual(t, next.Tells, 3.0)
		}
		more := mystery.Weigh(explanations,
			append(evidence, mystery.Evidence{ID: 99, Seen: mystery.Found, Weights: map[int64]int{2: 1}}))
		for _, r := range more.Ranking {
			if r.ID == 2 {
				require.Greater(t, r.Share, before[2])
			}
		}
	})
}
