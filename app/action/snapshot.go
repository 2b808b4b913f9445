package action

import (
	"context"
	"fmt"
	"sync"
	"time"

	"github.com/jmoiron/sqlx"

	"frugalheron/store/pg"
)

// snapshot is the state of one moment, with what was read of it.
type snapshot struct {
	tx   *sqlx.Tx
	read *moment
}

// moment is what was read of one state of the database. It holds as long as nobody writes anything: then nothing of it
// is read again, as while somebody types.
type moment struct {
	mark string
	mu   sync.Mutex
	read map[string]any
}

// mostRead bounds how many things are kept of a moment.
const mostRead = 1000

// slot is within what time a day begins in no zone: what was read goes by the days of the collection, too.
const slot = 15 * time.Minute

type snapshotKey struct{}

// InSnapshot reads with a context by which all is read of one moment, whatever is written meanwhile: what is put
// together of several reads goes together. It is for one goroutine.
func InSnapshot[Read any](ctx context.Context, k *Kernel, read func(ctx context.Context) (Read, error)) (Read, error) {
	if openIn(ctx) != nil || ctx.Value(snapshotKey{}) != nil {
		return read(ctx)
	}
	var out Read
	err := pg.InSnapshot(ctx, k.DB, func(tx *sqlx.Tx) error {
		now, err := k.momentOf(ctx, tx)
		if err != nil {
			return err
		}
		out, err = read(context.WithValue(ctx, snapshotKey{}, &snapshot{tx, now}))
		return err
	})
	return out, err
}

// momentOf is the moment that a transaction sees: the one before, if nothing was written since.
func (k *Kernel) momentOf(ctx context.Context, tx *sqlx.Tx) (*moment, error) {
	mark, err := pg.SnapshotMark(ctx, tx)
	if err != nil {
		return nil, err
	}
	mark += time.Now().UTC().Truncate(slot).Format(time.RFC3339)
	if last := k.last.Load(); last != nil && last.mark == mark {
		return last, nil
	}
	now := &moment{mark: mark, read: map[string]any{}}
	k.last.Store(now)
	return now, nil
}

// Once reads a thing once in a snapshot, however many ask for it, and not again in the next ones while nobody writes
// anything; elsewhere each time. What names it, with its id, and all on which it depends. Nobody changes what is
// returned.
func Once[Read any](ctx context.Context, what string, id int64, read func() (Read, error)) (Read, error) {
	seen, ok := ctx.Value(snapshotKey{}).(*snapshot)
	if !ok || openIn(ctx) != nil {
		return read()
	}
	key := fmt.Sprintf("%s %d", what, id)
	if kept, ok := seen.read.get(key).(Read); ok {
		return kept, nil
	}
	out, err := read()
	if err == nil {
		seen.read.put(key, out)
	}
	return out, err
}

func (m *moment) get(key string) any {
	m.mu.Lock()
	defer m.mu.Unlock()
	return m.read[key]
}

func (m *moment) put(key string, value any) {
	m.mu.Lock()
	defer m.mu.Unlock()
	if len(m.read) >= mostRead {
		clear(m.read)
	}
	m.read[key] = value
}
