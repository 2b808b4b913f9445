package library

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/bench"
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
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-model", Method: http.MethodGet, Path: "/api/models/{id}",
		Summary: "All that is known of a model", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[bench.ModelPage], error) {
		return httpx.Answer(actions.Bench.ModelPage(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "compare-models", Method: http.MethodGet, Path: "/api/models/{id}/beside-model/{other}",
		Summary: "A model beside another", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Other int64 `path:"other"`
	}) (*httpx.Output[bench.Compared], error) {
		return httpx.Answer(actions.Bench.ModelBesideModel(ctx, actor, in.ID, in.Other))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "compare-model-with-machine", Method: http.MethodGet,
		Path:    "/api/models/{id}/beside-machine/{other}",
		Summary: "A model beside a machine", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Other int64 `path:"other"`
	}) (*httpx.Output[bench.Compared], error) {
		return httpx.Answer(actions.Bench.ModelBesideMachine(ctx, actor, in.ID, in.Other))
	})
}
