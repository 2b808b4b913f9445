// Package power has the operations about applying power to machines.
package power

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/power"
	"frugalheron/core/ladder"
	"frugalheron/web/httpx"
)

// ChangedSupply is what is said of a supply, and the version that it started from.
type ChangedSupply struct {
	httpx.Versioned
	power.SupplyInput
}

// ChangedRung is a rung, and the version that it started from.
type ChangedRung struct {
	httpx.Versioned
	ladder.Rung
}

// SaidPart is what is said of a cell or a fan, and the version that it started from; 0 while nothing was said.
type SaidPart struct {
	Version int `json:"version" minimum:"0"`
	power.PartInput
}

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-power", Method: http.MethodGet, Path: "/api/machines/{id}/power",
		Summary: "What is missing before power may be thought of, what feeds the machine, and its ladder",
		Errors:  httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[power.Power], error) {
		return httpx.Answer(actions.Power.Power(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "say-part-before-power", Method: http.MethodPut, Path: "/api/assemblies/{id}/power-parts",
		Summary: "Say of a cell or a fan what matters before power", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body SaidPart
	}) (*httpx.Output[power.Power], error) {
		return httpx.Answer(actions.Power.SayPart(ctx, actor, in.ID, in.Body.Version, in.Body.PartInput))
	})
	registerSupplies(api, actions)
	registerLadder(api, actions)
}

func registerSupplies(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-supply", Method: http.MethodPost, Path: "/api/machines/{id}/supplies",
		Summary: "Say what feeds a machine", DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body power.SupplyInput
	}) (*httpx.Output[power.Supply], error) {
		return httpx.Answer(actions.Power.AddSupply(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-supply", Method: http.MethodPut, Path: "/api/supplies/{id}",
		Summary: "Say anew what feeds a machine", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedSupply
	}) (*httpx.Output[power.Supply], error) {
		return httpx.Answer(actions.Power.ChangeSupply(ctx, actor, in.ID, in.Body.Version, in.Body.SupplyInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-supply", Method: http.MethodPost, Path: "/api/supplies/{id}/void",
		Summary: "Strike out a supply that does not feed the machine", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Power.VoidSupply(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
}

func registerLadder(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "build-ladder", Method: http.MethodPost, Path: "/api/machines/{id}/ladder",
		Summary: "Put the rungs on the ladder that are worked out from what is fitted", DefaultStatus: http.StatusCreated,
		Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[power.Power], error) {
		return httpx.Answer(actions.Power.BuildLadder(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-rung", Method: http.MethodPost, Path: "/api/machines/{id}/rungs",
		Summary: "Put a rung on top of the ladder", DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ladder.Rung
	}) (*httpx.Output[power.RungView], error) {
		return httpx.Answer(actions.Power.AddRung(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-rung", Method: http.MethodPut, Path: "/api/rungs/{id}",
		Summary: "Rewrite a rung", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedRung
	}) (*httpx.Output[power.RungView], error) {
		return httpx.Answer(actions.Power.ChangeRung(ctx, actor, in.ID, in.Body.Version, in.Body.Rung))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-rung", Method: http.MethodPost, Path: "/api/rungs/{id}/void",
		Summary: "Take a rung off the ladder", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Power.VoidRung(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "power-up", Method: http.MethodPost, Path: "/api/machines/{id}/power-ups",
		Summary: "Keep that power was applied, and what was seen", DefaultStatus: http.StatusCreated,
		Errors:      httpx.ErrorsOfCreate,
		Description: "What was done is kept whatever the gate says; while that stands at hold or supply-only, with who decided and why.",
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body power.UpInput
	}) (*httpx.Output[power.Upped], error) {
		return httpx.Answer(actions.Power.PowerUp(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-power-up", Method: http.MethodPost, Path: "/api/power-ups/{id}/void",
		Summary: "Strike out a power-up that was entered by mistake", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Power.VoidPowerUp(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
}
