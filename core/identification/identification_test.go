package identification_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/identification"
)

var explanations = []identification.Hypothesis{{ID: 1, Text: "a disk controller"}, {ID: 2, Text: "a whole computer"},
	{ID: 3, Text: "a terminal card"}}

func ExampleWeigh() {
	w := identification.Weigh(explanations, []identification.Evidence{
		{ID: 1, Text: "a 34-pin connector", Presence: identification.Found, Weights: map[int64]int{1: 2}},
		{ID: 2, Text: "64 KB of memory", Presence: identification.Found, Weights: map[int64]int{2: 3, 1: -2}},
		{ID: 3, Text: "a picture connector", Presence: identification.Absent, Weights: map[int64]int{3: 3, 2: 1}},
		{ID: 4, Text: "a start vector in the ROM", Presence: identification.Open,
			Weights: map[int64]int{2: 2, 1: 1, 3: 1}},
		{ID: 5, Text: "the clock of a serial line", Presence: identification.Open, Weights: map[int64]int{3: 3, 2: -1},
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
	require.Contains(t, identification.Weigh(nil, nil).Why, "Nobody")
	require.Contains(t, identification.Weigh(explanations[:1], nil).Why, "second")
	require.Equal(t, "a disk controller and a whole computer stand equal.",
		identification.Weigh(explanations[:2], nil).Why)
	require.Empty(t, identification.Weigh(explanations,
		[]identification.Evidence{{ID: 1, Text: "a smell", Presence: identification.Open}}).Next)
	w := identification.Weigh(explanations,
		[]identification.Evidence{
			{ID: 1, Text: "a stamp", Presence: identification.Found, Weights: map[int64]int{3: 1}},
		})
	require.Equal(t, "a terminal card is ahead of a disk controller, but not clearly.", w.Why)
}

// Shares add up to one, evidence for something never takes it down, and what would tell nothing is not
// proposed.
func TestWeighingHolds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		evidence := []identification.Evidence{}
		for id := range rapid.IntRange(0, 12).Draw(t, "evidence") {
			weights := map[int64]int{}
			for _, h := range explanations {
				weights[h.ID] = rapid.IntRange(-3, 3).Draw(t, "weight")
			}
			seen := rapid.SampledFrom([]identification.Presence{identification.Found, identification.Absent,
				identification.Open}).Draw(t, "seen")
			evidence = append(evidence,
				identification.Evidence{ID: int64(id), Text: "x", Presence: seen, Weights: weights})
		}
		w := identification.Weigh(explanations, evidence)
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
		more := identification.Weigh(explanations,
			append(evidence,
				identification.Evidence{ID: 99, Presence: identification.Found, Weights: map[int64]int{2: 1}}))
		for _, r := range more.Ranking {
			if r.ID == 2 {
				require.Greater(t, r.Share, before[2])
			}
		}
	})
}
