package lot_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/lot"
)

func cents(n int64) *int64 { return &n }

func ExampleSpread() {
	// A lot of three for 371.00 with 48.50 carriage.
	shares, _ := lot.Spread(371_00+48_50, lot.ByEstimate,
		[]lot.Item{{Estimate: cents(300_00)}, {Estimate: cents(80_00)}, {Estimate: cents(20_00)}})
	for _, share := range shares {
		fmt.Println(lot.Format(share))
	}
	// Output:
	// 314.63
	// 83.90
	// 20.97
}

func TestWaysOfSpreading(t *testing.T) {
	three := []lot.Item{{ID: 1, Title: "Machine", Estimate: cents(0), ByHand: cents(50)},
		{ID: 2, Title: "Card", ByHand: cents(30)}, {ID: 3, Title: "Lead", Estimate: cents(7), ByHand: cents(20)}}
	shares, err := lot.Spread(100, lot.Equally, three)
	require.NoError(t, err)
	assert.Equal(t, []int64{34, 33, 33}, shares)
	shares, err = lot.Spread(100, lot.ByEstimate, three)
	require.NoError(t, err)
	assert.Equal(t, []int64{0, 0, 100}, shares)
	shares, err = lot.Spread(100, lot.ByHand, three)
	require.NoError(t, err)
	assert.Equal(t, []int64{50, 30, 20}, shares)

	for _, c := range []struct {
		cost  int64
		way   lot.SpreadRule
		items []lot.Item
		why   string
	}{
		{120, lot.ByHand, three, "add up to 1.00; 0.20 of 1.20 is not spread yet"},
		{90, lot.ByHand, three, "0.10 more than 0.90"},
		{100, lot.ByHand, []lot.Item{{ID: 9, Title: "Card"}}, "Card has no share yet"},
		{100, lot.ByEstimate, []lot.Item{{}, {}}, "no item has an estimate"},
		{100, "by weight", three, "none of estimate, equal, hand"},
		{-1, lot.Equally, three, "out of bounds"},
	} {
		_, err := lot.Spread(c.cost, c.way, c.items)
		assert.ErrorContains(t, err, c.why)
	}
}

// Whatever the cost and the estimates, the shares add up and none is off by a cent or more.
func TestSharesAddUp(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		cost := rapid.Int64Range(0, lot.MostCents).Draw(t, "cost")
		estimates := rapid.SliceOfN(rapid.Int64Range(0, lot.MostCents), 1, 40).Draw(t, "estimates")
		items, sum := []lot.Item{}, int64(0)
		for _, e := range estimates {
			items, sum = append(items, lot.Item{Estimate: cents(e)}), sum+e
		}
		shares, err := lot.Spread(cost, lot.ByEstimate, items)
		if sum == 0 {
			assert.Error(t, err)
			return
		}
		require.NoError(t, err)
		total := int64(0)
		for i, share := range shares {
			total += share
			exact := float64(cost) * float64(estimates[i]) / float64(sum)
			assert.InDelta(t, exact, float64(share), 1+exact*1e-9)
		}
		assert.Equal(t, cost, total)
	})
}

func TestWasItWorthIt(t *testing.T) {
	items := []lot.Item{{Title: "Terminal", Value: cents(60_00)}, {Title: "Memory card", Value: cents(450_00)},
		{Title: "Leads"}}
	w := lot.WorthOf(419_50, items)
	assert.Equal(t, "Memory card alone outweighs the whole lot: 450.00 against 419.50", w.Verdict)
	assert.Equal(t, 1, w.Unknown)
	assert.Equal(t, "2 of 3 items outweigh the whole lot: 510.00 against 500.00", lot.WorthOf(500_00, items).Verdict)
	assert.Equal(t, "Known values fall short of the cost by 90.00; 1 of 3 items have no value yet",
		lot.WorthOf(600_00, items).Verdict)
	assert.Empty(t, lot.WorthOf(600_00, items[2:]).Verdict)
}

func TestAmounts(t *testing.T) {
	for text, n := range map[string]int64{"371.00": 371_00, "371": 371_00, "48,5": 48_50, " 0.05 ": 5} {
		read, err := lot.ParseAmount(text)
		require.NoError(t, err, text)
		assert.Equal(t, n, read, text)
	}
	for _, text := range []string{"", "-3", "3.005", "1,000.00", "12 EUR", "99999999999"} {
		_, err := lot.ParseAmount(text)
		assert.ErrorIs(t, err, lot.ErrNotAnAmount, text)
	}
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.Int64Range(0, lot.MostCents-1).Draw(t, "cents")
		read, err := lot.ParseAmount(lot.Format(n))
		require.NoError(t, err)
		assert.Equal(t, n, read)
	})
}
