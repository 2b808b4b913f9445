package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/dating"
)

func registerDating(api *API, deeds *app.App) {
	register(api, action.MayLook, huma.Operation{
		OperationID: "date-machine", Method: http.MethodGet, Path: "/api/machines/{id}/dating", Summary: "When a machine was built, and what of it is original", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[dating.DatedMachine], error) {
		return answer(deeds.Dating.Dating(ctx, actor, in.ID))
	})
}
