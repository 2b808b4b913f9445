// Package signs has the operations about what machines show.
package signs

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/signs"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-signs", Method: http.MethodGet, Path: "/api/machines/{id}/signs",
		Summary: "What a machine shows: what is listed, what should be shown, and what was seen",
		Errors:  httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[signs.Signs], error) {
		return httpx.Answer(actions.Signs.Signs(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "read-sign", Metadata: httpx.AsksOnly(), Method: http.MethodPost, Path: "/api/machines/{id}/signs/read",
		Summary: "What something that was seen amounts to; nothing is kept", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body signs.SightingInput
	}) (*httpx.Output[signs.SignReading], error) {
		return httpx.Answer(actions.Signs.ReadSign(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "see-sign", Method: http.MethodPost, Path: "/api/machines/{id}/sightings",
		Summary: "Keep what a machine showed", DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body signs.SightingInput
	}) (*httpx.Output[signs.SignSeen], error) {
		return httpx.Answer(actions.Signs.SeeSign(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-sighting", Method: http.MethodPost, Path: "/api/sightings/{id}/void",
		Summary: "Strike out what was entered by mistake", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Signs.VoidSighting(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-signs", Method: http.MethodGet, Path: "/api/signs",
		Summary: "What models and cards are known to show", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Search string `query:"search" maxLength:"200"`
	}) (*httpx.Output[[]signs.SignList], error) {
		return httpx.Answer(actions.Signs.SignLists(ctx, actor, in.Search))
	})
}
