package bench

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/web/httpx"
)

func registerExport(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "export-sheets", Method: http.MethodGet, Path: "/api/machines/{id}/sheets.txt",
		Summary: "All sheets of a machine as one text", Errors: httpx.ErrorsOfRead,
		Description: "Taking the text over into a machine gives the same boards.",
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.File, error) {
		return httpx.MadeFile(actions.Bench.ExportSheets(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "export-entries", Method: http.MethodGet, Path: "/api/machines/{id}/entries.csv",
		Summary: "What stands on all sheets of a machine as CSV", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.File, error) {
		return httpx.MadeFile(actions.Bench.ExportEntries(ctx, actor, in.ID))
	})
}
