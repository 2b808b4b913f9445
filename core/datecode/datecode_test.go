package datecode_test

import (
	"fmt"
	"strings"
	"testing"

	"pgregory.net/rapid"

	"frugalheron/core/datecode"
)

func texts(candidates []datecode.Candidate) string {
	all := []string{}
	for _, c := range candidates {
		all = append(all, c.Text)
	}
	return strings.Join(all, " ")
}

func TestRead(t *testing.T) {
	eighties := datecode.Era{From: 1982, To: 1988}
	tests := []struct {
		rule, code string
		era        datecode.Era
		all, best  string // best empty: left open
	}{
		{"only one order has a possible week", "8533", datecode.Era{}, "1985-W33", "1985-W33"},
		{"week before year", "3385", datecode.Era{}, "1985-W33", "1985-W33"},
		{"both orders possible stays open", "0108", datecode.Era{}, "2001-W08 2008-W01", ""},
		{"week 53 of a year that has it", "8753", datecode.Era{}, "1987-W53", "1987-W53"},
		{"week 54 is no week", "8554", datecode.Era{}, "", ""},
		{"week 00 is no week", "8500", datecode.Era{}, "", ""},
		{"year outside 1965 to 2010", "6433", datecode.Era{}, "", ""},
		{"first year of the window", "6510", datecode.Era{}, "1965-W10", "1965-W10"},
		{"an era opens later years", "1533", datecode.Era{From: 2012, To: 2018}, "2015-W33", "2015-W33"},
		{"an era does not hide a later part", "9501", eighties, "1995-W01", "1995-W01"},
		{"an era settles the order", "0108", datecode.Era{From: 2007, To: 2009}, "2008-W01 2001-W08", "2008-W01"},
		{"three digits leave the decade open", "533", datecode.Era{}, "1965-W33 1975-W33 1985-W33 1995-W33 2005-W33",
			""},
		{"three digits settled by the era", "533", eighties, "1985-W33 1965-W33 1975-W33 1995-W33 2005-W33",
			"1985-W33"},
		{"an era of two decades settles nothing", "533", datecode.Era{From: 1975, To: 1988},
			"1975-W33 1985-W33 1965-W33 1995-W33 2005-W33", ""},
		{"letters make it something else", "A8533B", datecode.Era{}, "", ""},
		{"in brackets", "(8533)", datecode.Era{}, "1985-W33", "1985-W33"},
		{"written out", "1985-W12", datecode.Era{}, "1985-W12", "1985-W12"},
		{"written out in one", "1985W12", datecode.Era{}, "1985-W12", "1985-W12"},
		{"a week that is none", "1985-W54", datecode.Era{}, "", ""},
		{"divided", "85-33", datecode.Era{}, "1985-W33", "1985-W33"},
		{"three plant letters are no date", "ABC8533", datecode.Era{}, "", ""},
		{"five digits are no date", "85331", datecode.Era{}, "", ""},
	}
	for _, test := range tests {
		t.Run(test.rule, func(t *testing.T) {
			found := datecode.Read(test.code, test.era)
			if got := texts(found); got != test.all {
				t.Errorf("Read(%q) = %q, want %q", test.code, got, test.all)
			}
			best := ""
			if b := datecode.Best(found); b != nil {
				best = b.Text
			}
			if best != test.best {
				t.Errorf("Best of %q = %q, want %q", test.code, best, test.best)
			}
		})
	}
}

func TestLettersOfPlantAndLotLowerConfidence(t *testing.T) {
	plain := datecode.Read("8533", datecode.Era{})
	for _, code := range []string{"A8533", "8533B", "AB8533CD", "8533K5"} {
		found := datecode.ReadLettered(code, datecode.Era{})
		if len(found) != 1 || found[0].Text != plain[0].Text || found[0].Confidence >= plain[0].Confidence {
			t.Errorf("ReadLettered(%q) = %v", code, found)
		}
	}
	for _, code := range []string{"ABC8533", "A533", "8533K55", "8533KLM"} {
		if found := datecode.ReadLettered(code, datecode.Era{}); len(found) > 0 {
			t.Errorf("ReadLettered(%q) = %v", code, found)
		}
	}
}

// A reading outside the machine's era is never sure, and is none at all beside one inside.
func TestReadingsOutsideTheEraAreUnsure(t *testing.T) {
	era := datecode.Era{From: 1978, To: 1990}
	for _, code := range []string{"0212", "6553", "812", "9953", "1985-W12", "2005-W12"} {
		for _, c := range datecode.Read(code, era) {
			if outside := c.From.Year < 1978 || c.From.Year > 1991; outside && c.Confidence > 0.3 {
				t.Errorf("%s: %s has a confidence of %g", code, c.Text, c.Confidence)
			}
		}
	}
}

func TestReadMonth(t *testing.T) {
	for code, want := range map[string]string{
		"U6": "1986-06 2006-06", "PD": "1982-12 2002-12", "AO": "1970-10 1990-10 2010-10",
		"X2": "", "X1": "", "I5": "", "U0": "", "U": "", "U66": "",
	} {
		if got := texts(datecode.ReadMonth(code, datecode.Era{})); got != want {
			t.Errorf("ReadMonth(%q) = %q, want %q", code, got, want)
		}
	}
	if best := datecode.Best(datecode.ReadMonth("U6", datecode.Era{From: 1984, To: 1988})); best == nil ||
		best.Text != "1986-06" {
		t.Errorf("the era does not settle U6: %v", best)
	}
}

// Whatever year and week a maker printed, in either order, is among the readings, and every
// reading covers one to seven days that lie in or next to its year.
func TestEveryWrittenWeekIsFound(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		year, week := rapid.IntRange(1965, 2010).Draw(t, "year"), rapid.IntRange(1, 53).Draw(t, "week")
		code := fmt.Sprintf("%02d%02d", year%100, week)
		if rapid.Bool().Draw(t, "week first") {
			code = fmt.Sprintf("%02d%02d", week, year%100)
		}
		want, met := fmt.Sprintf("%d-W%02d", year, week), false
		for _, c := range datecode.Read(code, datecode.Era{}) {
			met = met || c.Text == want
			if days := c.To.Days() - c.From.Days(); days < 0 || days > 6 {
				t.Fatalf("%s covers %v to %v", c.Text, c.From, c.To)
			}
			if c.Confidence <= 0 || c.Confidence > 1 || c.Why == "" {
				t.Fatalf("%s: confidence %v, why %q", c.Text, c.Confidence, c.Why)
			}
		}
		if !met {
			t.Fatalf("Read(%q) does not hold %s", code, want)
		}
	})
}
