package arrival_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"frugalheron/core/arrival"
	"frugalheron/core/custody"
	"frugalheron/core/reckoning"
	"frugalheron/core/verdict"
)

func TestStages(t *testing.T) {
	whole := arrival.Facts{HasAcquisition: true, Method: "purchase", HasDate: true, HasSource: true, HasPrice: true,
		HasCondition: true, HasPowered: true, Links: 3}
	with := func(change func(*arrival.Facts)) arrival.Facts { f := whole; change(&f); return f }
	for name, c := range map[string]struct {
		facts   arrival.Facts
		state   reckoning.StageState
		count   int
		missing string
	}{
		"nothing": {arrival.Facts{}, reckoning.Untouched, 0, "how it came is not written down"},
		"all":     {whole, reckoning.Settled, 0, ""},
		"no price": {with(func(f *arrival.Facts) { f.HasPrice = false }), reckoning.InHand, 0,
			"its price is not written down"},
		"a gift has no price": {with(func(f *arrival.Facts) { f.HasPrice, f.Method = false, "gift" }),
			reckoning.Settled, 0, ""},
		"found has no source": {with(func(f *arrival.Facts) { f.HasSource, f.Method = false, "found" }),
			reckoning.Settled, 0, ""},
		"no past": {with(func(f *arrival.Facts) { f.Links = 0 }), reckoning.InHand, 0,
			"nothing is written down of its past"},
		"a gap": {
			with(func(f *arrival.Facts) { f.Chain = []custody.Problem{{Kind: custody.Gap, Text: "three years"}} }),
			reckoning.InHand, 0, "1 gap in its past",
		},
		"impossible": {with(func(f *arrival.Facts) { f.Chain = []custody.Problem{{Kind: custody.Impossible}} }),
			reckoning.NeedsAttention, 1, ""},
		"personal data": {with(func(f *arrival.Facts) { f.OpenData = 2 }), reckoning.NeedsAttention, 2, ""},
		"not spread": {with(func(f *arrival.Facts) { f.SpreadProblem = "no estimates" }), reckoning.InHand, 0,
			"the cost of its lot is not spread: no estimates"},
	} {
		stage, missing := arrival.StageOf(c.facts)
		assert.Equal(t, reckoning.Stage{State: c.state, Count: c.count}, stage, name)
		if c.missing == "" {
			assert.Empty(t, missing, name)
		} else {
			assert.Contains(t, missing, c.missing, name)
		}
	}
}

func TestVerdicts(t *testing.T) {
	assert.Empty(t, arrival.Verdicts(arrival.Facts{}))
	verdicts := arrival.Verdicts(arrival.Facts{OpenData: 1,
		Chain: []custody.Problem{{Kind: custody.Gap}, {Kind: custody.Gap}, {Kind: custody.Impossible}}})
	require.Len(t, verdicts, 2)
	assert.Equal(t, "1 impossible statement, 2 gaps", verdicts[0].Value)
	assert.Equal(t, verdict.Attention, verdicts[0].State)
	assert.NotEmpty(t, verdicts[1].Caution)
}
