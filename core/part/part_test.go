package part_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/device/builtin"
	"frugalheron/core/part"
)

func ExampleMatch() {
	fit, _ := part.Match(builtin.Library(), "470u/16V radial", "470uF 25V radial 105C")
	fmt.Println(fit.Grade, strings.Join(fit.Why, "; "))
	// Output: better 470 µF on both; 25 V where 16 is asked for; radial on both
}

// The grades of a need and a part, by the rules of values, volts, safety, cells and memory. Between them stands >.
func TestGrades(t *testing.T) {
	for grade, pairs := range map[part.Grade]string{
		part.Exact: `4k7 > 4.7k; 472 > 4k7; 104 > 100n; 0.1uF > 104K; .1 > 100nF; 100nF > .1; 104 > 104; 0R22 > 0.22 ohm
			1M > 1 Mohm; 0,1uF > 104; 22p > 22; 4700 > 4k7; R47 > 0.47ohm; 4n7 > 4700p; 3x1.2V NiCd > NiCd 3.6V
			100u 25V 85C > 100 µF/25 V 85°C axial; X1/Y2 2n2 > 2n2 X1Y2; 41256-15 > 41256-15; 74LS245 > 74LS245N
			foam pad 3 mm > foam pad 3 mm; 10k 5% > 10k ±5%; 47u 6V3 > 47uF 6.3V; 10u 5 mm pitch > 10u P5.08
			10 MFD > 10u
			10mF > 10mF 16V`,
		part.Better: `470u/16V > 470u 25V; 470u/16V > 470u 35V; 100n 50V > 100n 630V; 100n X2 275V~ > 100n X1 275V~
			100n X2 275V~ > 100n Y2 275VAC; 100u 85C > 100u 105C; 41256-15 > 41256-12
			10k 1/4W > 10k 0.5W; 10k 5% > 10k 1%
			256Kx1 DRAM 150ns > 41256-12; 100u 8x12 > 100u 8x11; 2n2 Y2 250V~ > 2n2 Y1 250V~; NiCd 60mAh > NiCd 80mAh`,
		part.Acceptable: `470u/16V > 470u 50V; 100n > 120n; 4k7 > 4.8k; 41256-15 > 41256; NiCd 3.6V > NiMH 3.6V; 100u 16V > 100u
			100u 105C > 100u; 10k 1% > 10k 5%; 10k 1% > 10k; 470 > 470 ohm; 74LS245 > 74HCT245
			100u blue > 100u; 10u pitch 5 > 10u
			tantalum 10u > electrolytic 10u; NiCd 3.6V charged > battery 3.6V`,
		part.No: `470u/16V > 470u 10V; 100n > 1u; 4k7 > 5k6; 100n X2 > 100n; 100n X2 275V~ > 100n Y2 250V~; 2n2 Y2 > 2n2 X1
			2n2 Y2 > 2n2 Y3; 100n 275V~ > 100n 630V; 100u 105C > 100u 85C; 100u radial > 100u; 100u radial > 100u axial
			27128-25 DIP-28 > 27128-25; 27128 > 27256; 41256-12 > 41256-15; 74LS245 > 74LS244
			10k > 100n; 100u 8x12 > 100u 10x12
			10u pitch 5 > 10u pitch 2.5; NiCd 3.6V > NiCd 4.8V; NiCd 3.6V > CR2032
			battery 3V charged > CR2032 3V; foam > button
			22u np > 22u electrolytic; X1/Y2 2n2 > 2n2 X2; 27128 EPROM > 27128 SRAM; 10k 0.5W > 10k 0.25W`,
	} {
		for _, pair := range strings.FieldsFunc(pairs, func(r rune) bool { return r == ';' || r == '\n' }) {
			need, have, _ := strings.Cut(strings.TrimSpace(pair), " > ")
			fit, err := part.Match(builtin.Library(), need, have)
			require.NoError(t, err, pair)
			require.Equal(t, grade, fit.Grade, "%s: %v", pair, fit.Why)
			require.NotEmpty(t, fit.Why, pair)
		}
	}
	for _, pair := range [][2]string{{"", "100n"}, {"100n", " "}, {strings.Repeat("x", 1001), "100n"}} {
		_, err := part.Match(builtin.Library(), pair[0], pair[1])
		require.Error(t, err)
	}
}

