package population_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/device/builtin"
	"frugalheron/core/population"
)

const rules = `bank 0 | M1-M2
bank 1 | M3, M4 | after 0
sizes 256Kx9 1Mx9   # of the manual
rule full
rule same size
rule parity
most 100 ns
most 3 MB
depth 1M`

func table(t require.TestingT, text string) []string {
	in, err := population.ParseRules(text)
	require.NoError(t, err)
	rows, ok, err := population.Table(builtin.Library(), in)
	require.NoError(t, err)
	require.True(t, ok)
	told := []string{}
	for _, row := range rows {
		told = append(told, strings.TrimSpace(fmt.Sprintf("%dK %s %v", row.Bytes>>10, strings.Join(row.Sizes, "+"), row.Jumpers)))
	}
	return told
}

func TestRulesOfModulesAreRead(t *testing.T) {
	in, err := population.ParseRules(rules)
	require.NoError(t, err)
	require.Equal(t, []string{"M3", "M4"}, in.Banks[1].Sockets)
	require.Equal(t, "0", *in.Banks[1].After)
	require.Equal(t, []any{100, int64(3 << 20), 1 << 20}, []any{*in.Rules.MaxNs, *in.Rules.MaxBytes,
		in.Rules.Organisation.Words})
	require.True(t, in.Rules.Full && in.Rules.SameInBank && in.Rules.Parity)
	require.Equal(t, []string{"512K 256Kx9+ map[]", "1024K 256Kx9+256Kx9 map[]", "2048K 1Mx9+ map[]",
		"2560K 256Kx9+1Mx9 map[]",
		"2560K 1Mx9+256Kx9 map[]"}, table(t, rules))
	require.Equal(t, []string{"512K 256Kx9+ map[]", "2560K 1Mx9+256Kx9 map[JP3:2-3 JP4:on]"},
		table(t, rules+"\nallowed 0 = 1Mx9, 1 = 256Kx9 | JP3 at 2-3, JP4 at on\nallowed 0 = 256Kx9, 1 = empty"))
	_, ok, err := population.Table(builtin.Library(), population.Input{Banks: many(12), Sizes: []string{"1Mx9",
		"4Mx9"}})
	require.NoError(t, err)
	require.False(t, ok, "too many to tell")
	for text, why := range map[string]string{"bank 0": "is no bank", "bank 0 | M1 | before 1": "behind which",
		"bank 0 | M4-M1": "no row",
		"bank 0 | ":      "no socket", "rule luck": "no rule", "most soon": "", "most 0 ns": "no time",
		"slot 1":                   "begins with",
		"bank 0 | M1\nbank 1 | M1": "no socket of its own", "bank 0 | M1 | after 1": "no bank",
		"sizes big\nbank 0 | M1":        "no size",
		"bank 0 | M1\nallowed 1 = 1Mx9": "no bank", "bank 0 | M1\nallowed 0": "fills no bank", "depth x": "",
		"bank 0 | M1\nallowed 0 = huge": "no size", "bank 0 | M1\nallowed 0 = empty | JP3": "sets no jumper"} {
		_, err := population.ParseRules(text)
		require.ErrorContains(t, err, why, text)
	}
}

func many(n int) []population.Bank {
	banks := []population.Bank{}
	for i := range n {
		banks = append(banks, population.Bank{ID: fmt.Sprint(i), Sockets: []string{fmt.Sprint("M", i)}})
	}
	return banks
}

// Whatever the rules: each row of the table breaks none when it is fitted, and what breaks none with one size a bank is in the table.
func TestTheTableIsWhatMayStand(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		text := "bank 0 | M1-M2\nbank 1 | M3-M4\nsizes 256Kx9 1Mx9 1Mx8"
		for _, line := range []string{"rule full", "rule parity", "most 3 MB", "rule same size"} {
			if rapid.Bool().Draw(t, line) {
				text += "\n" + line
			}
		}
		if rapid.Bool().Draw(t, "after") {
			text = strings.Replace(text, "| M3-M4", "| M3-M4 | after 0", 1)
		}
		legal := map[string]bool{}
		for _, row := range table(t, text) {
			legal[strings.Fields(row)[1]] = true
		}
		for _, first := range []string{"", "256Kx9", "1Mx9", "1Mx8"} {
			for _, second := range []string{"", "256Kx9", "1Mx9", "1Mx8"} {
				if first+second == "" {
					continue
				}
				in, err := population.ParseRules(text)
				require.NoError(t, err)
				in.Fitted = map[string]*string{"M1": &first, "M2": &first, "M3": &second, "M4": &second}
				out, err := population.Judge(builtin.Library(), in)
				require.NoError(t, err)
				require.Equal(t, out.Legal, legal[first+"+"+second], "%s: %s+%s", text, first, second)
			}
		}
	})
}

func TestWhatIsAModule(t *testing.T) {
	for text, is := range map[string]bool{"SIMM 30-pin 1Mx9 70ns": true, "4MB": true, "1Mx9-70": true, "10K": false,
		"470u/25V": false,
		"100k 1%":  false, "41256-15": false, "": false, "SIMM 72-pin (4Mx36)": true} {
		require.Equal(t, is, population.IsModule(text), text)
	}
}
