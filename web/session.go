package web

import (
	"context"
	"net"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
)

// Who is the account that is signed in.
type Who struct {
	ID   int64  `json:"id"`
	Name string `json:"name"`
	Role string `json:"role" enum:"curator,technician,viewer"`
	// May tells the interface what to offer; the server decides by role all the same.
	MayWriteSheets   bool `json:"mayWriteSheets"`
	MayKeepTheRecord bool `json:"mayKeepTheRecord"`
}

type sessionOutput struct {
	Body struct {
		Account *Who `json:"account" doc:"Who is signed in, or null"`
	}
}

func sessionOf(actor app.Actor) *sessionOutput {
	out := &sessionOutput{}
	if actor.AccountID != 0 {
		out.Body.Account = &Who{
			ID: actor.AccountID, Name: actor.Name, Role: string(actor.Role),
			MayWriteSheets:   app.MayWriteSheets.Include(actor.Role),
			MayKeepTheRecord: app.MayKeepTheRecord.Include(actor.Role),
		}
	}
	return out
}

type signInInput struct {
	Caller
	Body struct {
		Login    string `json:"login" minLength:"1" maxLength:"80"`
		Password string `json:"password" minLength:"1" maxLength:"200"`
	}
}

// Caller is an input that knows the caller's address, by which failures are counted, and program.
type Caller struct{ address, agent string }

// Resolve notes them.
func (c *Caller) Resolve(ctx huma.Context) []error {
	c.agent = ctx.Header("User-Agent")
	c.address = ctx.RemoteAddr()
	if host, _, err := net.SplitHostPort(c.address); err == nil {
		c.address = host
	}
	return nil
}

type passwordInput struct {
	Caller
	Body struct {
		Current string `json:"current" minLength:"1" maxLength:"200"`
		Wanted  string `json:"wanted" maxLength:"200"`
	}
}

func (s *Server) registerSession() {
	register(s, nil, huma.Operation{
		OperationID: "get-session", Method: http.MethodGet, Path: "/api/session", Summary: "Who is signed in",
	}, func(_ context.Context, actor app.Actor, _ *struct{}) (*sessionOutput, error) {
		return sessionOf(actor), nil
	})
	register(s, nil, huma.Operation{
		OperationID: "sign-in", Method: http.MethodPost, Path: "/api/session", Summary: "Sign in",
		Errors: []int{http.StatusUnauthorized, http.StatusUnprocessableEntity, http.StatusTooManyRequests},
	}, func(ctx context.Context, _ app.Actor, in *signInInput) (*sessionOutput, error) {
		account, err := s.app.SignIn(ctx, in.Body.Login, in.Body.Password, in.address)
		if err != nil {
			return nil, err
		}
		return s.startSession(ctx, account, in.Caller)
	})
	register(s, app.MayLook, huma.Operation{
		OperationID: "change-password", Method: http.MethodPut, Path: "/api/session/password", Summary: "Change your own password; your other sessions end",
		Errors: []int{http.StatusUnprocessableEntity, http.StatusTooManyRequests},
	}, func(ctx context.Context, actor app.Actor, in *passwordInput) (*struct{}, error) {
		if err := s.app.ChangePassword(ctx, actor, in.Body.Current, in.Body.Wanted, in.address); err != nil {
			return nil, err
		}
		return nil, s.endSessions(ctx, actor.AccountID, true)
	})
	register(s, nil, huma.Operation{
		OperationID: "sign-out", Method: http.MethodDelete, Path: "/api/session", Summary: "Sign out",
	}, func(ctx context.Context, _ app.Actor, _ *struct{}) (*struct{}, error) {
		return nil, s.sessions.Destroy(ctx)
	})
}
