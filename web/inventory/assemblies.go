package inventory

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/sheets"
	"frugalheron/web/httpx"
)

// MoveInput is a move, and the version of the assembly that it started from.
type MoveInput struct {
	httpx.Versioned
	inventory.Move
}

// PastFittingInput says in which machine an assembly was, and the version that it started from.
type PastFittingInput struct {
	httpx.Versioned
	inventory.PastFitting
}

// LooseInput is what people write about an assembly that is in no machine.
type LooseInput struct {
	Place string `json:"place" maxLength:"200" doc:"Where it is"`
	inventory.AssemblyInput
}

func registerAssemblies(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-assemblies", Method: http.MethodGet, Path: "/api/machines/{id}/assemblies",
		Summary: "What is fitted in a machine today, with sheets", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[[]sheets.FittedAssembly], error) {
		return httpx.Answer(actions.Sheets.Contents(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-assembly", Method: http.MethodPost, Path: "/api/machines/{id}/assemblies",
		Summary:       "Add a board to a machine",
		DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body inventory.AssemblyInput
	}) (*httpx.Output[inventory.Assembly], error) {
		return httpx.Answer(actions.Inventory.AddAssembly(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "take-over-sheet", Method: http.MethodPost, Path: "/api/machines/{id}/sheets",
		Summary:       "Add a board for each heading of a text",
		DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfCreate, MaxBodyBytes: httpx.SheetBodyLimit,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body struct {
			Text string `json:"text" doc:"Sheet with headings, at most 1 MiB"`
		}
	}) (*httpx.Output[[]inventory.Assembly], error) {
		return httpx.Answer(actions.Sheets.TakeOverSheet(ctx, actor, in.ID, in.Body.Text))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-assembly", Method: http.MethodGet, Path: "/api/assemblies/{id}",
		Summary: "Read an assembly with its sheet", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[sheets.FittedAssembly], error) {
		return httpx.Answer(actions.Sheets.AssemblyWithSheet(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-loose-assemblies", Method: http.MethodGet, Path: "/api/assemblies",
		Summary: "Assemblies that are in no machine: in store, or lent",
		Errors:  []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Search string `query:"search" maxLength:"200" doc:"Words that must all occur in what is said of it or of where it is"`
		After  int64  `query:"after" minimum:"0" doc:"What next was in the page before"`
		Limit  int    `query:"limit" minimum:"1" maximum:"200" default:"50"`
	}) (*httpx.Output[inventory.LoosePage], error) {
		return httpx.Answer(actions.Inventory.ListLoose(ctx, actor, in.Search, in.After, in.Limit))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-loose-assembly", Method: http.MethodPost, Path: "/api/assemblies",
		Summary:       "Add an assembly that is in no machine",
		DefaultStatus: http.StatusCreated, Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body LooseInput }) (*httpx.Output[inventory.Assembly], error) {
		return httpx.Answer(actions.Inventory.AddLooseAssembly(ctx, actor, in.Body.Place, in.Body.AssemblyInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "move-assembly", Method: http.MethodPost, Path: "/api/assemblies/{id}/moves",
		Summary: "Move an assembly to a machine or a place, or lend it",
		Errors:  httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body MoveInput
	}) (*httpx.Output[inventory.Moved], error) {
		return httpx.Answer(actions.Inventory.MoveAssembly(ctx, actor, in.ID, in.Body.Version, in.Body.Move))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "tell-past-fitting", Method: http.MethodPost, Path: "/api/assemblies/{id}/past-fittings",
		Summary: "Note that an assembly was in a machine before", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body PastFittingInput
	}) (*httpx.Output[inventory.Moved], error) {
		return httpx.Answer(actions.Inventory.TellPastFitting(ctx, actor, in.ID, in.Body.Version, in.Body.PastFitting))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-past-boards", Method: http.MethodGet, Path: "/api/machines/{id}/past-boards",
		Summary: "What was in a machine and is not any more", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[[]inventory.PastBoard], error) {
		return httpx.Answer(actions.Inventory.PastBoards(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-assembly", Method: http.MethodPost, Path: "/api/assemblies/{id}/void",
		Summary: "Strike out an assembly that was entered by mistake",
		Errors:  httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body httpx.Versioned
	}) (*httpx.Output[inventory.Moved], error) {
		return httpx.Answer(actions.Inventory.VoidAssembly(ctx, actor, in.ID, in.Body.Version))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-assembly", Method: http.MethodPut, Path: "/api/assemblies/{id}",
		Summary: "Change what is said of an assembly",
		Errors:  httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body struct {
			httpx.Versioned
			inventory.AssemblyInput
		}
	}) (*httpx.Output[inventory.Assembly], error) {
		return httpx.Answer(actions.Inventory.ChangeAssembly(ctx, actor, in.ID, in.Body.Version,
			in.Body.AssemblyInput))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-fittings", Method: http.MethodGet, Path: "/api/assemblies/{id}/fittings",
		Summary: "Where an assembly is and was", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[[]inventory.Fitting], error) {
		return httpx.Answer(actions.Inventory.Fittings(ctx, actor, in.ID))
	})
}
