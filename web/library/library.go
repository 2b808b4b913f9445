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

func registerLibrary(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "search-library", Method: http.MethodGet, Path: "/api/library",
		Summary:     "Types by the start of their number, own ones first",
		Description: "Without text it lists the collection's own types.", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Start string `query:"start" maxLength:"30"`
		Limit int    `query:"limit" minimum:"1" maximum:"200" default:"50"`
	}) (*httpx.Output[[]library.LibraryType], error) {
		return httpx.Answer(actions.Library.SearchLibrary(ctx, actor, in.Start, in.Limit))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-occurrences", Method: http.MethodGet, Path: "/api/library/occurrences",
		Summary: "Where a type occurs",
		Errors:  []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Number string `query:"number" required:"true" minLength:"1" maxLength:"30"`
		Limit  int    `query:"limit" minimum:"1" maximum:"5000" default:"200"`
	}) (*httpx.Output[[]library.Occurrence], error) {
		return httpx.Answer(actions.Library.Occurrences(ctx, actor, in.Number, in.Limit))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "name-type", Method: http.MethodPost, Path: "/api/own-types",
		Summary:       "Name a type; it is recognised on every sheet at once",
		DefaultStatus: http.StatusCreated, Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body library.OwnTypeInput }) (*httpx.Output[library.NamedType], error) {
		return httpx.Answer(actions.Library.NameType(ctx, actor, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-type", Method: http.MethodPut, Path: "/api/own-types/{id}", Summary: "Change an own type",
		Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body struct {
			httpx.Versioned
			library.OwnTypeInput
		}
	}) (*httpx.Output[library.NamedType], error) {
		return httpx.Answer(actions.Library.ChangeType(ctx, actor, in.ID, in.Body.Version, in.Body.OwnTypeInput))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "forget-type", Method: http.MethodDelete, Path: "/api/own-types/{id}",
		Summary: "Take an own type out of the library", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Library.ForgetType(ctx, actor, in.ID)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
}
