package memfault_test

import (
	"fmt"
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/calendar"
	"frugalheron/core/console"
	"frugalheron/core/memfault"
)

func ExampleParseLayout() {
	banks, _ := memfault.ParseLayout("# the manual, page 4-12\nlow 0-FFFF U40-U41\n\nhigh 0x10000-0x1FFFF U50x4 8:U58")
	for _, b := range banks {
		fmt.Printf("%s %#x %#x", b.ID, b.Base, b.Size)
		for _, bit := range slices.Sorted(maps.Keys(b.Chips)) {
			fmt.Print(" ", bit, "=", b.Chips[bit])
		}
		fmt.Println()
	}
	// Output:
	// low 0x0 0x10000 0=U40 1=U41
	// high 0x10000 0x10000 0=U50 1=U50 2=U50 3=U50 8=U58
}

func TestLayoutsThatCannotBeRead(t *testing.T) {
	for text, why := range map[string]string{
		"low 0-FFFF U40\nhigh":         "line 2",
		"low FFFF U40":                 "run of addresses",
		"low FFFF-0 U40":               "ends before",
		"low 0-FFFF ???":               "names no chips",
		"low 0-FFFF U40x99":            "bits wide",
		"low 0-FFFF U1-U70":            "no more than 64",
		"low 0-FFFF U40 0:U41":         "held by U40 and by U41",
		"a 0-FF U1\na 100-1FF U2":      "there twice",
		"a 0-FF U1\nb 80-1FF U2":       "lies in the bank a",
		"a 0-FFFFFFFFFFFFFFFFFFFFF U1": "run of addresses",
	} {
		_, err := memfault.ParseLayout(text)
		require.ErrorContains(t, err, why, text)
	}
	_, err := memfault.ParseSyndromes("0b 3\nzz 4")
	require.ErrorContains(t, err, "line 2")
	known, err := memfault.ParseSyndromes("0b 3\n\n13 5")
	require.NoError(t, err)
	require.Equal(t, map[string]int{"0b": 3, "13": 5}, known)
}

// What a console shows leads to a chip where its line tells address and bits; where it leaves one open, it says so.
func TestLinesOfAConsole(t *testing.T) {
	banks, err := memfault.ParseLayout("low 0-FFFF U40-U47\nhigh 10000-1FFFF U50-U57")
	require.NoError(t, err)
	read := console.ReadTyped("MEMORY TEST\nADDR 0A01 EXP FF ACT FB\nADDR 0A03 EXP FF ACT FB\n", calendar.Date{})
	require.NotEmpty(t, read.Failures)
	out, err := memfault.OfConsole(banks, nil, read.Failures)
	require.NoError(t, err)
	require.Equal(t, []string{"U42 chip 1.00"}, told(out))

	out, err = memfault.OfConsole(banks, nil, []console.Failure{{Line: 3, Address: "0400", Radix: 8, Bits: []int{7}},
		{Line: 4, Address: "1234", Radix: 0, Bits: []int{1}}, {Line: 5, Address: "1000:0004", Radix: 16, Bits: []int{1}},
		{Line: 6, Address: "$FFh", Radix: 16}, {Line: 7, Address: "20000", Radix: 16, Bits: []int{1}}})
	require.NoError(t, err)
	require.Equal(t, []string{"U47 chip 1.00"}, told(out))
	lines := []int{}
	for _, p := range out.Problems {
		lines = append(lines, p.Line)
	}
	require.ElementsMatch(t, []int{4, 5, 6, 7}, lines)
}

// The same chip again, one bit of several banks, and chips beside each other are told apart; one day is once.
func TestWhatComesBack(t *testing.T) {
	banks, err := memfault.ParseLayout("low 0-FFFF U40-U47\nhigh 10000-1FFFF U50-U57")
	require.NoError(t, err)
	on := func(day string, address memfault.Figure, bit int) memfault.Test {
		expected, none := memfault.Figure(1<<bit), memfault.Figure(0)
		out, err := memfault.Judge(memfault.Input{Banks: banks, Failures: []memfault.Failure{{Address: address,
			Expected: &expected, Actual: &none}}})
		require.NoError(t, err)
		return memfault.Test{On: day, Output: out}
	}
	again := func(tests ...memfault.Test) (found []string) {
		for _, one := range memfault.Recurring(banks, tests) {
			found = append(found, fmt.Sprint(one.What, one.Is, one.Days))
		}
		return found
	}
	require.Empty(t, again(on("2026-01-01", 1, 2), on("2026-01-01", 5, 2)))
	require.Equal(t, []string{"chip[U42] [2026-01-01 2026-03-01]"}, again(on("2026-03-01", 1, 2), on("2026-01-01",
		7, 2)))
	require.Equal(t, []string{"line[D2] [2026-01-01 2026-03-01]"}, again(on("2026-01-01", 1, 2), on("2026-03-01",
		0x10000, 2)))
	require.Equal(t, []string{"neighbours[U42 U43] [2026-01-01 2026-03-01]"},
		again(on("2026-01-01", 1, 2), on("2026-03-01", 9, 3)))
	require.Empty(t, again(on("2026-01-01", 1, 2), on("2026-03-01", 9, 6)), "far from each other")
}
