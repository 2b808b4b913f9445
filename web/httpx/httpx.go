// Package httpx is what all operations share: how they are registered, by role; how input is checked, errors become
// answers, files come and go, and what is private is kept from answers.
package httpx

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app/action"
	"frugalheron/app/people"
)

type actorKey struct{}

// API is where operations are registered, with what all of them need.
type API struct {
	huma.API
	kernel     *action.Kernel
	people     *people.Service
	operations []Operation
	uploads    *uploads
}

// Operation is a registered operation and the roles it is open to; nil for everybody.
type Operation struct {
	huma.Operation
	Roles action.Roles
}

// NewAPI returns one without operations. Each passes: who is private, whose role it is open to, whether it was done
// already, and which names it wrote.
func NewAPI(on huma.API, kernel *action.Kernel, people *people.Service) *API {
	api := &API{API: on, kernel: kernel, people: people, uploads: newUploads()}
	api.UseMiddleware(api.findPrivate, api.requireRole, api.once, tellNames)
	return api
}

// Operations lists all that are registered, with their roles.
func (api *API) Operations() []Operation { return api.operations }

// WithActor says in a context who asks.
func WithActor(ctx context.Context, actor action.Actor) context.Context {
	return context.WithValue(ctx, actorKey{}, actor)
}

// actorOf returns who is asking; the zero Actor, without role, for nobody.
func actorOf(ctx context.Context) action.Actor {
	actor, _ := ctx.Value(actorKey{}).(action.Actor)
	return actor
}

const rolesKey = "roles" // in an operation's metadata

// requireRole refuses a request before its body is read unless the role fits.
func (api *API) requireRole(ctx huma.Context, next func(huma.Context)) {
	roles, _ := ctx.Operation().Metadata[rolesKey].(action.Roles)
	if roles == nil {
		next(ctx)
		return
	}
	actor := actorOf(ctx.Context())
	switch {
	case actor.AccountID == 0:
		huma.WriteErr(api, ctx, http.StatusUnauthorized, "Sign in first.") //nolint:errcheck // nobody is left to tell
	case !roles.Include(actor.Role):
		huma.WriteErr(api, ctx, http.StatusForbidden, sentence(action.ErrForbidden.Error())) //nolint:errcheck
	default:
		next(ctx)
	}
}

// Register adds an operation that only the given roles may call; nil opens it to everybody. The
// handler is told who asks, and its errors become problem details.
func Register[In, Out any](api *API, roles action.Roles, op huma.Operation,
	handle func(ctx context.Context, actor action.Actor, in *In) (*Out, error)) {
	if op.Metadata == nil {
		op.Metadata = map[string]any{}
	}
	op.Metadata[rolesKey] = roles
	if roles != nil {
		op.Security = []map[string][]string{{"session": {}}}
		op.Errors = append(op.Errors, http.StatusUnauthorized, http.StatusForbidden)
		who := ""
		for i, role := range roles {
			if i > 0 {
				who += ", "
			}
			who += string(role)
		}
		op.Description += " Roles: " + who + "."
	}
	api.operations = append(api.operations, Operation{op, roles})
	huma.Register(api.API, op, func(ctx context.Context, in *In) (*Out, error) {
		if err := refuseBadInput(badInput(in)); err != nil {
			return nil, err
		}
		out, err := handle(ctx, actorOf(ctx), in)
		if err != nil {
			return nil, problem(ctx, err)
		}
		return out, nil
	})
}
