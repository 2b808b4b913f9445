package calendar_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/calendar"
)

// A month later than the 31st is the last day of the month; years and directions do not matter.
func TestAddMonths(t *testing.T) {
	for _, c := range []struct {
		from string
		n    int
		want string
	}{{"2025-01-31", 1, "2025-02-28"}, {"2024-01-31", 1, "2024-02-29"}, {"2026-08-31", 3, "2026-11-30"},
		{"2025-11-28", 12, "2026-11-28"}, {"2024-02-29", 12, "2025-02-28"}, {"2025-12-31", 2, "2026-02-28"},
		{"2026-03-31", -1, "2026-02-28"}, {"2026-01-15", -13, "2024-12-15"}, {"2026-05-05", 0, "2026-05-05"}} {
		from, err := calendar.Parse(c.from)
		require.NoError(t, err)
		require.Equal(t, c.want, from.AddMonths(c.n).String(), "%s + %d", c.from, c.n)
	}
	rapid.Check(t, func(t *rapid.T) {
		from := calendar.FromDays(rapid.IntRange(-40_000, 40_000).Draw(t, "day"))
		n := rapid.IntRange(0, 600).Draw(t, "months")
		later := from.AddMonths(n)
		require.False(t, later.Before(from))
		require.LessOrEqual(t, later.Days()-from.Days(), 31*n)
		require.LessOrEqual(t, later.Day, from.Day)
		require.Equal(t, later, calendar.FromDays(later.Days()), "it is a day")
	})
}

// Reading a day never fails: what is wrong with it is told with the field where it stands.
func TestEnteredDays(t *testing.T) {
	now, err := calendar.Parse("2026-11-28")
	require.NoError(t, err)
	for text, says := range map[string]string{`"2026-11-28"`: "", `null`: "", `""`: "",
		`"2026-11-29"`: "is after 2026-11-28",
		`"28.11.2026"`: "is no day", `"2026-02-30"`: "is no day"} {
		var in struct{ On calendar.Entered }
		require.NoError(t, json.Unmarshal([]byte(`{"On":`+text+`}`), &in), text)
		err := in.On.Check("done[3].on", now)
		if says == "" {
			require.NoError(t, err, text)
			continue
		}
		require.ErrorContains(t, err, says, text)
		require.ErrorContains(t, err, "done[3].on")
	}
	require.NoError(t, calendar.Written("2099-01-01").Check("plan", calendar.Date{}), "a plan may lie ahead")
	require.Equal(t, calendar.On(now), calendar.Written("2026-11-28"))
}
