package custody_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/custody"
)

func TestWhereaboutsAreSaidInWords(t *testing.T) {
	for words, w := range map[string]custody.Whereabouts{
		"lent to Lighthouse Trust":     {LentTo: "Lighthouse Trust", Place: "Store"},
		"on its way to the net loft":   {BoundFor: "the net loft"},
		"Store, shelf B":               {Place: "Store, shelf B"},
		"EH-0142, slot 3":              {Accession: "EH-0142", Slot: "3"},
		"EH-0142":                      {Accession: "EH-0142"},
		"nowhere that is written down": {Slot: "3"},
	} {
		require.Equal(t, words, w.InWords())
	}
}
