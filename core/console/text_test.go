package console_test

import (
	"math/bits"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/console"
)

// withParity sets the eighth bit of each byte so that all have an even number of ones, or an odd one, or have it set.
func withParity(text, parity string) []byte {
	raw := []byte(text)
	for i, b := range raw {
		isOdd := bits.OnesCount8(b)%2 == 1
		if parity == "mark" || isOdd == (parity == "even") {
			raw[i] = b | 0x80
		}
	}
	return raw
}

func TestWhatATerminalShows(t *testing.T) {
	lines := func(raw []byte) (told []string, s console.Screen) {
		s = console.ScreenOf(raw)
		for _, line := range s.Lines {
			told = append(told, line.Text)
		}
		return told, s
	}
	for raw, want := range map[string][]string{
		"":                          nil,
		"a\n\nb":                    {"a", "", "b"},
		"a\tb\x00c\x7f\n":           {"a bc"},
		"12345\r67\n":               {"67345"},
		"abc\b\bX\n":                {"aXc"},
		"\b\b\ra\n":                 {"a"},
		"one\ftwo\vthree":           {"one", "two", "three"},
		"\x1b[1;31mred\x1b[0m\n":    {"red"},
		"up\x1b[Ahere\n":            {"up", "here"},
		"\x1b[2J\x1b[Hclean\n":      {"clean"},
		"a\x1b(Bb\x1b7c\n":          {"abc"},
		"cut\x1b[":                  {"cut"},
		"cut\x1b":                   {"cut"},
		"trailing blanks   \n":      {"trailing blanks"},
		"ä and \xe2\x80\xa8 odd\n":  {"ä and \uFFFD odd"},
		strings.Repeat("x", 1500):   {strings.Repeat("x", 1000), strings.Repeat("x", 500)},
		"beep\a\a\n\x1b[5mslow\x07": {"beep", "slow"},
	} {
		told, _ := lines([]byte(raw))
		require.Equal(t, want, told, "%q", raw)
	}
	text := "MONITOR V2.3\r\n64K OK\r\n"
	for _, parity := range []string{"even", "odd", "mark"} {
		told, s := lines(withParity(text, parity))
		require.Equal(t, []string{"MONITOR V2.3", "64K OK"}, told, parity)
		require.Contains(t, s.Doubts[0], parity+" parity")
	}
	mixed := append(withParity(text, "even"), withParity(text, "odd")...)
	require.Equal(t, console.Garbage, console.Read(mixed, on).Outcome, "bits that follow no rule are no text")
	require.Equal(t, 3, console.ScreenOf([]byte("a\a\a\a")).Bells)
	require.True(t, console.ScreenOf([]byte("a\nb")).IsOpen)
	require.False(t, console.ScreenOf([]byte("a\nb\n")).IsOpen)
	for text, want := range map[string]console.Outcome{"64K OK": console.Text, "64K OK\n>": console.Prompts,
		"": console.Silent} {
		require.Equal(t, want, console.ReadTyped(text, on).Outcome, "where a typed text ends says nothing: %q", text)
	}
}
