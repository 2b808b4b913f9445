package action

import (
	"context"
	"errors"
	"time"

	"github.com/jmoiron/sqlx"

	"frugalheron/store/requests"
)

// Request is one that may be sent again, by its key.
type Request struct {
	Key         string
	Fingerprint string        // of what is asked for
	GivenUp     time.Duration // after which one that did nothing yet is begun anew
}

// Answered is what a request was answered.
type Answered struct {
	Status    int
	MediaType string
	Body      []byte
}

// Errors of requests that are sent again.
var (
	// ErrOtherRequest is returned for a key that another request was sent with.
	ErrOtherRequest = errors.New("this key was used for another request; take a new one")
	// ErrStillAtWork is returned while the first of two requests is at work.
	ErrStillAtWork = errors.New("the same request is still at work; ask again in a moment")
	// ErrAnswerLost is returned where the action is done and its answer was not kept.
	ErrAnswerLost = errors.New(
		"this was done already, but its answer was lost; look at the history for what came of it")
)

type requestKey struct{}

// begun is an attempt at a request.
type begun struct {
	key     requests.RequestKey
	attempt int
}

// Begin begins a request, or returns what it was answered before. Actions done with the context that is returned mark
// the request as done, in their own transaction.
func (k *Kernel) Begin(ctx context.Context, actor Actor, r Request) (context.Context, *Answered, error) {
	key := requests.RequestKey{AccountID: actor.AccountID, Key: r.Key, Fingerprint: r.Fingerprint}
	attempt, err := requests.BeginRequest(ctx, k.DB, key, r.GivenUp)
	if err != nil {
		return ctx, nil, err
	}
	if attempt > 0 {
		return context.WithValue(ctx, requestKey{}, begun{key, attempt}), nil, nil
	}
	before, err := requests.RequestWith(ctx, k.DB, actor.AccountID, r.Key)
	switch {
	case err != nil && errors.Is(err, ErrNotFound):
		return ctx, nil, ErrStillAtWork // it was refused just now
	case err != nil:
		return ctx, nil, err
	case before.Fingerprint != r.Fingerprint:
		return ctx, nil, ErrOtherRequest
	case before.Status != nil:
		return ctx, &Answered{*before.Status, before.MediaType, before.Body}, nil
	case before.Done && before.Age > r.GivenUp.Seconds():
		return ctx, nil, ErrAnswerLost
	}
	return ctx, nil, ErrStillAtWork
}

// Finish keeps what the request that a context has begun was answered.
func (k *Kernel) Finish(ctx context.Context, answer Answered) error {
	b, _ := ctx.Value(requestKey{}).(begun)
	return requests.AnswerRequest(ctx, k.DB, b.key, b.attempt, answer.Status, answer.MediaType, answer.Body)
}

// Refuse lets the request that a context has begun be sent anew: it was refused.
func (k *Kernel) Refuse(ctx context.Context) error {
	b, _ := ctx.Value(requestKey{}).(begun)
	return requests.ForgetRequest(ctx, k.DB, b.key, b.attempt)
}

// markRequest marks the request of a context as done, if there is one; ErrStillAtWork when it was begun anew
// meanwhile, by whoever thought it lost.
func markRequest(ctx context.Context, tx *sqlx.Tx) error {
	b, ok := ctx.Value(requestKey{}).(begun)
	if !ok {
		return nil
	}
	may, err := requests.MarkRequestDone(ctx, tx, b.key, b.attempt)
	if err == nil && !may {
		return ErrStillAtWork
	}
	return err
}
