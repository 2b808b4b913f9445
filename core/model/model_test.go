package model_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/calendar"
	"frugalheron/core/edtf"
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

func TestFactsOfModels(t *testing.T) {
	text := "processor = HX8810 | service handbook of 1985 | 1985-03\n\nmemory = 64/256/640 KB | price list  # all sizes\n" +
		"processor = HX8812 | label: rating plate\nscreen = 80x25/40x25\nsince of main board rev C = 1985-03"
	told, problems := model.ParseFacts(text)
	require.Empty(t, problems)
	require.Len(t, told, 5)
	require.Equal(t, []string{"service handbook of 1985", "price list", "label: rating plate", "what somebody recalls"},
		[]string{told[0].Said, told[1].Said, told[2].Said, told[3].Said})
	require.Equal(t, facts.Label, told[2].Source)
	require.Equal(t, "main board rev C", told[4].Subject)
	seen, _ := model.ParseFacts("slots = 5 | seen: EH-0142")
	require.Equal(t, facts.Source("seen"), seen[0].Source)
	judged, problems, err := model.CheckFacts(told, "2026-11-29")
	require.NoError(t, err)
	require.Empty(t, problems)
	require.Len(t, judged, 4)
	require.Equal(t, facts.Disputed, judged[0].State, "label and document are one rank apart")
	for line, why := range map[string]string{"processor": "no fact", "processor =": "no fact", "= HX8810": "no fact",
		"a = b | c | 1985 | d": "more than"} {
		_, problems := model.ParseFacts("\n" + line)
		require.Len(t, problems, 1, line)
		require.Equal(t, 2, problems[0].Line)
		require.Contains(t, problems[0].Message, why)
	}
	wrong, _ := model.ParseFacts("memory = 64 KB\nmemory = much\nprice = 3 | leaflet | 1985-13")
	_, problems, err = model.CheckFacts(wrong, "2026-11-29")
	require.NoError(t, err)
	require.Equal(t, []int{2, 3}, []int{problems[0].Line, problems[1].Line})
}

func TestPlacedInTheTimeOfTheModel(t *testing.T) {
	made, err := edtf.Parse("1984-06/1987")
	require.NoError(t, err)
	day := func(text string) calendar.Date {
		d, err := calendar.Parse(text)
		require.NoError(t, err)
		return d
	}
	for span, want := range map[string]model.Placed{"1985-01-01 1985-12-31": model.Within,
		"1984-01-01 1984-05-31": model.Before,
		"1988-01-01 1989-01-01": model.After, "1984-05-01 1984-07-01": model.Partly,
		"1987-12-31 1988-01-01": model.Partly,
		"1984-06-01 1987-12-31": model.Within} {
		from, to, _ := strings.Cut(span, " ")
		require.Equal(t, want, model.Place(made, day(from), day(to)), span)
	}
}
