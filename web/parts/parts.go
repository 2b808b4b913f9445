// Package parts has the operations about the stores: drawers, orders, and what of both is kept for jobs.
package parts

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/library"
	"frugalheron/app/parts"
	"frugalheron/app/work"
	"frugalheron/web/httpx"
)

// ChangedStock is what is written of a drawer, and the version that it started from.
type ChangedStock struct {
	httpx.Versioned
	parts.StockInput
}

// ChangedOrder is what was ordered, and the version that it started from.
type ChangedOrder struct {
	httpx.Versioned
	parts.OrderInput
}

// BookedArrival is what came, and the version of the order that it started from.
type BookedArrival struct {
	httpx.Versioned
	parts.ArrivalInput
}

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerStock(api, actions)
	registerOrders(api, actions)
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "get-needs", Method: http.MethodGet, Path: "/api/needs",
		Summary: "What all open jobs need: what is there, what is short, and what to order together",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[work.Needs], error) {
		return httpx.Answer(actions.Work.Needs(ctx, actor))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "list-donors", Method: http.MethodGet, Path: "/api/needs/donors",
		Summary: "Where a part of the library that a need names sits today",
		Errors:  []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Need string `query:"need" minLength:"1" maxLength:"300"`
	}) (*httpx.Output[[]library.Occurrence], error) {
		return httpx.Answer(actions.Work.Donors(ctx, actor, in.Need))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "set-aside", Method: http.MethodPost, Path: "/api/jobs/{id}/set-asides",
		Summary: "Keep a part of a drawer, or of an order, for a need of a job", DefaultStatus: http.StatusCreated,
		Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body parts.SetAsideInput
	}) (*httpx.Output[work.Job], error) {
		return httpx.Answer(actions.Work.SetAside(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "release", Method: http.MethodPost, Path: "/api/set-asides/{id}/release",
		Summary: "Give back what was set aside for a job", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[httpx.Done], error) {
		return httpx.Answer(httpx.Done{}, actions.Parts.ReleaseOne(ctx, actor, in.ID))
	})
}

func registerStock(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "list-stock", Method: http.MethodGet, Path: "/api/stock",
		Summary: "What lies in the stores", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Search string `query:"search" maxLength:"200" doc:"Words that must all occur in what is written of it, or where it is"`
		After  int64  `query:"after" minimum:"0" doc:"What next was in the page before"`
		Limit  int    `query:"limit" minimum:"1" maximum:"500" default:"100"`
	}) (*httpx.Output[parts.StockPage], error) {
		return httpx.Answer(actions.Parts.ListStock(ctx, actor, in.Search, in.After, in.Limit))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "list-stock-for-machine", Method: http.MethodGet, Path: "/api/machines/{id}/stock",
		Summary: "What lies in the stores for a machine: what came out of it, and what is for its model",
		Errors:  httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[[]parts.Stock], error) {
		return httpx.Answer(actions.Parts.ForMachine(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-stock", Method: http.MethodPost, Path: "/api/stock",
		Summary: "Put parts into the stores", DefaultStatus: http.StatusCreated,
		Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body parts.StockInput }) (*httpx.Output[parts.Stock], error) {
		return httpx.Answer(actions.Parts.AddStock(ctx, actor, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-stock", Method: http.MethodPut, Path: "/api/stock/{id}",
		Summary: "Rewrite what is written of a drawer, or count it anew", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedStock
	}) (*httpx.Output[parts.Stock], error) {
		return httpx.Answer(actions.Parts.ChangeStock(ctx, actor, in.ID, in.Body.Version, in.Body.StockInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-stock", Method: http.MethodPost, Path: "/api/stock/{id}/void",
		Summary: "Strike out a drawer that was entered by mistake", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Parts.VoidStock(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
}

func registerOrders(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "list-orders", Method: http.MethodGet, Path: "/api/orders",
		Summary: "Orders, those first of which something is to come",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]parts.Order], error) {
		return httpx.Answer(actions.Parts.Orders(ctx, actor))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-order", Method: http.MethodPost, Path: "/api/orders",
		Summary: "Write down what was ordered", DefaultStatus: http.StatusCreated,
		Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body parts.OrderInput }) (*httpx.Output[parts.Order], error) {
		return httpx.Answer(actions.Parts.AddOrder(ctx, actor, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-order", Method: http.MethodPut, Path: "/api/orders/{id}",
		Summary: "Rewrite what was ordered", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedOrder
	}) (*httpx.Output[parts.Order], error) {
		return httpx.Answer(actions.Parts.ChangeOrder(ctx, actor, in.ID, in.Body.Version, in.Body.OrderInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "book-arrival", Method: http.MethodPost, Path: "/api/orders/{id}/arrivals",
		Summary: "Book what arrived of an order: it goes into the stores, for the jobs that wait for it",
		Errors:  httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body BookedArrival
	}) (*httpx.Output[parts.Order], error) {
		return httpx.Answer(actions.Parts.BookArrival(ctx, actor, in.ID, in.Body.Version, in.Body.ArrivalInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-order", Method: http.MethodPost, Path: "/api/orders/{id}/void",
		Summary: "Strike out an order that was written down by mistake", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Parts.VoidOrder(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
}
