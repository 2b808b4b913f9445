package measure_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/malformed"
	"frugalheron/core/measure"
	"frugalheron/core/quantity"
)

func ExampleParse() {
	for _, line := range []string{"+5 4.93", "-12 -11.4 -11.5", "BT1 2.1 V", "bt1 2.9", "C12 ESR 0.8 ohm < 1",
		"U3 pin 8 4.9 V = 5 V +/- 2 %", "drive guide 31.4 mm / 30.9 mm"} {
		said, err := measure.Parse(line)
		judged := measure.Judge(said.Quantity, said.Readings, said.Expected)
		fmt.Println(said.Point, "|", judged.InWords, "|", judged.Verdict, said.Sure, err)
	}
	// Output:
	// +5 | 4.93 V | pass true <nil>
	// -12 | -11.45 V | pass true <nil>
	// BT1 | 2.1 V | noted false <nil>
	// bt1 | 2.9 V | noted true <nil>
	// C12 | 0.8 Ω ESR | pass true <nil>
	// U3 pin 8 | 4.9 V | marginal true <nil>
	// drive guide | 31.4 mm | noted true <nil>
}

func TestLinesOfAllQuantities(t *testing.T) {
	for line, want := range map[string]struct {
		point    string
		quantity quantity.Quantity
		first    float64
		count    int
	}{
		"+12 11.9 V":                 {"+12", quantity.Volts, 11.9, 1},
		"+3.3V 3.29":                 {"+3.3V", quantity.Volts, 3.29, 1},
		"fuse F1 120 mA":             {"fuse F1", quantity.Amperes, 0.12, 1},
		"leak to case 3.3 Mohm":      {"leak to case", quantity.Ohms, 3.3e6, 1},
		"shunt 5 mΩ":                 {"shunt", quantity.Ohms, 0.005, 1},
		"R4 4.7 kohm":                {"R4", quantity.Ohms, 4700, 1},
		"C12 41uF 42uF 43 uF":        {"C12", quantity.Microfarads, 41, 3},
		"C3 ESR 12 ohm":              {"C3", quantity.ESR, 12, 1},
		"X1 14.745 MHz":              {"X1", quantity.Hertz, 14745000, 1},
		"reset pulse 220 ms":         {"reset pulse", quantity.Seconds, 0.22, 1},
		"guide, left 31,4 mm":        {"guide, left", quantity.Millimetres, 31.4, 1},
		"rail 3 cm":                  {"rail", quantity.Millimetres, 30, 1},
		"heat sink Q1 61,5 °C":       {"heat sink Q1", quantity.Celsius, 61.5, 1},
		"key spring 55 60 58 g":      {"key spring", quantity.Grams, 55, 3},
		"transformer secondary 9VAC": {"transformer secondary", quantity.VoltsAC, 9, 1},
		"U3 pin 8 0.4 V":             {"U3 pin 8", quantity.Volts, 0.4, 1},
		"J2.3 0.7 Vpp":               {"J2.3", quantity.VoltsPP, 0.7, 1},
		"U5 120 ns = 150 ns":         {"U5", quantity.Seconds, 120e-9, 1},
		"TP1 8 V = 7.5 .. 11 V":      {"TP1", quantity.Volts, 8, 1},
		"R4 47 Ω = 47 ohm 5 %":       {"R4", quantity.Ohms, 47, 1},
	} {
		said, err := measure.Parse(line)
		require.NoError(t, err, line)
		require.Equal(t, want.point, said.Point, line)
		require.Equal(t, want.quantity, said.Quantity, line)
		require.InDelta(t, want.first, said.Readings[0], 1e-9, line)
		require.Len(t, said.Readings, want.count, line)
	}
	// What is no measurement: words, lines of sheets, units that do not go together.
	for _, line := range []string{"", "+5", "U14 27128-25 8533", "hinge cracked", "C12-C15 47uF 16V",
		"C5 0.1uF X2 275V", "U1 74LS00", "+5 4.9 mm", "guide 3 mm / 3 V", "a 3 V / 3 V",
		"C1 3 V = 4 uF", "C1 3 V = x", "C1 3 V = 4 V +/- -3", "C1 3 V = 4 V +/- 300 %", "guide 3 mm / 4 mm = 1 mm",
		"BT1 lots V", "x 3 parsec", "X1 14.745",
		"U9 41256 120ns", "TP1 8 V = 11 .. 7.5 V", "TP1 8 V = 7.5 .. 11 mm"} {
		_, err := measure.Parse(line)
		var not *malformed.Error
		require.ErrorAs(t, err, &not, line)
		require.NotEmpty(t, not.Error())
	}
}

