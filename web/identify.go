package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/store"
)

func (s *Server) registerIdentify() {
	register(s, app.MayLook, huma.Operation{
		OperationID: "date-machine", Method: http.MethodGet, Path: "/api/machines/{id}/dating", Summary: "When a machine was built, and what of it is original", Errors: errorsOfRead,
	}, func(ctx context.Context, actor app.Actor, in *ByID) (*output[app.DatedMachine], error) {
		return answer(s.app.Dating(ctx, actor, in.ID))
	})
	register(s, app.MayLook, huma.Operation{
		OperationID: "list-models", Method: http.MethodGet, Path: "/api/models", Summary: "Models of machines", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor app.Actor, in *struct {
		Search string `query:"search" maxLength:"200"`
	}) (*output[[]store.MachineModel], error) {
		return answer(s.app.Models(ctx, actor, in.Search))
	})
	register(s, app.MayWriteSheets, huma.Operation{
		OperationID: "add-model", Method: http.MethodPost, Path: "/api/models", Summary: "Add a model", DefaultStatus: http.StatusCreated, Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor app.Actor, in *struct{ Body store.ModelFields }) (*output[store.MachineModel], error) {
		return answer(s.app.AddModel(ctx, actor, in.Body))
	})
	register(s, app.MayWriteSheets, huma.Operation{
		OperationID: "change-model", Method: http.MethodPut, Path: "/api/models/{id}", Summary: "Change what is said of a model", Errors: errorsOfChange,
	}, func(ctx context.Context, actor app.Actor, in *struct {
		ByID
		Body struct {
			Versioned
			store.ModelFields
		}
	}) (*output[store.MachineModel], error) {
		return answer(s.app.ChangeModel(ctx, actor, in.ID, in.Body.Version, in.Body.ModelFields))
	})
}
