package jobs

import (
	"context"
	"log/slog"
	"sync"
	"time"
)

// again is how long the same trouble is not told again: a database that is away fails every look into the queue.
const again = 30 * time.Second

// quietly leaves out what the queue says of its own running, and the same trouble over and over.
type quietly struct {
	slog.Handler
	*lately
}

// lately is when something was last told.
type lately struct {
	mutex sync.Mutex
	at    map[string]time.Time
}

// Enabled reports whether it is worth telling.
func (q quietly) Enabled(ctx context.Context, level slog.Level) bool {
	return level >= slog.LevelWarn && q.Handler.Enabled(ctx, level)
}

// Handle tells it, unless it was told lately.
func (q quietly) Handle(ctx context.Context, r slog.Record) error {
	q.mutex.Lock()
	wasLately := r.Time.Sub(q.at[r.Message]) < again
	if !wasLately {
		q.at[r.Message] = r.Time
	}
	q.mutex.Unlock()
	if wasLately {
		return nil
	}
	return q.Handler.Handle(ctx, r)
}

// WithAttrs keeps what all messages say.
func (q quietly) WithAttrs(attributes []slog.Attr) slog.Handler {
	return quietly{q.Handler.WithAttrs(attributes), q.lately}
}

// WithGroup keeps it in a group.
func (q quietly) WithGroup(name string) slog.Handler {
	return quietly{q.Handler.WithGroup(name), q.lately}
}
