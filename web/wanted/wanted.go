// Package wanted has the operations about what is looked for, and what is offered before it is bought.
package wanted

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/wanted"
	"frugalheron/web/httpx"
)

// ChangedWant is what is looked for, and the version that it started from.
type ChangedWant struct {
	httpx.Versioned
	wanted.WantInput
}

// ChangedOffer is what is offered, and the version that it started from.
type ChangedOffer struct {
	httpx.Versioned
	wanted.OfferInput
}

// BoughtOffer is that an offer was taken, and the version that it started from.
type BoughtOffer struct {
	httpx.Versioned
	wanted.TakenOffer
}

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "list-wants", Method: http.MethodGet, Path: "/api/wants",
		Summary: "What is looked for, what is open first",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]wanted.Want], error) {
		return httpx.Answer(actions.Wanted.Wants(ctx, actor))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-want", Method: http.MethodPost, Path: "/api/wants",
		Summary:       "Keep something that is looked for",
		DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body wanted.WantInput }) (*httpx.Output[wanted.Want],
		error) {
		return httpx.Answer(actions.Wanted.AddWant(ctx, actor, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-want", Method: http.MethodPut, Path: "/api/wants/{id}",
		Summary: "Rewrite something that is looked for, found, or given up", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedWant
	}) (*httpx.Output[wanted.Want], error) {
		return httpx.Answer(actions.Wanted.ChangeWant(ctx, actor, in.ID, in.Body.Version, in.Body.WantInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-want", Method: http.MethodPost, Path: "/api/wants/{id}/void",
		Summary: "Strike out what was entered by mistake", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Wanted.VoidWant(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
	registerOffers(api, actions)
}

func registerOffers(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "list-offers", Method: http.MethodGet, Path: "/api/offers",
		Summary: "What is offered, beside what is looked for, held, and was paid before",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]wanted.Offer], error) {
		return httpx.Answer(actions.Wanted.Offers(ctx, actor))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "read-offer", Metadata: httpx.AsksOnly(), Method: http.MethodPost, Path: "/api/offers/read",
		Summary: "What an offer amounts to; nothing is kept", Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body wanted.OfferInput }) (
		*httpx.Output[wanted.Weighed], error) {
		return httpx.Answer(actions.Wanted.ReadOffer(ctx, actor, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-offer", Method: http.MethodPost, Path: "/api/offers", Summary: "Keep an offer",
		DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body wanted.OfferInput }) (
		*httpx.Output[wanted.Offer], error) {
		return httpx.Answer(actions.Wanted.AddOffer(ctx, actor, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-offer", Method: http.MethodPut, Path: "/api/offers/{id}", Summary: "Rewrite an offer",
		Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedOffer
	}) (*httpx.Output[wanted.Offer], error) {
		return httpx.Answer(actions.Wanted.ChangeOffer(ctx, actor, in.ID, in.Body.Version, in.Body.OfferInput))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "take-offer", Method: http.MethodPost, Path: "/api/offers/{id}/lot",
		Summary: "Make a lot of an offer, and end the search for what is in it", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body BoughtOffer
	}) (*httpx.Output[wanted.Offer], error) {
		return httpx.Answer(actions.Wanted.TakeOffer(ctx, actor, in.ID, in.Body.Version, in.Body.TakenOffer))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-offer", Method: http.MethodPost, Path: "/api/offers/{id}/void",
		Summary: "Strike out what was entered by mistake", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Wanted.VoidOffer(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
}
