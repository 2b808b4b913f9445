package word_test

import (
	"errors"
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/malformed"
	"frugalheron/core/word"
)

func ExampleWrite() {
	value, _ := word.Parse("0xA3F8")
	w := word.Write(value)
	fmt.Println(w.Value, w.Hex, w.Octal, w.Split, w.Binary)
	fields, _ := word.FieldsOf(value, "15-12 bank, 7 top")
	for _, f := range fields {
		fmt.Println(f.Name, f.From, f.To, f.Value, f.Binary)
	}
	// Output:
	// 41976 a3f8 121770 243.370 1010001111111000
	// bank 15 12 10 1010
	// top 7 7 1 1
}

func TestParse(t *testing.T) {
	for text, want := range map[string]uint64{"0x3F8": 0x3f8, "3F8h": 0x3f8, "0b1010": 10, "017650": 8104, "377q": 255,
		"377.250": 0xffa8, "1016": 1016, "0": 0, " 0x10 ": 16, "0b1h": 0xb1, "1.2.3": 1<<16 | 2<<8 | 3,
		"0xffffffffffffffff": 1<<64 - 1} {
		got, err := word.Parse(text)
		require.NoError(t, err, text)
		require.Equal(t, want, got, text)
	}
	for text, column := range map[string]int{"08": 2, "0b102": 5, "3G8h": 2, "378q": 3, "377.400": 5, "377.x": 5,
		"12a": 3,
		"0x":  3, "-5": 1, "  19z": 5, "0x10000000000000000": 19, "1..2": 3, "1.1.1.1.1.1.1.1.1": 17, "é": 1} {
		_, err := word.Parse(text)
		var wrong *malformed.Error
		require.True(t, errors.As(err, &wrong), text)
		require.Equal(t, column, wrong.Column, text)
	}
	_, err := word.Parse(" ")
	require.Error(t, err)
	for fields, column := range map[string]int{"12-15 bank": 1, "7 top, x": 8, "64": 1, "7,": 3, "-1 low": 1} {
		_, err := word.FieldsOf(0, fields)
		var wrong *malformed.Error
		require.True(t, errors.As(err, &wrong), fields)
		require.Equal(t, column, wrong.Column, fields)
	}
	none, err := word.FieldsOf(7, " ")
	require.NoError(t, err)
	require.Empty(t, none)
}

// Whatever the value: each way in which it is written reads as the same, and fields that follow each other make it up.
func TestWhatIsWrittenReadsTheSame(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		value := rapid.Uint64().Draw(t, "value")
		w := word.Write(value)
		for _, text := range []string{"0x" + w.Hex, w.Hex + "h", "0" + w.Octal, w.Octal + "q", w.Split, "0b" + w.Binary,
			fmt.Sprint(w.Value)} {
			got, err := word.Parse(text)
			require.NoError(t, err, text)
			require.Equal(t, value, got, text)
		}
		cut := rapid.IntRange(1, 63).Draw(t, "cut")
		fields, err := word.FieldsOf(value, fmt.Sprintf("63-%d high, %d-0 low", cut, cut-1))
		require.NoError(t, err)
		require.Equal(t, value, fields[0].Value<<cut|fields[1].Value)
	})
}
