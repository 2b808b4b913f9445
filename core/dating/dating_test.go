package dating_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/calendar"
	"frugalheron/core/dating"
)

// week is a part with a week code.
func week(id string, year, n int, fit dating.Mounting) dating.Evidence {
	from, to := calendar.Week(year, n)
	return dating.Evidence{ID: id, Kind: dating.DateCode, From: from, To: to, Mounting: fit}
}

func span(id string, kind dating.Kind, from, to string) dating.Evidence {
	e := dating.Evidence{ID: id, Kind: kind}
	if err := e.From.UnmarshalText([]byte(from)); err != nil {
		panic(err)
	}
	if err := e.To.UnmarshalText([]byte(to)); err != nil {
		panic(err)
	}
	return e
}

// board is n parts, one a week from 1985-W20 on.
func board(n int) []dating.Evidence {
	parts := []dating.Evidence{}
	for i := range n {
		parts = append(parts, week(fmt.Sprintf("U%d", i+1), 1985, 20+i, dating.Soldered))
	}
	return parts
}

// cards is n parts on a card, one a week from the start of a year on.
func cards(n, year int) []dating.Evidence {
	parts := []dating.Evidence{}
	for i := range n {
		parts = append(parts, week(fmt.Sprintf("C%d", i+1), year, 2+i, dating.Card))
	}
	return parts
}

func decided(what dating.Originality, parts []dating.Evidence) []dating.Evidence {
	for i := range parts {
		parts[i].Decided = what
	}
	return parts
}

func ExampleDate() {
	r, _ := dating.Date(append(board(12), week("U50", 1987, 10, dating.Card), week("U9", 1982, 40, dating.Socketed)),
		dating.DefaultRules())
	fmt.Println(r.NotBefore, r.Estimate.From, r.Estimate.To)
	for _, o := range r.Outliers {
		fmt.Println(o.ID, o.Verdict, o.Why)
	}
	// Output:
	// 1985-07-29 1985-08-12 1986-02-02
	// U9 earlier 141 weeks before the middle of the others, 1985-06-17: old stock, or a part that was used again
	// U50 later 83 weeks past the newest of the others, 1985-07-29: a card that was added later
}

