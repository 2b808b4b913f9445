package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/library"
	storelibrary "frugalheron/store/library"
)

func registerLibrary(api *API, deeds *app.App) {
	register(api, action.MayLook, huma.Operation{
		OperationID: "search-library", Method: http.MethodGet, Path: "/api/library", Summary: "Types by the start of their number, own ones first",
		Description: "Without text it lists the collection's own types.", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Start string `query:"start" maxLength:"30"`
		Limit int    `query:"limit" minimum:"1" maximum:"200" default:"50"`
	}) (*output[[]library.LibraryType], error) {
		return answer(deeds.Library.SearchLibrary(ctx, actor, in.Start, in.Limit))
	})
	register(api, action.MayLook, huma.Operation{
		OperationID: "list-occurrences", Method: http.MethodGet, Path: "/api/library/occurrences", Summary: "Where a type occurs",
		Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Number string `query:"number" required:"true" minLength:"1" maxLength:"30"`
		Limit  int    `query:"limit" minimum:"1" maximum:"500" default:"200"`
	}) (*output[[]storelibrary.Occurrence], error) {
		return answer(deeds.Library.Occurrences(ctx, actor, in.Number, in.Limit))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "name-type", Method: http.MethodPost, Path: "/api/own-types", Summary: "Name a type; it is recognised on every sheet at once",
		DefaultStatus: http.StatusCreated, Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body storelibrary.OwnTypeFields }) (*output[library.NamedType], error) {
		return answer(deeds.Library.NameType(ctx, actor, in.Body))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-type", Method: http.MethodPut, Path: "/api/own-types/{id}", Summary: "Change an own type", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body struct {
			Versioned
			storelibrary.OwnTypeFields
		}
	}) (*output[library.NamedType], error) {
		return answer(deeds.Library.ChangeType(ctx, actor, in.ID, in.Body.Version, in.Body.OwnTypeFields))
	})
	register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "forget-type", Method: http.MethodDelete, Path: "/api/own-types/{id}", Summary: "Take an own type out of the library", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[Done], error) {
		event, err := deeds.Library.ForgetType(ctx, actor, in.ID)
		return answer(Done{event}, err)
	})
}
