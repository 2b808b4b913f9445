package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/sheets"
	"frugalheron/core/sheet"
	storesheets "frugalheron/store/sheets"
)

// sheetBodyLimit lets a sheet of 1 MiB through in JSON, where a character may take six bytes.
const sheetBodyLimit = 6*sheet.MaxBytes + 4096

// SheetText is a sheet as it was written, and on top of which revision.
type SheetText struct {
	Base int    `json:"base" minimum:"0" doc:"Revision that the text was written on; 0 for the first"`
	Body string `json:"body" doc:"Text of the sheet without heading, at most 1 MiB"`
}

func registerSheets(api *API, deeds *app.App) {
	register(api, action.MayLook, huma.Operation{
		OperationID: "get-sheet", Method: http.MethodGet, Path: "/api/assemblies/{id}/sheet", Summary: "Newest revision of an assembly's sheet", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[storesheets.Revision], error) {
		return answer(deeds.Sheets.Sheet(ctx, actor, in.ID))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "save-sheet", Method: http.MethodPut, Path: "/api/assemblies/{id}/sheet", Summary: "Keep a new revision of a sheet",
		Description:  "Refused with 409 and the newer revision when somebody saved another since base.",
		MaxBodyBytes: sheetBodyLimit, Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body SheetText
	}) (*output[storesheets.Revision], error) {
		return answer(deeds.Sheets.SaveSheet(ctx, actor, in.ID, in.Body.Base, in.Body.Body))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "merge-sheet", Metadata: asksOnly(), Method: http.MethodPost, Path: "/api/assemblies/{id}/merge", Summary: "Merge a text with the revision that somebody else saved meanwhile",
		Description:  "Nothing is kept: the merged text is saved like any other.",
		MaxBodyBytes: sheetBodyLimit, Errors: errorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body SheetText
	}) (*output[sheets.Merged], error) {
		return answer(deeds.Sheets.MergeSheet(ctx, actor, in.ID, in.Body.Base, in.Body.Body))
	})
	register(api, action.MayLook, huma.Operation{
		OperationID: "list-revisions", Method: http.MethodGet, Path: "/api/assemblies/{id}/revisions", Summary: "Revisions of a sheet, the newest first", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Before int `query:"before" minimum:"0" doc:"Only revisions below this number"`
		Limit  int `query:"limit" minimum:"1" maximum:"100" default:"20"`
	}) (*output[[]storesheets.Revision], error) {
		return answer(deeds.Sheets.Revisions(ctx, actor, in.ID, in.Before, in.Limit))
	})
	register(api, action.MayLook, huma.Operation{
		OperationID: "list-positions", Method: http.MethodGet, Path: "/api/assemblies/{id}/positions", Summary: "Sockets and parts of an assembly that were ever written down", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		After int64 `query:"after" minimum:"0" doc:"Only positions with a higher id"`
		Limit int   `query:"limit" minimum:"1" maximum:"1000" default:"200"`
	}) (*output[[]storesheets.Position], error) {
		return answer(deeds.Sheets.Positions(ctx, actor, in.ID, in.After, in.Limit))
	})
	register(api, action.MayLook, huma.Operation{
		OperationID: "list-entries", Method: http.MethodGet, Path: "/api/assemblies/{id}/entries", Summary: "Entries of the newest sheet", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		After int `query:"after" minimum:"0" doc:"Only entries below this line"`
		Limit int `query:"limit" minimum:"1" maximum:"1000" default:"200"`
	}) (*output[[]storesheets.EntryRow], error) {
		return answer(deeds.Sheets.Entries(ctx, actor, in.ID, in.After, in.Limit))
	})
}
