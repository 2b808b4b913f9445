package teardown

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/teardown"
	"frugalheron/core/wiring"
	"frugalheron/web/httpx"
)

// ChangedConnector is what the map says of a connector, and the version that it started from.
type ChangedConnector struct {
	httpx.Versioned
	wiring.Connector
}

// ChangedStep is a step, and the version that it started from.
type ChangedStep struct {
	httpx.Versioned
	teardown.StepInput
}

// ReversedStep is how a step was put back, and the version that it started from.
type ReversedStep struct {
	httpx.Versioned
	teardown.Reversed
}

// PluggedConnector says whether a connector is open.
type PluggedConnector struct {
	httpx.Versioned
	Open bool `json:"open"`
}

// NewProcedure is what a log becomes the procedure as.
type NewProcedure struct {
	Title    string `json:"title" says:"text" maxLength:"200" doc:"How far it goes, as Down to the main board"`
	Warnings string `json:"warnings" says:"text" maxLength:"4000" required:"false"`
}

// ChangedProcedure is a procedure, and the version that it started from.
type ChangedProcedure struct {
	httpx.Versioned
	teardown.ProcedureInput
}

func registerOpenUp(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-opened-up", Method: http.MethodGet, Path: "/api/machines/{id}/opened-up",
		Summary: "How a machine is taken apart: the open log, earlier ones, procedures of its model",
		Errors:  httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[teardown.OpenedUp], error) {
		return httpx.Answer(actions.Teardown.OpenedUp(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "start-teardown", Method: http.MethodPost, Path: "/api/machines/{id}/teardowns",
		Summary: "Begin a log of taking a machine apart", DefaultStatus: http.StatusCreated,
		Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body teardown.StartedTeardown
	}) (*httpx.Output[teardown.TeardownView], error) {
		return httpx.Answer(actions.Teardown.StartTeardown(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-teardown", Method: http.MethodGet, Path: "/api/teardowns/{id}",
		Summary: "A log of taking a machine apart", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[teardown.TeardownView], error) {
		return httpx.Answer(actions.Teardown.Teardown(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-step", Method: http.MethodPost, Path: "/api/teardowns/{id}/steps",
		Summary: "Write down what came off", DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body teardown.StepInput
	}) (*httpx.Output[teardown.TeardownView], error) {
		return httpx.Answer(actions.Teardown.AddStep(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "read-step", Metadata: httpx.AsksOnly(), Method: http.MethodPost, Path: "/api/teardowns/{id}/read",
		Summary: "Read a step that is being written: what to take care of before it comes off; nothing is kept",
		Errors:  httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body teardown.StepInput
	}) (*httpx.Output[teardown.ReadStep], error) {
		return httpx.Answer(actions.Teardown.ReadStep(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-step", Method: http.MethodPut, Path: "/api/teardown-steps/{id}",
		Summary: "Rewrite what came off", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedStep
	}) (*httpx.Output[teardown.TeardownView], error) {
		return httpx.Answer(actions.Teardown.ChangeStep(ctx, actor, in.ID, in.Body.Version, in.Body.StepInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-step", Method: http.MethodPost, Path: "/api/teardown-steps/{id}/void",
		Summary: "Strike out a step entered by mistake", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Teardown.VoidStep(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "reverse-step", Method: http.MethodPost, Path: "/api/teardown-steps/{id}/reversal",
		Summary: "Say that what came off is back, or stays off", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ReversedStep
	}) (*httpx.Output[teardown.TeardownView], error) {
		return httpx.Answer(actions.Teardown.ReverseStep(ctx, actor, in.ID, in.Body.Version, in.Body.Reversed))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "end-teardown", Method: http.MethodPost, Path: "/api/teardowns/{id}/end",
		Summary: "Call a machine closed; refused while anything is missing", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[teardown.TeardownView], error) {
		return httpx.Answer(actions.Teardown.EndTeardown(ctx, actor, in.ID))
	})
	registerWiring(api, actions)
	registerProcedures(api, actions)
}

func registerWiring(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-wiring", Method: http.MethodGet, Path: "/api/machines/{id}/wiring",
		Summary: "The connector map of a machine, and what may be mistaken", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[teardown.Wiring], error) {
		return httpx.Answer(actions.Teardown.Wiring(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "find-way", Method: http.MethodGet, Path: "/api/machines/{id}/way",
		Summary: "How one gets at a part, by each procedure of the model and each log", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		To string `query:"to" required:"true" minLength:"1" maxLength:"100"`
	}) (*httpx.Output[[]teardown.WayView], error) {
		return httpx.Answer(actions.Teardown.WaysTo(ctx, actor, in.ID, in.To))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-known-sockets", Method: http.MethodGet, Path: "/api/machines/{id}/known-sockets",
		Summary: "Sockets that the library knows on the boards of a machine", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[[]teardown.KnownSocket], error) {
		return httpx.Answer(actions.Teardown.KnownSockets(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "map-connector", Method: http.MethodPost, Path: "/api/machines/{id}/wiring",
		Summary: "Put a connector on the map", DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body wiring.Connector
	}) (*httpx.Output[teardown.Wiring], error) {
		return httpx.Answer(actions.Teardown.MapConnector(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-connector", Method: http.MethodPut, Path: "/api/connectors/{id}",
		Summary: "Rewrite what the map says of a connector", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedConnector
	}) (*httpx.Output[teardown.Wiring], error) {
		return httpx.Answer(actions.Teardown.ChangeConnector(ctx, actor, in.ID, in.Body.Version, in.Body.Connector))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "plug-connector", Method: http.MethodPost, Path: "/api/connectors/{id}/open",
		Summary: "Say that a plug was pulled, or went back in", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body PluggedConnector
	}) (*httpx.Output[teardown.Wiring], error) {
		return httpx.Answer(actions.Teardown.PlugConnector(ctx, actor, in.ID, in.Body.Version, in.Body.Open))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-connector", Method: http.MethodPost, Path: "/api/connectors/{id}/void",
		Summary: "Take a connector off the map that was entered by mistake", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Teardown.VoidConnector(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-wiring-drawing", Method: http.MethodGet, Path: "/api/machines/{id}/wiring.svg",
		Summary: "The sockets of a board as SVG", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Board string `query:"board" maxLength:"200" doc:"What carries the sockets, as the map calls it"`
	}) (*httpx.File, error) {
		return httpx.MadeFile(actions.Teardown.WiringDrawing(ctx, actor, in.ID, in.Board))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-wiring-list", Method: http.MethodGet, Path: "/api/machines/{id}/wiring.csv",
		Summary: "The connector map as a wiring list in CSV", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.File, error) {
		return httpx.MadeFile(actions.Teardown.WiringList(ctx, actor, in.ID))
	})
}

func registerProcedures(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-procedures", Method: http.MethodGet, Path: "/api/procedures",
		Summary: "How models are taken apart", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]teardown.Procedure], error) {
		return httpx.Answer(actions.Teardown.Procedures(ctx, actor))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-procedure", Method: http.MethodGet, Path: "/api/procedures/{id}",
		Summary: "How a model is taken apart, and what is not made the same on all machines of it",
		Errors:  httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[teardown.ProcedureView], error) {
		return httpx.Answer(actions.Teardown.Procedure(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "make-procedure", Method: http.MethodPost, Path: "/api/teardowns/{id}/procedure",
		Summary: "Make a log the procedure of the machine's model", DefaultStatus: http.StatusCreated,
		Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body NewProcedure
	}) (*httpx.Output[teardown.Procedure], error) {
		return httpx.Answer(actions.Teardown.MakeProcedure(ctx, actor, in.ID, in.Body.Title, in.Body.Warnings))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-procedure", Method: http.MethodPut, Path: "/api/procedures/{id}",
		Summary: "Rewrite a procedure", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedProcedure
	}) (*httpx.Output[teardown.Procedure], error) {
		return httpx.Answer(actions.Teardown.ChangeProcedure(ctx, actor, in.ID, in.Body.Version,
			in.Body.ProcedureInput))
	})
}
