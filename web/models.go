package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/store/library"
)

func registerModels(api *API, deeds *app.App) {
	register(api, action.MayLook, huma.Operation{
		OperationID: "list-models", Method: http.MethodGet, Path: "/api/models", Summary: "Models of machines", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Search string `query:"search" maxLength:"200"`
	}) (*output[[]library.MachineModel], error) {
		return answer(deeds.Library.Models(ctx, actor, in.Search))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-model", Method: http.MethodPost, Path: "/api/models", Summary: "Add a model", DefaultStatus: http.StatusCreated, Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body library.ModelFields }) (*output[library.MachineModel], error) {
		return answer(deeds.Library.AddModel(ctx, actor, in.Body))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-model", Method: http.MethodPut, Path: "/api/models/{id}", Summary: "Change what is said of a model", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body struct {
			Versioned
			library.ModelFields
		}
	}) (*output[library.MachineModel], error) {
		return answer(deeds.Library.ChangeModel(ctx, actor, in.ID, in.Body.Version, in.Body.ModelFields))
	})
}
