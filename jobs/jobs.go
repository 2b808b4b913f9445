// Package jobs has long work done behind requests: reading a chip, making totals anew. What each kind of job does is
// said by its subject in app; here is when, and by how many hands.
package jobs

import (
	"context"
	"log/slog"
	"time"

	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riverdatabasesql"

	"frugalheron/app/action"
)

const (
	// hands is how many jobs a process does at a time.
	hands = 5
	// pollEvery is how soon a job is found that somebody has put into the queue.
	pollEvery = 400 * time.Millisecond
	// letGo is how long a job that is told to end has to keep what it did.
	letGo = 5 * time.Second
)

// Start does jobs until stop is called, which lets those at work keep what they have done; they go on wherever a
// process is running.
func Start(ctx context.Context, k *action.Kernel) (stop func(), err error) {
	client, err := river.NewClient(riverdatabasesql.New(k.DB.DB), &river.Config{
		Queues:            map[string]river.QueueConfig{river.QueueDefault: {MaxWorkers: hands}},
		Workers:           k.Workers,
		FetchPollInterval: pollEvery,
		JobTimeout:        action.JobPart + letGo,
		// A process that is gone lets go of its jobs by not ending them in time.
		RescueStuckJobsAfter: action.JobPart + 2*letGo,
		Logger:               slog.New(quietly{slog.Default().Handler(), &lately{at: map[string]time.Time{}}}),
	})
	if err != nil {
		return nil, err
	}
	if err := k.EnqueueRenewals(ctx); err != nil {
		return nil, err
	}
	// The queue ends when it is told to, not in the middle of keeping what was done.
	if err := client.Start(context.WithoutCancel(ctx)); err != nil {
		return nil, err
	}
	return func() {
		within, cancel := context.WithTimeout(context.WithoutCancel(ctx), letGo)
		defer cancel()
		if err := client.StopAndCancel(within); err != nil {
			slog.Warn("jobs did not end in time; another process goes on with them", "cause", err)
		}
	}, nil
}
