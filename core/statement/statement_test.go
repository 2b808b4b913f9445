package statement_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/sheet"
	"frugalheron/core/statement"
)

func Example() {
	said, _ := statement.Read("U14 27128-25 8533")
	placed, _ := statement.Place("U13        74LS00\nU14        @empty\n", said)
	fmt.Printf("line %d, in place of %q\n%s", placed.Line, placed.Replaces, placed.Body)
	// Output:
	// line 2, in place of "U14        @empty"
	// U13        74LS00
	// U14        27128-25 8533
}

func TestRead(t *testing.T) {
	for text, line := range map[string]string{
		"U14 27128-25 8533":         "U14        27128-25 8533",
		"  c5 0.1uF X2 !cracked ":   "C5         0.1uF X2 !cracked",
		"8x 4164-15":                "8x         4164-15",
		"U20,U22 @empty":            "U20,U22    @empty",
		"BT1 !leaking: green crust": "BT1        !leaking: green crust",
	} {
		said, ok := statement.Read(text)
		require.True(t, ok, text)
		assert.Equal(t, line, said.Line)
	}
	for text, note := range map[string]string{"note hinge cracked": "hinge cracked",
		"Note  U14 is warm": "U14 is warm"} {
		said, ok := statement.Read(text)
		require.True(t, ok, text)
		assert.Equal(t, note, said.Note)
	}
	for _, text := range []string{"", "U14", "meridian 2", "41256 8512", "EH-0142", "note", "note ", "# U14 7400",
		"== Main board", "U9-U1 7400", "U1 7400\nU2 7400", "U1 \x007400"} {
		_, ok := statement.Read(text)
		assert.False(t, ok, text)
	}
}

func TestPlace(t *testing.T) {
	said, ok := statement.Read("U14 27128")
	require.True(t, ok)
	for body, want := range map[string]statement.Placement{
		"":                           {Body: "U14        27128\n", Line: 1},
		"U1 7400":                    {Body: "U1 7400\nU14        27128", Line: 2},
		"U1 7400\n\n":                {Body: "U1 7400\nU14        27128\n\n", Line: 2},
		"# top\r\nU14 ?\r\nU15 7400": {Body: "# top\r\nU14        27128\nU15 7400", Line: 2, Replaces: "U14 ?"},
		"U1 7400\nU10-U20 4164 # old": {Body: "U1 7400\nU10-U20 4164 # old", Line: 2,
			Blocked: "U14 stands on line 2 with others; change that line in the sheet"},
	} {
		placed, err := statement.Place(body, said)
		require.NoError(t, err)
		assert.Equal(t, want, placed, body)
	}
}

// Whatever is on the sheet: a placed entry stands there once, with no problem of its own, and no
// other line is touched.
func TestPlaceTouchesNothingElse(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		lines := rapid.SliceOfN(
			rapid.SampledFrom([]string{"", "# words", "U1 7400", "U2-U4 4164", "U5,U7 7404", "free text", "2x 4116",
				"U9 ?"}), 0, 8).Draw(t, "lines")
		said, ok := statement.Read(rapid.SampledFrom([]string{"U1", "U3", "U5,U7", "U9", "U11", "U2-U4"}).Draw(t,
			"parts") + " 27128")
		require.True(t, ok)
		body := strings.Join(lines, "\n")
		placed, err := statement.Place(body, said)
		require.NoError(t, err)
		if placed.Blocked != "" {
			require.Equal(t, body, placed.Body)
			return
		}
		parsed, err := sheet.Parse([]byte(placed.Body), sheet.Body)
		require.NoError(t, err)
		for _, p := range parsed.Problems {
			require.NotEqual(t, placed.Line, p.Line, p.Message)
		}
		after := strings.Split(placed.Body, "\n")
		require.Equal(t, said.Line, after[placed.Line-1])
		rest := append(append([]string{}, after[:placed.Line-1]...), after[placed.Line:]...)
		if placed.Replaces != "" {
			lines = append(append([]string{}, lines[:placed.Line-1]...), lines[placed.Line:]...)
		}
		require.Equal(t, strings.Join(lines, "\n"), strings.TrimSuffix(strings.Join(rest, "\n"), ""))
	})
}
