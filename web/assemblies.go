package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/store"
)

func (s *Server) registerAssemblies() {
	register(s, app.MayLook, huma.Operation{
		OperationID: "list-assemblies", Method: http.MethodGet, Path: "/api/machines/{id}/assemblies",
		Summary: "What is fitted in a machine today, with sheets", Errors: errorsOfRead,
	}, func(ctx context.Context, actor app.Actor, in *ByID) (*output[[]app.FittedAssembly], error) {
		return answer(s.app.Contents(ctx, actor, in.ID))
	})
	register(s, app.MayWriteSheets, huma.Operation{
		OperationID: "add-assembly", Method: http.MethodPost, Path: "/api/machines/{id}/assemblies", Summary: "Add a board to a machine",
		DefaultStatus: http.StatusCreated, Errors: errorsOfCreate,
	}, func(ctx context.Context, actor app.Actor, in *struct {
		ByID
		Body store.AssemblyFields
	}) (*output[store.Assembly], error) {
		return answer(s.app.AddAssembly(ctx, actor, in.ID, in.Body))
	})
	register(s, app.MayWriteSheets, huma.Operation{
		OperationID: "take-over-sheet", Method: http.MethodPost, Path: "/api/machines/{id}/sheets", Summary: "Add a board for each heading of a text",
		DefaultStatus: http.StatusCreated, Errors: errorsOfCreate, MaxBodyBytes: sheetBodyLimit,
	}, func(ctx context.Context, actor app.Actor, in *struct {
		ByID
		Body struct {
			Text string `json:"text" doc:"Sheet with headings, at most 1 MiB"`
		}
	}) (*output[[]store.Assembly], error) {
		return answer(s.app.TakeOverSheet(ctx, actor, in.ID, in.Body.Text))
	})
	register(s, app.MayLook, huma.Operation{
		OperationID: "get-assembly", Method: http.MethodGet, Path: "/api/assemblies/{id}", Summary: "Read an assembly", Errors: errorsOfRead,
	}, func(ctx context.Context, actor app.Actor, in *ByID) (*output[store.Assembly], error) {
		return answer(s.app.Assembly(ctx, actor, in.ID))
	})
	register(s, app.MayWriteSheets, huma.Operation{
		OperationID: "change-assembly", Method: http.MethodPut, Path: "/api/assemblies/{id}", Summary: "Change what is said of an assembly",
		Errors: errorsOfChange,
	}, func(ctx context.Context, actor app.Actor, in *struct {
		ByID
		Body struct {
			Versioned
			store.AssemblyFields
		}
	}) (*output[store.Assembly], error) {
		return answer(s.app.ChangeAssembly(ctx, actor, in.ID, in.Body.Version, in.Body.AssemblyFields))
	})
	register(s, app.MayLook, huma.Operation{
		OperationID: "list-fittings", Method: http.MethodGet, Path: "/api/assemblies/{id}/fittings", Summary: "Where an assembly is and was", Errors: errorsOfRead,
	}, func(ctx context.Context, actor app.Actor, in *ByID) (*output[[]store.Fitting], error) {
		return answer(s.app.Fittings(ctx, actor, in.ID))
	})
}
