package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/sheets"
	storeinventory "frugalheron/store/inventory"
)

// WantedMove is a move, and the version of the assembly that it started from.
type WantedMove struct {
	Versioned
	inventory.Move
}

// LooseFields are what people write about an assembly that is in no machine.
type LooseFields struct {
	Place string `json:"place" maxLength:"200" doc:"Where it is"`
	storeinventory.AssemblyFields
}

func registerAssemblies(api *API, deeds *app.App) {
	register(api, action.MayLook, huma.Operation{
		OperationID: "list-assemblies", Method: http.MethodGet, Path: "/api/machines/{id}/assemblies",
		Summary: "What is fitted in a machine today, with sheets", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[[]sheets.FittedAssembly], error) {
		return answer(deeds.Sheets.Contents(ctx, actor, in.ID))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-assembly", Method: http.MethodPost, Path: "/api/machines/{id}/assemblies", Summary: "Add a board to a machine",
		DefaultStatus: http.StatusCreated, Errors: errorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body storeinventory.AssemblyFields
	}) (*output[storeinventory.Assembly], error) {
		return answer(deeds.Inventory.AddAssembly(ctx, actor, in.ID, in.Body))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "take-over-sheet", Method: http.MethodPost, Path: "/api/machines/{id}/sheets", Summary: "Add a board for each heading of a text",
		DefaultStatus: http.StatusCreated, Errors: errorsOfCreate, MaxBodyBytes: sheetBodyLimit,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body struct {
			Text string `json:"text" doc:"Sheet with headings, at most 1 MiB"`
		}
	}) (*output[[]storeinventory.Assembly], error) {
		return answer(deeds.Sheets.TakeOverSheet(ctx, actor, in.ID, in.Body.Text))
	})
	register(api, action.MayLook, huma.Operation{
		OperationID: "get-assembly", Method: http.MethodGet, Path: "/api/assemblies/{id}", Summary: "Read an assembly with its sheet", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[sheets.FittedAssembly], error) {
		return answer(deeds.Sheets.AssemblyWithSheet(ctx, actor, in.ID))
	})
	register(api, action.MayLook, huma.Operation{
		OperationID: "list-loose-assemblies", Method: http.MethodGet, Path: "/api/assemblies", Summary: "Assemblies that are in no machine: in store, or lent",
		Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Search string `query:"search" maxLength:"200" doc:"Words that must all occur in what is said of it or of where it is"`
		After  int64  `query:"after" minimum:"0" doc:"What next was in the page before"`
		Limit  int    `query:"limit" minimum:"1" maximum:"200" default:"50"`
	}) (*output[inventory.LoosePage], error) {
		return answer(deeds.Inventory.ListLoose(ctx, actor, in.Search, in.After, in.Limit))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-loose-assembly", Method: http.MethodPost, Path: "/api/assemblies", Summary: "Add an assembly that is in no machine",
		DefaultStatus: http.StatusCreated, Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body LooseFields }) (*output[storeinventory.Assembly], error) {
		return answer(deeds.Inventory.AddLooseAssembly(ctx, actor, in.Body.Place, in.Body.AssemblyFields))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "move-assembly", Method: http.MethodPost, Path: "/api/assemblies/{id}/moves", Summary: "Move an assembly to a machine or a place, or lend it",
		Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body WantedMove
	}) (*output[inventory.Moved], error) {
		return answer(deeds.Inventory.MoveAssembly(ctx, actor, in.ID, in.Body.Version, in.Body.Move))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "strike-assembly", Method: http.MethodPost, Path: "/api/assemblies/{id}/strike", Summary: "Strike out an assembly that was entered by mistake",
		Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body Versioned
	}) (*output[inventory.Moved], error) {
		return answer(deeds.Inventory.StrikeAssembly(ctx, actor, in.ID, in.Body.Version))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-assembly", Method: http.MethodPut, Path: "/api/assemblies/{id}", Summary: "Change what is said of an assembly",
		Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body struct {
			Versioned
			storeinventory.AssemblyFields
		}
	}) (*output[storeinventory.Assembly], error) {
		return answer(deeds.Inventory.ChangeAssembly(ctx, actor, in.ID, in.Body.Version, in.Body.AssemblyFields))
	})
	register(api, action.MayLook, huma.Operation{
		OperationID: "list-fittings", Method: http.MethodGet, Path: "/api/assemblies/{id}/fittings", Summary: "Where an assembly is and was", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[[]storeinventory.Fitting], error) {
		return answer(deeds.Inventory.Fittings(ctx, actor, in.ID))
	})
}
