package web

import (
	"context"
	"errors"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app/action"
)

const accountKey = "account" // in the session

type actorKey struct{}

// identify finds out who is asking. A session whose account is gone counts as none.
func (s *Server) identify(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if id := s.sessions.GetInt64(r.Context(), accountKey); id != 0 {
			actor, err := s.app.Accounts.ActorByID(r.Context(), id)
			switch {
			case err == nil:
				r = r.WithContext(context.WithValue(r.Context(), actorKey{}, actor))
			case !errors.Is(err, action.ErrNotFound):
				writeError(w, r, err)
				return
			}
		}
		next.ServeHTTP(w, r)
	})
}

// actorOf returns who is asking; the zero Actor, without role, for nobody.
func actorOf(ctx context.Context) action.Actor {
	actor, _ := ctx.Value(actorKey{}).(action.Actor)
	return actor
}

const rolesKey = "roles" // in an operation's metadata

// requireRole refuses a request before its body is read unless the role fits.
func (s *Server) requireRole(ctx huma.Context, next func(huma.Context)) {
	roles, _ := ctx.Operation().Metadata[rolesKey].(action.Roles)
	if roles == nil {
		next(ctx)
		return
	}
	actor := actorOf(ctx.Context())
	switch {
	case actor.AccountID == 0:
		huma.WriteErr(s.api, ctx, http.StatusUnauthorized, "Sign in first.") //nolint:errcheck // nobody is left to tell
	case !roles.Include(actor.Role):
		huma.WriteErr(s.api, ctx, http.StatusForbidden, sentence(action.ErrForbidden.Error())) //nolint:errcheck
	default:
		next(ctx)
	}
}

// register adds an operation that only the given roles may call; nil opens it to everybody. The
// handler is told who asks, and its errors become problem details.
func register[In, Out any](s *Server, roles action.Roles, op huma.Operation, handle func(ctx context.Context, actor action.Actor, in *In) (*Out, error)) {
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
	s.operations = append(s.operations, Operation{op, roles})
	huma.Register(s.api, op, func(ctx context.Context, in *In) (*Out, error) {
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
