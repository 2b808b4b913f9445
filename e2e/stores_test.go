package e2e

import (
	"context"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/parts"
	"frugalheron/app/work"
)

// addStores puts something into the stores and on order, and a job that needs of both and more.
func (w world) addStores(t *testing.T) {
	ctx, staff := context.Background(), action.Actor{Role: action.Technician}
	_, err := w.actions.Parts.AddStock(ctx, staff, parts.StockInput{What: "fuse 2A", Count: 4, Place: "Store",
		Minimum: 9})
	require.NoError(t, err)
	_, err = w.actions.Parts.AddOrder(ctx, staff, parts.OrderInput{Supplier: "Reed & Rush", DueOn: "2999-01-01",
		Lines: []parts.OrderLineInput{{What: "fuse 4A", Count: 10}}})
	require.NoError(t, err)
	_, err = w.actions.Work.AddJob(ctx, staff, w.machine.ID, work.JobInput{Title: "Fuses",
		Needs: []string{"fuse 2A", "fuse 4A", "2 x 41256-15", "a lamp"}})
	require.NoError(t, err)
}