func TestDating(t *testing.T) {
	for _, c := range []struct {
		name                string
		evidence            []dating.Evidence
		notBefore, notAfter string
		estimate            string
		outliers            string
		conflicts           string
	}{
		{"nothing", nil, "", "", "", "[]", "[]"},
		{"one part", board(1), "1985-05-13", "", "1985-05-27..1985-11-17", "[]", "[]"},
		{"half a year apart is one time", []dating.Evidence{week("A", 1985, 1, ""), week("B", 1985, 27, "")},
			"1985-07-01", "", "1985-07-15..1986-01-05", "[]", "[]"},
		{"a week more is not: both are told", []dating.Evidence{week("A", 1985, 1, ""), week("B", 1985, 28, "")},
			"1984-12-31", "", "1985-01-14..1985-07-07 or 1985-07-22..1986-01-12", "[B possibly-later]", "[]"},
		{"one later of six can be original", append(board(5), week("L", 1987, 1, "")), "1985-06-10", "",
			"1985-06-24..1985-12-15 or 1987-01-12..1987-07-05", "[L possibly-later]", "[]"},
		{"but not where a plate is older", append(board(5), week("L", 1987, 1, ""),
			span("plate", dating.Label, "1985-08-01", "1985-08-31")), "1985-06-10", "1985-08-31",
			"1985-08-01..1985-08-31", "[L later]", "[]"},
		{"two later of six are too many", append(board(4), week("L", 1987, 1, ""), week("M", 1987, 2, "")),
			"1985-06-03",
			"", "1985-06-17..1985-12-08", "[]", "[L M]"},
		{"a card full of later parts was added", append(board(4), cards(6, 1988)...), "1985-06-03", "",
			"1985-06-17..1985-12-08", "[C1 later C2 later C3 later C4 later C5 later C6 later]", "[]"},
		{"cards alone date it, too", cards(6, 1988), "1988-02-15", "", "1988-02-29..1988-08-21", "[]", "[]"},
		{"what is new never dates", append(board(6), dating.Evidence{ID: "N", Kind: dating.DateCode, New: true,
			From: calendar.Date{Year: 1985, Month: 8, Day: 1}, To: calendar.Date{Year: 1985, Month: 8, Day: 1}}),
			"1985-06-17", "", "1985-07-01..1985-12-22", "[]", "[]"},
		{"what was decided to be later neither", append(board(2), decided(dating.Later, cards(6, 1988))...),
			"1985-05-20", "", "1985-06-03..1985-11-24", "[]", "[]"},
		{"nor does firmware of a later board", append(board(6),
			decided(dating.Later, []dating.Evidence{span("rom", dating.Copyright, "1985-08-01", "1985-12-31")})...),
			"1985-06-17", "", "1985-07-01..1985-12-22", "[]", "[]"},
		{"nothing else", decided(dating.Modern, board(3)), "", "", "", "[]", "[]"},
		{"factory boards are the cluster", append(decided(dating.Factory, cards(8, 1988)), board(3)...), "1988-02-29",
			"",
			"1988-03-14..1988-09-04", "[U1 earlier U2 earlier U3 earlier]", "[]"},
		{"one later of seven is a repair", append(board(6), week("L", 1987, 1, "")), "1985-06-17", "",
			"1985-07-01..1985-12-22", "[L later]", "[]"},
		{"two years before is not yet old stock", append(board(9), week("O", 1983, 24, "")), "1985-07-08", "",
			"1985-07-22..1986-01-12", "[]", "[]"},
		{"a week more is", append(board(9), week("O", 1983, 23, "")), "1985-07-08", "", "1985-07-22..1986-01-12",
			"[O earlier]", "[]"},
		{"a plate", append(board(6), span("plate", dating.Label, "1985-08-01", "1985-08-31")), "1985-06-17",
			"1985-08-31", "1985-08-01..1985-08-31", "[]", "[]"},
		{"a plate of the same month", append(board(6), span("plate", dating.Label, "1985-06-01", "1985-06-30")),
			"1985-06-17", "1985-06-30", "1985-06-17..1985-06-30", "[]", "[]"},
		{"a plate older than a soldered part",
			append(board(6), span("plate", dating.Label, "1984-08-01", "1984-08-31")), "1985-06-17", "1984-08-31",
			"1984-08-01..1984-08-31", "[]", "[plate U1]"},
		{"a plate older than a socketed part",
			[]dating.Evidence{week("U1", 1985, 20, dating.Socketed),
				span("plate", dating.Label, "1984-08-01", "1984-08-31")}, "1985-05-13", "1984-08-31",
			"1984-08-01..1984-08-31", "[]", "[]"},
		{"two plates", []dating.Evidence{span("a", dating.Label, "1984-08-01", "1984-08-31"),
			span("b", dating.Label, "1985-01-01", "1985-01-01")}, "", "1984-08-31", "1984-08-01..1984-08-31", "[]",
			"[a b]"},
		{"delivered soon", append(board(6), span("note", dating.Document, "1985-09-02", "1985-09-02")), "1985-06-17",
			"1985-09-02", "1985-07-01..1985-09-02", "[]", "[]"},
		{"delivered before", append(board(6), span("note", dating.Document, "1984-09-02", "1984-09-02")), "1985-06-17",
			"1984-09-02", "1985-07-01..1985-12-22", "[]", "[note U6]"},
		{"the window is over", append(board(6), span("model", dating.Window, "1982-01-01", "1984-12-31")), "1985-06-17",
			"", "1985-07-01..1985-12-22", "[]", "[model] [U6 model]"},
		{"the window is to come", append(board(6), span("model", dating.Window, "1987-01-01", "")), "1985-06-17", "",
			"1985-07-01..1985-12-22", "[]", "[model]"},
		{"older parts are no conflict", append(board(6), span("model", dating.Window, "1985-07-01", "1988-12-31")),
			"1985-06-17", "", "1985-07-01..1985-12-22", "[]", "[]"},
		{"firmware alone", []dating.Evidence{span("rom", dating.Copyright, "1984-01-01", "1984-12-31")}, "1984-01-01",
			"", "", "[]", "[]"},
		{"firmware after the parts", append(board(1), span("rom", dating.Copyright, "1985-06-30", "1985-06-30")),
			"1985-06-30", "", "1985-06-30..1985-11-17", "[]", "[]"},
		{"firmware changed later", append(board(6), span("rom", dating.Copyright, "1988-01-01", "1988-12-31")),
			"1985-06-17", "", "1985-07-01..1985-12-22", "[rom later]", "[]"},
	} {
		r, err := dating.Date(c.evidence, dating.DefaultRules())
		require.NoError(t, err, c.name)
		estimate := ""
		if r.Estimate != nil {
			require.Equal(t, *r.Estimate, r.Estimates[0], c.name)
		}
		for i, e := range r.Estimates {
			if i > 0 {
				estimate += " or "
			}
			estimate += e.From.String() + ".." + e.To.String()
		}
		outliers, conflicts := []string{}, []string{}
		for _, o := range r.Outliers {
			outliers = append(outliers, o.ID+" "+o.Verdict)
		}
		for _, k := range r.Conflicts {
			conflicts = append(conflicts, fmt.Sprint(k.IDs))
		}
		assert.Equal(t, c.notBefore, orNone(r.NotBefore), c.name)
		assert.Equal(t, c.notAfter, orNone(r.NotAfter), c.name)
		assert.Equal(t, c.estimate, estimate, c.name)
		assert.Equal(t, c.outliers, fmt.Sprint(outliers), c.name)
		if len(conflicts) == 1 {
			assert.Equal(t, c.conflicts, conflicts[0], c.name)
		} else if len(conflicts) > 1 || c.conflicts != "[]" {
			assert.Equal(t, "["+c.conflicts+"]", fmt.Sprint(conflicts), c.name)
		}
	}
}