func TestExpectedFromMarkings(t *testing.T) {
	for marking, want := range map[string]struct {
		of        quantity.Quantity
		low, high float64
	}{
		"NiCd 3.6V 60mAh":    {quantity.Volts, 3.3, 4.5},
		"lithium 3V CR2032":  {quantity.Volts, 2.7, 3.4},
		"alkaline 4.5V":      {quantity.Volts, 3.6, 4.95},
		"lead-acid 6V":       {quantity.Volts, 5.85, 6.9},
		"47uF 16V":           {quantity.Microfarads, 37.6, 56.4},
		"100nF":              {quantity.Microfarads, 0.08, 0.12},
		"330 ohm":            {quantity.Ohms, 297, 363},
		"18.432 MHz crystal": {quantity.Hertz, 18422784, 18441216},
		"104":                {quantity.Microfarads, 0.08, 0.12},
		"104J 50V":           {quantity.Microfarads, 0.095, 0.105},
		"223Z":               {quantity.Microfarads, 0.0176, 0.0396},
		"4u7 16V":            {quantity.Microfarads, 3.76, 5.64},
		"470u/16V ±10%":      {quantity.Microfarads, 423, 517},
		"4k7 5%":             {quantity.Ohms, 4465, 4935},
		"R22 1 %":            {quantity.Ohms, 0.2178, 0.2222},
		"3x NiMH 1.2V":       {quantity.Volts, 3.3, 4.5},
		"LR44":               {quantity.Volts, 1.2, 1.65},
		"lithium 3.6V":       {quantity.Volts, 3.3, 3.7},
		"lithium-ion 7.4V":   {quantity.Volts, 6, 8.4},
	} {
		e, ok := measure.FromMarking(marking, want.of)
		require.True(t, ok, marking)
		require.InDelta(t, want.low, *e.Low, 1e-6, marking)
		require.InDelta(t, want.high, *e.High, 1e-6, marking)
		require.NotEmpty(t, e.From)
	}
	for marking, of := range map[string]quantity.Quantity{"74LS00": quantity.Volts, "47uF": quantity.Ohms,
		"ceramic": quantity.Microfarads, "3V": quantity.Volts,
		"8533": quantity.Microfarads, "4k7": quantity.Microfarads, "u": quantity.Microfarads} {
		_, ok := measure.FromMarking(marking, of)
		require.False(t, ok, marking)
	}
	for name, volts := range map[string]float64{"+5": 5, "+5V": 5, "+5VSB": 5, "+3V3": 3.3, "+3.3V": 3.3, "-12V": -12} {
		e, ok := measure.Rail(name)
		require.True(t, ok, name)
		require.InDelta(t, volts, *e.Nominal, 1e-9, name)
	}
	for _, name := range []string{"5", "+", "+0", "+500", "BT1", "+3.3V3"} {
		_, ok := measure.Rail(name)
		require.False(t, ok, name)
	}
}

