package ladder_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/ladder"
)

func ExamplePropose() {
	for _, rung := range ladder.Propose([]ladder.Unit{{Title: "Main board", Kind: "board"},
		{Title: "Disk card", Kind: "board", Slot: "2"}, {Title: "Built-in supply", Kind: "supply"},
		{Title: "Memory card", Kind: "card"}, {Title: "Disk drive", Kind: "drive"}}) {
		fmt.Println(rung.Kind, rung.Step)
	}
	// Output:
	// minimum Main board alone; out: Disk card, Memory card, Disk drive
	// add Memory card
	// add Disk card
	// add Disk drive
}

// Whatever is fitted: the first rung is the one minimum, no two rungs have the same words, and each says its sign and when
// one stops.
func TestAnyLadder(t *testing.T) {
	units := rapid.SliceOfN(rapid.Custom(func(t *rapid.T) ladder.Unit {
		return ladder.Unit{Title: rapid.SampledFrom([]string{"Main board", "Disk card", "Drive",
			strings.Repeat("Ö", 300), ""}).
			Draw(t, "title"), Kind: rapid.SampledFrom([]string{"board", "card", "drive", "supply", ""}).Draw(t, "kind"),
			Slot: rapid.SampledFrom([]string{"", "2"}).Draw(t, "slot")}
	}), 0, 8)
	rapid.Check(t, func(t *rapid.T) {
		rungs := ladder.Propose(units.Draw(t, "units"))
		words := []string{}
		for i, rung := range rungs {
			require.Equal(t, i == 0, rung.Kind == ladder.Minimum)
			require.LessOrEqual(t, len([]rune(rung.Step)), 200)
			require.NotEmpty(t, rung.Sign)
			require.NotEmpty(t, rung.Stop)
			words = append(words, rung.Step)
		}
		require.Len(t, slices.Compact(slices.Sorted(slices.Values(words))), len(words))
	})
}