func orNone(d *calendar.Date) string {
	if d == nil {
		return ""
	}
	return d.String()
}

func TestEvidenceThatCannotBeUsed(t *testing.T) {
	for want, e := range map[string]dating.Evidence{
		"kind":     span("x", "guess", "1985-01-01", "1985-01-01"),
		"last day": span("x", dating.Label, "1985-01-01", ""),
		"ends":     span("x", dating.DateCode, "1985-01-02", "1985-01-01"),
		"neither":  span("x", dating.Window, "", ""),
		"use solder": {ID: "x", Kind: dating.DateCode, From: calendar.Date{Year: 1985, Month: 1, Day: 1},
			To: calendar.Date{Year: 1985, Month: 1, Day: 1}, Mounting: "glued"},
	} {
		_, err := dating.Date(append(board(1), e), dating.DefaultRules())
		require.ErrorContains(t, err, want)
		require.ErrorContains(t, err, "evidence 2 (x)")
	}
}

// Neither the order of the evidence nor repeated runs change anything, every part is told about once at
// most, and the estimate follows what it rests on.
func TestDatingHolds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, 60).Draw(t, "parts")
		parts := []dating.Evidence{}
		for i := range n {
			parts = append(parts,
				week(fmt.Sprintf("U%02d", i), rapid.IntRange(1978, 1990).Draw(t, "year"),
					rapid.IntRange(1, 52).Draw(t, "week"), dating.Soldered))
		}
		r, err := dating.Date(parts, dating.DefaultRules())
		require.NoError(t, err)
		slices.Reverse(parts)
		again, err := dating.Date(parts, dating.DefaultRules())
		require.NoError(t, err)
		require.Equal(t, r, again)
		require.Less(t, r.NotBefore.Days(), r.Estimate.From.Days())
		told := slices.Clone(r.Cluster)
		for _, o := range r.Outliers {
			require.Positive(t, o.Weeks)
			told = append(told, o.ID)
		}
		slices.Sort(told)
		require.Equal(t, len(told), len(slices.Compact(told)))
	})
}

// What was put in later by what somebody wrote or decided changes nothing, whatever its dates are, and both dates are
// told only where the parts are few.
func TestWhatNeverDatesChangesNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		part := rapid.Custom(func(t *rapid.T) dating.Evidence {
			return week("", rapid.IntRange(1978, 1990).Draw(t, "year"), rapid.IntRange(1, 52).Draw(t, "week"),
				rapid.SampledFrom([]dating.Mounting{"", dating.Soldered, dating.Socketed, dating.Card}).Draw(t, "fit"))
		})
		parts := rapid.SliceOfN(part, 1, 30).Draw(t, "parts")
		added := rapid.SliceOfN(part, 0, 30).Draw(t, "added")
		for i := range parts {
			parts[i].ID = fmt.Sprintf("U%02d", i)
		}
		for i := range added {
			added[i].ID = fmt.Sprintf("N%02d", i)
			added[i].New = rapid.Bool().Draw(t, "new")
			if !added[i].New {
				added[i].Decided = rapid.SampledFrom([]dating.Originality{dating.Later, dating.Modern}).Draw(t,
					"decided")
			}
			if rapid.Bool().Draw(t, "firmware") {
				added[i].Kind = dating.Copyright
			}
		}
		alone, err := dating.Date(parts, dating.DefaultRules())
		require.NoError(t, err)
		with, err := dating.Date(append(slices.Clone(parts), added...), dating.DefaultRules())
		require.NoError(t, err)
		alone.Basis, with.Basis = nil, nil
		require.Equal(t, alone, with)
		require.Equal(t, *alone.Estimate, alone.Estimates[0])
		if len(alone.Estimates) > 1 {
			require.Less(t, len(parts), dating.DefaultRules().Few)
			require.Len(t, alone.Estimates, 2)
			require.Less(t, alone.Estimates[0].From.Days(), alone.Estimates[1].From.Days())
		}
	})
}

