package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/teardown"
	"frugalheron/core/wiring"
	storeteardown "frugalheron/store/teardown"
)

// ByVersion addresses a record as it was read.
type ByVersion struct {
	ByID
	Version int `query:"version" minimum:"1" required:"true"`
}

// ChangedConnector is what the map says of a connector, and the version that it started from.
type ChangedConnector struct {
	Versioned
	wiring.Connector
}

// ChangedStep is a step, and the version that it started from.
type ChangedStep struct {
	Versioned
	teardown.WrittenStep
}

// ReversedStep is how a step was put back, and the version that it started from.
type ReversedStep struct {
	Versioned
	teardown.Reversed
}

// PluggedConnector says whether a connector is open.
type PluggedConnector struct {
	Versioned
	Open bool `json:"open"`
}

// NewProcedure is what a log becomes the procedure as.
type NewProcedure struct {
	Title    string `json:"title" says:"text" maxLength:"200" doc:"How far it goes, as Down to the main board"`
	Warnings string `json:"warnings" says:"text" maxLength:"4000" required:"false"`
}

// ChangedProcedure is a procedure, and the version that it started from.
type ChangedProcedure struct {
	Versioned
	storeteardown.ProcedureFields
}

func registerOpenUp(api *API, deeds *app.App) {
	register(api, action.MayLook, huma.Operation{
		OperationID: "get-opened-up", Method: http.MethodGet, Path: "/api/machines/{id}/opened-up", Summary: "How a machine is taken apart: the open log, earlier ones, procedures of its model", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[teardown.OpenedUp], error) {
		return answer(deeds.Teardown.OpenedUp(ctx, actor, in.ID))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "start-teardown", Method: http.MethodPost, Path: "/api/machines/{id}/teardowns", Summary: "Begin a log of taking a machine apart", DefaultStatus: http.StatusCreated, Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body teardown.StartedTeardown
	}) (*output[teardown.ToldTeardown], error) {
		return answer(deeds.Teardown.StartTeardown(ctx, actor, in.ID, in.Body))
	})
	register(api, action.MayLook, huma.Operation{
		OperationID: "get-teardown", Method: http.MethodGet, Path: "/api/teardowns/{id}", Summary: "A log of taking a machine apart", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[teardown.ToldTeardown], error) {
		return answer(deeds.Teardown.Teardown(ctx, actor, in.ID))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-step", Method: http.MethodPost, Path: "/api/teardowns/{id}/steps", Summary: "Write down what came off", DefaultStatus: http.StatusCreated, Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body teardown.WrittenStep
	}) (*output[teardown.ToldTeardown], error) {
		return answer(deeds.Teardown.AddStep(ctx, actor, in.ID, in.Body))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "read-step", Metadata: asksOnly(), Method: http.MethodPost, Path: "/api/teardowns/{id}/read", Summary: "Read a step that is being written: what to take care of before it comes off; nothing is kept", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body teardown.WrittenStep
	}) (*output[teardown.ReadStep], error) {
		return answer(deeds.Teardown.ReadStep(ctx, actor, in.ID, in.Body))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-step", Method: http.MethodPut, Path: "/api/teardown-steps/{id}", Summary: "Rewrite what came off", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body ChangedStep
	}) (*output[teardown.ToldTeardown], error) {
		return answer(deeds.Teardown.ChangeStep(ctx, actor, in.ID, in.Body.Version, in.Body.WrittenStep))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "strike-step", Method: http.MethodPost, Path: "/api/teardown-steps/{id}/strike", Summary: "Strike out a step entered by mistake", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *ByVersion) (*output[Done], error) {
		event, err := deeds.Teardown.StrikeStep(ctx, actor, in.ID, in.Version)
		return answer(Done{event}, err)
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "reverse-step", Method: http.MethodPost, Path: "/api/teardown-steps/{id}/reversal", Summary: "Say that what came off is back, or stays off", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body ReversedStep
	}) (*output[teardown.ToldTeardown], error) {
		return answer(deeds.Teardown.ReverseStep(ctx, actor, in.ID, in.Body.Version, in.Body.Reversed))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "end-teardown", Method: http.MethodPost, Path: "/api/teardowns/{id}/end", Summary: "Call a machine closed; refused while anything is missing", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[teardown.ToldTeardown], error) {
		return answer(deeds.Teardown.EndTeardown(ctx, actor, in.ID))
	})
	registerWiring(api, deeds)
	registerProcedures(api, deeds)
}

