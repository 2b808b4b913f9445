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

func registerKnown(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-known-assemblies", Method: http.MethodGet, Path: "/api/known-assemblies",
		Summary: "Cards, boards and other assemblies that are recognised", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Search string `query:"search" maxLength:"200"`
		After  int64  `query:"after" minimum:"0" doc:"What the page before gave as next"`
		Limit  int    `query:"limit" minimum:"1" maximum:"200" default:"100"`
	}) (*httpx.Output[library.KnownPage], error) {
		return httpx.Answer(actions.Library.KnownAssemblies(ctx, actor, in.Search, in.After, in.Limit))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-known-assembly", Method: http.MethodGet, Path: "/api/known-assemblies/{id}",
		Summary: "What is known of an assembly, and where it is", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[library.KnownDetail], error) {
		return httpx.Answer(actions.Condition.KnownAssembly(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "name-known-assembly", Method: http.MethodPost, Path: "/api/known-assemblies",
		Summary:       "Name an assembly; it is recognised at once wherever it is",
		DefaultStatus: http.StatusCreated, Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body library.KnownInput }) (*httpx.Output[library.KnownAssembly], error) {
		return httpx.Answer(actions.Library.NameKnown(ctx, actor, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-known-assembly", Method: http.MethodPut, Path: "/api/known-assemblies/{id}",
		Summary: "Change what is known of an assembly", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body struct {
			httpx.Versioned
			library.KnownInput
		}
	}) (*httpx.Output[library.KnownAssembly], error) {
		return httpx.Answer(actions.Library.ChangeKnown(ctx, actor, in.ID, in.Body.Version, in.Body.KnownInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "strike-known-assembly", Method: http.MethodDelete, Path: "/api/known-assemblies/{id}",
		Summary: "Take an assembly that was named by mistake out of what is recognised", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Library.StrikeKnown(ctx, actor, in.ID)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-recognised", Method: http.MethodGet, Path: "/api/assemblies/{id}/recognised",
		Summary: "What an assembly is known as", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[library.Recognised], error) {
		return httpx.Answer(actions.Condition.Recognised(ctx, actor, in.ID))
	})
}
