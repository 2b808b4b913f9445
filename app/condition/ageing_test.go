package condition

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/risk"
)

// What ages in a machine comes back from its narrow text as it went in.
func TestPartsSurviveTheirNarrowText(t *testing.T) {
	day := rapid.OneOf(rapid.Just(risk.NoDay),
		rapid.Map(rapid.Int32Range(-20000, 60000), func(d int32) risk.Day { return risk.Day(d) }))
	rapid.Check(t, func(t *rapid.T) {
		parts := []risk.Part{}
		kept := []string{}
		for range rapid.IntRange(0, 12).Draw(t, "parts") {
			p := risk.Part{
				Machine: 7, Class: rapid.SampledFrom(risk.Shipped()).Draw(t, "class").Key,
				Count:    rapid.IntRange(1, 500).Draw(t, "count"),
				Assembly: rapid.Int64Range(1, 1<<40).Draw(t, "board"), Line: rapid.IntRange(0, 5000).Draw(t, "line"),
				Born: day.Draw(t, "born"), Looked: day.Draw(t, "looked"),
			}
			parts = append(parts, p)
			kept = append(kept, packPart(p))
		}
		require.Equal(t, parts, unpackParts([]risk.Part{}, 7, strings.Join(kept, "\n")))
	})
}
