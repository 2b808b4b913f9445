package lives_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/lives"
	"frugalheron/core/sheet"
)

// told reads sheets as revisions that were saved on the days before them, and tells their story.
func told(t require.TestingT, revisions ...string) lives.Story {
	var story lives.Story
	var before []lives.Written
	for _, one := range revisions {
		day, body := one[:10], one[11:]
		parsed, err := sheet.Parse([]byte(body), sheet.Body)
		require.NoError(t, err)
		lines := []lives.Written{}
		for _, a := range parsed.Assemblies {
			for _, line := range a.Lines {
				if e := line.Entry; e != nil {
					w := lives.Written{Line: e.Line, Parts: e.Written, Designators: e.Designators, New: e.New,
						Empty: e.Empty,
						Words: fmt.Sprint(e.Words), Marks: e.Findings}
					lines = append(lines, w)
				}
			}
		}
		story.Apply(before, lives.Revision{Lines: lines, On: day, At: noon(day)})
		before = lines
	}
	return story
}

func noon(day string) time.Time {
	at, _ := time.Parse(time.DateOnly, day)
	return at.Add(12 * time.Hour)
}

// lived writes what became of a position: words, from and until, one life behind the other.
func lived(s lives.Story, designator string) string {
	text := ""
	for _, p := range s.Positions {
		if p.Designator == designator {
			for _, l := range p.Lives {
				text += fmt.Sprintf("%s %s..%s %s; ", l.Words, l.From, l.Until, l.Went)
			}
		}
	}
	return text
}

func ExampleStory() {
	s := told(nil, "2024-03-01 BT1 NiCd !leaking", "2025-01-10 BT1 @empty", "2025-02-01 BT1 CR2032")
	fmt.Println(strings.TrimSpace(lived(s, "BT1")))
	fmt.Println(s.Marks[0].Kind, s.Marks[0].Since, s.Marks[0].Until, s.Marks[0].WithPart)
	_, end := s.Occupant("BT1", "2024-06-01", noon("2024-06-01"))
	fmt.Println(end.Text())
	// Output:
	// [NiCd] ..2025-01-10 taken out; [CR2032] 2025-02-01.. ;
	// leaking 2024-03-01 2025-01-10 true
	// the part was taken out, 2025-01-10
}

func TestOneOccupantAfterAnother(t *testing.T) {
	for want, revisions := range map[string][]string{
		"": {"2024-01-01 C5 1uF",
			"2024-02-01 C5 2uF"}, // read better, not another part
		"[1uF] ..2021 replaced; [1uF] 2021.. ; ": {"2024-01-01 C5 1uF",
			"2024-02-01 C5 1uF new:2021"},
		"[1uF] 2021.. ; ": {"2024-01-01 C5 1uF new:2021"},
		"[1uF] ..2021-05 replaced; [1uF] 2021-05.. ; ": {"2024-01-01 C5 1uF", "2024-02-01 C5 1uF new:2021",
			"2024-03-01 C5 1uF new:2021-05"},
		"[1uF] 2021..2024 replaced; [1uF] 2024.. ; ": {"2024-01-01 C5 1uF new:2021",
			"2024-02-01 C5 1uF new:2024"},
		"[1uF] ..2024-02-01 lent; ": {"2024-01-01 C5 1uF", "2024-02-01 C5 1uF @empty !lent: to Bram"},
		"[1uF] ..2024-02-01 lent; [2uF] 2024-03-01.. ; ": {"2024-01-01 C5 1uF",
			"2024-02-01 C5 1uF @empty !lent: to Bram", "2024-03-01 C5 2uF"},
		"[1uF] ..2024-02-01 taken out; ": {"2024-01-01 C5 1uF", "2024-02-01 C5 @empty"},
		"[1uF] ..2015 taken out; ": {"2024-01-01 C5 1uF", "2024-02-01 C5 @empty",
			"2024-03-01 C5 @empty new:2015"},
		"[1uF] ..2024-02-01 taken out; [2uF] 2024-03-01.. ; ": {"2024-01-01 C5 1uF", "2024-02-01 C5 @empty",
			"2024-03-01 C5 2uF"},
		"[1uF] ..2024-02-01 taken out; [2uF] 2024-02-20.. ; ": {"2024-01-01 C5 1uF", "2024-02-01 C5 @empty",
			"2024-03-01 C5 2uF new:2024-02-20"},
		"[1uF] ..2023 replaced; [2uF] 2023..2024-04-01 taken out; ": {"2024-01-01 C1-C9 1uF",
			"2024-03-01 C1-C4 1uF\nC5 2uF new:2023\nC6-C9 1uF", "2024-04-01 C5 @empty"},
	} {
		require.Equal(t, want, lived(told(t, revisions...), "C5"), revisions)
	}
	// Slips: an empty socket that never was, a replacement that was taken back.
	require.Equal(t, "", lived(told(t, "2024-01-01 U1 7400", "2024-02-01 U1 @empty", "2024-02-02 U1 7400"), "U1"))
	require.Equal(t, "",
		lived(told(t, "2024-01-01 U1 7400", "2024-02-01 U1 7400 new:2020", "2024-02-02 U1 7400"), "U1"))
	require.Empty(t, told(t, "2024-01-01 U1 @empty").Positions)
}

