package model_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/facts"
	"frugalheron/core/model"
	"frugalheron/core/quantity"
)

const meridian = `Main board | part 4410-2
Video card | part 4422-1 | option
Memory card | part 4424-1 | option | from 1986-03  # 384 KB
Supply | part PS-65

Keyboard`

func ExampleCompare() {
	expected, _ := model.Parse(meridian)
	for _, row := range model.Compare(expected, []model.Fitted{
		{ID: 1, Title: "Main board", Part: "4410-1"}, {ID: 2, Title: "Picture card", Part: "P/N 44221"},
		{ID: 3, Title: "Keyboard", Fit: "modern"}, {ID: 4, Title: "Network card"},
		{ID: 5, Title: "Grey box", KnownAs: []string{"ps 65"}},
	}) {
		fmt.Printf("%s: %s, %q\n", row.Title, row.State, row.Why)
	}
	// Output:
	// Main board: other part number, "the model has 4410-2, this is 4410-1"
	// Picture card: option fitted, ""
	// Memory card: option not fitted, "could be had for the model from 1986-03 on"
	// Grey box: fitted, ""
	// Keyboard: not original, "it is of the expected kind, but came into the machine modern"
	// Network card: extra, "nothing of the kind is known for the model"
}

func TestLines(t *testing.T) {
	expected, problems := model.Parse(meridian)
	require.Empty(t, problems)
	require.Len(t, expected, 5)
	require.Equal(t, model.Expected{Line: 3, Title: "Memory card", Part: "4424-1", Option: true, From: "1986-03"},
		expected[2])
	_, problems = model.Parse("| part 3\nBoard | from 1986-13\nBoard | colour red\nBoard | part")
	require.Len(t, problems, 4)
	require.Equal(t, 2, problems[1].Line)
	require.Contains(t, problems[1].Message, "since when")
	require.Contains(t, problems[2].Message, "colour red")
	// Two alike are two.
	two, _ := model.Parse("Memory card | part 4\nMemory card | part 4 | option")
	rows := model.Compare(two, []model.Fitted{{ID: 1, Title: "Memory card", Part: "4"}})
	require.Equal(t, model.AsExpected, rows[0].State)
	require.Equal(t, model.Available, rows[1].State)
}

func TestFigures(t *testing.T) {
	figures, problems := model.ParseFigures("Meridian 2", "+5 = 4.9 .. 5.2 V  # handbook\n\nU3 pin 8 = 5 V +/- 2 %\n"+
		"disk size <= 504 MiB\nmemory <= 640K")
	require.Empty(t, problems)
	require.Equal(t, []facts.Limit{{Name: "the firmware of Meridian 2", Bytes: 528_482_304, Attribute: "disk-size"},
		{Name: "the firmware of Meridian 2", Bytes: 655_360, Attribute: "memory"}}, figures.Limits)
	for _, point := range []string{"+5", "u3  PIN 8"} {
		e, ok := figures.At(point, quantity.Volts)
		require.True(t, ok && *e.Low == 4.9, point)
		require.Equal(t, "so says the record of Meridian 2", e.From)
	}
	_, ok := figures.At("+5", quantity.Amperes)
	require.False(t, ok)
	_, problems = model.ParseFigures("", "+5\n= 5 V\n+5 = 5.2 .. 4.9 V\nJ2 = 5\ndisk size <= many\nweight <= 3 kg\n"+
		"plate <= 3")
	require.Len(t, problems, 7)
	for i, why := range []string{"no figure", "no figure", "", "write the unit", "", "not counted in bytes",
		"not counted"} {
		require.Equal(t, i+1, problems[i].Line)
		require.Contains(t, problems[i].Message, why)
	}
}
