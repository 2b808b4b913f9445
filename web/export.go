package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
)

func registerExport(api *API, deeds *app.App) {
	register(api, action.MayLook, huma.Operation{
		OperationID: "export-sheets", Method: http.MethodGet, Path: "/api/machines/{id}/sheets.txt", Summary: "All sheets of a machine as one text", Errors: errorsOfRead,
		Description: "Taking the text over into a machine gives the same boards.",
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*file, error) {
		return madeFile(deeds.Bench.ExportSheets(ctx, actor, in.ID))
	})
	register(api, action.MayLook, huma.Operation{
		OperationID: "export-entries", Method: http.MethodGet, Path: "/api/machines/{id}/entries.csv", Summary: "What stands on all sheets of a machine as CSV", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*file, error) {
		return madeFile(deeds.Bench.ExportEntries(ctx, actor, in.ID))
	})
}
