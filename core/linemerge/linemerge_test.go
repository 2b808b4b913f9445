package linemerge_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"frugalheron/core/linemerge"
)

func Example() {
	base := []string{"U1 7400", "U2 7404", "U3 7408"}
	mine := []string{"U1 74LS00", "U2 7404", "U3 7432"}
	theirs := []string{"U1 7400", "U2 74LS04", "U3 7486"}
	for _, s := range linemerge.Of(base, mine, theirs) {
		fmt.Println(s.Kind, s.Mine, s.Theirs)
	}
	// Output:
	// mine [U1 74LS00] [U1 7400]
	// theirs [U2 7404] [U2 74LS04]
	// conflict [U3 7432] [U3 7486]
}

func TestMerge(t *testing.T) {
	for name, c := range map[string]struct {
		base, mine, theirs string
		merged             string
		conflicts          int
	}{
		"different lines":                      {"a b c", "A b c", "a b C", "A b C", 0},
		"neighbouring lines":                   {"a b", "A b", "a B", "A B", 0},
		"the same line, differently":           {"a b", "a M", "a T", "a M T", 1},
		"the same line, alike":                 {"a b", "a X", "a X", "a X", 0},
		"each line of a stretch on its own":    {"a b c", "A M c", "a T C", "A M T C", 1},
		"lines put in at different spots":      {"a b", "x a b", "a b y", "x a b y", 0},
		"lines put in at one spot":             {"a", "a m", "a t", "a m t", 1},
		"the same line put in at one spot":     {"a", "a x", "a x", "a x", 0},
		"a line put in before a changed one":   {"a b", "a B", "a x b", "a x B", 0},
		"a line put in after a changed one":    {"a b", "A b", "a x b", "A x b", 0},
		"a line put in after a stretch is out": {"a b c", "a", "a b c d", "a d", 0},
		"a line put into what is out":          {"a b c d", "a d", "a b x c d", "a b x c d", 1},
		"a line changed that is out":           {"a b c d", "a d", "a B c d", "a B c d", 1},
		"from nothing":                         {"", "m", "t", "m t", 1},
		"one side only":                        {"a b", "a b", "", "", 0},
		"a long change over two short ones":    {"a b c d", "p q r s t", "a B c D", "p q r s t a B c D", 1},
	} {
		t.Run(name, func(t *testing.T) {
			stretches := linemerge.Of(strings.Fields(c.base), strings.Fields(c.mine), strings.Fields(c.theirs))
			assert.Equal(t, c.merged, strings.Join(linemerge.Lines(stretches), " "))
			assert.Equal(t, c.conflicts, linemerge.Conflicts(stretches))
		})
	}
}

// FuzzMerge checks what must hold of any three texts. A letter stands for a line.
func FuzzMerge(f *testing.F) {
	for _, seed := range [][3]string{{"abc", "aXc", "abY"}, {"", "a", "b"}, {"aaaa", "aa", "aaaaaa"},
		{"abcd", "dcba", "bacd"}} {
		f.Add(seed[0], seed[1], seed[2])
	}
	f.Fuzz(func(t *testing.T, b, m, th string) {
		base, mine, theirs := strings.Split(b, ""), strings.Split(m, ""), strings.Split(th, "")
		stretches := linemerge.Of(base, mine, theirs)

		// Each text is there in full.
		var bases, mines, others []string
		for _, s := range stretches {
			bases, mines, others = append(bases, s.Base...), append(mines, s.Mine...), append(others, s.Theirs...)
		}
		require.Equal(t, b, strings.Join(bases, ""))
		require.Equal(t, m, strings.Join(mines, ""))
		require.Equal(t, th, strings.Join(others, ""))

		// What only one side changed is that side's; what both changed alike is theirs and mine.
		joined := func(base, mine, theirs []string) string {
			s := linemerge.Of(base, mine, theirs)
			require.Zero(t, linemerge.Conflicts(s))
			return strings.Join(linemerge.Lines(s), "")
		}
		require.Equal(t, m, joined(base, mine, base))
		require.Equal(t, th, joined(base, base, theirs))
		require.Equal(t, m, joined(base, mine, mine))

		// It does not matter who is who, but for the order inside a conflict.
		swapped := linemerge.Of(base, theirs, mine)
		require.Len(t, swapped, len(stretches))
		for i, s := range stretches {
			require.True(t, slices.Equal(s.Mine, swapped[i].Theirs) && slices.Equal(s.Theirs, swapped[i].Mine))
		}

		// No line that somebody wrote anew is lost.
		merged := linemerge.Lines(stretches)
		for _, line := range append(mine, theirs...) {
			if !slices.Contains(base, line) {
				require.Contains(t, merged, line)
			}
		}
	})
}
