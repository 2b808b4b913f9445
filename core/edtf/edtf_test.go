package edtf_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/edtf"
	"frugalheron/core/malformed"
)

func ExampleParse() {
	delivered, _ := edtf.Parse("1984~")
	fmt.Println(delivered.Earliest(), delivered.Latest())
	_, err := edtf.Parse("1985-W07")
	fmt.Println(err)
	// Output:
	// 1984-01-01 1984-12-31
	// "1985-W07": weeks are written by their days: 1985-02-11/1985-02-17
}

func TestDatesCoverTheDaysThatCanBeMeant(t *testing.T) {
	for text, days := range map[string]string{
		"1984":             "1984-01-01 1984-12-31",
		"198X":             "1980-01-01 1989-12-31",
		"19XX":             "1900-01-01 1999-12-31",
		"1984~":            "1984-01-01 1984-12-31",
		"1986-03?":         "1986-03-01 1986-03-31",
		"1984-02-29%":      "1984-02-29 1984-02-29",
		"1983/1985":        "1983-01-01 1985-12-31",
		"1983-06/1985-02?": "1983-06-01 1985-02-28",
		"../1990":          "0001-01-01 1990-12-31",
		"1985/..":          "1985-01-01 9999-12-31",
		"/1990":            "0001-01-01 1990-12-31",
		"1985/":            "1985-01-01 9999-12-31",
		"1984-21":          "1984-03-01 1984-05-31",
		"1984-23":          "1984-09-01 1984-11-30",
		"1984-24":          "1984-12-01 1985-02-28",
	} {
		d, err := edtf.Parse(text)
		require.NoError(t, err, text)
		assert.Equal(t, days, d.Earliest().String()+" "+d.Latest().String(), text)
		assert.Equal(t, text, d.String())
	}
}

func TestWhatIsNoDateIsRefusedWithTheRemedy(t *testing.T) {
	for text, why := range map[string]string{
		"1987-02-29":    "1987-02 has no day 29; its last is 28",
		"1985-13":       "no month 13",
		"1985-00":       "no month 00",
		"1985-W07":      "1985-02-11/1985-02-17",
		"1985-W60":      "no week 60",
		"1983-1985":     "1983/1985",
		"1980s":         "198X",
		"circa 1984":    "1984~",
		"c. 1984":       "1984~",
		"12/06/1984":    "year, month, day",
		"1985/1983":     "ends before it begins",
		"../..":         "one end at least",
		"198X-03":       "takes no month",
		"1984-21-03":    "a season takes no day",
		"0000":          "no year 0000",
		"":              "write a date",
		"last summer":   "no date",
		"1984-6-2":      "no date",
		"1985-W07/1986": "1985-02-11/1985-02-17",
	} {
		_, err := edtf.Parse(text)
		var wrong *malformed.Error
		require.ErrorAs(t, err, &wrong, text)
		assert.Contains(t, wrong.Err.Error(), why, text)
	}
}

func TestOrderOfMixedPrecision(t *testing.T) {
	inOrder := []string{"../1990", "198X", "1983/1985", "1984", "1984~", "1984-01", "1984-01-01", "1984-06",
		"1984-06-02", "1984-24", "1985-01-01"}
	dates := []edtf.Date{}
	for i := len(inOrder) - 1; i >= 0; i-- {
		d, err := edtf.Parse(inOrder[i])
		require.NoError(t, err)
		dates = append(dates, d)
	}
	slices.SortStableFunc(dates, edtf.Compare)
	sorted := []string{}
	for _, d := range dates {
		sorted = append(sorted, d.String())
	}
	assert.Equal(t, inOrder, sorted)
}

func TestOnlyWhatCannotBeOtherwiseIsBefore(t *testing.T) {
	for _, c := range []struct {
		a, b string
		is   edtf.Relation
	}{
		{"1984", "1985", edtf.Before}, {"1985-01", "1984-12", edtf.After}, {"198X", "1984", edtf.Overlaps},
		{"../1984", "1985", edtf.Before}, {"1984/..", "1990", edtf.Overlaps}, {"1984-24", "1985-01", edtf.Overlaps},
	} {
		assert.Equal(t, c.is, edtf.Relate(parsed(t, c.a), parsed(t, c.b)), c.a+" "+c.b)
	}
}

func TestParsingWhatWasWrittenGivesTheSame(t *testing.T) {
	part := rapid.Custom(func(t *rapid.T) string {
		text := fmt.Sprintf("%04d", rapid.IntRange(1, 9998).Draw(t, "year"))
		switch rapid.IntRange(0, 4).Draw(t, "precision") {
		case 0:
			text = text[:3] + "X"
		case 1:
			text += fmt.Sprintf("-%02d", rapid.SampledFrom([]int{1, 2, 6, 12, 21, 22, 23, 24}).Draw(t, "month"))
		case 2:
			text += fmt.Sprintf("-%02d-%02d", rapid.IntRange(1, 12).Draw(t, "month"),
				rapid.IntRange(1, 28).Draw(t, "day"))
		}
		return text + rapid.SampledFrom([]string{"", "?", "~", "%"}).Draw(t, "doubt")
	})
	rapid.Check(t, func(t *rapid.T) {
		a, b := part.Draw(t, "a"), part.Draw(t, "b")
		for _, text := range []string{a, "../" + a, a + "/", a + "/" + b} {
			d, err := edtf.Parse(text)
			if err != nil {
				assert.Contains(t, err.Error(), "ends before it begins")
				continue
			}
			assert.Equal(t, text, d.String())
			assert.False(t, d.Latest().Before(d.Earliest()))
			assert.Equal(t, 0, edtf.Compare(d, d))
			assert.Equal(t, edtf.Overlaps, edtf.Relate(d, d))
		}
	})
}

func FuzzParse(f *testing.F) {
	for _, seed := range []string{"1984", "198X", "1986-03?", "1983/1985", "../1990", "1985-W07", "1985-13",
		"circa 1984", "12/06/1984", "////"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		d, err := edtf.Parse(text)
		if err != nil {
			return
		}
		assert.Equal(t, strings.ReplaceAll(strings.TrimSpace(text), " ", ""), strings.ReplaceAll(d.String(), " ", ""))
		again, err := edtf.Parse(d.String())
		require.NoError(t, err)
		assert.Equal(t, d, again)
	})
}

func parsed(t *testing.T, text string) edtf.Date {
	d, err := edtf.Parse(text)
	require.NoError(t, err, text)
	return d
}
