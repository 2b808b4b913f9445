package quantity_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/quantity"
)

func ExampleParse() {
	value, of, _ := quantity.Parse("47uF", "")
	fmt.Println(value, of, of.Say(value))
	value, of, _ = quantity.Parse("0.2 ohm", quantity.ESR)
	fmt.Println(value, of, of.Say(value))
	// Output:
	// 47 microfarads 47 µF
	// 0.2 esr 0.2 Ω ESR
}

// Milli and mega differ by their case with ohms alone; what has no unit takes the one that is asked for, and a unit of
// another quantity is refused.
func TestUnits(t *testing.T) {
	for text, want := range map[string]float64{"5mohm": 0.005, "5Mohm": 5e6, "5 MΩ": 5e6, "5kOhm": 5000, "5K": -1,
		"5": -1, "3mV": 0.003, "3MV": 0.003, "-12 V": -12, "2.2nF": 0.0022, "4.7 nonsense": -1, "": -1, "1e400 V": -1} {
		value, _, err := quantity.Parse(text, "")
		if want == -1 {
			require.Error(t, err, text)
			continue
		}
		require.NoError(t, err, text)
		require.InDelta(t, want, value, 1e-12, text)
	}
	value, of, err := quantity.Parse("230 V", quantity.VoltsAC)
	require.NoError(t, err)
	require.Equal(t, []any{230.0, quantity.VoltsAC}, []any{value, of})
	_, _, err = quantity.Parse("230 mm", quantity.Volts)
	require.ErrorContains(t, err, "the rest in V")
	require.Error(t, quantity.Quantity("smell").Check(1))
	require.Error(t, quantity.Celsius.Check(-300))
	require.Error(t, quantity.Volts.Check(math.NaN()))
}

// What is said of a value is read as the same value, to as many figures as are said.
func TestWhatIsSaidIsRead(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		of := rapid.SampledFrom(quantity.All()).Draw(t, "of")
		value := quantity.Round(math.Pow(10, rapid.Float64Range(-3, 8).Draw(t, "magnitude")), 4)
		if of.Check(value) != nil || of == quantity.VoltsAC || of == quantity.ESR {
			return
		}
		read, back, err := quantity.Parse(of.Say(value), of)
		if err != nil || back != of || math.Abs(read-value) > value*1e-9 {
			t.Fatalf("%g %s is said as %q, and read as %g %s: %v", value, of, of.Say(value), read, back, err)
		}
	})
}
