package setup

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/setup"
	"frugalheron/web/httpx"
)

// ChangedBackplane is how slots stand, and the version that it started from; 0 for the first.
type ChangedBackplane struct {
	Version int `json:"version" minimum:"0" doc:"Version that the change started from; 0 for the first"`
	setup.BackplaneInput
}

func registerSlots(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-slot-plan", Method: http.MethodGet, Path: "/api/machines/{id}/slot-plan",
		Summary: "What sits in which slot of a machine, and whether that goes together", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[setup.SlotPlan], error) {
		return httpx.Answer(actions.Setup.SlotPlan(ctx, actor, in.ID, setup.ThoughtMoves{}))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "think-slot-plan", Method: http.MethodPost, Path: "/api/machines/{id}/slot-plan/read",
		Metadata: httpx.AsksOnly(), Summary: "The same, with cards that are thought elsewhere",
		Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body setup.ThoughtMoves
	}) (*httpx.Output[setup.SlotPlan], error) {
		return httpx.Answer(actions.Setup.SlotPlan(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "lay-out-slots", Method: http.MethodPut, Path: "/api/machines/{id}/backplane",
		Summary: "Write down how the slots of a machine stand", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedBackplane
	}) (*httpx.Output[setup.Backplane], error) {
		return httpx.Answer(actions.Setup.ChangeBackplane(ctx, actor, in.ID, in.Body.Version, in.Body.BackplaneInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "move-cards", Method: http.MethodPost, Path: "/api/machines/{id}/slot-plan/moved",
		Summary: "Say that cards sit elsewhere in a machine, and how it is set up now", Errors: httpx.ErrorsOfChange,
		MaxBodyBytes: mostConfiguration,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body setup.MovedCards
	}) (*httpx.Output[httpx.Done], error) {
		return httpx.Answer(httpx.Done{}, actions.Setup.Moved(ctx, actor, in.ID, in.Body))
	})
}
