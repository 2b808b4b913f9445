package accounts

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/accounts"
	"frugalheron/app/action"
	"frugalheron/web/httpx"
)

// Who is the account that is signed in.
type Who struct {
	ID   int64  `json:"id"`
	Name string `json:"name"`
	Role string `json:"role" enum:"curator,technician,viewer"`
	// May tells the interface what to offer; the server decides by role all the same.
	MayWriteSheets   bool `json:"mayWriteSheets"`
	MayKeepTheRecord bool `json:"mayKeepTheRecord"`
	// Times are shown in the zone in which the server counts days, wherever the browser is.
	TimeZone string `json:"timeZone" example:"Europe/Lisbon" doc:"Zone in which the collection counts its days"`
}

type sessionOutput struct{ Body sessionBody }

type sessionBody struct {
	Account *Who `json:"account" doc:"Who is signed in, or null"`
}

func sessionOf(actor action.Actor) *sessionOutput {
	out := &sessionOutput{}
	if actor.AccountID != 0 {
		out.Body.Account = &Who{
			ID: actor.AccountID, Name: actor.Name, Role: string(actor.Role),
			MayWriteSheets:   action.MayWriteSheets.Include(actor.Role),
			MayKeepTheRecord: action.MayKeepTheRecord.Include(actor.Role),
			TimeZone:         actor.ZoneName(),
		}
	}
	return out
}

type signInInput struct {
	httpx.Caller
	Browser string `cookie:"heron_browser" maxLength:"100" doc:"Kept by the browser; failures of strangers do not close the door for one from which somebody signed in before"`
	Body    struct {
		Login    string `json:"login" minLength:"1" maxLength:"80"`
		Password string `json:"password" minLength:"1" maxLength:"200"`
	}
}

// browserCookie is what a browser shows from which somebody signed in before.
const browserCookie = "heron_browser"

type signedInOutput struct {
	SetCookie http.Cookie `header:"Set-Cookie"`
	Body      sessionBody
}

type passwordInput struct {
	Body struct {
		Current string `json:"current" minLength:"1" maxLength:"200"`
		Wanted  string `json:"wanted" maxLength:"200"`
	}
}

func registerSession(api *httpx.API, actions *app.App, s *Sessions) {
	httpx.Register(api, nil, huma.Operation{
		OperationID: "get-session", Method: http.MethodGet, Path: "/api/session", Summary: "Who is signed in",
	}, func(_ context.Context, actor action.Actor, _ *struct{}) (*sessionOutput, error) {
		return sessionOf(actor), nil
	})
	httpx.Register(api, nil, huma.Operation{
		OperationID: "sign-in", Method: http.MethodPost, Path: "/api/session", Summary: "Sign in",
		Errors: []int{http.StatusUnauthorized, http.StatusUnprocessableEntity, http.StatusTooManyRequests},
	}, func(ctx context.Context, _ action.Actor, in *signInInput) (*signedInOutput, error) {
		signedIn, err := actions.Accounts.SignIn(ctx, in.Body.Login, in.Body.Password,
			accounts.Caller{Address: in.Address, Browser: in.Browser})
		if err != nil {
			return nil, err
		}
		started, err := s.startSession(ctx, actions, signedIn.Account.ID, in.Caller)
		if err != nil {
			return nil, err
		}
		return &signedInOutput{Body: started.Body, SetCookie: http.Cookie{
			Name: browserCookie, Value: signedIn.Browser, Path: "/api/session",
			MaxAge:   int(accounts.BrowserKnown / time.Second),
			HttpOnly: true, SameSite: http.SameSiteLaxMode, Secure: s.manager.Cookie.Secure,
		}}, nil
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "change-password", Method: http.MethodPut, Path: "/api/session/password",
		Summary: "Change your own password; your other sessions end",
		Errors:  []int{http.StatusUnprocessableEntity, http.StatusTooManyRequests},
	}, func(ctx context.Context, actor action.Actor, in *passwordInput) (*struct{}, error) {
		if err := actions.Accounts.ChangePassword(ctx, actor, in.Body.Current, in.Body.Wanted); err != nil {
			return nil, err
		}
		return nil, s.endSessions(ctx, actor.AccountID, true)
	})
	httpx.Register(api, nil, huma.Operation{
		OperationID: "sign-out", Method: http.MethodDelete, Path: "/api/session", Summary: "Sign out",
	}, func(ctx context.Context, _ action.Actor, _ *struct{}) (*struct{}, error) {
		return nil, s.manager.Destroy(ctx)
	})
}