// What holds a part is none, and the number of a diode is no value.
func TestWhatIsNoSuchPart(t *testing.T) {
	for need, have := range map[string]string{"NiCd 2.4V pack": "holder for 3 AA cells", "CR2032": "holder for CR2032",
		"1N4148": "1.5n 63V film", "1.4n": "1N4148", "27128": "socket DIP-28", "1N4001": "1N4148",
		"belt 120 mm": "12ohm 1/4W 5%", "screw M3 10": "10 ohm", "lamp 12 28V": "12p 50V ceramic"} {
		fit, err := part.Match(builtin.Library(), need, have)
		require.NoError(t, err)
		require.Equal(t, part.No, fit.Grade, "%s for %s: %v", have, need, fit.Why)
	}
	fit, err := part.Match(builtin.Library(), "holder for CR2032", "CR2032 holder, for boards")
	require.NoError(t, err)
	require.Equal(t, part.Exact, fit.Grade)
}

// Whatever is written: nothing panics, a part stands for itself unless it says nothing of what it needs, and more volts
// never make a capacitor worse than usable.
func TestAnyWords(t *testing.T) {
	words := rapid.SampledFrom([]string{"100n", "104", "470", "4k7", "X2", "Y1", "275V~", "16V", "25V", "NiCd",
		"charged", "DIP-28",
		"41256-15", "27128", "radial", "8x12", "P5", "105C", "5%", "1/4W", "foam", "µ", "%", "-", "9999999999999V", "K",
		".", "1/0W",
		"\x00", "CR2032", "10mF", "np"})
	rapid.Check(t, func(t *rapid.T) {
		text := strings.Join(rapid.SliceOfN(words, 1, 6).Draw(t, "words"),
			rapid.SampledFrom([]string{" ", "/", ""}).Draw(t, "between"))
		fit, err := part.Match(builtin.Library(), text, text)
		require.NoError(t, err)
		require.Contains(t, []part.Grade{part.Exact, part.Acceptable, part.No}, fit.Grade)
		volts := rapid.IntRange(1, 400).Draw(t, "volts")
		more := volts + rapid.IntRange(0, 400).Draw(t, "more")
		fit, err = part.Match(builtin.Library(), fmt.Sprintf("10u %dV", volts), fmt.Sprintf("10u %dV", more))
		require.NoError(t, err)
		require.NotEqual(t, part.No, fit.Grade, fit.Why)
	})
}

// One need against a store of 2,000 parts: to be done in 10 ms.
func BenchmarkMatchAStore(b *testing.B) {
	library := builtin.Library()
	store := make([]part.Part, 2000)
	for i := range store {
		store[i] = part.Read(library, fmt.Sprintf("%du %dV radial %dx12 105C", 1+i%470, []int{10, 16, 25}[i%3], 5+i%8))
	}
	for b.Loop() {
		need := part.Read(library, "100u 16V radial 8x12")
		for _, have := range store {
			part.GradeOf(need, have)
		}
	}
}

// Whatever bytes are read: nothing panics, figures can be, and a grade is the same with its reasons and without.
func FuzzMatch(f *testing.F) {
	for _, seed := range [][2]string{{"470u/16V", "470uF 25V radial"}, {"X1/Y2 2n2", "2n2 Y1"},
		{"3x1.2V NiCd", "CR2032"}, {"41256-15", "256Kx1 120ns"}, {"104K 50V", ".1"}, {"10k 1/0W", "1e999 V"},
		{"\xff\x00", "µµ"}} {
		f.Add(seed[0], seed[1])
	}
	library := builtin.Library()
	f.Fuzz(func(t *testing.T, need, have string) {
		fit, err := part.Match(library, need, have)
		if err != nil {
			require.Empty(t, fit.Grade)
			return
		}
		require.Contains(t, part.Grades(), fit.Grade)
		require.NotNil(t, fit.Why)
		require.Equal(t, fit.Grade, part.GradeOf(part.Read(library, need), part.Read(library, have)))
		p := part.Read(library, need)
		require.False(t, math.IsNaN(p.Value.Base) || math.IsInf(p.Watts, 0) || p.Volts < 0)
	})
}
