// Package sharing has the operations about peripherals that serve machines.
package sharing

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/sharing"
	"frugalheron/web/httpx"
)

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-peripherals", Method: http.MethodGet, Path: "/api/machines/{id}/peripherals",
		Summary: "What serves a machine without being fitted in it, and what stops without", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[[]sharing.Serving], error) {
		return httpx.Answer(actions.Sharing.Serving(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-served", Method: http.MethodGet, Path: "/api/assemblies/{id}/serves",
		Summary: "The machines that a peripheral serves", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[[]sharing.Serving], error) {
		return httpx.Answer(actions.Sharing.ServedBy(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "serve", Method: http.MethodPost, Path: "/api/assemblies/{id}/serves",
		Summary: "Say that a peripheral serves a machine", DefaultStatus: http.StatusCreated,
		Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body sharing.ServiceInput
	}) (*httpx.Output[sharing.Serving], error) {
		return httpx.Answer(actions.Sharing.Serve(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "end-service", Method: http.MethodPost, Path: "/api/serves/{id}/end",
		Summary: "Say that a peripheral serves a machine no more", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Sharing.EndService(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
}
