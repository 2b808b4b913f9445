package httpx

import (
	"context"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"

	"frugalheron/app/people"
)

type privacyKey struct{}

// findPrivate reads who is private before somebody is answered who is not staff: once the answer is made, nothing may
// fail any more. Who is nobody is answered with nothing that anybody wrote.
func (api *API) findPrivate(ctx huma.Context, next func(huma.Context)) {
	actor := actorOf(ctx.Context())
	if actor.AccountID == 0 || !actor.Hides() {
		next(ctx)
		return
	}
	privacy, err := api.people.Privacy(ctx.Context())
	if err != nil {
		r, w := humachi.Unwrap(ctx)
		WriteError(w, r, err)
		return
	}
	next(huma.WithContext(ctx, context.WithValue(ctx.Context(), privacyKey{}, privacy)))
}

// PublicAnswer takes the names of private persons out of the typed texts of every answer to somebody who is not staff.
// It stands where all answers are written, so that no operation can forget it. Files are made public where they are
// made.
func PublicAnswer(ctx huma.Context, _ string, answer any) (any, error) {
	if privacy, ok := ctx.Context().Value(privacyKey{}).(*people.Privacy); ok {
		return privacy.Public(answer), nil
	}
	return answer, nil
}
