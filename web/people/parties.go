package people

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/people"
	"frugalheron/web/httpx"
)

func registerParties(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "list-parties", Method: http.MethodGet, Path: "/api/parties",
		Summary: "People and organisations by words of their names",
		Errors:  []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Words string `query:"words" maxLength:"200"`
	}) (*httpx.Output[[]people.Party], error) {
		return httpx.Answer(actions.People.Parties(ctx, actor, in.Words))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "add-party", Method: http.MethodPost, Path: "/api/parties",
		Summary:       "Add a person or an organisation",
		DefaultStatus: http.StatusCreated, Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body people.PartyInput }) (*httpx.Output[people.Party], error) {
		return httpx.Answer(actions.People.AddParty(ctx, actor, in.Body))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "change-party", Method: http.MethodPut, Path: "/api/parties/{id}",
		Summary: "Change what is said of a person or an organisation", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body struct {
			httpx.Versioned
			people.PartyInput
		}
	}) (*httpx.Output[people.Party], error) {
		return httpx.Answer(actions.People.ChangeParty(ctx, actor, in.ID, in.Body.Version, in.Body.PartyInput))
	})
}