// What is odd but not impossible is said, and does not count as a conflict.
func TestWhatIsOddIsSaid(t *testing.T) {
	said := func(evidence ...dating.Evidence) string {
		r, err := dating.Date(evidence, dating.DefaultRules())
		require.NoError(t, err)
		require.Empty(t, r.Conflicts)
		return fmt.Sprint(r.Basis)
	}
	old := append(board(8), week("A", 1981, 1, ""), week("B", 1981, 2, ""))
	assert.Contains(t, said(old...), "2 of 10 parts are much older than the others")
	assert.NotContains(t, said(append(board(12), week("A", 1981, 1, ""))...), "much older")
	idle := append(board(6), span("plate", dating.Label, "1988-01-01", "1988-01-31"))
	assert.Contains(t, said(idle...), "The plate is 131 weeks newer than the newest part, U6")
	assert.NotContains(t, said(append(board(6), span("plate", dating.Label, "1987-06-01", "1987-06-30"))...),
		"newer than")
	assert.Contains(t, said(append(board(6), span("model", dating.Window, "1985-01-01", "1986-12-31"))...),
		"That lies in")
	assert.Contains(t, said(append(board(6), span("model", dating.Window, "1985-08-01", "1986-12-31"))...),
		"Only a part of that")
}

// A board of which too little is dated is not called later because of one newer chip, nor of the factory.
func TestTooFewDatesSettleNoOriginality(t *testing.T) {
	built := &dating.Span{From: calendar.Date{Year: 1985, Month: 8, Day: 1},
		To: calendar.Date{Year: 1985, Month: 12, Day: 31}}
	got := dating.JudgeAssembly(append(board(3), week("L", 1994, 3, "")), built, dating.DefaultRules())
	assert.Equal(t, dating.Unknown, got.Originality)
	assert.Equal(t, "too few of its parts are dated: by L it is later, by the others factory", got.Why)
	got = dating.JudgeAssembly(append(board(6), week("L", 1994, 3, "")), built, dating.DefaultRules())
	assert.Equal(t, dating.Factory, got.Originality)
	got = dating.JudgeAssembly(decided(dating.Later, board(6)), built, dating.DefaultRules())
	assert.Equal(t, dating.Factory, got.Originality, "the dates say so, whatever was decided")
}

func TestOriginality(t *testing.T) {
	built := &dating.Span{From: calendar.Date{Year: 1985, Month: 8, Day: 1},
		To: calendar.Date{Year: 1985, Month: 12, Day: 31}}
	for want, parts := range map[dating.Originality][]dating.Evidence{
		dating.Factory: board(6),
		dating.Period:  {week("a", 1987, 3, ""), week("b", 1987, 8, "")},
		dating.Later:   {week("a", 1994, 3, "")},
		dating.Modern:  {week("a", 2008, 3, "")},
		dating.Unknown: {week("a", 1980, 3, "")},
	} {
		got := dating.JudgeAssembly(parts, built, dating.DefaultRules())
		assert.Equal(t, want, got.Originality, got.Why)
		assert.NotEmpty(t, got.Why)
	}
	assert.Equal(t, dating.Unknown, dating.JudgeAssembly(nil, built, dating.DefaultRules()).Originality)
	assert.Equal(t, dating.Unknown, dating.JudgeAssembly(board(3), nil, dating.DefaultRules()).Originality)
}

func BenchmarkDate(b *testing.B) {
	parts := []dating.Evidence{}
	for i := range 2000 {
		parts = append(parts, week(fmt.Sprintf("U%d", i), 1980+i%7, 1+i%50, dating.Soldered))
	}
	for b.Loop() {
		if _, err := dating.Date(parts, dating.DefaultRules()); err != nil {
			b.Fatal(err)
		}
	}
}
