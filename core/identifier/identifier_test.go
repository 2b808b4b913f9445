package identifier_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/identifier"
)

func TestNumbersThatATextAnnounces(t *testing.T) {
	for text, want := range map[string][]string{
		"":                           {},
		"Serial No. TV2-00817":       {"TV2-00817"},
		"serial number: tv2 00817":   {}, // no figure in the first word, and words are not joined
		"S/N 4711-A, and s/n 4711a":  {"4711-A"},
		"Inventory HPO 0031":         {},
		"inventory no. HPO-0031.":    {"HPO-0031"},
		"Asset tag #20417\nserial 9": {"20417"},
		"hardware address 08:00:5e:01:02:03, paid 120.00 on 1991-04-02": {"08:00:5e:01:02:03"},
		"a serial printer, 74LS245 and 27128-25, 12 pieces":             {},
		"Serial number of the case unknown":                             {},
	} {
		require.Equal(t, want, identifier.In(text), text)
	}
}

func FuzzIn(f *testing.F) {
	f.Add("Serial no. TV2-00817, asset tag: 20417")
	f.Add("S/N S/N 12345 serial\tno\tno. 4-4/4:4")
	f.Fuzz(func(t *testing.T, text string) {
		found := identifier.In(text)
		for i, number := range found {
			require.Contains(t, text, number)
			require.True(t, identifier.Telling(identifier.Key(number)))
			require.False(t, slices.Contains(found[:i], number))
		}
		require.Equal(t, len(found), len(identifier.In(strings.Repeat(text+"\n", 2))))
	})
}
