package arrivals

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	"frugalheron/app/bench"
	"frugalheron/app/inventory"
	"frugalheron/web/httpx"
	webinventory "frugalheron/web/inventory"
)

// Received is an arrival with its things, as it is entered.
type Received struct {
	arrivals.AcquisitionInput
	Things []arrivals.LotItemInput `json:"things" maxItems:"500" required:"false" nullable:"false"`
}

// ByThing addresses a thing of a lot.
type ByThing struct {
	httpx.ByID
	Thing int64 `path:"thing" minimum:"1"`
}

// Voided is a lot after a thing was taken out, and the event that can be undone.
type Voided struct {
	Lot   arrivals.Lot `json:"lot"`
	Event int64        `json:"event" doc:"The event of the history, by which the action can be undone"`
}

// ChangedLot is what is said of an arrival, and the version that it started from.
type ChangedLot struct {
	httpx.Versioned
	arrivals.AcquisitionInput
}

// ChangedThing is what is said of a thing of a lot, and the version of the lot that it started from.
type ChangedThing struct {
	httpx.Versioned
	arrivals.LotItemInput
}

func registerArrivals(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-lots", Method: http.MethodGet, Path: "/api/lots", Summary: "Arrivals, the newest first",
		Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Words string `query:"words" maxLength:"200"`
		Skip  int    `query:"skip" minimum:"0" maximum:"1000000" doc:"What next was in the page before"`
		Limit int    `query:"limit" minimum:"1" maximum:"200" default:"50"`
	}) (*httpx.Output[arrivals.LotPage], error) {
		return httpx.Answer(actions.Arrivals.Lots(ctx, actor, in.Words, in.Skip, in.Limit))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "receive-lot", Method: http.MethodPost, Path: "/api/lots", Summary: "Receive a lot",
		DefaultStatus: http.StatusCreated, Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body Received }) (*httpx.Output[arrivals.Lot], error) {
		return httpx.Answer(actions.Arrivals.Receive(ctx, actor, in.Body.AcquisitionInput, in.Body.Things))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-lot", Method: http.MethodGet, Path: "/api/lots/{id}",
		Summary: "An arrival with its things, what each cost, and whether it was worth it", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[arrivals.Lot], error) {
		return httpx.Answer(actions.Arrivals.Lot(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "change-lot", Method: http.MethodPut, Path: "/api/lots/{id}",
		Summary: "Change what is said of an arrival", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedLot
	}) (*httpx.Output[arrivals.Lot], error) {
		return httpx.Answer(actions.Arrivals.ChangeAcquisition(ctx, actor, in.ID, in.Body.Version,
			in.Body.AcquisitionInput))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "add-lot-item", Method: http.MethodPost, Path: "/api/lots/{id}/things",
		Summary: "Add a thing to a lot", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedThing
	}) (*httpx.Output[arrivals.Lot], error) {
		return httpx.Answer(actions.Arrivals.AddLotItem(ctx, actor, in.ID, in.Body.Version, in.Body.LotItemInput))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "change-lot-item", Method: http.MethodPut, Path: "/api/lots/{id}/things/{thing}",
		Summary: "Change what is said of a thing of a lot", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByThing
		Body ChangedThing
	}) (*httpx.Output[arrivals.Lot], error) {
		return httpx.Answer(actions.Arrivals.ChangeLotItem(ctx, actor, in.ID, in.Body.Version, in.Thing,
			in.Body.LotItemInput))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "void-lot-item", Method: http.MethodPost, Path: "/api/lots/{id}/things/{thing}/void",
		Summary: "Take a thing out of a lot, entered by mistake", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByThing
		Body httpx.Versioned
	}) (*httpx.Output[Voided], error) {
		after, event, err := actions.Arrivals.VoidLotItem(ctx, actor, in.ID, in.Body.Version, in.Thing)
		return httpx.Answer(Voided{after, event}, err)
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "item-becomes-machine", Method: http.MethodPost, Path: "/api/lots/{id}/things/{thing}/machine",
		Summary:       "Enter a thing of a lot as a machine",
		DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByThing
		Body struct {
			httpx.Versioned
			inventory.MachineInput
		}
	}) (*httpx.Output[inventory.Machine], error) {
		return httpx.Answer(actions.Arrivals.ItemBecomesMachine(ctx, actor, in.ID, in.Body.Version, in.Thing,
			in.Body.MachineInput))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "item-is-machine", Method: http.MethodPut, Path: "/api/lots/{id}/things/{thing}/machine",
		Summary: "Say that a thing of a lot is a machine that is in the collection already",
		Errors:  httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByThing
		Body struct {
			httpx.Versioned
			MachineID int64 `json:"machineId" minimum:"0" doc:"0 to say that it is none"`
		}
	}) (*httpx.Output[arrivals.Lot], error) {
		return httpx.Answer(actions.Arrivals.ItemIsMachine(ctx, actor, in.ID, in.Body.Version, in.Thing,
			in.Body.MachineID))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "item-goes-to-store", Method: http.MethodPost, Path: "/api/lots/{id}/things/{thing}/assembly",
		Summary:       "Take a thing of a lot into store",
		DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByThing
		Body struct {
			httpx.Versioned
			webinventory.LooseInput
		}
	}) (*httpx.Output[inventory.Assembly], error) {
		return httpx.Answer(actions.Arrivals.ItemBecomesAssembly(ctx, actor, in.ID, in.Body.Version, in.Thing,
			in.Body.Place, in.Body.AssemblyInput))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-assembly-arrival", Method: http.MethodGet, Path: "/api/assemblies/{id}/arrival",
		Summary: "The lot that a board or other unit came with, if it came by itself", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[bench.Arrival], error) {
		return httpx.Answer(actions.Bench.AssemblyArrival(ctx, actor, in.ID))
	})
}