func TestSinceWhenAMarkStands(t *testing.T) {
	marks := func(revisions ...string) (text string) {
		for _, m := range told(t, revisions...).Marks {
			text += fmt.Sprintf("%s %s %s..%s; ", m.Parts, m.Kind, m.Since, m.Until)
		}
		return text
	}
	require.Equal(t, "C5 cracked 2024-01-01..; ",
		marks("2024-01-01 C5 1uF !cracked", "2024-02-01 C5 2uF !cracked: now seen"))
	require.Equal(t, "C5 cracked 2024-01-01..2024-02-01; ", marks("2024-01-01 C5 1uF !cracked", "2024-02-01 C5 1uF"))
	require.Equal(t, "C5 cracked 2024-01-01..; ", marks("2024-01-01 C5 1uF !craked", "2024-01-01 C5 1uF !cracked"))
	require.Equal(t, "C1-C4 dirty 2024-01-01..; C5-C9 dusty 2024-01-01..; ",
		marks("2024-01-01 C1-C9 1uF !dirty", "2024-02-01 C1-C4 1uF !dirty\nC5-C9 1uF !dusty"),
		"a run that is cut up stays what it was")
	require.Equal(t, "C5 leaking 2024-01-01..; ", marks("2024-01-01 C5 1uF !leaking", "2024-02-01 C5 1uF new:2024",
		"2024-02-02 C5 1uF !leaking"), "that it was replaced was a slip")
	lent := []string{"2024-01-01 C5 1uF !dirty", "2024-02-01 C5 1uF @empty !dirty !lent", "2024-03-01 C5 1uF !dirty"}
	require.Equal(t, "C5 dirty 2024-01-01..; C5 lent 2024-02-01..2024-03-01; ", marks(lent...), "it is the same part")
	require.Equal(t, "", lived(told(t, lent...), "C5"))
	_, end := told(t, lent[:2]...).Occupant("C5", "2024-01-10", noon("2024-01-10"))
	require.Nil(t, end, "what is lent is not at its end")
	require.Equal(t, "C5 leaking 2024-01-01..2024-02-01; C5 leaking 2024-02-01..; ",
		marks("2024-01-01 C5 1uF !leaking", "2024-02-01 C5 1uF new:2024 !leaking"), "each part has its own")
}

func TestWhichPartSomethingIsAbout(t *testing.T) {
	s := told(t, "2024-03-01 BT1 NiCd", "2025-03-01 BT1 NiCd new:2025-02")
	for _, c := range []struct {
		on, written string
		nth         int
	}{
		{"2024-06-01", "2024-06-01", 0}, {"2025-02-10", "2025-02-10", 0}, {"2025-02-10", "2025-03-05", 1},
		{"2025-03-02", "2025-03-02", 1}, {"2020-01-01", "2026-01-01", 0},
	} {
		nth, end := s.Occupant("bt1", c.on, noon(c.written))
		require.Equal(t, c.nth, nth, c)
		require.Equal(t, c.nth == 0, end != nil, c)
	}
	nth, end := s.Occupant("BT2", "2020-01-01", noon("2020-01-01"))
	require.True(t, nth == 0 && end == nil)
}

// Whatever is written in whatever order: lives follow one another, only the last can go on, what stands on the sheet
// now are the marks that stand, and none ends before it begins.
func TestStoriesHoldTogether(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		revisions, last := []string{}, ""
		for i := range rapid.IntRange(1, 8).Draw(t, "revisions") {
			body := ""
			for _, d := range []string{"U1", "U2"} {
				body += "\n" + d +
					rapid.SampledFrom([]string{" 7400", " 7402", " @empty", " 7400 new:2021", " 7402 new:2022-03",
						" 7400 !cracked", " 7402 new:2023 !cracked !bent pin", " 7400 @empty !lent",
						" 7402 @empty !cracked !lent", ""}).Draw(t, "line")
			}
			last = body
			revisions = append(revisions, fmt.Sprintf("2024-%02d-01 %s", i+1, body))
		}
		s := told(t, revisions...)
		for _, p := range s.Positions {
			for i, l := range p.Lives {
				require.Equal(t, l.Until == "", l.Went == "", p)
				require.True(t, l.Until != "" || i == len(p.Lives)-1, p)
			}
		}
		standing := 0
		for _, m := range s.Marks {
			if m.Until == "" {
				standing++
				continue
			}
			require.LessOrEqual(t, m.Since, m.Until)
		}
		parsed, err := sheet.Parse([]byte(last), sheet.Body)
		require.NoError(t, err)
		written := 0
		for _, a := range parsed.Assemblies {
			for _, line := range a.Lines {
				if line.Entry != nil {
					written += len(line.Entry.Findings)
				}
			}
		}
		require.Equal(t, written, standing, s.Marks)
	})
}

// The last day on which a part came or went is what is said of it, and never later than it was written.
func TestChangedOn(t *testing.T) {
	for want, revisions := range map[string][]string{
		"":           {"2024-01-01 C5 1uF", "2024-02-01 C5 2uF"}, // read better, not another part
		"2025-01-10": {"2024-03-01 BT1 NiCd", "2025-01-10 BT1 @empty"},
		"2025-02-01": {"2024-03-01 BT1 NiCd", "2025-01-10 BT1 @empty", "2025-02-01 BT1 CR2032"},
		"2021-12-31": {"2024-01-01 C5 1uF", "2024-02-01 C5 1uF new:2021"}, // in that year: its last day
		"2024-02-01": {"2024-01-01 C5 1uF", "2024-02-01 C5 1uF new:2024"}, // the year is not over when it is written
	} {
		require.Equal(t, want, told(nil, revisions...).ChangedOn(), revisions)
	}
}
