package history

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/history"
	"frugalheron/app/sheets"
	"frugalheron/web/httpx"
)

// HistoryPage asks for a page of the history.
type HistoryPage struct {
	Before int64 `query:"before" minimum:"0" doc:"Only events below this id; 0 for the newest"`
	Limit  int   `query:"limit" minimum:"1" maximum:"200" default:"50"`
}

func registerHistory(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-history", Method: http.MethodGet, Path: "/api/history",
		Summary: "Who did what when, in the whole collection",
		Errors:  []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *HistoryPage) (*httpx.Output[history.EventPage], error) {
		return httpx.Answer(actions.History.History(ctx, actor, 0, in.Before, in.Limit))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-machine-history", Method: http.MethodGet, Path: "/api/machines/{id}/history",
		Summary: "Who did what when to a machine and its assemblies",
		Errors:  httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		HistoryPage
	}) (*httpx.Output[history.EventPage], error) {
		return httpx.Answer(actions.History.History(ctx, actor, in.ID, in.Before, in.Limit))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-assembly-history", Method: http.MethodGet, Path: "/api/assemblies/{id}/history",
		Summary: "Who did what when to an assembly, wherever it was",
		Errors:  httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		HistoryPage
	}) (*httpx.Output[history.EventPage], error) {
		return httpx.Answer(actions.History.AssemblyHistory(ctx, actor, in.ID, in.Before, in.Limit))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-lot-history", Method: http.MethodGet, Path: "/api/lots/{id}/history",
		Summary: "Who did what when to an arrival and its things",
		Errors:  httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		HistoryPage
	}) (*httpx.Output[history.EventPage], error) {
		return httpx.Answer(actions.History.LotHistory(ctx, actor, in.ID, in.Before, in.Limit))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "undo", Method: http.MethodPost, Path: "/api/history/{id}/undo",
		Summary:     "Take back what an event did",
		Description: "Only roles that may do the action may take it back, and only while nothing was done to the same record since.",
		Errors:      httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*struct{}, error) {
		return nil, actions.History.Undo(ctx, actor, in.ID)
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "compare-revisions", Method: http.MethodGet, Path: "/api/assemblies/{id}/difference",
		Summary: "How a sheet changed from one revision to another",
		Errors:  httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		From int `query:"from" minimum:"0" doc:"Older revision; 0 for the empty sheet before the first"`
		To   int `query:"to" minimum:"1" required:"true" doc:"Newer revision"`
	}) (*httpx.Output[sheets.Difference], error) {
		return httpx.Answer(actions.Sheets.SheetDifference(ctx, actor, in.ID, in.From, in.To))
	})
}