func TestVerdicts(t *testing.T) {
	rail, _ := measure.Rail("+5")
	minus, _ := measure.Rail("-12")
	most, least := 1.0, 2.0
	for _, c := range []struct {
		expected measure.Expected
		readings []float64
		want     measure.Verdict
		why      string
	}{
		{rail, []float64{5.02}, measure.Pass, "inside: 4.75 V to 5.25 V"},
		{rail, []float64{4.75}, measure.Marginal, "within a fifth of the way to the limit"},
		{rail, []float64{4.74}, measure.Fail, "4.74 V is below the limit"},
		{rail, []float64{5.3, 5.26}, measure.Fail, "is above the limit"},
		{rail, []float64{5.0, 5.0, 4.7}, measure.Marginal, "not every reading"},
		{minus, []float64{-13.1}, measure.Marginal, "a negative rail"},
		{minus, []float64{-13.3}, measure.Fail, "is below"},
		{measure.Expected{High: &most}, []float64{0.99}, measure.Pass, "at most 1 V"},
		{measure.Expected{Low: &least}, []float64{1.99}, measure.Fail, "at least 2 V"},
		{measure.Expected{}, []float64{1}, measure.Noted, "nothing is known"},
	} {
		j := measure.Judge(quantity.Volts, c.readings, &c.expected)
		require.Equal(t, c.want, j.Verdict, "%v", c.readings)
		require.Contains(t, j.Why[len(j.Why)-1], c.why)
	}
	require.Equal(t, "no reading yet", measure.Judge(quantity.Volts, nil, nil).InWords)
	require.Error(t, measure.Expected{Low: &least, High: &most}.Check())
	require.NoError(t, rail.Check())
	for want, got := range map[string]string{
		"120 mA": quantity.Amperes.Say(0.12), "4.7 kΩ": quantity.Ohms.Say(4700),
		"14.745 MHz": quantity.Hertz.Say(14745000), "220 ms": quantity.Seconds.Say(0.22),
		"1 nF": quantity.Microfarads.Say(0.001), "2 MΩ": quantity.Ohms.Say(2e6), "0.005 Ω": quantity.Ohms.Say(0.005),
		"15.6 kHz": quantity.Hertz.Say(15600), "-11.5 V": quantity.Volts.Say(-11.5), "0 A": quantity.Amperes.Say(0),
	} {
		require.Equal(t, want, got)
	}

	// The average lies between the extremes, and no verdict is better than that of its worst reading alone.
	rank := map[measure.Verdict]int{measure.Pass: 0, measure.Marginal: 1, measure.Fail: 2}
	rapid.Check(t, func(t *rapid.T) {
		readings := rapid.SliceOfN(rapid.Float64Range(4, 6), 1, 12).Draw(t, "readings")
		j := measure.Judge(quantity.Volts, readings, &rail)
		require.GreaterOrEqual(t, j.Stats.Average, j.Stats.Lowest)
		require.LessOrEqual(t, j.Stats.Average, j.Stats.Highest)
		worst, best := 0, 2
		for _, r := range readings {
			alone := rank[measure.Judge(quantity.Volts, []float64{r}, &rail).Verdict]
			worst, best = max(worst, alone), min(best, alone)
		}
		if worst == 2 {
			require.NotEqual(t, measure.Pass, j.Verdict)
		}
		if worst == 0 {
			require.Equal(t, measure.Pass, j.Verdict)
		}
	})
}

func TestAPartAndItsOpening(t *testing.T) {
	for line, want := range map[string]measure.Verdict{
		"guide 31.4 mm / 30.9 mm": measure.Fail, "guide 30 mm / 30.2 mm": measure.Pass,
		"guide 30 30.1 mm / 30.1 mm":     measure.Marginal,
		"guide 30 mm / 30.2 mm > 0.1 mm": measure.Pass, "guide 30 mm / 30.2 mm > 0.5": measure.Fail,
	} {
		said, err := measure.Parse(strings.Replace(line, "30 30.1 mm", "30.05 mm", 1))
		require.NoError(t, err, line)
		require.True(t, said.Sure)
		judged, result := measure.JudgeFit(said.Readings, *said.Opening, said.Expected)
		require.Equal(t, want, judged.Verdict, line)
		require.Equal(t, judged.Why, result.Why)
		require.Contains(t, judged.InWords, "mm into 30", line)
	}
}

func FuzzParse(f *testing.F) {
	for _, line := range []string{"+5 4.93", "BT1 2.1 V", "a 1 mm / 2 mm", "C1 ESR 1 ohm < 2", "x 1 2 3 V = 3 V ± 5 %",
		"+5 1e9"} {
		f.Add(line)
	}
	f.Fuzz(func(t *testing.T, line string) {
		said, err := measure.Parse(line)
		if err != nil {
			return
		}
		require.NotEmpty(t, said.Point)
		require.NotEmpty(t, said.Readings)
		require.NotEmpty(t, said.Quantity.Unit())
		measure.Judge(said.Quantity, said.Readings, said.Expected)
	})
}

// Between two limits as typed a value passes, outside of them it fails, in whatever unit they are written.
func TestLimitsOnBothSides(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		low := rapid.IntRange(1, 5000).Draw(t, "low")
		high := low + rapid.IntRange(1, 5000).Draw(t, "width")
		value := rapid.IntRange(1, 12_000).Draw(t, "value")
		unit := rapid.SampledFrom([]string{"mV", "V", "ohm", "nF", "ns"}).Draw(t, "unit")
		form := rapid.SampledFrom([]string{"TP1 %d %s = %d %s .. %d %s", "TP1 %d%s = %d %s to %d %s"}).Draw(t, "form")
		line := fmt.Sprintf(form, value, unit, low, unit, high, unit)
		said, err := measure.Parse(line)
		require.NoError(t, err, line)
		want := measure.Fail
		if low <= value && value <= high {
			want = measure.Pass
		}
		require.Equal(t, want, measure.Judge(said.Quantity, said.Readings, said.Expected).Verdict, line)
		_, err = measure.Parse(fmt.Sprintf(form, value, unit, high, unit, low, unit))
		require.ErrorContains(t, err, "lies above the upper")
	})
}
