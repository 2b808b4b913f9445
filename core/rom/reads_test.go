package rom_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/rom"
)

func TestReadings(t *testing.T) {
	verdicts := map[string]rom.Verdict{"af": rom.ChargeLoss, "fa": rom.UnreliableRead, "ax": rom.UnreliableRead,
		"ab": rom.Related, "ba": rom.Related, "xa": rom.UnreliableRead}
	compare := func(a, b string) (rom.Comparison, error) {
		verdict, ok := verdicts[a+b]
		require.True(t, ok, a+b)
		return rom.Comparison{Verdict: verdict, Note: "So it is."}, nil
	}
	for _, c := range []struct {
		reads string // a letter for each content; ! behind one that is enough alone
		state rom.ReadState
		is    string
	}{
		{"", rom.NotRead, ""},
		{"a", rom.ReadOnce, ""},
		{"a!", rom.Accepted, "a"},
		{"aa", rom.Accepted, "a"},
		{"ax", rom.Differing, ""},
		{"axaa", rom.Accepted, "a"},
		{"aax", rom.Differing, "a"},
		{"aaxa", rom.Accepted, "a"},
		{"aaf", rom.Fading, "a"},
		{"aaff", rom.Fading, "a"},
		{"aaffa", rom.Accepted, "a"},
		{"aab", rom.Differing, "a"},
		{"aabb", rom.Accepted, "b"},
		{"a!bb", rom.Accepted, "b"},
	} {
		reads := []rom.Read{}
		for _, letter := range c.reads {
			if letter == '!' {
				reads[len(reads)-1].Exception = "it crumbles"
				continue
			}
			reads = append(reads, rom.Read{SHA256: string(letter), On: "2026-01-02"})
		}
		chip, err := rom.JudgeReads(reads, compare)
		require.NoError(t, err)
		require.Equal(t, c.state, chip.State, c.reads)
		require.Equal(t, c.is, chip.SHA256, c.reads)
		require.Equal(t, c.state == rom.Accepted, chip.Next == "", c.reads)
	}
}

func TestSets(t *testing.T) {
	set := map[string]string{"U6": "a", "U7": "b", "U8": "c"}
	held, any := rom.HoldsSet(set, map[string]string{"U6": "a", "U7": "x", "U9": "c"})
	require.True(t, any)
	require.Equal(t, rom.Holding{Same: []string{"U6"}, Differ: []string{"U7"}, Missing: []string{"U8"}}, held)
	held, any = rom.HoldsSet(set, set)
	require.True(t, any && held.Complete)
	_, any = rom.HoldsSet(set, map[string]string{"U6": "c"})
	require.False(t, any)
}
