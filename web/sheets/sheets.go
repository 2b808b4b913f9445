package sheets

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/sheets"
	"frugalheron/web/httpx"
)

// SheetText is a sheet as it was written, and on top of which revision.
type SheetText struct {
	Base int    `json:"base" minimum:"0" doc:"Revision that the text was written on; 0 for the first"`
	Body string `json:"body" doc:"Text of the sheet without heading, at most 1 MiB"`
}

func registerSheets(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-sheet", Method: http.MethodGet, Path: "/api/assemblies/{id}/sheet",
		Summary: "Newest revision of an assembly's sheet", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[sheets.Revision], error) {
		return httpx.Answer(actions.Sheets.Sheet(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "save-sheet", Method: http.MethodPut, Path: "/api/assemblies/{id}/sheet",
		Summary:      "Keep a new revision of a sheet",
		Description:  "Refused with 409 and the newer revision when somebody saved another since base.",
		MaxBodyBytes: httpx.SheetBodyLimit, Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body SheetText
	}) (*httpx.Output[sheets.Revision], error) {
		return httpx.Answer(actions.Sheets.SaveSheet(ctx, actor, in.ID, in.Body.Base, in.Body.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "merge-sheet", Metadata: httpx.AsksOnly(), Method: http.MethodPost,
		Path:         "/api/assemblies/{id}/merge",
		Summary:      "Merge a text with the revision that somebody else saved meanwhile",
		Description:  "Nothing is kept: the merged text is saved like any other.",
		MaxBodyBytes: httpx.SheetBodyLimit, Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body SheetText
	}) (*httpx.Output[sheets.Merged], error) {
		return httpx.Answer(actions.Sheets.MergeSheet(ctx, actor, in.ID, in.Body.Base, in.Body.Body))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-revisions", Method: http.MethodGet, Path: "/api/assemblies/{id}/revisions",
		Summary: "Revisions of a sheet, the newest first", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Before int `query:"before" minimum:"0" doc:"Only revisions below this number"`
		Limit  int `query:"limit" minimum:"1" maximum:"100" default:"20"`
	}) (*httpx.Output[[]sheets.Revision], error) {
		return httpx.Answer(actions.Sheets.Revisions(ctx, actor, in.ID, in.Before, in.Limit))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-positions", Method: http.MethodGet, Path: "/api/assemblies/{id}/positions",
		Summary: "Sockets and parts of an assembly that were ever written down", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		After int64 `query:"after" minimum:"0" doc:"Only positions with a higher id"`
		Limit int   `query:"limit" minimum:"1" maximum:"1000" default:"200"`
	}) (*httpx.Output[[]sheets.Position], error) {
		return httpx.Answer(actions.Sheets.Positions(ctx, actor, in.ID, in.After, in.Limit))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-occupants", Method: http.MethodGet, Path: "/api/assemblies/{id}/occupants",
		Summary: "Positions of an assembly where one part came after another", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[[]sheets.ChangedPosition], error) {
		return httpx.Answer(actions.Sheets.ChangedPositions(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-entries", Method: http.MethodGet, Path: "/api/assemblies/{id}/entries",
		Summary: "Entries of the newest sheet", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		After int `query:"after" minimum:"0" doc:"Only entries below this line"`
		Limit int `query:"limit" minimum:"1" maximum:"1000" default:"200"`
	}) (*httpx.Output[[]sheets.Entry], error) {
		return httpx.Answer(actions.Sheets.Entries(ctx, actor, in.ID, in.After, in.Limit))
	})
}
