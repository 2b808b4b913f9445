package input_test

import (
	"errors"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/input"
)

// Each check trims what it is given, and says of a wrong one where it is and what to do.
func TestWhatPeopleSendIsChecked(t *testing.T) {
	tests := []struct {
		rule  string
		check func(field string, text *string) error
		text  string
		want  string // trimmed
		says  string // what is wrong; empty where nothing is
	}{
		{"one line is trimmed", input.OneLine, "  Sorter\t", "Sorter", ""},
		{"one line holds no line break", input.OneLine, "a\nb", "a\nb", "a control character (code 10) at byte 2"},
		{"other scripts are text", input.OneLine, "Größe 日本", "Größe 日本", ""},
		{"lines may break", input.Lines, " a\r\n\tb ", "a\r\n\tb", ""},
		{"lines hold no other signs", input.Lines, "a\x1bb", "a\x1bb", "a control character (code 27) at byte 2"},
		{"a heading is divided by strokes", input.HeadingText, "Board | rev B", "Board | rev B", "may hold no |"},
		{"a heading has no comment", input.HeadingText, "Board #2", "Board #2", "no word that starts with #"},
		{"a sign within a word is none", input.HeadingText, " C#major ", "C#major", ""},
		{"a date is written in its shortest form", input.CheckEDTF, " 1984~ ", "1984~", ""},
		{"no date stays none", input.CheckEDTF, "  ", "", ""},
		{"what is no date is refused", input.CheckEDTF, "soon", "soon", ""},
	}
	for _, test := range tests {
		text := test.text
		err := test.check("note", &text)
		require.Equal(t, test.want, text, test.rule)
		if test.says == "" && test.rule != "what is no date is refused" {
			require.NoError(t, err, test.rule)
			continue
		}
		var invalid *action.Invalid
		require.ErrorAs(t, err, &invalid, test.rule)
		require.Equal(t, "note", invalid.Field)
		require.Contains(t, invalid.Why, test.says, test.rule)
	}
}

// Days are days of the calendar; what was done lies not in the future.
func TestDays(t *testing.T) {
	require.NoError(t, input.Day("on", "2024-02-29"))
	for _, wrong := range []string{"", "2023-02-29", "29.2.2024", "2024-2-29"} {
		require.Error(t, input.Day("on", wrong), wrong)
	}
	require.NoError(t, input.PastDay("on", "2024-02-29", "2024-02-29"))
	require.Error(t, input.PastDay("on", "2024-03-01", "2024-02-29"))
	require.Nil(t, input.DateOf("soon"))
	require.Equal(t, "1984", input.DateOf("1984").String())
}

// Of several checks the first that fails is told; an absent record is what is wrong with its field, and nothing else is.
func TestChecksTogether(t *testing.T) {
	first, other := errors.New("first"), errors.New("other")
	require.ErrorIs(t, input.CheckAll(nil, first, other), first)
	require.NoError(t, input.CheckAll(nil, nil))
	var invalid *action.Invalid
	require.ErrorAs(t, input.Missing(action.ErrNotFound, "partyId", "choose somebody"), &invalid)
	require.Equal(t, "partyId: choose somebody", invalid.Error())
	require.ErrorIs(t, input.Missing(other, "partyId", "choose somebody"), other)
	require.Equal(t, []string{"a", "b c"}, input.FilledLines("\n a \r\n\n\tb c\n"))
	require.Empty(t, input.FilledLines(" \n"))
}

func TestWithinLimitsChecksWhatFieldsAreDeclaredWith(t *testing.T) {
	type limited struct {
		Name string  `json:"name" maxLength:"3"`
		Sort string  `json:"sort" enum:"card,board"`
		Bits int     `json:"bits" minimum:"0" maximum:"64"`
		MHz  float64 `json:"mhz" minimum:"0"`
	}
	require.NoError(t, input.WithinLimits(limited{"äöü", "", 64, 4.7}))
	for field, wrong := range map[string]limited{"name": {Name: "four"}, "sort": {Sort: "lamp"}, "bits": {Bits: 65},
		"mhz": {MHz: -1}} {
		var not *action.Invalid
		require.ErrorAs(t, input.WithinLimits(wrong), &not)
		require.Equal(t, field, not.Field)
	}
}
