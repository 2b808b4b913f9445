package store_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/store/parts"
	"frugalheron/store/storetest"
)

// Drawers are found by words as they are written: what is a wild card elsewhere is a letter here, and each page goes on
// where the one before ended.
func TestDrawersByWords(t *testing.T) {
	db := storetest.New(t)
	ids := []int64{}
	for _, words := range []string{"10% carbon", "10 carbon", "a_b", `back\slash`, "axb"} {
		id, err := parts.InsertStock(ctx, db, parts.Stock{Body: `{}`, Count: 1, Place: "Loft", Words: words})
		require.NoError(t, err)
		ids = append(ids, id)
	}
	for words, want := range map[string][]int64{"10%": {ids[0]}, "a_b": {ids[2]}, `k\s`: {ids[3]}, "LOFT": ids} {
		found, err := parts.ListStock(ctx, db, []string{words}, 0, 9)
		require.NoError(t, err)
		got := []int64{}
		for _, one := range found {
			got = append(got, one.ID)
		}
		require.Equal(t, want, got, words)
	}
	page, err := parts.ListStock(ctx, db, nil, ids[1], 2)
	require.NoError(t, err)
	require.Equal(t, []int64{ids[2], ids[3]}, []int64{page[0].ID, page[1].ID})

	// Nothing below nothing is kept, whoever tries.
	gone, err := parts.StockByID(ctx, db, ids[0])
	require.NoError(t, err)
	gone.Count, gone.Voided = -1, false
	require.Error(t, parts.UpdateStock(ctx, db, gone))
	gone.Count, gone.Voided = 0, true
	require.NoError(t, parts.UpdateStock(ctx, db, gone))
	found, err := parts.ListStock(ctx, db, []string{"10%"}, 0, 9)
	require.NoError(t, err)
	require.Empty(t, found)
	_, err = parts.InsertSetAside(ctx, db, parts.SetAside{JobID: 1, Need: "x", Count: 1})
	require.Error(t, err, "of nothing, for no job")
}
