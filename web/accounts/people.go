package accounts

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/accounts"
	"frugalheron/app/action"
	"frugalheron/web/httpx"
)

// Invitation is who is invited.
type Invitation struct {
	Login string      `json:"login" minLength:"1" maxLength:"80"`
	Name  string      `json:"name" maxLength:"80"`
	Role  action.Role `json:"role" enum:"curator,technician,viewer"`
}

// Welcomed is whose password a link sets.
type Welcomed struct {
	Login string `json:"login"`
	Name  string `json:"name"`
}

func registerPeople(api *httpx.API, actions *app.App, s *Sessions) {
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "list-accounts", Method: http.MethodGet, Path: "/api/accounts", Summary: "All accounts",
	}, func(ctx context.Context, actor action.Actor,
		_ *struct{}) (*httpx.Output[[]accounts.ListedAccountView], error) {
		return httpx.Answer(actions.Accounts.Accounts(ctx, actor))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "invite", Metadata: httpx.AnswersSecret(), Method: http.MethodPost, Path: "/api/accounts",
		Summary:       "Invite somebody: an account, and the link to set its password",
		DefaultStatus: http.StatusCreated, Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body Invitation }) (*httpx.Output[accounts.Link], error) {
		return httpx.Answer(actions.Accounts.Invite(ctx, actor, in.Body.Login, in.Body.Name, in.Body.Role))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "reset-account", Metadata: httpx.AnswersSecret(), Method: http.MethodPost,
		Path: "/api/accounts/{id}/link", Summary: "A new link to set the password of an account",
		DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[accounts.Link], error) {
		return httpx.Answer(actions.Accounts.ResetAccount(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "change-account", Method: http.MethodPut, Path: "/api/accounts/{id}",
		Summary: "Change name or role of an account, or disable it; a disabled one's sessions end",
		Errors:  httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body struct {
			httpx.Versioned
			accounts.AccountInput
		}
	}) (*httpx.Output[accounts.AccountView], error) {
		account, err := actions.Accounts.ChangeAccount(ctx, actor, in.ID, in.Body.Version, in.Body.AccountInput)
		if err == nil && account.Disabled {
			err = s.endSessions(ctx, account.ID, false)
		}
		return httpx.Answer(account, err)
	})
	httpx.Register(api, nil, huma.Operation{
		OperationID: "check-link", Method: http.MethodPost, Path: "/api/welcome/check",
		Summary: "Whose password a link sets", Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, _ action.Actor, in *struct {
		Body struct {
			Token string `json:"token" maxLength:"100"`
		}
	}) (*httpx.Output[Welcomed], error) {
		account, err := actions.Accounts.CheckLink(ctx, in.Body.Token)
		return httpx.Answer(Welcomed{account.Login, account.Name}, err)
	})
	httpx.Register(api, nil, huma.Operation{
		OperationID: "take-link", Method: http.MethodPost, Path: "/api/welcome",
		Summary: "Set the password of a link's account, and sign in; its other sessions end",
		Errors:  httpx.ErrorsOfCreate,
	}, func(ctx context.Context, _ action.Actor, in *struct {
		httpx.Caller
		Body struct {
			Token    string `json:"token" maxLength:"100"`
			Password string `json:"password" maxLength:"200"`
		}
	}) (*sessionOutput, error) {
		account, err := actions.Accounts.TakeLink(ctx, in.Body.Token, in.Body.Password)
		if err != nil {
			return nil, err
		}
		if err := s.endSessions(ctx, account.ID, true); err != nil {
			return nil, err
		}
		return s.startSession(ctx, actions, account.ID, in.Caller)
	})
}
