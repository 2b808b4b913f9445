package dating

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/dating"
	"frugalheron/web/httpx"
)

func registerDating(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "date-machine", Method: http.MethodGet, Path: "/api/machines/{id}/dating",
		Summary: "When a machine was built, and what of it is original", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[dating.DatedMachine], error) {
		return httpx.Answer(actions.Dating.Dating(ctx, actor, in.ID))
	})
}
