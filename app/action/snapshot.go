package action

import (
	"context"
	"fmt"

	"github.com/jmoiron/sqlx"

	"frugalheron/store/pg"
)

// snapshot is the state of one moment, with what was read of it.
type snapshot struct {
	tx   *sqlx.Tx
	read map[string]any
}

type snapshotKey struct{}

// InSnapshot reads with a context by which all is read of one moment, whatever is written meanwhile: what is put
// together of several reads goes together. It is for one goroutine.
func InSnapshot[Read any](ctx context.Context, k *Kernel, read func(ctx context.Context) (Read, error)) (Read, error) {
	if openIn(ctx) != nil || ctx.Value(snapshotKey{}) != nil {
		return read(ctx)
	}
	var out Read
	err := pg.InSnapshot(ctx, k.DB, func(tx *sqlx.Tx) (err error) {
		out, err = read(context.WithValue(ctx, snapshotKey{}, &snapshot{tx, map[string]any{}}))
		return err
	})
	return out, err
}

// Once reads a thing once in a snapshot, however many ask for it; elsewhere each time. What names it, with its id.
// Nobody changes what is returned.
func Once[Read any](ctx context.Context, what string, id int64, read func() (Read, error)) (Read, error) {
	seen, ok := ctx.Value(snapshotKey{}).(*snapshot)
	if !ok || openIn(ctx) != nil {
		return read()
	}
	key := fmt.Sprintf("%s %d", what, id)
	if kept, ok := seen.read[key].(Read); ok {
		return kept, nil
	}
	out, err := read()
	if err == nil {
		seen.read[key] = out
	}
	return out, err
}
