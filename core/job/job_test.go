package job_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/calendar"
	"frugalheron/core/condition"
	"frugalheron/core/job"
	"frugalheron/core/sheet"
)

func ExampleFor() {
	for _, t := range job.For("batteries", "leaking BT1") {
		fmt.Printf("%s (never forget: %s)\n", t.Title, t.Forget)
	}
	// Output:
	// Take the battery out (never forget: the picture of its polarity, before it is out)
	// Replace the battery (never forget: to write down the settings, before it is out)
}

func ExamplePutInto() {
	fmt.Println(job.WordsAt("BT1        NiCd 3.6V !leaking: crust", "bt1"))
	out, _ := job.TakeOutOf("BT1        NiCd 3.6V !leaking: crust", "BT1")
	fmt.Println(out)
	body, _ := job.PutInto("U1         74LS00\nBT1        NiCd 3.6V !leaking: crust # left of U1", "bt1", "NiMH 3.6V", "2026-11-29")
	fmt.Println(body)
	// Output:
	// NiCd 3.6V
	// BT1        NiCd 3.6V @empty
	// U1         74LS00
	// BT1        NiMH 3.6V new:2026-11-29 # left of U1
}

// Three times the same on one board is a pattern; on two boards, or by another job, it is none.
func TestOftenMended(t *testing.T) {
	require.Empty(t, job.OftenMended([]job.Mended{{Board: 1, Template: "contacts"}, {Board: 1, Template: "contacts"},
		{Board: 2, Template: "contacts"}, {Board: 1, Template: "wire"}, {Template: "contacts"}, {Board: 1}, {Board: 1},
		{Board: 1}}))
	require.Equal(t, []job.Again{{Board: 1, Template: "contacts", Times: 3, Minutes: 55, First: "2024-03-01",
		Last: "2026-05-02"}}, job.OftenMended([]job.Mended{{1, "contacts", 20, "2026-05-02"}, {1, "contacts", 35,
		"2024-03-01"},
		{1, "contacts", 0, "2025-01-09"}, {2, "contacts", 5, "2025-01-09"}}))
}

// Each template says all of what it is for, and its subsystems are those of a condition check.
func TestTemplatesAreWhole(t *testing.T) {
	seen := map[string]bool{}
	for _, one := range job.Templates() {
		require.False(t, seen[one.Key], one.Key)
		seen[one.Key] = true
		for _, said := range []string{one.Title, one.Forget, one.Undo, one.Proof, string(one.Reversible)} {
			require.NotEmpty(t, said, one.Key)
		}
		require.NotEmpty(t, one.Tools)
		require.NotEmpty(t, one.Needs)
		require.Greater(t, len(one.Steps), 3, one.Key)
		require.Positive(t, one.Minutes)
		found, ok := job.Of(one.Key)
		require.True(t, ok)
		require.Equal(t, one.Title, found.Title)
	}
	for _, s := range condition.Subsystems() {
		if s.Key == "tube" || s.Key == "roms" || s.Key == "adjusters" || s.Key == "tantalum" || s.Key == "other" {
			continue // for somebody competent, for the ROM lab, or for no usual job
		}
		fits := false
		for _, kind := range s.Kinds {
			fits = fits || len(job.For(s.Key, kind)) > 0
		}
		require.True(t, fits, "nothing usual mends %s", s.Key)
	}
	require.Empty(t, job.For("roms", "fading"))
	_, ok := job.Of("none")
	require.False(t, ok)
}

// Whatever stands on a sheet: putting in a part changes its one line, or nothing with the reason.
func TestPutIntoChangesOneLine(t *testing.T) {
	line := rapid.SampledFrom([]string{"U1 74LS00", "BT1 NiCd 3.6V !leaking", "BT1,BT2 NiCd", "8x 4164", "",
		"# note", "U2 @empty",
		"free text", "BT1 ? # why", "C1-C8 100n"})
	rapid.Check(t, func(t *rapid.T) {
		lines := rapid.SliceOfN(line, 0, 6).Draw(t, "lines")
		body := strings.Join(lines, "\n")
		after, err := job.PutInto(body, "BT1", "NiMH  3.6V", "2026-11-29")
		if err != nil {
			require.Equal(t, body, after)
			return
		}
		changed := 0
		for i, now := range strings.Split(after, "\n") {
			if now != lines[i] {
				changed++
				require.True(t, strings.HasPrefix(now, "BT1        NiMH 3.6V new:2026-11-29"), now)
			}
		}
		require.Equal(t, 1, changed)
		_, err = sheet.Parse([]byte(after), sheet.Body)
		require.NoError(t, err)
	})
}

func TestProofDue(t *testing.T) {
	day := func(text string) calendar.Date { d, _ := calendar.Parse(text); return d }
	passed := []job.Proof{{On: "2025-02-28", Passed: true}}
	require.Equal(t, "2026-02-28", job.ProofDue(passed, calendar.Date{}).String())
	require.Equal(t, "2026-05-01", job.ProofDue(passed, day("2025-05-01")).String(), "it ran since")
	require.Equal(t, "2026-02-28", job.ProofDue(passed, day("2024-05-01")).String(), "it ran before")
	require.Zero(t, job.ProofDue(nil, day("2024-05-01")))
	require.Zero(t, job.ProofDue(append(passed, job.Proof{On: "2025-03-01"}), calendar.Date{}), "it said no last")
}
