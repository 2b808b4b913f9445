package linediff_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"pgregory.net/rapid"

	"frugalheron/core/linediff"
)

// sides reads both texts back from a comparison, with its line numbers checked.
func sides(t interface{ Fatalf(string, ...any) }, lines []linediff.Line) (older, newer []string) {
	for _, line := range lines {
		if line.Kind != linediff.Added {
			older = append(older, line.Text)
			if line.Old != len(older) {
				t.Fatalf("%+v is line %d of the older text", line, len(older))
			}
		}
		if line.Kind != linediff.Removed {
			newer = append(newer, line.Text)
			if line.New != len(newer) {
				t.Fatalf("%+v is line %d of the newer text", line, len(newer))
			}
		}
	}
	return older, newer
}

func edits(lines []linediff.Line) int {
	n := 0
	for _, line := range lines {
		if line.Kind != linediff.Same {
			n++
		}
	}
	return n
}

// fewest is the plain judge: edits left after the longest common subsequence.
func fewest(a, b []string) int {
	table := make([][]int, len(a)+1)
	for i := range table {
		table[i] = make([]int, len(b)+1)
	}
	for i := range a {
		for j := range b {
			if a[i] == b[j] {
				table[i+1][j+1] = table[i][j] + 1
			} else {
				table[i+1][j+1] = max(table[i][j+1], table[i+1][j])
			}
		}
	}
	return len(a) + len(b) - 2*table[len(a)][len(b)]
}

// Both texts can be read back from the comparison, and no shorter list of edits exists.
func TestOfIsTrueAndShortest(t *testing.T) {
	text := rapid.SliceOfN(rapid.SampledFrom([]string{"U1 7400", "U2 7404", "", "# note", "U3"}), 0, 25)
	rapid.Check(t, func(t *rapid.T) {
		a, b := text.Draw(t, "older"), text.Draw(t, "newer")
		lines := linediff.Of(a, b)
		older, newer := sides(t, lines)
		if !slices.Equal(older, a) || !slices.Equal(newer, b) {
			t.Fatalf("%v", lines)
		}
		if got, want := edits(lines), fewest(a, b); got != want {
			t.Fatalf("%d edits, %d are enough: %v", got, want, lines)
		}
	})
}

func TestTextsThatHaveLittleInCommonAreToldApartAsWholes(t *testing.T) {
	a, b := []string{"first"}, []string{"first"}
	for i := range 3000 {
		a, b = append(a, fmt.Sprint("a", i)), append(b, fmt.Sprint("b", i))
	}
	lines := linediff.Of(append(a, "last"), append(b, "last"))
	if len(lines) != 6002 || edits(lines) != 6000 || lines[0].Kind != linediff.Same ||
		lines[6001].Kind != linediff.Same {
		t.Errorf("%d lines, %d edits", len(lines), edits(lines))
	}
	sides(t, lines)
}

func ExampleOf() {
	for _, line := range linediff.Of(strings.Split("U1 7400\nU2 ?\nX1 8 MHz", "\n"),
		strings.Split("U1 7400\nU2 HX9040\nX1 8 MHz", "\n")) {
		fmt.Println(line.Kind, line.Old, line.New, line.Text)
	}
	// Output:
	// same 1 1 U1 7400
	// removed 2 0 U2 ?
	// added 0 2 U2 HX9040
	// same 3 3 X1 8 MHz
}
