package maker_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/maker"
)

func ExampleParse() {
	ties, _ := maker.Parse("renamed | Brackwater Systems | 1986 | letterheads\nmade for | Quennell  Systems")
	for _, tie := range ties {
		fmt.Println(tie.Words)
	}
	// Output:
	// was renamed Brackwater Systems, 1986
	// made machines for Quennell Systems
}

func TestTiesThatCannotBeRead(t *testing.T) {
	for text, want := range map[string]string{
		"friend | X":          `line 1: "friend" is no tie`,
		"\nrenamed |":         "line 2: name the other",
		"joint | X | 1986-13": "line 1: when",
		"joint | X\nbought":   "line 2: name the other",
	} {
		_, err := maker.Parse(text)
		require.ErrorContains(t, err, want)
	}
	ties, err := maker.Parse("")
	require.NoError(t, err)
	require.Empty(t, ties)
}
