package custody_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/calendar"
	"frugalheron/core/custody"
	"frugalheron/core/edtf"
)

var today = calendar.Date{Year: 2026, Month: 11, Day: 26}

func link(t require.TestingT, id int64, role, who, when string) custody.Link {
	r, known := custody.RoleOf(role)
	require.True(t, known, role)
	l := custody.Link{ID: id, Role: r, Who: who}
	if when != "" {
		d, err := edtf.Parse(when)
		require.NoError(t, err, when)
		l.When = &d
	}
	return l
}

func ExampleExamine() {
	role := func(key string) custody.Role { r, _ := custody.RoleOf(key); return r }
	when := func(text string) *edtf.Date { d, _ := edtf.Parse(text); return &d }
	chain := custody.Examine([]custody.Link{
		{ID: 1, Role: role("made-by"), Who: "Tarn & Vole", When: when("1984")},
		{ID: 2, Role: role("used-by"), Who: "the harbour pilot office", When: when("1984/1987")},
		{ID: 3, Role: role("stored-by"), Who: "the brewery", When: when("1991/2004")},
	}, custody.Bounds{Today: today})
	for _, f := range chain.Problems {
		fmt.Println(f.Kind, f.Text)
	}
	// Output:
	// gap nothing is known from 1988-01-01 to 1990-12-31, 3 years: after used by the harbour pilot office (1984/1987) and before stored by the brewery (1991/2004)
}

func TestWhatDoesNotHold(t *testing.T) {
	arrived, err := edtf.Parse("2019-05")
	require.NoError(t, err)
	for name, c := range map[string]struct {
		links []custody.Link
		found []string
	}{
		"a sale before it was made, and a gap of three years": {
			[]custody.Link{link(t, 1, "made-by", "Tarn & Vole", "1985"),
				link(t, 2, "sold-to", "the seed station", "1983"),
				link(t, 3, "used-by", "the seed station", "1985/1990"),
				link(t, 4, "stored-by", "the brewery", "1994/2019")},
			[]string{"impossible sold to the seed station in 1983 lies before it was made",
				"gap nothing is known from 1991-01-01 to 1993-12-31, 3 years"},
		},
		"perhaps before is not impossible": {
			[]custody.Link{link(t, 1, "made-by", "Tarn & Vole", "198X"),
				link(t, 2, "sold-to", "the seed station", "1983")}, nil,
		},
		"whoever bought it has it until the next": {
			[]custody.Link{link(t, 1, "sold-to", "the seed station", "1983"),
				link(t, 2, "stored-by", "the brewery", "1994/2019")}, nil,
		},
		"until it is said how long they had it": {
			[]custody.Link{link(t, 1, "used-by", "the seed station", "1983/1990"),
				link(t, 2, "sold-to", "the seed station", "1983-02"),
				link(t, 3, "stored-by", "the brewery", "1994/2019")},
			[]string{"gap nothing is known from 1991-01-01 to 1993-12-31"},
		},
		"after it came to the collection": {
			[]custody.Link{link(t, 1, "used-by", "the brewery", "2021"), link(t, 2, "shown-at", "the fair", "2022")},
			[]string{"impossible used by the brewery in 2021 lies after it came to the collection in 2019-05"},
		},
		"a gap before it came": {
			[]custody.Link{link(t, 1, "used-by", "the brewery", "2001/2010")},
			[]string{"gap nothing is known from 2011-01-01 to 2019-04-30, 8 years and 4 months"},
		},
		"two users at once": {
			[]custody.Link{link(t, 1, "used-by", "the brewery", "1990/2019"),
				link(t, 2, "used-by", "the bath", "1993/1996-06")},
			[]string{"overlap used by the brewery (1990/2019) and used by the bath (1993/1996-06) at the same time: from 1993-12-31 to 1996-06-01"},
		},
		"one after the other in the same year": {
			[]custody.Link{link(t, 1, "used-by", "the brewery", "1990/1995"),
				link(t, 2, "used-by", "the bath", "1995/2019")}, nil,
		},
		"somebody who has it and somebody who uses it": {
			[]custody.Link{link(t, 1, "owned-by", "the town", "1990/2019"),
				link(t, 2, "used-by", "the bath", "1993/2019")}, nil,
		},
		"no date": {[]custody.Link{link(t, 1, "used-by", "", "")},
			[]string{"undated used by or to somebody unknown has no date"}},
		"future": {[]custody.Link{link(t, 1, "repaired-by", "the club", "2031")},
			[]string{"impossible repaired by the club in 2031 lies in the future"}},
	} {
		chain := custody.Examine(c.links, custody.Bounds{Arrived: &arrived, Today: today})
		require.Len(t, chain.Problems, len(c.found), "%s: %v", name, chain.Problems)
		for i, words := range c.found {
			assert.Contains(t, string(chain.Problems[i].Kind)+" "+chain.Problems[i].Text, words, name)
		}
	}
}

func TestOrderOfAThingsLife(t *testing.T) {
	chain := custody.Examine([]custody.Link{
		link(t, 1, "used-by", "the bath", ""), link(t, 2, "sold-to", "the bath", "1984"),
		link(t, 3, "made-by", "Quennell Systems", "1984"), link(t, 4, "given-by", "the bath", "/1990"),
	}, custody.Bounds{Today: today})
	assert.Equal(t, []int64{3, 2, 4, 1}, chain.Order)
	assert.Equal(t, "1984-01-01", chain.From.String())
	assert.Equal(t, "1990-12-31", chain.To.String())
}

// Whatever is said, a gap never lies in a time in which somebody is known to have had it.
func TestGapsLieWhereNobodyIsKnown(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		links := []custody.Link{}
		for i := range rapid.IntRange(0, 8).Draw(t, "links") {
			from := rapid.IntRange(1970, 2015).Draw(t, "from")
			role := rapid.SampledFrom([]string{"made-by", "sold-to", "used-by", "stored-by", "repaired-by"}).Draw(t,
				"role")
			links = append(links,
				link(t, int64(i+1), role, fmt.Sprint("holder ", i),
					fmt.Sprintf("%d/%d", from, from+rapid.IntRange(0, 9).Draw(t, "years"))))
		}
		chain := custody.Examine(links, custody.Bounds{Today: today})
		assert.Len(t, chain.Order, len(links))
		for _, f := range chain.Problems {
			if f.Kind != custody.Gap {
				continue
			}
			assert.False(t, f.To.Before(*f.From))
			for _, l := range links {
				if l.Role.Moment == custody.Holding {
					assert.True(t, l.When.Latest().Before(*f.From) || f.To.Before(l.When.Earliest()), "%v %v", f, l)
				}
			}
		}
	})
}
