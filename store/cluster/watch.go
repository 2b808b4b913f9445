package cluster

import (
	"context"
	"time"
)

// lookEvery is how often a watched server is looked at.
const lookEvery = time.Second

// Watch starts the server again whenever it died, on the port that it had, until the context ends. What happens is told
// in words: nobody has to wonder why nothing answers.
func (c *Cluster) Watch(ctx context.Context, options Options, say func(what string)) {
	for {
		select {
		case <-ctx.Done():
			return
		case <-time.After(lookEvery):
		}
		if _, running := c.running(ctx); running || ctx.Err() != nil {
			continue
		}
		say("PostgreSQL has died; starting it again ...")
		err := c.startAt(ctx, options, func() (int, error) { return c.port, nil })
		switch {
		case ctx.Err() != nil:
			return
		case err != nil:
			say("PostgreSQL could not be started again: " + err.Error())
		default:
			say("PostgreSQL runs again; nothing that was acknowledged is lost.")
		}
	}
}
