package datecode_test

import (
	"testing"

	"frugalheron/core/datecode"
)

// Whatever the code and the era: readings are in order, cover days in order, say why, and the best
// is one of them.
func FuzzRead(f *testing.F) {
	for _, seed := range []string{"8533", "533", "0108", "A8533B", "U6", "9953", "é853", "0000"} {
		f.Add(seed, 1984, 1988)
	}
	f.Fuzz(func(t *testing.T, code string, from, to int) {
		if from < 1900 || to > 2100 || to < from {
			from, to = 0, 0
		}
		era := datecode.Era{From: from, To: to}
		for _, found := range [][]datecode.Candidate{datecode.Read(code, era), datecode.ReadMonth(code, era)} {
			for i, c := range found {
				if c.To.Before(c.From) || c.Why == "" || c.Text == "" || c.Confidence <= 0 || c.Confidence > 1 {
					t.Errorf("%q in %v: %+v", code, era, c)
				}
				if i > 0 && c.Confidence > found[i-1].Confidence {
					t.Errorf("%q in %v: %v stands behind %v", code, era, c, found[i-1])
				}
			}
			if best := datecode.Best(found); best != nil && *best != found[0].DateCode {
				t.Errorf("%q in %v: best is %v", code, era, best)
			}
		}
	})
}
