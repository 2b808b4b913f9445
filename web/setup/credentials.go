package setup

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/setup"
	"frugalheron/web/httpx"
)

// NewCredential is a credential with its secret.
type NewCredential struct {
	setup.CredentialInput
	Secret string `json:"secret" maxLength:"2000" doc:"What is typed"`
}

// ChangedCredential is a credential, and the version that the change started from.
type ChangedCredential struct {
	httpx.Versioned
	setup.CredentialInput
	Secret *string `json:"secret,omitempty" maxLength:"2000" doc:"Another one; left out where it stays"`
}

func registerCredentials(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "list-credentials", Method: http.MethodGet, Path: "/api/machines/{id}/credentials",
		Summary: "What one signs on to a machine with, without the secrets", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[setup.Credentials], error) {
		return httpx.Answer(actions.Setup.Credentials(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "put-credential-away", Method: http.MethodPost, Path: "/api/machines/{id}/credentials",
		Summary: "Keep a credential", DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfCreate,
		Metadata: httpx.AnswersSecret(),
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body NewCredential
	}) (*httpx.Output[setup.Credential], error) {
		return httpx.Answer(actions.Setup.PutAway(ctx, actor, in.ID, in.Body.CredentialInput, in.Body.Secret))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "change-credential", Method: http.MethodPut, Path: "/api/credentials/{id}",
		Summary: "Rewrite a credential", Errors: httpx.ErrorsOfChange, Metadata: httpx.AnswersSecret(),
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedCredential
	}) (*httpx.Output[setup.Credential], error) {
		return httpx.Answer(actions.Setup.ChangeCredential(ctx, actor, in.ID, in.Body.Version, in.Body.CredentialInput,
			in.Body.Secret))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "see-credential", Method: http.MethodPost, Path: "/api/credentials/{id}/see",
		Summary: "Look at the secret of a credential; the history keeps who did", Errors: httpx.ErrorsOfChange,
		Metadata: httpx.AnswersSecret(),
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[setup.Secret], error) {
		return httpx.Answer(actions.Setup.See(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "void-credential", Method: http.MethodPost, Path: "/api/credentials/{id}/void",
		Summary: "Strike a credential out", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Setup.VoidCredential(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
}
