package app_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/core/risk"
	"frugalheron/store/condition"
	"frugalheron/store/pg"
	"frugalheron/store/storetest"
)

// The page of the ranking over 20,000 machines with 20 ageing parts each; it is to take 300 ms at most.
func BenchmarkRisksOf20000Machines(b *testing.B) {
	const machines, each = 20_000, 20
	db := storetest.New(b)
	_, err := db.ExecContext(ctx,
		`INSERT INTO machine (accession, name, era_from, era_to) SELECT 'EL-' || n, 'Lantern ' || n, 1976 + n % 16,
			1980 + n % 16 FROM generate_series(1, $1) n`, machines)
	require.NoError(b, err)
	classes := risk.Shipped()
	for m := range machines {
		rows := make([]string, each)
		for i := range rows {
			looked := ""
			if (m+i)%2 == 0 {
				looked = fmt.Sprint(17000 + (m*7+i*131)%3000)
			}
			rows[i] = fmt.Sprintf("%s,1,%d,%d,%d,%s", classes[(m+i)%len(classes)].Key, m+1, i+1, 4000+(m*13+i*17)%4000,
				looked)
		}
		require.NoError(b, condition.PutAgeing(ctx, db, int64(m+1), strings.Join(rows, "\n"), 1))
	}
	require.NoError(b, pg.Analyze(ctx, db))
	actions := app.New(db)
	for b.Loop() {
		page, err := actions.Condition.Risks(ctx, viewer, 0, 0, 50)
		require.NoError(b, err)
		require.Equal(b, machines*each, page.Total)
		require.Len(b, page.Risks, 50)
	}
}
