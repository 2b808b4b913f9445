package fit_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/fit"
)

func ExampleJudge() {
	guide, _ := fit.ParseSize("31.4 mm")
	rail, _ := fit.ParseSize("30.9 +/- 0.1")
	r := fit.Judge(guide, rail, 0)
	fmt.Println(r.Verdict, r.Gap, r.TakeOff)
	// Output: interference -0.5 0.65
}

func TestSizes(t *testing.T) {
	for text, want := range map[string]fit.Size{"31.4": {31.4, 0.05}, " 31.4mm ": {31.4, 0.05},
		"31.4 ± 0.2 mm": {31.4, 0.2}, "5+/-0": {5, 0}} {
		got, err := fit.ParseSize(text)
		require.NoError(t, err, text)
		require.Equal(t, want, got, text)
	}
	for _, text := range []string{"", "wide", "-3", "0", "31,4", "99999"} {
		_, err := fit.ParseSize(text)
		require.Error(t, err, text)
	}
}

func TestVerdicts(t *testing.T) {
	for _, c := range []struct {
		inner, hole, play float64
		want              fit.Verdict
	}{{30, 30.2, 0, fit.Clearance}, {30, 30.1, 0, fit.Clearance}, {30, 30.09, 0, fit.Tight}, {30, 30, 0, fit.Tight},
		{30, 29.89, 0, fit.Interference}, {30, 30.2, 0.2, fit.Tight}, {30, 30.05, 0.2, fit.Interference}} {
		got := fit.Judge(fit.Size{Value: c.inner, Off: 0.05}, fit.Size{Value: c.hole, Off: 0.05}, c.play)
		require.Equal(t, c.want, got.Verdict, "%v", c)
	}
	// Once what is proposed is taken off, it is sure to fit.
	rapid.Check(t, func(t *rapid.T) {
		mm := rapid.Float64Range(1, 400)
		off := rapid.Float64Range(0, 0.5)
		inner, hole := fit.Size{Value: mm.Draw(t, "inner"), Off: off.Draw(t, "off")},
			fit.Size{Value: mm.Draw(t, "hole"), Off: off.Draw(t, "off too")}
		play := off.Draw(t, "play")
		r := fit.Judge(inner, hole, play)
		inner.Value -= r.TakeOff
		again := fit.Judge(inner, hole, play-0.002)
		require.Equal(t, fit.Clearance, again.Verdict)
	})
}
