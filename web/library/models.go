package library

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/library"
	"frugalheron/web/httpx"
)

func registerModels(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-models", Method: http.MethodGet, Path: "/api/models", Summary: "Models of machines",
		Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Search string `query:"search" maxLength:"200"`
	}) (*httpx.Output[[]library.MachineModel], error) {
		return httpx.Answer(actions.Library.Models(ctx, actor, in.Search))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-model", Method: http.MethodPost, Path: "/api/models", Summary: "Add a model",
		DefaultStatus: http.StatusCreated, Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body library.ModelInput }) (*httpx.Output[library.MachineModel], error) {
		return httpx.Answer(actions.Library.AddModel(ctx, actor, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-model", Method: http.MethodPut, Path: "/api/models/{id}",
		Summary: "Change what is said of a model", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body struct {
			httpx.Versioned
			library.ModelInput
		}
	}) (*httpx.Output[library.MachineModel], error) {
		return httpx.Answer(actions.Library.ChangeModel(ctx, actor, in.ID, in.Body.Version, in.Body.ModelInput))
	})
}
