package pg

import "context"

// StateOf reads a count of changes, and whether this transaction made the last.
func StateOf(ctx context.Context, h Handle, sql string) (n int64, isOwn bool, err error) {
	var row struct {
		N   int64 `db:"n"`
		Own bool  `db:"own"`
	}
	err = h.GetContext(ctx, &row, sql)
	return row.N, row.Own, err
}
