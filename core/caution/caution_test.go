package caution_test

import (
	"fmt"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/caution"
)

func ExampleDue() {
	said := caution.Shown{}
	for _, step := range []string{"Power supply, four screws", "supply lead", "Memory card",
		"Monitor, with its heavy chassis"} {
		fmt.Println(step, said.Now(caution.Due(step)))
	}
	// Output:
	// Power supply, four screws [mains charge]
	// supply lead []
	// Memory card [static]
	// Monitor, with its heavy chassis [tube weight edges]
}

func TestEveryCautionDefersAndIsDueSomewhere(t *testing.T) {
	due := map[string]caution.Key{
		"Mains inlet": caution.Mains, "X2 capacitor": caution.Charge, "tube neck": caution.Tube,
		"BT1 lithium": caution.Battery, "Disk card": caution.Static,
		"heat sink": caution.Heat, "drive cage": caution.Weight, "RF cage": caution.Edges,
		"nest in the fan": caution.Dust, "clean with isopropyl": caution.Solvents,
	}
	for text, key := range due {
		require.Contains(t, caution.Due(text), key, text)
		said := caution.Of(key)
		require.NotEmpty(t, said.Word)
		require.Regexp(t, `(?i)local rules|rules of the|as local`, said.Text, "%s defers", key)
		for _, permission := range []string{"may be", "it is safe", "you can now", "allowed"} {
			require.NotContains(t, strings.ToLower(said.Text), permission)
		}
	}
	require.Empty(t, caution.Due("Label on the left, nothing else"))
	require.Equal(t, caution.Caution{Key: "none"}, caution.Of("none"))
}

// Steps in plain words, each with all that is due, and nothing that is not.
func TestSteps(t *testing.T) {
	text, err := os.ReadFile("testdata/steps.tsv")
	require.NoError(t, err)
	steps := 0
	for line := range strings.Lines(string(text)) {
		step, keys, ok := strings.Cut(strings.TrimRight(line, "\n"), "\t")
		if !ok || step == "step" {
			continue
		}
		steps++
		want, got := strings.Fields(keys), []string{}
		for _, key := range caution.Due(step) {
			got = append(got, string(key))
		}
		slices.Sort(want)
		slices.Sort(got)
		if !slices.Equal(want, got) {
			t.Errorf("%-60s %v, want %v", step, got, want)
		}
	}
	require.Greater(t, steps, 120)
}
