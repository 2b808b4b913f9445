package gate_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/gate"
)

func TestWhatIsSaidBeforePower(t *testing.T) {
	no := false
	fan := func(state string, needed bool) []gate.Cooling {
		return []gate.Cooling{{ID: "F1", State: state,
			Needed: needed}}
	}
	drawn := []gate.Supply{{ID: "built in", Draw: map[string]float64{"+5 V": 6, "-12": 0.5, "odd": 9}}}
	for _, c := range []struct {
		in   gate.Input
		want []string
	}{
		{gate.Input{}, []string{}},
		{gate.Input{Supplies: []gate.Supply{{ID: "built in", StartsWithMains: true}}},
			[]string{"built in starts as soon as mains"}},
		{gate.Input{Batteries: []gate.Battery{{ID: "BT1", State: "fitted", Primary: true}, {ID: "BT2", State: "out",
			Primary: true},
			{ID: "BT3", State: "fitted", Unknown: true}, {ID: "BT4", State: "fitted", Primary: true, Charged: &no},
			{ID: "BT5", State: "fitted"}}}, []string{"BT1 may be a primary cell", "BT3 may be"}},
		{gate.Input{Supplies: drawn}, []string{"Heat: about 36 W are drawn by the sheets of its boards, and no fan"}},
		{gate.Input{Supplies: drawn, Cooling: fan("turns", true)}, []string{"look that the fan turns"}},
		{gate.Input{Supplies: drawn, Cooling: fan("dead", true)}, []string{"36 W are drawn by the sheets of its boards, and F1 is not"}},
		{gate.Input{Cooling: fan("unknown", true)}, []string{"Heat: what it draws is not known, and F1 is not known to turn"}},
		{gate.Input{Cooling: fan("unknown", false)}, []string{}},
	} {
		told := gate.Before(c.in)
		require.Len(t, told, len(c.want), "%v", told)
		for i, words := range c.want {
			require.Contains(t, told[i], words)
		}
	}
}
