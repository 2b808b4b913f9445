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

// What a machine is known to hold adds to the steps at which one comes near it, and to no other.
func TestWhatTheMachineHolds(t *testing.T) {
	for words, held := range map[string]string{
		"picture tube 12 inch": "tube", "Monitor ROM": "", "battery NiCd 3.6V": "cells", "sram battery-backed RAM": "",
		"lithium-ion pack": "cells li-ion", "fan 230 V~": "mains-fan", "fan 12 V": "", "CD-ROM drive": "laser",
		"weight 24 kg": "heavy", "weight 9.5 kg": "", "support clock module 12887": "cells",
		"outlet no mains switch": "starts-with-mains",
	} {
		require.Equal(t, held, strings.Trim(fmt.Sprint(caution.HoldingsOf([]string{words})), "[]"), words)
	}
	all := caution.Holdings()
	for _, c := range []struct {
		step string
		held []caution.Holding
		want []caution.Key
	}{
		{"Take the lid off", nil, []caution.Key{caution.Mains, caution.Edges}},
		{"Take the lid off", []caution.Holding{"tube"},
			[]caution.Key{caution.Mains, caution.Charge, caution.Tube, caution.Edges}},
		{"Lift the main board out", []caution.Holding{"cells", "tube"},
			[]caution.Key{caution.Charge, caution.Tube, caution.Battery, caution.Static}},
		{"Blow the dust out of the vents", []caution.Holding{"mains-fan"},
			[]caution.Key{caution.Mains, caution.Dust, caution.Air, caution.Moving}},
		{"Turn the machine over", []caution.Holding{"heavy"}, []caution.Key{caution.Weight}},
		{"Photograph the label", all, []caution.Key{}},
		{"Write the accession number on the card", all, []caution.Key{}},
		{"Press the space bar", all, []caution.Key{}},
	} {
		require.Equal(t, c.want, caution.DueIn(c.step, c.held), c.step)
	}
}