func registerWiring(api *API, deeds *app.App) {
	register(api, action.MayLook, huma.Operation{
		OperationID: "get-wiring", Method: http.MethodGet, Path: "/api/machines/{id}/wiring", Summary: "The connector map of a machine, and what may be mistaken", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[teardown.Wiring], error) {
		return answer(deeds.Teardown.Wiring(ctx, actor, in.ID))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "map-connector", Method: http.MethodPost, Path: "/api/machines/{id}/wiring", Summary: "Put a connector on the map", DefaultStatus: http.StatusCreated, Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body wiring.Connector
	}) (*output[teardown.Wiring], error) {
		return answer(deeds.Teardown.MapConnector(ctx, actor, in.ID, in.Body))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-connector", Method: http.MethodPut, Path: "/api/connectors/{id}", Summary: "Rewrite what the map says of a connector", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body ChangedConnector
	}) (*output[teardown.Wiring], error) {
		return answer(deeds.Teardown.ChangeConnector(ctx, actor, in.ID, in.Body.Version, in.Body.Connector))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "plug-connector", Method: http.MethodPost, Path: "/api/connectors/{id}/open", Summary: "Say that a plug was pulled, or went back in", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body PluggedConnector
	}) (*output[teardown.Wiring], error) {
		return answer(deeds.Teardown.PlugConnector(ctx, actor, in.ID, in.Body.Version, in.Body.Open))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "strike-connector", Method: http.MethodPost, Path: "/api/connectors/{id}/strike", Summary: "Take a connector off the map that was entered by mistake", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *ByVersion) (*output[Done], error) {
		event, err := deeds.Teardown.StrikeConnector(ctx, actor, in.ID, in.Version)
		return answer(Done{event}, err)
	})
	register(api, action.MayLook, huma.Operation{
		OperationID: "get-wiring-drawing", Method: http.MethodGet, Path: "/api/machines/{id}/wiring.svg", Summary: "The sockets of a board as SVG", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Board string `query:"board" maxLength:"200" doc:"What carries the sockets, as the map calls it"`
	}) (*file, error) {
		return madeFile(deeds.Teardown.WiringDrawing(ctx, actor, in.ID, in.Board))
	})
	register(api, action.MayLook, huma.Operation{
		OperationID: "get-wiring-list", Method: http.MethodGet, Path: "/api/machines/{id}/wiring.csv", Summary: "The connector map as a wiring list in CSV", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*file, error) {
		return madeFile(deeds.Teardown.WiringList(ctx, actor, in.ID))
	})
}

func registerProcedures(api *API, deeds *app.App) {
	register(api, action.MayLook, huma.Operation{
		OperationID: "list-procedures", Method: http.MethodGet, Path: "/api/procedures", Summary: "How models are taken apart", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*output[[]storeteardown.Procedure], error) {
		return answer(deeds.Teardown.Procedures(ctx, actor))
	})
	register(api, action.MayLook, huma.Operation{
		OperationID: "get-procedure", Method: http.MethodGet, Path: "/api/procedures/{id}", Summary: "How a model is taken apart, and what is not made the same on all machines of it", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[teardown.ToldProcedure], error) {
		return answer(deeds.Teardown.Procedure(ctx, actor, in.ID))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "make-procedure", Method: http.MethodPost, Path: "/api/teardowns/{id}/procedure", Summary: "Make a log the procedure of the machine's model", DefaultStatus: http.StatusCreated, Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body NewProcedure
	}) (*output[storeteardown.Procedure], error) {
		return answer(deeds.Teardown.MakeProcedure(ctx, actor, in.ID, in.Body.Title, in.Body.Warnings))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-procedure", Method: http.MethodPut, Path: "/api/procedures/{id}", Summary: "Rewrite a procedure", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body ChangedProcedure
	}) (*output[storeteardown.Procedure], error) {
		return answer(deeds.Teardown.ChangeProcedure(ctx, actor, in.ID, in.Body.Version, in.Body.ProcedureFields))
	})
}
