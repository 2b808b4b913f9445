package accession_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/accession"
)

func ExamplePattern_Next() {
	p, _ := accession.ParsePattern("{year}.{lot}.{item}")
	given := []string{"2025.1.1", "2025.1.2", "2025.2.1", "old 17"}
	fmt.Println(p.Write(p.Next(given, 2025, 2)), p.Write(p.Next(given, 2025, 0)), p.Write(p.Next(given, 2026, 0)))
	// Output: 2025.2.2 2025.3.1 2026.1.1
}

func TestNumbersCountThroughTheCollection(t *testing.T) {
	p, err := accession.ParsePattern("EH-{number:4}")
	require.NoError(t, err)
	given := []string{"EH-0101", "EH-0107", "EH-0103", "EL-00012", "EH-9"}
	assert.Equal(t, "EH-0108", p.Write(p.Next(given, 2026, 0)))
	assert.Equal(t, []accession.Gap{{"EH-0102", "EH-0102", 1}, {"EH-0104", "EH-0106", 3}}, p.Gaps(given))
	assert.Equal(t, "EH-0001", p.Write(p.Next(nil, 2026, 0)))
	assert.Equal(t, "EH-10000", p.Write(p.Next([]string{"EH-9999"}, 2026, 0)))
	assert.Equal(t, []accession.Gap{{"EH-0002", "EH-9998", 9997}}, p.Gaps([]string{"EH-9999", "EH-0001"}))
}

func TestWrongPatternsAreRefused(t *testing.T) {
	for text, why := range map[string]string{
		"EH":                  "nothing in it counts",
		"EH-{lot}":            "nothing in it counts",
		"{year}.{lot}1{item}": "a figure stands right behind {lot}",
		"{number}{year}":      "two fields touch",
		"{number}.{number}":   "stands twice",
		"{number}.{item}":     "no place beside it",
		"{serial}":            "no field {serial}",
		"{number}-{":          "a brace stands alone",
		"}{number}":           "a brace stands alone",
		" EH-{number:4}":      "white space",
	} {
		_, err := accession.ParsePattern(text)
		assert.ErrorContains(t, err, why, text)
	}
}

func TestANumberIsNeverGivenTwice(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p, err := accession.ParsePattern(
			rapid.SampledFrom([]string{"EH-{number:4}", "{year}.{lot}.{item}", "{year}/{number:3}",
				"L{lot:2}-{item:2} EH"}).Draw(t, "pattern"))
		require.NoError(t, err)
		given, lot := []string{}, 0
		for range rapid.IntRange(1, 30).Draw(t, "things") {
			if !rapid.Bool().Draw(t, "same lot") {
				lot = 0
			}
			n := p.Next(given, rapid.IntRange(2024, 2026).Draw(t, "year"), lot)
			text := p.Write(n)
			assert.False(t, slices.Contains(given, text), text)
			read, ok := p.Read(text)
			assert.True(t, ok, text)
			assert.Equal(t, n, read)
			given = append(given, text)
			lot = n.Lot
		}
		for _, gap := range p.Gaps(given) {
			assert.False(t, slices.Contains(given, gap.From) || slices.Contains(given, gap.To))
			assert.Positive(t, gap.Count)
		}
	})
}

// A pattern that is taken can be written and read back; any other is refused with words.
func FuzzParsePattern(f *testing.F) {
	for _, seed := range []string{"EH-{number:4}", "{year}.{lot}.{item}", "{number}{year}", "{{number}}", "{number:0}",
		"EH\\d+{number}", "}{"} {
		f.Add(seed, 7)
	}
	f.Fuzz(func(t *testing.T, text string, count int) {
		p, err := accession.ParsePattern(text)
		if err != nil {
			require.NotEmpty(t, err.Error())
			return
		}
		n := accession.Number{Year: 2026, Lot: 3, Count: 1 + max(count, -count)%1000}
		written := p.Write(n)
		read, ok := p.Read(written)
		require.True(t, ok, "%q %q", text, written)
		require.Equal(t, n.Count, read.Count)
		require.Equal(t, written, p.Write(read))
		next := p.Next([]string{written, "something else"}, 2026, 3)
		require.NotEqual(t, written, p.Write(next))
	})
}
